package app.custodex.strongroom;

import app.custodex.base.Disk;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * The OCFL storage root (OCFL 1.1 §4), with objects placed by the community extension "0004: Hashed N-tuple Storage
 * Layout": SHA-256 of the identifier, three folders of three characters. So a folder's name tells nothing about a phone.
 */
final class StorageRoot {
    static final String FOLDER = "objects";
    static final String DECLARATION = "0=ocfl_1.1";
    private static final String EXTENSION = "0004-hashed-n-tuple-storage-layout";
    private static final Pattern TUPLE = Pattern.compile("[0-9a-f]{3}");
    private static final Pattern OBJECT = Pattern.compile("[0-9a-f]{64}");

    private final Path root;
    private final Disk disk;

    StorageRoot(Path root, Disk disk) {
        this.root = root;
        this.disk = disk;
    }

    /** The root's own files, which are the same in every strongroom; the declaration comes last. */
    private static Map<String, String> files() {
        var files = new LinkedHashMap<String, String>();
        files.put("extensions/" + EXTENSION + "/config.json", """
                {
                  "extensionName": "0004-hashed-n-tuple-storage-layout",
                  "digestAlgorithm": "sha256",
                  "tupleSize": 3,
                  "numberOfTuples": 3,
                  "shortObjectRoot": false
                }
                """);
        files.put("ocfl_layout.json", """
                {
                  "extension": "0004-hashed-n-tuple-storage-layout",
                  "description": "One object a phone"
                }
                """);
        files.put(DECLARATION, "ocfl_1.1\n");
        return files;
    }

    /**
     * Makes the root's own files, or makes them again.
     *
     * @param work a folder on the same file system for what is not in place yet
     */
    void make(Path work) throws IOException {
        for (var file : files().entrySet()) {
            write(file.getKey(), file.getValue(), work);
        }
    }

    private void write(String name, String text, Path work) throws IOException {
        var file = root.resolve(name);
        disk.createFolders(Disk.parent(file));
        disk.replace(file, text.getBytes(StandardCharsets.UTF_8), work.resolve("root-file"));
    }

    /** What is wrong with the root's own files, and what lies between the objects that is none. */
    List<Finding> look(Path work) throws IOException {
        var findings = new ArrayList<Finding>();
        for (var file : files().entrySet()) {
            var path = root.resolve(file.getKey());
            var name = FOLDER + "/" + file.getKey();
            Finding.Mend mend = () -> write(file.getKey(), file.getValue(), work);
            if (!Files.exists(path)) {
                findings.add(Finding.mendable(name, "It is gone from the disk", mend));
            } else if (!isText(path, file.getValue())) {
                findings.add(Finding.mendable(name, "Its bytes are no longer what was written", mend));
            }
        }
        if (Files.isDirectory(root)) {
            lookForStrays(root, 0, findings);
        }
        lookForStrangeExtensions(findings);
        return findings;
    }

    private void lookForStrangeExtensions(List<Finding> findings) throws IOException {
        var extensions = root.resolve("extensions");
        if (!Files.isDirectory(extensions)) {
            return;
        }
        try (var all = Files.walk(extensions)) {
            for (var file : all.filter(path -> !Files.isDirectory(path)).toList()) {
                if (!files().containsKey(root.relativize(file).toString().replace('\\', '/'))) {
                    findings.add(Finding.stray(FOLDER + "/" + root.relativize(file)));
                }
            }
        }
    }

    private static boolean isText(Path file, String text) {
        try {
            return Arrays.equals(Files.readAllBytes(file), text.getBytes(StandardCharsets.UTF_8));
        } catch (IOException unreadable) {
            return false;
        }
    }

    private void lookForStrays(Path folder, int depth, List<Finding> findings) throws IOException {
        try (var members = Files.newDirectoryStream(folder)) {
            for (var member : members) {
                var name = String.valueOf(member.getFileName());
                boolean belongs = depth < 3
                        ? TUPLE.matcher(name).matches() && Files.isDirectory(member)
                        : OBJECT.matcher(name).matches() && Files.isDirectory(member);
                if (belongs && depth < 3) {
                    lookForStrays(member, depth + 1, findings);
                } else if (!belongs && !isOwn(member)) {
                    findings.add(Finding.stray(FOLDER + "/" + root.relativize(member)));
                }
            }
        }
    }

    private boolean isOwn(Path member) {
        var name = root.relativize(member).toString().replace('\\', '/');
        return files().keySet().stream().anyMatch(own -> own.equals(name) || own.startsWith(name + "/"));
    }

    Path root() {
        return root;
    }

    static String hash(String objectId) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(objectId.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new AssertionError("every Java platform has SHA-256", e);
        }
    }

    Path objectFolder(String objectId) {
        return folderNamed(hash(objectId));
    }

    /** @param hash the name of the object's folder */
    Path folderNamed(String hash) {
        return root.resolve(hash.substring(0, 3))
                .resolve(hash.substring(3, 6))
                .resolve(hash.substring(6, 9))
                .resolve(hash);
    }

    /** Whether something can be the name of an object's folder. */
    static boolean isObjectName(String name) {
        return OBJECT.matcher(name).matches();
    }

    /** The folders where objects lie, whatever is left of them, in the order of their names. */
    List<Path> objectFolders() throws IOException {
        var found = new ArrayList<Path>();
        collect(root, 0, found);
        found.sort(null);
        return found;
    }

    private static void collect(Path folder, int depth, List<Path> found) throws IOException {
        if (!Files.isDirectory(folder)) {
            return;
        }
        try (var members = Files.newDirectoryStream(folder)) {
            for (var member : members) {
                var name = String.valueOf(member.getFileName());
                if (depth < 3 && TUPLE.matcher(name).matches()) {
                    collect(member, depth + 1, found);
                } else if (depth == 3 && OBJECT.matcher(name).matches() && Files.isDirectory(member)) {
                    found.add(member);
                }
            }
        }
    }
}
