package app.custodex.readers.files;

import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.util.Optional;

/** The lines of a file one by one, however long the file is. */
final class ByteLines implements Closeable {
    private final InputStream in;
    private final int longest;

    /**
     * @param in is buffered
     * @param longest bytes of a line; of a longer one come one more than these
     */
    ByteLines(InputStream in, int longest) {
        this.in = in;
        this.longest = longest;
    }

    /** The next line with its end; empty behind the last. */
    Optional<byte[]> next() throws IOException {
        var line = new ByteArrayOutputStream(128);
        int c = in.read();
        if (c < 0) {
            return Optional.empty();
        }
        while (c >= 0) {
            if (line.size() <= longest) {
                line.write(c);
            }
            if (c == '\n') {
                break;
            }
            c = in.read();
        }
        return Optional.of(line.toByteArray());
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
