package app.custodex.practice.content;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.LocalDateTime;
import java.time.ZoneOffset;

/** Copies drawn and synthesised sound, film and pictures (see media/make.sh) onto a phone. */
final class Clips {
    private Clips() {}

    static void put(String clip, Path target, LocalDateTime modified) throws IOException {
        Files.createDirectories(target.getParent());
        try (InputStream in = Clips.class.getResourceAsStream("/app/custodex/practice/media/" + clip)) {
            if (in == null) {
                throw new IOException("missing from the program: " + clip);
            }
            Files.copy(in, target, StandardCopyOption.REPLACE_EXISTING);
        }
        stamp(target, modified);
    }

    static void text(String text, Path target, LocalDateTime modified) throws IOException {
        Files.createDirectories(target.getParent());
        Files.writeString(target, text);
        stamp(target, modified);
    }

    static void stamp(Path file, LocalDateTime modified) throws IOException {
        Files.setLastModifiedTime(file, FileTime.from(modified.toInstant(ZoneOffset.ofHours(1))));
    }
}
