package app.custodex.link;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;

/**
 * The content of one file while it is read.
 *
 * @param size bytes that the phone promises, from the offset that was asked for
 * @param etag of what is being read, which may be newer than the listing; empty when the phone gives none
 * @param stream ends early with an exception when the phone goes away, never with a short content
 */
public record PhoneContent(long size, String etag, InputStream stream) implements Closeable {
    @Override
    public void close() throws IOException {
        stream.close();
    }
}
