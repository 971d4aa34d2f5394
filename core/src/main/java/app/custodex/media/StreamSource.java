package app.custodex.media;

import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/**
 * Media in what can only be read from its beginning on. Going back opens it anew, so what was read last is kept: containers are read here
 * and there, mostly near places where one was before. Safe for use by several threads.
 */
public final class StreamSource implements MediaSource {
    private static final int BLOCK = 1 << 18;
    private static final int BLOCKS = 24;

    /** Opens it at its beginning. */
    public interface Opener {
        InputStream open() throws IOException;
    }

    private final Opener opener;
    private final long size;
    private final Map<Long, byte[]> blocks = new LinkedHashMap<>(BLOCKS, 0.75f, true) {
        private static final long serialVersionUID = 1L;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Long, byte[]> eldest) {
            return size() > BLOCKS;
        }
    };
    private Optional<InputStream> stream = Optional.empty();
    /** Where the stream stands. */
    private long at;

    private boolean closed;

    /** @param size in bytes, as it is promised */
    public StreamSource(long size, Opener opener) {
        this.size = size;
        this.opener = opener;
    }

    @Override
    public long size() {
        return size;
    }

    @Override
    public synchronized int read(long position, ByteBuffer into) throws IOException {
        if (closed) {
            throw new IOException("it was closed");
        }
        if (position < 0 || position >= size) {
            return -1;
        }
        var block = block(position / BLOCK);
        int from = (int) (position % BLOCK);
        int n = Math.min(into.remaining(), block.length - from);
        into.put(block, from, n);
        return n;
    }

    private byte[] block(long number) throws IOException {
        var known = blocks.get(number);
        if (known != null) {
            return known;
        }
        long begin = number * BLOCK;
        if (stream.isEmpty() || begin < at) {
            closeStream();
            stream = Optional.of(opener.open());
            at = 0;
        }
        var in = stream.get();
        in.skipNBytes(begin - at);
        var bytes = new byte[(int) Math.min(BLOCK, size - begin)];
        int n = in.readNBytes(bytes, 0, bytes.length);
        at = begin + n;
        if (n < bytes.length) {
            throw new EOFException("it ends after " + at + " of " + size + " bytes");
        }
        blocks.put(number, bytes);
        return bytes;
    }

    private void closeStream() throws IOException {
        if (stream.isPresent()) {
            stream.get().close();
        }
        stream = Optional.empty();
    }

    @Override
    public synchronized void close() throws IOException {
        closed = true;
        blocks.clear();
        closeStream();
    }
}
