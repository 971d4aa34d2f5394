package app.custodex.base;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Path;
import java.util.concurrent.locks.ReentrantLock;

/**
 * Divides one disk among those that write to it at once: each writes a slice and goes to the end of the line, so a copy with
 * large files leaves one with small files its share.
 */
public final class FairDisk implements Disk {
    /** Large enough for a disk to be fast, small enough that nobody waits long. */
    static final int SLICE = 1 << 20;

    private final Disk disk;
    private final ReentrantLock line = new ReentrantLock(true);

    public FairDisk(Disk disk) {
        this.disk = disk;
    }

    @Override
    public Out create(Path file) throws IOException {
        return new Waiting(disk.create(file));
    }

    @Override
    public Out append(Path file) throws IOException {
        return new Waiting(disk.append(file));
    }

    @Override
    public Out reopen(Path file, long size) throws IOException {
        return new Waiting(disk.reopen(file, size));
    }

    @Override
    public void createFolders(Path folder) throws IOException {
        disk.createFolders(folder);
    }

    @Override
    public void move(Path from, Path to) throws IOException {
        disk.move(from, to);
    }

    @Override
    public void syncFolder(Path folder) throws IOException {
        disk.syncFolder(folder);
    }

    @Override
    public void delete(Path path) throws IOException {
        disk.delete(path);
    }

    @Override
    public long room(Path folder) throws IOException {
        return disk.room(folder);
    }

    private final class Waiting implements Out {
        private final Out out;

        Waiting(Out out) {
            this.out = out;
        }

        @Override
        public void write(ByteBuffer bytes) throws IOException {
            while (bytes.hasRemaining()) {
                var slice = bytes.slice(bytes.position(), Math.min(SLICE, bytes.remaining()));
                int length = slice.remaining();
                line.lock();
                try {
                    out.write(slice);
                } finally {
                    line.unlock();
                }
                bytes.position(bytes.position() + length);
            }
        }

        @Override
        public void sync() throws IOException {
            out.sync();
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
