package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Pattern;

/**
 * A second copy of every small file without which a stack's layers can't be opened: its inventory, the record and the list of items
 * of each layer, and of a sealed stack its key and labels. Beside them lie their digests, in the form that {@code sha512sum -c}
 * reads. What is sealed is sealed here, too.
 */
final class SecondCopies {
    static final String FOLDER = "copies";
    static final String SUMS = "sums.sha512";
    private static final Pattern LINE = Pattern.compile("([0-9a-f]{128})  ([\\w.-]+)");

    private final Path folder;
    private final Disk disk;

    /** @param folder of one stack */
    SecondCopies(Path folder, Disk disk) {
        this.folder = folder;
        this.disk = disk;
    }

    Path folder() {
        return folder;
    }

    /** The names of copies with the digests that they should have; those lines that can be read. */
    Map<String, String> sums() throws IOException {
        var sums = new TreeMap<String, String>();
        var file = folder.resolve(SUMS);
        if (Files.exists(file)) {
            for (var line : new String(Files.readAllBytes(file), StandardCharsets.ISO_8859_1).split("\n")) {
                var match = LINE.matcher(line);
                if (match.matches()) {
                    sums.put(match.group(2), match.group(1));
                }
            }
        }
        return sums;
    }

    Path file(String name) {
        return folder.resolve(name);
    }

    boolean has(String name) {
        return Files.exists(file(name));
    }

    /** A copy that is what was written. */
    Optional<byte[]> sound(String name) throws IOException {
        var digest = sums().get(name);
        if (digest == null || !Files.isRegularFile(file(name))) {
            return Optional.empty();
        }
        try {
            var bytes = Files.readAllBytes(file(name));
            return Digests.of(bytes).equals(digest) ? Optional.of(bytes) : Optional.empty();
        } catch (IOException unreadable) {
            return Optional.empty();
        }
    }

    /** Keeps copies of files, and their digests, in place of what was there under these names. */
    void keep(Map<String, byte[]> copies) throws IOException {
        disk.createFolders(folder);
        var sums = sums();
        for (var copy : copies.entrySet()) {
            disk.replace(file(copy.getKey()), copy.getValue());
            sums.put(copy.getKey(), Digests.of(copy.getValue()));
        }
        writeSums(sums);
    }

    void writeSums(Map<String, String> sums) throws IOException {
        var text = new StringBuilder();
        sums.forEach(
                (name, digest) -> text.append(digest).append("  ").append(name).append('\n'));
        disk.replace(folder.resolve(SUMS), text.toString().getBytes(StandardCharsets.US_ASCII));
    }

    void forget(String name) throws IOException {
        var sums = sums();
        if (sums.remove(name) != null) {
            writeSums(sums);
        }
        disk.delete(file(name));
    }
}
