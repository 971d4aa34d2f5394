package app.custodex.base;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.text.Normalizer;
import java.util.Locale;
import java.util.Set;

/** Makes file names that every desktop system accepts out of whatever a phone or a person wrote. */
public final class SafeNames {
    /** ext4 and others allow 255 bytes; this leaves room for a number and an ending. */
    private static final int MAX_BYTES = 180;

    private static final int LONGEST_ENDING = 10;

    // Reserved on Windows whatever the ending: "Naming Files, Paths, and Namespaces", Microsoft Learn (from memory).
    private static final Set<String> RESERVED = Set.of(
            "CON", "PRN", "AUX", "NUL", "COM1", "COM2", "COM3", "COM4", "COM5", "COM6", "COM7", "COM8", "COM9", "LPT1",
            "LPT2", "LPT3", "LPT4", "LPT5", "LPT6", "LPT7", "LPT8", "LPT9");

    private SafeNames() {}

    /** One file name without an ending: no separators, no control characters, no leading dot, never empty. */
    public static String of(String wish, String whenEmpty) {
        var name = Normalizer.normalize(wish, Normalizer.Form.NFC)
                .replaceAll("[\\p{Cc}\\p{Cf}\\p{Cs}\\p{Co}\\p{Zl}\\p{Zp}/\\\\:*?\"<>|]+", " ")
                .replaceAll("\\s+", " ")
                .replaceAll("^[ .]+|[ .]+$", "");
        name = cut(name).replaceAll("[ .]+$", "");
        if (name.isEmpty()) {
            name = whenEmpty;
        }
        var stem = name.contains(".") ? name.substring(0, name.indexOf('.')) : name;
        return RESERVED.contains(stem.toUpperCase(Locale.ROOT)) ? "_" + name : name;
    }

    private static String cut(String name) {
        var kept = new StringBuilder();
        int bytes = 0;
        for (int i = 0; i < name.length(); ) {
            int c = name.codePointAt(i);
            var text = Character.toString(c);
            bytes += text.getBytes(StandardCharsets.UTF_8).length;
            if (bytes > MAX_BYTES) {
                break;
            }
            kept.append(text);
            i += Character.charCount(c);
        }
        return kept.toString();
    }

    /** A file name in its parts, both safe; the ending with its dot. */
    public record Split(String stem, String ending) {}

    /** What stands before the last dot, and the ending from there on; what is too long is no ending. */
    public static Split split(String name) {
        int dot = name.lastIndexOf('.');
        return dot > 0 && name.length() - dot <= LONGEST_ENDING
                ? new Split(of(name.substring(0, dot), "Unnamed"), "." + of(name.substring(dot + 1), "file"))
                : new Split(of(name, "Unnamed"), "");
    }

    /**
     * Gives a file that is complete its own name, or the next one that is free when another program takes it meanwhile.
     *
     * @return where it is now
     */
    public static Path moveToFree(Path part, Path folder, String stem, String ending) throws IOException {
        while (true) {
            try {
                return Files.move(part, free(folder, stem, ending));
            } catch (FileAlreadyExistsException takenMeanwhile) {
                // Another program was faster; the next number will do.
            }
        }
    }

    /** The first of "name.end", "name (2).end", … that is not there yet in the folder. */
    public static Path free(Path folder, String stem, String ending) {
        var path = folder.resolve(stem + ending);
        for (int n = 2; Files.exists(path, LinkOption.NOFOLLOW_LINKS); n++) {
            path = folder.resolve(stem + " (" + n + ")" + ending);
        }
        return path;
    }
}
