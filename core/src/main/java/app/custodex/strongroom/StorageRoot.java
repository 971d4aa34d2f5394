package app.custodex.strongroom;

import app.custodex.base.Disk;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;

/**
 * The OCFL storage root (OCFL 1.1 §4), with objects placed by the community extension "0004: Hashed N-tuple Storage
 * Layout": SHA-256 of the identifier, three folders of three characters. So a folder's name tells nothing about a phone.
 */
final class StorageRoot {
    static final String DECLARATION = "0=ocfl_1.1";
    private static final String EXTENSION = "0004-hashed-n-tuple-storage-layout";

    private final Path root;

    private StorageRoot(Path root) {
        this.root = root;
    }

    /**
     * Opens the root, making it when it is not there. The declaration comes last, and in one step.
     *
     * @param work a folder on the same file system for what is not in place yet
     */
    static StorageRoot open(Path root, Path work, Disk disk) throws IOException {
        if (!Files.exists(root.resolve(DECLARATION))) {
            var extension = root.resolve("extensions").resolve(EXTENSION);
            disk.createFolders(extension);
            write(disk, extension.resolve("config.json"), """
                    {
                      "extensionName": "0004-hashed-n-tuple-storage-layout",
                      "digestAlgorithm": "sha256",
                      "tupleSize": 3,
                      "numberOfTuples": 3,
                      "shortObjectRoot": false
                    }
                    """);
            write(disk, root.resolve("ocfl_layout.json"), """
                    {
                      "extension": "0004-hashed-n-tuple-storage-layout",
                      "description": "One object a phone"
                    }
                    """);
            write(disk, work.resolve(DECLARATION), "ocfl_1.1\n");
            disk.move(work.resolve(DECLARATION), root.resolve(DECLARATION));
            disk.syncFolder(root);
        }
        return new StorageRoot(root);
    }

    private static void write(Disk disk, Path file, String text) throws IOException {
        disk.delete(file);
        disk.write(file, text.getBytes(StandardCharsets.UTF_8));
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
        var hash = hash(objectId);
        return root.resolve(hash.substring(0, 3))
                .resolve(hash.substring(3, 6))
                .resolve(hash.substring(6, 9))
                .resolve(hash);
    }

    /** The folders of all objects, in the order of their names. */
    List<Path> objectFolders() throws IOException {
        var found = new ArrayList<Path>();
        Files.walkFileTree(root, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes attributes) {
                if (folder.equals(root.resolve("extensions"))) {
                    return FileVisitResult.SKIP_SUBTREE;
                }
                if (Files.exists(folder.resolve(ObjectFolder.DECLARATION))) {
                    found.add(folder);
                    return FileVisitResult.SKIP_SUBTREE;
                }
                return FileVisitResult.CONTINUE;
            }
        });
        found.sort(null);
        return found;
    }
}
