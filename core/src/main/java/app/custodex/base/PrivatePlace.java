package app.custodex.base;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFileAttributes;
import java.nio.file.attribute.PosixFilePermissions;

/**
 * A folder of this program's own for files that must lie on a disk while they are read, such as a database with its
 * write-ahead log. Only this user may look into it. It is removed when it is closed; what a killed program left is
 * removed the next time that one is opened.
 */
public final class PrivatePlace implements Closeable {
    private static final Path MEMORY = Path.of("/dev/shm");

    private final Path folder;
    private final FileLease lease;
    private final RealDisk disk = new RealDisk();

    private PrivatePlace(Path folder, FileLease lease) {
        this.folder = folder;
        this.lease = lease;
    }

    /** @param parent holds the private places of all running programs, and nothing else */
    public static PrivatePlace open(Path parent) throws IOException {
        new RealDisk().createFolders(parent);
        removeAbandoned(parent);
        var folder = Files.createTempDirectory(parent, "reading-", ownerOnly(parent));
        var lease = FileLease.awaitAlone(lockFile(folder));
        return new PrivatePlace(folder, lease);
    }

    /** Whether this computer has a folder that lies in memory. */
    public static boolean hasMemory() throws IOException {
        return Files.isDirectory(MEMORY) && Files.getFileStore(MEMORY).type().equals("tmpfs");
    }

    /**
     * A private place in memory, for what must not touch a disk.
     *
     * @throws ProblemException when this computer has no folder that lies in memory
     */
    public static PrivatePlace inMemory() throws IOException {
        if (!hasMemory()) {
            throw new ProblemException(Problem.failure(
                    "This computer",
                    "It has no folder in memory, and sealed data may not be put on its disk",
                    "Read sealed layers on a computer with Linux, where /dev/shm is one"));
        }
        return open(ownFolder(MEMORY, "custodex-" + System.getProperty("user.name", "user")));
    }

    /**
     * A folder that only this user can have made and look into. Everybody may write to the folder in memory, so somebody else may
     * have been there first, with a folder or a link of the name that is wanted.
     */
    static Path ownFolder(Path shared, String name) throws IOException {
        var wanted = shared.resolve(name);
        if (!Files.exists(wanted, LinkOption.NOFOLLOW_LINKS)) {
            new RealDisk().createFolders(wanted);
        }
        return isOurs(wanted) ? wanted : Files.createTempDirectory(shared, name + "-", ownerOnly(shared));
    }

    private static boolean isOurs(Path folder) throws IOException {
        var attributes = Files.readAttributes(folder, PosixFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
        var us = folder.getFileSystem()
                .getUserPrincipalLookupService()
                .lookupPrincipalByName(System.getProperty("user.name"));
        return attributes.isDirectory()
                && attributes.owner().equals(us)
                && PosixFilePermissions.toString(attributes.permissions()).equals("rwx------");
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
                var lease = FileLease.alone(file);
                if (lease.isEmpty()) {
                    continue;
                }
                try (var held = lease.get()) {
                    disk.delete(Path.of(file.toString().replaceAll("\\.lock$", "")));
                    disk.delete(file);
                }
            }
        }
    }

    /**
     * A new empty folder in here.
     *
     * @throws PlaceFailure when it can't be made
     */
    public Path folder() throws IOException {
        try {
            return Files.createTempDirectory(folder, "db-");
        } catch (IOException e) {
            throw PlaceFailure.of(folder, e);
        }
    }

    /**
     * Puts what a stream gives into a new file in here.
     *
     * @return how many bytes
     * @throws PlaceFailure when it can't be written
     * @throws IOException when the stream can't be read
     */
    public long copy(InputStream in, Path file) throws IOException {
        try (var out = new PlaceStream(file)) {
            return in.transferTo(out);
        }
    }

    /** Says of its failures that they are the place's. */
    private final class PlaceStream extends OutputStream {
        private final OutputStream out;

        PlaceStream(Path file) throws IOException {
            try {
                out = Files.newOutputStream(file, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
            } catch (IOException e) {
                throw PlaceFailure.of(folder, e);
            }
        }

        @Override
        public void write(int b) throws IOException {
            write(new byte[] {(byte) b}, 0, 1);
        }

        @Override
        public void write(byte[] bytes, int offset, int length) throws IOException {
            try {
                out.write(bytes, offset, length);
            } catch (IOException e) {
                throw PlaceFailure.of(folder, e);
            }
        }

        @Override
        public void close() throws IOException {
            try {
                out.close();
            } catch (IOException e) {
                throw PlaceFailure.of(folder, e);
            }
        }
    }

    /** Removes a folder that {@link #folder()} gave. */
    public void remove(Path given) throws IOException {
        disk.delete(given);
    }

    @Override
    public void close() throws IOException {
        disk.delete(folder);
        disk.delete(lockFile(folder));
        lease.close();
    }
}
