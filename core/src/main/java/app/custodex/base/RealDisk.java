package app.custodex.base;

import java.io.File;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The file system of this computer. What is created here is this user's alone, from the first byte on. */
public final class RealDisk implements Disk {
    private static final FileAttribute<?>[] NONE = {};

    @Override
    public Out create(Path file) throws IOException {
        return new ChannelOut(
                FileChannel.open(
                        file,
                        Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE),
                        ownersOnly(file, "rw-------")),
                0);
    }

    @Override
    public Out append(Path file) throws IOException {
        var channel = FileChannel.open(
                file, Set.of(StandardOpenOption.CREATE, StandardOpenOption.WRITE), ownersOnly(file, "rw-------"));
        channel.position(channel.size());
        return new ChannelOut(channel, channel.size());
    }

    @Override
    public Out reopen(Path file, long size) throws IOException {
        var channel = FileChannel.open(file, StandardOpenOption.WRITE);
        channel.truncate(size).position(size);
        return new ChannelOut(channel, size);
    }

    /** The permissions of what is created; none where the file system keeps none. */
    private static FileAttribute<?>[] ownersOnly(Path path, String permissions) {
        return path.getFileSystem().supportedFileAttributeViews().contains("posix")
                ? new FileAttribute<?>[] {
                    PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString(permissions))
                }
                : NONE;
    }

    @Override
    public void createFolders(Path folder) throws IOException {
        if (Files.isDirectory(folder)) {
            return;
        }
        var parent = folder.toAbsolutePath().getParent();
        if (parent != null) {
            createFolders(parent);
        }
        try {
            Files.createDirectory(folder, ownersOnly(folder, "rwx------"));
        } catch (FileAlreadyExistsException e) {
            if (!Files.isDirectory(folder)) {
                throw e;
            }
        }
        if (parent != null) {
            syncFolder(parent);
        }
    }

    @Override
    public void move(Path from, Path to) throws IOException {
        Files.move(from, to, StandardCopyOption.ATOMIC_MOVE);
    }

    @Override
    public void syncFolder(Path folder) throws IOException {
        try (var channel = FileChannel.open(folder, StandardOpenOption.READ)) {
            channel.force(true);
        } catch (IOException e) {
            // Windows gives no handle on a folder and makes names durable by itself.
            if (File.separatorChar == '/') {
                throw e;
            }
        }
    }

    @Override
    public void delete(Path path) throws IOException {
        if (!Files.exists(path, LinkOption.NOFOLLOW_LINKS)) {
            return;
        }
        Files.walkFileTree(path, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                Files.delete(file);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult postVisitDirectory(Path folder, @Nullable IOException failure) throws IOException {
                if (failure != null) {
                    throw failure;
                }
                Files.delete(folder);
                return FileVisitResult.CONTINUE;
            }
        });
    }

    @Override
    public long room(Path folder) throws IOException {
        return Files.getFileStore(folder).getUsableSpace();
    }

    private static final class ChannelOut implements Out {
        private final FileChannel channel;
        private long size;

        ChannelOut(FileChannel channel, long size) {
            this.channel = channel;
            this.size = size;
        }

        @Override
        public void write(ByteBuffer bytes) throws IOException {
            while (bytes.hasRemaining()) {
                size += channel.write(bytes);
            }
        }

        @Override
        public void sync() throws IOException {
            channel.force(true);
        }

        @Override
        public long size() {
            return size;
        }

        @Override
        public void close() throws IOException {
            channel.close();
        }
    }
}
