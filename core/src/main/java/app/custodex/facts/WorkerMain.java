package app.custodex.facts;

import app.custodex.facts.FileFacts.Sort;
import app.custodex.facts.FileFacts.Unread;
import app.custodex.facts.FileFacts.Unreadable;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;

/**
 * The process in which files of strangers are parsed. It gets no path and no file: it asks for the bytes that it needs. It ends when
 * nobody talks to it any more.
 */
public final class WorkerMain {
    /** What the worker says. */
    static final int MORE = 1;

    static final int FACTS = 2;
    /** Followed by why. */
    static final int UNREAD = 3;

    /** What comes in place of a length when the file could not be read any further. */
    static final int FAILED = -1;

    private WorkerMain() {}

    /** Talks over standard input and output. */
    public static void main(String... words) throws IOException {
        var in = new DataInputStream(new BufferedInputStream(System.in, 1 << 16));
        var out = new DataOutputStream(new BufferedOutputStream(System.out, 1 << 16));
        System.setOut(System.err); // a library that prints must not be taken for the worker
        while (true) {
            int sort = in.read();
            if (sort < 0) {
                return;
            }
            answer(Sort.values()[sort], in.readUTF(), in, out);
            out.flush();
        }
    }

    private static void answer(Sort sort, String name, DataInputStream in, DataOutputStream out) throws IOException {
        try {
            var facts = read(sort, name, new Asked(in, out));
            var json = FactsJson.MAPPER.writeValueAsBytes(facts);
            out.write(FACTS);
            out.writeInt(json.length);
            out.write(json);
        } catch (Gone e) {
            throw e.getCause();
        } catch (Unreadable e) {
            unread(e.why(), out);
        } catch (IOException | RuntimeException | StackOverflowError damaged) {
            unread(Unread.DAMAGED, out);
        }
    }

    private static void unread(Unread why, DataOutputStream out) throws IOException {
        out.write(UNREAD);
        out.write(why.ordinal());
    }

    private static FileFacts read(Sort sort, String name, InputStream stream) throws IOException {
        return switch (sort) {
            case IMAGE -> MediaFacts.read(stream);
            case SOUND -> SoundFacts.read(stream, name);
            case DOCUMENT -> DocumentFacts.read(stream, name);
        };
    }

    /** Nobody is at the other end. */
    private static final class Gone extends UncheckedIOException {
        private static final long serialVersionUID = 1L;

        Gone(IOException cause) {
            super(cause);
        }
    }

    /** The file, of which each piece is asked for when it is needed. */
    private static final class Asked extends InputStream {
        private final DataInputStream in;
        private final DataOutputStream out;
        private byte[] piece = new byte[0];
        private int at;
        private boolean ended;

        Asked(DataInputStream in, DataOutputStream out) {
            this.in = in;
            this.out = out;
        }

        @Override
        public int read() throws IOException {
            return fill() ? piece[at++] & 0xff : -1;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            if (length == 0) {
                return 0;
            }
            if (!fill()) {
                return -1;
            }
            int n = Math.min(length, piece.length - at);
            System.arraycopy(piece, at, buffer, offset, n);
            at += n;
            return n;
        }

        private boolean fill() throws IOException {
            if (at < piece.length) {
                return true;
            }
            if (ended) {
                return false;
            }
            int length;
            try {
                out.write(MORE);
                out.flush();
                length = in.readInt();
                piece = new byte[Math.max(0, length)];
                in.readFully(piece);
            } catch (IOException gone) {
                throw new Gone(gone);
            }
            at = 0;
            ended = length <= 0;
            if (length == FAILED) {
                throw new EOFException("the file could not be read any further");
            }
            return length > 0;
        }
    }
}
