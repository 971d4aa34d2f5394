package app.custodex.extract.contacts;

import java.io.FilterWriter;
import java.io.IOException;
import java.io.Writer;

/**
 * Folds content lines at 75 octets of UTF-8 and never within a character (RFC 6350 §3.2). The vCard library counts
 * characters instead, and so makes lines of other scripts up to four times too long.
 */
final class OctetFolder extends FilterWriter {
    private static final int MAX_OCTETS = 75;

    private int octets;
    private char high;

    OctetFolder(Writer out) {
        super(out);
    }

    @Override
    public void write(int c) throws IOException {
        character((char) c);
    }

    @Override
    public void write(char[] text, int offset, int length) throws IOException {
        int end = offset + length;
        for (int i = offset; i < end; ) {
            int until = i;
            int most = Math.min(end, i + MAX_OCTETS - octets);
            while (until < most && isPlain(text[until])) {
                until++;
            }
            if (until > i) { // photos are long, and all of one octet a character
                out.write(text, i, until - i);
                octets += until - i;
                i = until;
            } else {
                character(text[i++]);
            }
        }
    }

    @Override
    public void write(String text, int offset, int length) throws IOException {
        write(text.toCharArray(), offset, length);
    }

    private static boolean isPlain(char c) {
        return c < 0x80 && c != '\r' && c != '\n';
    }

    private void character(char c) throws IOException {
        if (c == '\r' || c == '\n') {
            octets = 0;
            out.write(c);
        } else if (Character.isHighSurrogate(c)) {
            high = c;
        } else {
            boolean pair = Character.isLowSurrogate(c);
            int size = pair ? 4 : c < 0x80 ? 1 : c < 0x800 ? 2 : 3;
            if (octets + size > MAX_OCTETS) {
                out.write("\r\n ");
                octets = 1;
            }
            if (pair) {
                out.write(high);
            }
            out.write(c);
            octets += size;
        }
    }
}
