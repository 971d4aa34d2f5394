package app.custodex.strongroom;

import app.custodex.base.Disk;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * One phone's OCFL object on the disk. A new version becomes part of it by one rename; what a cut leaves after that
 * rename is rolled forward, since a version folder is complete before it is renamed in.
 */
final class ObjectFolder {
    static final String DECLARATION = "0=ocfl_object_1.1";
    private static final byte[] DECLARED = "ocfl_object_1.1\n".getBytes(StandardCharsets.US_ASCII);
    private static final Pattern VERSION = Pattern.compile("v[1-9]\\d{0,6}");

    private final Path root;
    private final Disk disk;

    ObjectFolder(Path root, Disk disk) {
        this.root = root;
        this.disk = disk;
    }

    Path root() {
        return root;
    }

    /** Whether there is anything of it, be it damaged. */
    boolean exists() throws IOException {
        return Files.exists(root.resolve(DECLARATION))
                || Files.exists(root.resolve(Inventory.NAME))
                || Files.isDirectory(root) && newestFolder() > 0;
    }

    boolean isDeclared() {
        try {
            return Arrays.equals(Files.readAllBytes(root.resolve(DECLARATION)), DECLARED);
        } catch (IOException gone) {
            return false;
        }
    }

    void declare(Path work) throws IOException {
        disk.createFolders(work);
        disk.replace(root.resolve(DECLARATION), DECLARED, work.resolve("next-declaration"));
    }

    Path version(int number) {
        return root.resolve("v" + number);
    }

    static boolean isVersion(String name) {
        return VERSION.matcher(name).matches();
    }

    /** The number of the newest version that lies here; 0 when there is none. */
    int newestFolder() throws IOException {
        try (var names = Files.list(root)) {
            return names.map(path -> String.valueOf(path.getFileName()))
                    .filter(ObjectFolder::isVersion)
                    .mapToInt(name -> Integer.parseInt(name.substring(1)))
                    .max()
                    .orElse(0);
        }
    }

    /**
     * Publishes a complete, synced version folder.
     *
     * @param work a folder on the same file system for what is not in place yet
     */
    void publish(Path version, int number, Path work) throws IOException {
        if (number == 1) {
            var object = work.resolve("object");
            disk.delete(object);
            disk.createFolders(object);
            disk.write(object.resolve(DECLARATION), DECLARED);
            var inventory = Files.readAllBytes(version.resolve(Inventory.NAME));
            disk.write(object.resolve(Inventory.NAME), inventory);
            disk.write(object.resolve(Inventory.SIDECAR), Inventory.sidecar(inventory));
            disk.move(version, object.resolve("v1"));
            disk.syncFolder(object);
            disk.createFolders(Disk.parent(root));
            disk.move(object, root);
            disk.syncFolder(Disk.parent(root));
        } else {
            disk.move(version, version(number));
            disk.syncFolder(root);
            install(root, Inventory.readBytes(version(number)), work);
        }
    }

    /** Puts an inventory and its digest in place, in the root or in a version. */
    void install(Path folder, byte[] inventory, Path work) throws IOException {
        disk.createFolders(work);
        disk.replace(folder.resolve(Inventory.NAME), inventory, work.resolve("next-inventory"));
        disk.replace(folder.resolve(Inventory.SIDECAR), Inventory.sidecar(inventory), work.resolve("next-sidecar"));
    }

    /** Finishes what a cut left behind; does nothing to an object that is in order. */
    void recover(Path work) throws IOException {
        int newest = newestFolder();
        if (newest == 0) {
            return;
        }
        var installed = Inventory.whole(root);
        if (installed.filter(inventory -> inventory.headNumber() >= newest).isPresent()) {
            return;
        }
        // Damage, not a cut, where there is none: the check names it, and reading falls back to what is whole.
        Optional<Inventory> complete = Inventory.whole(version(newest));
        if (complete.filter(inventory -> inventory.headNumber() == newest).isPresent()) {
            install(root, Inventory.readBytes(version(newest)), work);
        }
    }

    /** Removes the folders above an object that was never put in place. */
    static void removeEmptyParents(Path object, Path storageRoot) throws IOException {
        for (var folder = Disk.parent(object); !folder.equals(storageRoot); folder = Disk.parent(folder)) {
            try {
                Files.deleteIfExists(folder);
            } catch (DirectoryNotEmptyException | NoSuchFileException e) {
                return;
            }
        }
    }
}
