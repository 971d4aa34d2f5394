package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.seal.AgeWriter;
import app.custodex.seal.StackKey;
import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.security.MessageDigest;
import java.util.Optional;

/** A stored file on its way to the disk: sealed where there is a key, and digested as it will lie there. */
final class ContentWriter implements Closeable {
    private static final int BUFFER = 1 << 20;

    private final Disk.Out out;
    private final MessageDigest digest;
    private final ByteBuffer buffer = ByteBuffer.allocateDirect(BUFFER);
    private final Optional<AgeWriter> seal;
    private long size;

    ContentWriter(Disk.Out out, Optional<StackKey> key) throws IOException {
        this.out = out;
        this.digest = Digests.sha512();
        this.seal = key.isPresent() ? Optional.of(key.get().writer(this::store)) : Optional.empty();
    }

    /** Goes on behind what lies there already, in the clear. */
    ContentWriter(Disk.Out out, MessageDigest soFar) {
        this.out = out;
        this.digest = soFar;
        this.seal = Optional.empty();
        this.size = out.size();
    }

    /**
     * Goes on behind what lies there already of an age file.
     *
     * @param soFar of the bytes on the disk
     * @param size bytes of content, whole chunks
     */
    ContentWriter(Disk.Out out, MessageDigest soFar, AgeWriter.Begun begun, long size) {
        this.out = out;
        this.digest = soFar;
        this.seal = Optional.of(AgeWriter.goOn(begun, size, this::store));
        this.size = size;
    }

    /** How a later attempt goes on with an age file. */
    Optional<AgeWriter.Begun> begun() {
        return seal.map(AgeWriter::begun);
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
        if (seal.isPresent()) {
            seal.get().write(bytes, offset, length);
        } else {
            store(ByteBuffer.wrap(bytes, offset, length));
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
        return Digests.hex(Salvage.copyOf(digest));
    }

    /** Nothing that was written so far is the end, so that {@link #flush} leaves no chunk of an age file behind. */
    void moreFollows() throws IOException {
        if (seal.isPresent()) {
            seal.get().moreFollows();
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
            seal.get().finish();
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
}
