package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;

/** Tells what an interrupted attempt stored that is what it wrote, and may be taken over. */
final class Salvage {
    private Salvage() {}

    /** Whether a stored file is all of what its journal says; makes it safe if it may not be. */
    static boolean isComplete(DraftJournal.Entry entry, Path file, Disk disk) throws IOException {
        if (entry.state() == DraftJournal.State.GROWING || Files.size(file) != entry.size()) {
            return false;
        }
        if (entry.state() == DraftJournal.State.SAFE) {
            return true;
        }
        try (var in = Files.newInputStream(file)) {
            if (!Digests.of(in).equals(entry.digest())) {
                return false;
            }
        }
        try (var out = disk.reopen(file, entry.size())) {
            out.sync();
        }
        return true;
    }

    /** Whether an item's bytes lie there as they were written. */
    static boolean isThere(FileChannel channel, long from, ManifestItem item) throws IOException {
        var bytes = ByteBuffer.allocate((int) item.size());
        while (bytes.hasRemaining()) {
            if (channel.read(bytes, from + bytes.position()) < 0) {
                return false;
            }
        }
        return Digests.of(bytes.array()).equals(item.digest());
    }

    /** Takes the beginning of a file into a digest. */
    static void digest(FileChannel channel, long end, MessageDigest digest) throws IOException {
        var buffer = ByteBuffer.allocate(1 << 20);
        for (long position = 0; position < end; ) {
            buffer.clear().limit((int) Math.min(buffer.capacity(), end - position));
            int n = channel.read(buffer, position);
            if (n < 0) {
                throw new IOException("the pack became shorter while it was read");
            }
            digest.update(buffer.flip());
            position += n;
        }
    }

    static MessageDigest copyOf(MessageDigest digest) throws IOException {
        try {
            return (MessageDigest) digest.clone();
        } catch (CloneNotSupportedException e) {
            throw new IOException("SHA-512 that can't be cloned", e);
        }
    }
}
