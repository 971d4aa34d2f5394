package app.custodex.base;

import java.io.Closeable;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermissions;

/**
 * A folder of this program's own for files that must lie on a disk while they are read, such as a database with its
 * write-ahead log. Only this user may look into it. It is removed when it is closed; what a killed program left is
 * removed the next time that one is opened.
 */
public final class PrivatePlace implements Closeable {
    private final Path folder;
    private final FileChannel lock;
    private final RealDisk disk = new RealDisk();

    private PrivatePlace(Path folder, FileChannel lock) {
        this.folder = folder;
        this.lock = lock;
    }

    /** @param parent holds the private places of all running programs, and nothing else */
    public static PrivatePlace open(Path parent) throws IOException {
        Files.createDirectories(parent);
        removeAbandoned(parent);
        var folder = Files.createTempDirectory(parent, "reading-", ownerOnly(parent));
        var lock = FileChannel.open(lockFile(folder), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        lock.lock();
        return new PrivatePlace(folder, lock);
    }

    /**
     * A private place in memory, for what must not touch a disk.
     *
     * @throws ProblemException when this computer has no folder that lies in memory
     */
    public static PrivatePlace inMemory() throws IOException {
        var memory = Path.of("/dev/shm");
        if (!Files.isDirectory(memory) || !Files.getFileStore(memory).type().equals("tmpfs")) {
            throw new ProblemException(Problem.failure(
                    "This computer",
                    "It has no folder in memory, and sealed data may not be put on its disk",
                    "Read sealed layers on a computer with Linux, where /dev/shm is one"));
        }
        return open(memory.resolve("custodex-" + System.getProperty("user.name", "user")));
    }

    private static FileAttribute<?>[] ownerOnly(Path parent) {
        return parent.getFileSystem().supportedFileAttributeViews().contains("posix")
                ? new FileAttribute<?>[] {
                    PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------"))
                }
                : new FileAttribute<?>[0];
    }

    private static Path lockFile(Path folder) {
        return folder.resolveSibling(folder.getFileName() + ".lock");
    }

    private static void removeAbandoned(Path parent) throws IOException {
        var disk = new RealDisk();
        try (var names = Files.newDirectoryStream(parent, "reading-*.lock")) {
            for (var file : names) {
                try (var channel = FileChannel.open(file, StandardOpenOption.WRITE)) {
                    if (channel.tryLock() == null) {
                        continue;
                    }
                } catch (OverlappingFileLockException ours) {
                    continue;
                }
                disk.delete(Path.of(file.toString().replaceAll("\\.lock$", "")));
                disk.delete(file);
            }
        }
    }

    /** A new empty folder in here. */
    public Path folder() throws IOException {
        return Files.createTempDirectory(folder, "db-");
    }

    /** Removes a folder that {@link #folder()} gave. */
    public void remove(Path given) throws IOException {
        disk.delete(given);
    }

    @Override
    public void close() throws IOException {
        disk.delete(folder);
        lock.close();
        disk.delete(lockFile(folder));
    }
}
