package app.custodex.practice.content;

import app.custodex.base.Digests;
import app.custodex.base.Json;
import app.custodex.link.CrateLabel;
import app.custodex.link.KindCount;
import app.custodex.link.PhoneIdentity;
import app.custodex.seal.AgeWriter;
import app.custodex.seal.Passphrase;
import app.custodex.seal.StackKey;
import java.io.BufferedOutputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.Channels;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.zip.CRC32;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.GZIPOutputStream;

/** Writes crates as a maker's own program leaves them on a computer: label, body, and under a passphrase the key to the body. */
public final class CrateWriter {
    private static final String HEAD = "CRATE 1\n";
    private static final String END = "ENDCRATE";

    private final DataOutputStream out;
    private final ByteArrayOutputStream index = new ByteArrayOutputStream();
    private long bytes;

    private CrateWriter(OutputStream out) {
        this.out = new DataOutputStream(new BufferedOutputStream(out, 1 << 16));
    }

    /**
     * @param files a phone's files, where they lie on the phone
     * @param crate a folder that is not there yet
     */
    public static void write(
            Path files,
            PhoneIdentity phone,
            List<KindCount> contents,
            Instant made,
            Optional<String> passphrase,
            Path crate)
            throws IOException {
        Files.createDirectories(crate);
        long bytes = passphrase.isEmpty()
                ? plain(files, crate.resolve(CrateLabel.BODY))
                : sealed(files, passphrase.get(), crate);
        var label = new CrateLabel(
                CrateLabel.FORM,
                made,
                phone.family(),
                phone.identifier(),
                phone.name(),
                phone.model(),
                phone.serial(),
                phone.imei(),
                phone.system(),
                phone.region(),
                phone.timeZone(),
                bytes,
                passphrase.isPresent(),
                contents);
        Json.PAGE.writeValue(crate.resolve(CrateLabel.FILE).toFile(), label);
    }

    private static long plain(Path files, Path body) throws IOException {
        try (var stream = Files.newOutputStream(body)) {
            return new CrateWriter(stream).body(files);
        }
    }

    private static long sealed(Path files, String passphrase, Path crate) throws IOException {
        var key = StackKey.generate();
        try (var secret = new Passphrase(passphrase.toCharArray())) {
            Files.write(crate.resolve(CrateLabel.KEY), key.sealed(secret));
        }
        try (var stream = Files.newOutputStream(crate.resolve(CrateLabel.SEALED_BODY));
                var channel = Channels.newChannel(stream)) {
            var age = key.writer(channel::write);
            long bytes = new CrateWriter(new Sealing(age)).body(files);
            age.finish();
            return bytes;
        }
    }

    private static final class Sealing extends OutputStream {
        private final AgeWriter age;

        Sealing(AgeWriter age) {
            this.age = age;
        }

        @Override
        public void write(int b) throws IOException {
            write(new byte[] {(byte) b}, 0, 1);
        }

        @Override
        public void write(byte[] from, int offset, int length) throws IOException {
            age.write(from, offset, length);
        }
    }

    private long body(Path root) throws IOException {
        out.writeBytes(HEAD);
        List<Path> files;
        try (var walk = Files.walk(root)) {
            files = walk.filter(Files::isRegularFile).sorted().toList();
        }
        for (var file : files) {
            file(root, file);
        }
        var packed = new ByteArrayOutputStream();
        try (var gzip = new GZIPOutputStream(packed)) {
            index.writeTo(gzip);
        }
        // Its counter stops at 2 GB, which no practice phone fills.
        long from = out.size();
        out.write(packed.toByteArray());
        out.writeLong(from);
        out.writeLong(packed.size());
        out.write(Digests.sha512().digest(packed.toByteArray()));
        out.writeBytes(END);
        out.flush();
        return bytes;
    }

    private void file(Path root, Path file) throws IOException {
        var content = Files.readAllBytes(file);
        var crc = new CRC32();
        crc.update(content);
        long from = out.size();
        var packer = new Deflater(Deflater.BEST_SPEED, true);
        var packing = new DeflaterOutputStream(out, packer, 1 << 14);
        packing.write(content);
        packing.finish();
        packer.end();
        var line = new LinkedHashMap<String, Object>();
        line.put(
                "path",
                root.relativize(file).toString().replace(file.getFileSystem().getSeparator(), "/"));
        line.put("size", content.length);
        line.put("from", from);
        line.put("packed", out.size() - from);
        line.put("modified", Files.getLastModifiedTime(file).toInstant());
        line.put("crc", crc.getValue());
        index.writeBytes((Json.LINE.writeValueAsString(line) + "\n").getBytes(StandardCharsets.UTF_8));
        bytes += content.length;
    }
}
