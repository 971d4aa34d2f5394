package app.custodex.seal;

import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.NonWritableChannelException;
import java.nio.channels.SeekableByteChannel;
import java.security.GeneralSecurityException;
import java.util.LinkedHashMap;
import java.util.Map;
import javax.crypto.SecretKey;

/**
 * One age file, open for reading anywhere in it. Its payload is a row of chunks of 64 KiB, each encrypted with its own number
 * ("Payload", age-encryption.org/v1), so any of them can be read alone. Every chunk that is read is authenticated, and the last
 * one when it is opened, so a file that was cut is refused.
 */
public final class AgeFile implements SeekableByteChannel {
    private static final int CHUNK = ChunkCipher.CHUNK;
    private static final int TAG = ChunkCipher.TAG;
    static final int LONGEST_HEADER = 1 << 12;
    private static final int KEPT_CHUNKS = 8;

    private final FileChannel file;
    private final long payload;
    private final long chunks;
    private final long size;
    private final ChunkCipher cipher;
    private final ByteBuffer sealed = ChunkCipher.buffer(CHUNK + TAG);
    private final ByteBuffer plain = ChunkCipher.buffer(CHUNK);
    private final LinkedHashMap<Long, byte[]> recent = new LinkedHashMap<>(KEPT_CHUNKS, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, byte[]> eldest) {
            return size() > KEPT_CHUNKS;
        }
    };
    private long position;

    /** Reads a header and gives the key of the payload, leaving the buffer where the payload begins. */
    interface Header {
        SecretKey read(ByteBuffer start) throws IOException;
    }

    AgeFile(FileChannel file, Header header) throws IOException {
        this.file = file;
        var start = ByteBuffer.allocate((int) Math.min(file.size(), LONGEST_HEADER));
        readFully(start, 0);
        start.flip();
        cipher = new ChunkCipher(header.read(start));
        payload = start.position();
        long length = file.size() - payload;
        if (length < TAG) {
            throw new EOFException("the sealed file ends before its content");
        }
        chunks = (length + CHUNK + TAG - 1) / (CHUNK + TAG);
        size = length - TAG * chunks;
        chunk(chunks - 1);
    }

    private void readFully(ByteBuffer into, long from) throws IOException {
        while (into.hasRemaining()) {
            if (file.read(into, from + into.position()) < 0) {
                throw new EOFException("the sealed file became shorter");
            }
        }
    }

    private byte[] chunk(long number) throws IOException {
        var there = recent.get(number);
        if (there != null) {
            return there;
        }
        long from = payload + number * (CHUNK + TAG);
        sealed.clear().limit((int) Math.min(CHUNK + TAG, file.size() - from));
        readFully(sealed, from);
        try {
            cipher.decrypt(number, number == chunks - 1, sealed.flip(), plain);
        } catch (GeneralSecurityException e) {
            throw new IOException("chunk " + number + " of the sealed file is not what was written", e);
        }
        if (!plain.hasRemaining() && number > 0) {
            throw new IOException("the sealed file has an empty last chunk");
        }
        var content = new byte[plain.remaining()];
        plain.get(content);
        recent.put(number, content);
        return content;
    }

    @Override
    public synchronized int read(ByteBuffer into) throws IOException {
        int n = read(into, position);
        position += Math.max(n, 0);
        return n;
    }

    /** Reads from a place without moving the position; fills the buffer unless the file ends. */
    public synchronized int read(ByteBuffer into, long from) throws IOException {
        if (from >= size) {
            return into.hasRemaining() ? -1 : 0;
        }
        int done = 0;
        while (into.hasRemaining() && from + done < size) {
            var chunk = chunk((from + done) / CHUNK);
            int offset = (int) ((from + done) % CHUNK);
            int n = Math.min(into.remaining(), chunk.length - offset);
            into.put(chunk, offset, n);
            done += n;
        }
        return done;
    }

    @Override
    public synchronized long position() {
        return position;
    }

    @Override
    public synchronized AgeFile position(long newPosition) {
        position = newPosition;
        return this;
    }

    /** Bytes of content. */
    @Override
    public long size() {
        return size;
    }

    @Override
    public boolean isOpen() {
        return file.isOpen();
    }

    @Override
    public int write(ByteBuffer bytes) {
        throw new NonWritableChannelException();
    }

    @Override
    public SeekableByteChannel truncate(long newSize) {
        throw new NonWritableChannelException();
    }

    @Override
    public synchronized void close() throws IOException {
        recent.clear();
        file.close();
    }
}
