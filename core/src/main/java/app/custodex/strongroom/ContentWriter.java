package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.seal.StackKey;
import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.WritableByteChannel;
import java.security.MessageDigest;
import java.util.HexFormat;
import java.util.Optional;

/** A stored file on its way to the disk: sealed where there is a key, and digested as it will lie there. */
final class ContentWriter implements Closeable {
    private static final int BUFFER = 1 << 20;

    private final Disk.Out out;
    private final MessageDigest digest;
    private final ByteBuffer buffer = ByteBuffer.allocateDirect(BUFFER);
    private final Optional<WritableByteChannel> seal;
    private long size;

    ContentWriter(Disk.Out out, Optional<StackKey> key) throws IOException {
        this(out, key, Digests.sha512());
    }

    /** Goes on behind what lies there already, in the clear. */
    ContentWriter(Disk.Out out, MessageDigest soFar) throws IOException {
        this(out, Optional.empty(), soFar);
        size = out.size();
    }

    private ContentWriter(Disk.Out out, Optional<StackKey> key, MessageDigest digest) throws IOException {
        this.out = out;
        this.digest = digest;
        this.seal = key.isPresent() ? Optional.of(key.get().encrypting(new Stored())) : Optional.empty();
    }

    /** Bytes of content so far, before sealing. */
    long size() {
        return size;
    }

    /** Bytes as they lie on the disk, without what is still buffered. */
    long storedSize() {
        return out.size();
    }

    void write(byte[] bytes, int offset, int length) throws IOException {
        size += length;
        var content = ByteBuffer.wrap(bytes, offset, length);
        if (seal.isEmpty()) {
            store(content);
            return;
        }
        while (content.hasRemaining()) {
            seal.get().write(content);
        }
    }

    private void store(ByteBuffer bytes) throws IOException {
        digest.update(bytes.duplicate());
        if (bytes.remaining() > buffer.remaining()) {
            flush();
        }
        if (bytes.remaining() > buffer.capacity()) {
            out.write(bytes);
        } else {
            buffer.put(bytes);
        }
    }

    /** Digest of what was written so far; only of what is not sealed. */
    String digestSoFar() throws IOException {
        try {
            return HexFormat.of().formatHex(((MessageDigest) digest.clone()).digest());
        } catch (CloneNotSupportedException e) {
            throw new IOException("SHA-512 that can't be cloned", e);
        }
    }

    /** Hands what is buffered to the system, which keeps it when this program ends. */
    void flush() throws IOException {
        buffer.flip();
        out.write(buffer);
        buffer.clear();
    }

    /** Ends the content and gives the digest of what lies on the disk; what follows is {@link #sync}. */
    String finish() throws IOException {
        if (seal.isPresent()) {
            seal.get().close();
        }
        flush();
        return Digests.hex(digest);
    }

    void sync() throws IOException {
        out.sync();
    }

    @Override
    public void close() throws IOException {
        out.close();
    }

    private final class Stored implements WritableByteChannel {
        @Override
        public int write(ByteBuffer bytes) throws IOException {
            int n = bytes.remaining();
            store(bytes);
            return n;
        }

        @Override
        public boolean isOpen() {
            return true;
        }

        @Override
        public void close() {
            // The file is closed by whoever made it.
        }
    }
}
