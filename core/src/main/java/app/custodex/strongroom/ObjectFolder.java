package app.custodex.strongroom;

import app.custodex.base.Disk;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * One phone's OCFL object on the disk. A new version becomes part of it by one rename; what a cut leaves after that
 * rename is rolled forward, since a version folder is complete before it is renamed in.
 */
final class ObjectFolder {
    static final String DECLARATION = "0=ocfl_object_1.1";
    private static final Pattern VERSION = Pattern.compile("v[1-9]\\d*");

    private final Path root;
    private final Disk disk;

    ObjectFolder(Path root, Disk disk) {
        this.root = root;
        this.disk = disk;
    }

    Path root() {
        return root;
    }

    boolean exists() {
        return Files.exists(root.resolve(DECLARATION));
    }

    /** @throws IOException when no copy of the inventory is whole */
    Inventory inventory() throws IOException {
        try {
            return Inventory.read(root);
        } catch (IOException damaged) {
            // The root copy is a convenience; the newest version's own copy says the same.
            for (int version = newestFolder(); version > 0; version--) {
                try {
                    return Inventory.read(version(version));
                } catch (IOException alsoDamaged) {
                    damaged.addSuppressed(alsoDamaged);
                }
            }
            throw damaged;
        }
    }

    private Path version(int number) {
        return root.resolve("v" + number);
    }

    private int newestFolder() throws IOException {
        try (var names = Files.list(root)) {
            return names.map(path -> path.getFileName().toString())
                    .filter(name -> VERSION.matcher(name).matches())
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
            disk.write(object.resolve(DECLARATION), "ocfl_object_1.1\n".getBytes(StandardCharsets.US_ASCII));
            var inventory = Files.readAllBytes(version.resolve(Inventory.NAME));
            disk.write(object.resolve(Inventory.NAME), inventory);
            disk.write(object.resolve(Inventory.SIDECAR), Inventory.sidecar(inventory));
            disk.move(version, object.resolve("v1"));
            disk.syncFolder(object);
            disk.createFolders(parent(root));
            disk.move(object, root);
            syncUpToStorageRoot();
        } else {
            disk.move(version, version(number));
            disk.syncFolder(root);
            installInventory(number, work);
        }
    }

    private void syncUpToStorageRoot() throws IOException {
        var folder = parent(root);
        disk.syncFolder(folder);
        while (!Files.exists(folder.resolve(StorageRoot.DECLARATION))) {
            folder = parent(folder);
            disk.syncFolder(folder);
        }
    }

    static Path parent(Path path) {
        var parent = path.getParent();
        if (parent == null) {
            throw new IllegalArgumentException(path + " has no parent");
        }
        return parent;
    }

    private void installInventory(int number, Path work) throws IOException {
        var inventory = Files.readAllBytes(version(number).resolve(Inventory.NAME));
        replace(work, Inventory.NAME, inventory);
        replace(work, Inventory.SIDECAR, Inventory.sidecar(inventory));
        disk.syncFolder(root);
    }

    private void replace(Path work, String name, byte[] bytes) throws IOException {
        var waiting = work.resolve("next-" + name);
        disk.delete(waiting);
        disk.write(waiting, bytes);
        disk.move(waiting, root.resolve(name));
    }

    /** Finishes what a cut left behind; does nothing to an object that is in order. */
    void recover(Path work) throws IOException {
        int newest = newestFolder();
        Optional<Inventory> installed;
        try {
            installed = Optional.of(Inventory.read(root));
        } catch (IOException e) {
            installed = Optional.empty();
        }
        if (installed.isPresent() && installed.get().headNumber() == newest) {
            return;
        }
        Inventory complete;
        try {
            complete = Inventory.read(version(newest));
        } catch (IOException e) {
            return; // damage, not a cut: the check names it, and reading falls back to what is whole
        }
        if (complete.headNumber() == newest) {
            disk.createFolders(work);
            installInventory(newest, work);
        }
    }

    /** Removes the folders above an object that was never put in place. */
    static void removeEmptyParents(Path object, Path storageRoot) throws IOException {
        for (var folder = parent(object); !folder.equals(storageRoot); folder = parent(folder)) {
            try {
                Files.deleteIfExists(folder);
            } catch (DirectoryNotEmptyException | NoSuchFileException e) {
                return;
            }
        }
    }
}
