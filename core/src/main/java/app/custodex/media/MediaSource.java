package app.custodex.media;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;

/** The bytes of a media file, wherever they lie. One thread uses it at a time. */
public interface MediaSource extends Closeable {
    /** In bytes. */
    long size();

    /**
     * Reads from a position on.
     *
     * @return how many bytes, at least one; -1 at the end
     */
    int read(long position, ByteBuffer into) throws IOException;
}
