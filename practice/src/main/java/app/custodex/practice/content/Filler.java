package app.custodex.practice.content;

import app.custodex.link.Family;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.HashSet;
import java.util.Random;
import java.util.Set;

/** Fills a phone up to a number of files and bytes, for load: blobs of every size, most of them small. */
public final class Filler {
    private static final int FILES_PER_FOLDER = 500;

    private Filler() {}

    public static void write(Path files, Family family, int count, long bytes, long seed) throws IOException {
        var random = new Random(seed * 104_729 + family.ordinal());
        var root = files.resolve(family == Family.OSTREL ? "apps/blobs" : "Shared/Blobs");
        var weights = new double[count];
        double sum = 0;
        for (int i = 0; i < count; i++) {
            weights[i] = Math.exp(random.nextGaussian() * 1.2);
            sum += weights[i];
        }
        Set<Path> made = new HashSet<>();
        var buffer = new byte[1 << 16];
        for (int i = 0; i < count; i++) {
            var folder = root.resolve("%04d".formatted(i / FILES_PER_FOLDER));
            if (made.add(folder)) {
                Files.createDirectories(folder);
            }
            var file = folder.resolve("blob-%06d.dat".formatted(i));
            try (var out = Files.newOutputStream(file)) {
                fill(out, (long) (bytes * weights[i] / sum), random, buffer);
            }
            Files.setLastModifiedTime(file, FileTime.from(Instant.ofEpochSecond(1_700_000_000L + i)));
        }
    }

    private static void fill(OutputStream out, long size, Random random, byte[] buffer) throws IOException {
        for (long left = size; left > 0; ) {
            random.nextBytes(buffer);
            int n = (int) Math.min(left, buffer.length);
            out.write(buffer, 0, n);
            left -= n;
        }
    }
}
