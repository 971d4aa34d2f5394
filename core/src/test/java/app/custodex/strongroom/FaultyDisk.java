package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.RealDisk;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.HashMap;
import java.util.Map;

/**
 * A disk whose power fails at the n-th change, or that is full after so many bytes. When the power fails, what was
 * written but not synced is lost, down to the last synced size of each file.
 */
public final class FaultyDisk implements Disk {
    /** Thrown at the cut, and by everything that is tried afterwards. */
    public static final class PowerCut extends IOException {
        private static final long serialVersionUID = 1L;

        PowerCut() {
            super("power cut");
        }
    }

    private final RealDisk real = new RealDisk();
    private final long cutAt;
    private final long room;
    private final Map<Path, Long> safeSizes = new HashMap<>();
    private long changes;
    private long written;
    private boolean off;

    private FaultyDisk(long cutAt, long room) {
        this.cutAt = cutAt;
        this.room = room;
    }

    public static FaultyDisk cutAt(long change) {
        return new FaultyDisk(change, Long.MAX_VALUE);
    }

    /** Says that it has room, and is full all the same after so many bytes: another program was faster. */
    public static FaultyDisk fullAfter(long bytes) {
        return new FaultyDisk(Long.MAX_VALUE, bytes);
    }

    public synchronized long changes() {
        return changes;
    }

    public synchronized boolean wasCut() {
        return off;
    }

    private synchronized void change() throws IOException {
        if (!off && ++changes >= cutAt) {
            off = true;
            for (var file : safeSizes.entrySet()) {
                if (Files.exists(file.getKey())) {
                    try (var channel = FileChannel.open(file.getKey(), StandardOpenOption.WRITE)) {
                        channel.truncate(file.getValue());
                    }
                }
            }
        }
        if (off) {
            throw new PowerCut();
        }
    }

    private synchronized void take(long bytes) throws IOException {
        written += bytes;
        if (written > room) {
            throw new IOException("No space left on device");
        }
    }

    private synchronized void safe(Path file, long size) {
        safeSizes.put(file, size);
    }

    @Override
    public Out create(Path file) throws IOException {
        change();
        safe(file, 0);
        return new FaultyOut(file, real.create(file));
    }

    @Override
    public Out append(Path file) throws IOException {
        change();
        var out = real.append(file);
        safe(file, out.size());
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
        real.move(from, to);
        synchronized (this) {
            for (var file :
                    safeSizes.keySet().stream().filter(f -> f.startsWith(from)).toList()) {
                Long size = safeSizes.remove(file);
                if (size != null) {
                    safeSizes.put(file.equals(from) ? to : to.resolve(from.relativize(file)), size);
                }
            }
        }
    }

    @Override
    public void syncFolder(Path folder) throws IOException {
        change();
        real.syncFolder(folder);
    }

    @Override
    public void delete(Path path) throws IOException {
        change();
        real.delete(path);
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
            change();
            take(bytes.remaining());
            out.write(bytes);
        }

        @Override
        public void sync() throws IOException {
            change();
            out.sync();
            safe(file, out.size());
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
