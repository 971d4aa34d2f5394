package app.custodex.cli;

import java.io.FilterWriter;
import java.io.IOException;
import java.io.Writer;

/** Lets through nothing that a terminal would obey, whatever a name on a phone holds: control characters become blanks. */
final class TerminalWriter extends FilterWriter {
    TerminalWriter(Writer out) {
        super(out);
    }

    private static char harmless(char c) {
        return Character.isISOControl(c) && c != '\n' && c != '\r' && c != '\t' ? ' ' : c;
    }

    @Override
    public void write(int c) throws IOException {
        out.write(harmless((char) c));
    }

    @Override
    public void write(char[] text, int offset, int length) throws IOException {
        var clean = new char[length];
        for (int i = 0; i < length; i++) {
            clean[i] = harmless(text[offset + i]);
        }
        out.write(clean, 0, length);
    }

    @Override
    public void write(String text, int offset, int length) throws IOException {
        write(text.toCharArray(), offset, length);
    }
}
