package app.custodex.base;

import java.io.Closeable;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;

/**
 * The right to use something together with others, or alone, across threads and programs. It is a lock of the file system on a file
 * that is used for nothing else, so it ends with the program that holds it, however that ends. Locks of a file system belong to a
 * whole program; who holds one within it is counted here.
 */
public final class FileLease implements Closeable {
    private static final Map<Path, Holders> HELD = new HashMap<>();

    /** All leases of this program on one file. */
    private static final class Holders {
        private final FileChannel channel;
        private final boolean alone;
        private int number = 1;

        Holders(FileChannel channel, boolean alone) {
            this.channel = channel;
            this.alone = alone;
        }
    }

    private final Path file;
    private final AtomicBoolean held = new AtomicBoolean(true);

    private FileLease(Path file) {
        this.file = file;
    }

    /** A lease that others may hold at the same time; empty while somebody holds it alone. */
    public static Optional<FileLease> shared(Path lockFile) throws IOException {
        return take(lockFile, false);
    }

    /** A lease that nobody else may hold; empty while anybody does. */
    public static Optional<FileLease> alone(Path lockFile) throws IOException {
        return take(lockFile, true);
    }

    private static Optional<FileLease> take(Path lockFile, boolean alone) throws IOException {
        var file = key(lockFile);
        synchronized (HELD) {
            var holders = HELD.get(file);
            if (holders != null) {
                if (alone || holders.alone) {
                    return Optional.empty();
                }
                holders.number++;
                return Optional.of(new FileLease(file));
            }
            var channel = open(file, alone);
            try {
                if (lock(channel, alone).isEmpty()) {
                    channel.close();
                    return Optional.empty();
                }
            } catch (IOException | RuntimeException e) {
                channel.close();
                throw e;
            }
            HELD.put(file, new Holders(channel, alone));
            return Optional.of(new FileLease(file));
        }
    }

    /** One key for one file, by whatever way it was named. */
    private static Path key(Path lockFile) throws IOException {
        var absolute = lockFile.toAbsolutePath();
        var parent = absolute.getParent();
        return parent == null || !Files.exists(parent)
                ? absolute.normalize()
                : parent.toRealPath().resolve(absolute.getFileName());
    }

    private static FileChannel open(Path file, boolean alone) throws IOException {
        if (!Files.exists(file)) {
            new RealDisk().append(file).close(); // with this user's permissions
        }
        // To share it, reading is enough, which a medium that can't be written allows as well.
        return alone
                ? FileChannel.open(file, StandardOpenOption.READ, StandardOpenOption.WRITE)
                : FileChannel.open(file, StandardOpenOption.READ);
    }

    private static Optional<FileLock> lock(FileChannel channel, boolean alone) throws IOException {
        try {
            return Optional.ofNullable(channel.tryLock(0, Long.MAX_VALUE, !alone));
        } catch (OverlappingFileLockException heldByThisProgram) {
            return Optional.empty();
        }
    }

    /**
     * Waits for a lease of one's own, for a moment's work such as writing a line.
     *
     * @throws IOException when somebody held it for ten seconds
     */
    public static FileLease awaitAlone(Path lockFile) throws IOException {
        for (int tries = 0; tries < 2_000; tries++) {
            var lease = alone(lockFile);
            if (lease.isPresent()) {
                return lease.get();
            }
            try {
                Thread.sleep(5);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IOException("interrupted while waiting for " + lockFile, e);
            }
        }
        throw new ProblemException(Problem.failure(
                lockFile.toString(), "Another program keeps it locked", "End the other program, then try again"));
    }

    @Override
    public void close() throws IOException {
        if (!held.compareAndSet(true, false)) {
            return;
        }
        synchronized (HELD) {
            var holders = HELD.get(file);
            if (holders != null && --holders.number == 0) {
                HELD.remove(file);
                holders.channel.close();
            }
        }
    }
}
