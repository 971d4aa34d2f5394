package app.custodex.extract;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** Something of the phone can't be read, as opposed to the folder that can't be written: the rest goes on. */
public final class UnreadableException extends IOException {
    private static final long serialVersionUID = 1L;

    private UnreadableException(IOException cause) {
        super(cause);
    }

    /** Opens something to be read. */
    public interface Opener {
        InputStream open() throws IOException;
    }

    /** Reads something. */
    public interface Reading<T> {
        T read() throws IOException;
    }

    /** What is read; whatever goes wrong is trouble of this sort. */
    public static <T> T whileReading(Reading<T> reading) throws UnreadableException {
        try {
            return reading.read();
        } catch (UnreadableException e) {
            throw e;
        } catch (IOException e) {
            throw new UnreadableException(e);
        }
    }

    /** Content whose trouble is of this sort, from the opening on. */
    public static InputStream tell(Opener opener) throws UnreadableException {
        try {
            return new FilterInputStream(opener.open()) {
                @Override
                public int read() throws IOException {
                    try {
                        return super.read();
                    } catch (IOException e) {
                        throw new UnreadableException(e);
                    }
                }

                @Override
                public int read(byte[] into, int offset, int length) throws IOException {
                    try {
                        return super.read(into, offset, length);
                    } catch (IOException e) {
                        throw new UnreadableException(e);
                    }
                }
            };
        } catch (IOException e) {
            throw new UnreadableException(e);
        }
    }
}
