package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.RealDisk;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;

/**
 * A disk whose power fails at the n-th change, or that is full after so many bytes, and that is no kinder than a real one. When the
 * power fails, the write under way is there in part; of each file, what was not synced is lost, there in part, or there as zeros; and
 * of the names that were made, moved or removed since their folder was synced, the later ones are as if that had never happened. Which
 * of these it is, is drawn from a seed, so that every run is the same.
 */
public final class FaultyDisk implements Disk {
    /** Thrown at the cut, and by everything that is tried afterwards. */
    public static final class PowerCut extends IOException {
        private static final long serialVersionUID = 1L;

        PowerCut() {
            super("power cut");
        }
    }

    private interface Undo {
        void run() throws IOException;
    }

    /** A name that was made, moved or removed, and is not durable before its folder is synced. */
    private record NameChange(Path folder, Undo undo) {}

    private final RealDisk real = new RealDisk();
    private final long cutAt;
    private final long room;
    private final Random random;
    private final boolean powerFails;
    private final Path graveyard;
    private final Map<Path, Long> syncedSizes = new HashMap<>();
    private final List<NameChange> names = new ArrayList<>();
    private long changes;
    private long written;
    private boolean off;

    private FaultyDisk(long cutAt, long seed, long room, boolean powerFails) {
        this.cutAt = cutAt;
        this.room = room;
        this.powerFails = powerFails;
        this.random = new Random(seed * 7919);
        try {
            this.graveyard = Files.createTempDirectory("graveyard");
            Runtime.getRuntime().addShutdownHook(new Thread(this::clear));
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private void clear() {
        try {
            real.delete(graveyard);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The power fails. */
    public static FaultyDisk cutAt(long change) {
        return cutAt(change, change);
    }

    /** @param seed draws what is lost, and how much of the write under way is there */
    public static FaultyDisk cutAt(long change, long seed) {
        return new FaultyDisk(change, seed, Long.MAX_VALUE, true);
    }

    /** The program is killed: what it wrote is there, and nothing more of it comes. */
    public static FaultyDisk killedAt(long change, long seed) {
        return new FaultyDisk(change, seed, Long.MAX_VALUE, false);
    }

    /** Says that it has room, and is full all the same after so many bytes: another program was faster. */
    public static FaultyDisk fullAfter(long bytes) {
        return new FaultyDisk(Long.MAX_VALUE, 1, bytes, true);
    }

    public synchronized long changes() {
        return changes;
    }

    /** Bytes that were written to it, whatever became of them. */
    public synchronized long written() {
        return written;
    }

    public synchronized boolean wasCut() {
        return off;
    }

    private void change() throws IOException {
        change(Optional.empty());
    }

    /** @param write what is under way at a cut, given how much of it is done */
    private synchronized void change(Optional<PartOfWrite> write) throws IOException {
        if (!off && ++changes >= cutAt) {
            if (write.isPresent()) {
                write.get().run();
            }
            off = true;
            if (powerFails) {
                loseData();
                loseNames();
            }
        }
        if (off) {
            throw new PowerCut();
        }
    }

    private interface PartOfWrite {
        void run() throws IOException;
    }

    private void loseData() throws IOException {
        for (var file : syncedSizes.entrySet()) {
            if (!Files.isRegularFile(file.getKey())) {
                continue;
            }
            try (var channel = FileChannel.open(file.getKey(), StandardOpenOption.WRITE)) {
                long unsynced = channel.size() - file.getValue();
                if (unsynced <= 0) {
                    continue;
                }
                switch (random.nextInt(3)) {
                    case 0 -> channel.truncate(file.getValue());
                    case 1 -> channel.truncate(file.getValue() + random.nextLong(unsynced + 1));
                    default -> {
                        long from = file.getValue() + random.nextLong(unsynced + 1);
                        var zeros = ByteBuffer.allocate((int) (channel.size() - from));
                        channel.write(zeros, from);
                    }
                }
            }
        }
    }

    private void loseNames() throws IOException {
        int kept = random.nextInt(names.size() + 1);
        for (var change : names.subList(kept, names.size()).reversed()) {
            change.undo().run();
        }
    }

    private synchronized int take(int bytes) {
        int fits = (int) Math.max(0, Math.min(bytes, room - written));
        written += bytes;
        return fits;
    }

    private synchronized void named(Path in, Undo undo) {
        if (powerFails) {
            names.add(new NameChange(Disk.parent(in), undo));
        }
    }

    private synchronized void synced(Path file, long size) {
        syncedSizes.put(file, size);
    }

    private void created(Path file) {
        named(file, () -> Files.deleteIfExists(file));
    }

    @Override
    public Out create(Path file) throws IOException {
        change();
        var out = real.create(file);
        created(file);
        synced(file, 0);
        return new FaultyOut(file, out);
    }

    @Override
    public Out append(Path file) throws IOException {
        change();
        boolean isNew = !Files.exists(file);
        var out = real.append(file);
        if (isNew) {
            created(file);
            synced(file, 0);
        } else {
            synchronized (this) {
                syncedSizes.putIfAbsent(file, out.size());
            }
        }
        return new FaultyOut(file, out);
    }

    @Override
    public Out reopen(Path file, long size) throws IOException {
        change();
        var out = real.reopen(file, size);
        synchronized (this) {
            syncedSizes.merge(file, size, Math::min);
        }
        return new FaultyOut(file, out);
    }

    @Override
    public void createFolders(Path folder) throws IOException {
        change();
        real.createFolders(folder);
    }

    @Override
    public void move(Path from, Path to) throws IOException {
        change();
        var replaced = Files.isRegularFile(to) ? Optional.of(bury(to, false)) : Optional.<Path>empty();
        real.move(from, to);
        renamed(from, to);
        named(to, () -> {
            Files.move(to, from);
            renamed(to, from);
            if (replaced.isPresent()) {
                Files.copy(replaced.get(), to);
            }
        });
    }

    private synchronized void renamed(Path from, Path to) {
        for (var file :
                syncedSizes.keySet().stream().filter(f -> f.startsWith(from)).toList()) {
            Long size = syncedSizes.remove(file);
            if (size != null) {
                syncedSizes.put(file.equals(from) ? to : to.resolve(from.relativize(file)), size);
            }
        }
    }

    private Path bury(Path path, boolean away) throws IOException {
        var grave = graveyard.resolve(changes + "-" + random.nextInt());
        if (away) {
            Files.move(path, grave);
        } else {
            Files.copy(path, grave, StandardCopyOption.COPY_ATTRIBUTES);
        }
        return grave;
    }

    @Override
    public void syncFolder(Path folder) throws IOException {
        change();
        real.syncFolder(folder);
        synchronized (this) {
            names.removeIf(change -> change.folder().equals(folder.toAbsolutePath()));
        }
    }

    @Override
    public void delete(Path path) throws IOException {
        change();
        if (!Files.exists(path, LinkOption.NOFOLLOW_LINKS)) {
            return;
        }
        if (!powerFails) {
            real.delete(path);
            return;
        }
        var grave = bury(path, true);
        named(path, () -> Files.move(grave, path));
    }

    @Override
    public long room(Path folder) throws IOException {
        return real.room(folder);
    }

    private final class FaultyOut implements Out {
        private final Path file;
        private final Out out;

        FaultyOut(Path file, Out out) {
            this.file = file;
            this.out = out;
        }

        @Override
        public void write(ByteBuffer bytes) throws IOException {
            change(Optional.of(() -> {
                int part = random.nextInt(bytes.remaining() + 1);
                out.write(bytes.slice(bytes.position(), part));
            }));
            int fits = take(bytes.remaining());
            if (fits < bytes.remaining()) {
                out.write(bytes.slice(bytes.position(), fits));
                throw new IOException("No space left on device");
            }
            out.write(bytes);
        }

        @Override
        public void sync() throws IOException {
            change();
            out.sync();
            synced(file, out.size());
        }

        @Override
        public long size() {
            return out.size();
        }

        @Override
        public void close() throws IOException {
            out.close();
        }
    }
}
