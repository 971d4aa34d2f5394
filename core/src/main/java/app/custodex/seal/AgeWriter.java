package app.custodex.seal;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.security.GeneralSecurityException;
import java.util.Base64;
import javax.crypto.SecretKey;
import javax.crypto.spec.SecretKeySpec;

/**
 * Writes one age file (age-encryption.org/v1), chunk by chunk. A file that was not finished can be gone on with behind any of its
 * chunks, by somebody who still has its {@link Begun}.
 */
public final class AgeWriter {
    /** Where the file goes, piece by piece. */
    public interface Out {
        void write(ByteBuffer piece) throws IOException;
    }

    /**
     * What is needed to go on with a file. Whoever has it can read the file, so it is kept only where it is sealed itself.
     *
     * @param header the file's beginning up to its first chunk, in base64
     * @param key of the payload, in base64
     */
    public record Begun(String header, String key) {
        private byte[] headerBytes() {
            return Base64.getDecoder().decode(header);
        }

        private SecretKey payloadKey() {
            return new SecretKeySpec(Base64.getDecoder().decode(key), "ChaCha20");
        }

        /** Bytes of the file up to the end of the chunk with which so many bytes of content end. */
        public long storedSize(long content) {
            long chunks = (content + ChunkCipher.CHUNK - 1) / ChunkCipher.CHUNK;
            return headerBytes().length + content + chunks * ChunkCipher.TAG;
        }

        @Override
        public String toString() {
            return "the beginning of an age file";
        }
    }

    /** Takes the content of chunks in order. */
    public interface Chunks {
        void take(ByteBuffer content) throws IOException;
    }

    private final Begun begun;
    private final ChunkCipher cipher;
    private final Out out;
    private final ByteBuffer plain = ChunkCipher.buffer(ChunkCipher.CHUNK);
    private final ByteBuffer sealed = ChunkCipher.buffer(ChunkCipher.CHUNK + ChunkCipher.TAG);
    private long number;

    private AgeWriter(Begun begun, long number, Out out) {
        this.begun = begun;
        this.number = number;
        this.out = out;
        this.cipher = new ChunkCipher(begun.payloadKey());
    }

    /** Begins a file with its header. */
    static AgeWriter begin(byte[] header, byte[] key, Out out) throws IOException {
        var base64 = Base64.getEncoder();
        var writer = new AgeWriter(new Begun(base64.encodeToString(header), base64.encodeToString(key)), 0, out);
        out.write(ByteBuffer.wrap(header));
        return writer;
    }

    /**
     * Goes on with a file. What follows must be what followed before, if anything behind this place ever lay on a disk: two contents
     * under one key and one number give each other away.
     *
     * @param content bytes of content that are there, whole chunks
     */
    public static AgeWriter goOn(Begun begun, long content, Out out) {
        if (content % ChunkCipher.CHUNK != 0) {
            throw new IllegalArgumentException("not at the end of a chunk: " + content);
        }
        return new AgeWriter(begun, content / ChunkCipher.CHUNK, out);
    }

    /**
     * Reads the whole chunks of a file that was not finished, up to the first that is not what was written.
     *
     * @param atMost bytes of content
     * @return bytes of content that are there; -1 when the file does not begin as it was begun
     */
    public static long readUnfinished(FileChannel file, Begun begun, long atMost, Chunks chunks) throws IOException {
        var header = ByteBuffer.wrap(begun.headerBytes());
        if (!fill(file, ByteBuffer.allocate(header.capacity()), 0).equals(header)) {
            return -1;
        }
        var cipher = new ChunkCipher(begun.payloadKey());
        var sealed = ChunkCipher.buffer(ChunkCipher.CHUNK + ChunkCipher.TAG);
        var plain = ChunkCipher.buffer(ChunkCipher.CHUNK);
        long there = 0;
        while (there + ChunkCipher.CHUNK <= atMost) {
            fill(file, sealed.clear(), begun.storedSize(there));
            try {
                cipher.decrypt(there / ChunkCipher.CHUNK, false, sealed, plain);
            } catch (GeneralSecurityException notWhole) {
                break;
            }
            chunks.take(plain);
            there += ChunkCipher.CHUNK;
        }
        return there;
    }

    private static ByteBuffer fill(FileChannel file, ByteBuffer into, long from) throws IOException {
        int n = 0;
        while (into.hasRemaining() && n >= 0) {
            n = file.read(into, from + into.position());
        }
        return into.flip();
    }

    /** What is needed to go on with this file. */
    public Begun begun() {
        return begun;
    }

    public void write(byte[] bytes, int offset, int length) throws IOException {
        int from = offset;
        int left = length;
        while (left > 0) {
            if (!plain.hasRemaining()) {
                seal(false); // only now is it known that it is not the last one
            }
            int n = Math.min(left, plain.remaining());
            plain.put(bytes, from, n);
            from += n;
            left -= n;
        }
    }

    /** Writes the chunk that is full: more content follows, so it is not the last one. */
    public void moreFollows() throws IOException {
        if (!plain.hasRemaining()) {
            seal(false);
        }
    }

    private void seal(boolean last) throws IOException {
        try {
            cipher.encrypt(number++, last, plain.flip(), sealed);
        } catch (GeneralSecurityException e) {
            throw new IOException("a chunk could not be sealed", e);
        }
        out.write(sealed);
        plain.clear();
    }

    /** Writes the last chunk, which says that it is. */
    public void finish() throws IOException {
        seal(true);
    }
}
