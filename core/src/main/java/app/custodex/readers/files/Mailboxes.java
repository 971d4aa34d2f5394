package app.custodex.readers.files;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.regex.Pattern;

/** Cuts a mailbox file into its mails: each begins behind a line "From ", which stands at the start or behind an empty line (RFC 4155). */
final class Mailboxes {
    static final int MAX_BYTES = 64 << 20;

    private static final Pattern BEGIN = Pattern.compile("^From \\S+ .*\\d{1,2}:\\d{2}");

    private final ByteLines lines;
    private boolean begun;
    private boolean ended;
    private int leftOut;

    Mailboxes(InputStream in) {
        lines = new ByteLines(in, MAX_BYTES);
    }

    /** The next mail; empty at the end. */
    Optional<byte[]> next() throws IOException {
        if (!begun) {
            begun = true;
            var first = lines.next();
            if (first.isEmpty() || !isBegin(first.get())) {
                ended = true; // no mailbox
            }
        }
        while (!ended) {
            var mail = mail();
            if (mail.isPresent()) {
                return mail;
            }
        }
        return Optional.empty();
    }

    private Optional<byte[]> mail() throws IOException {
        var mail = new ByteArrayOutputStream();
        boolean empty = false;
        boolean large = false;
        while (true) {
            var line = lines.next();
            if (line.isEmpty()) {
                ended = true;
                break;
            }
            if (empty && isBegin(line.get())) {
                break;
            }
            empty = isBlank(line.get());
            large |= mail.size() + line.get().length > MAX_BYTES;
            if (!large) {
                mail.writeBytes(unquoted(line.get()));
            }
        }
        if (large) {
            leftOut++;
            return Optional.empty();
        }
        return Optional.of(mail.toByteArray());
    }

    /** How many were too large. */
    int leftOut() {
        return leftOut;
    }

    /** With an address and a time, so that a sentence that begins so is none. */
    private static boolean isBegin(byte[] line) {
        return line.length > 5
                && line.length < 1_000
                && BEGIN.matcher(new String(line, StandardCharsets.ISO_8859_1)).find();
    }

    private static boolean isBlank(byte[] line) {
        return line.length == 1 || line.length == 2 && line[0] == '\r';
    }

    /** A line of a mail that looks like a beginning has a ">" put before it (RFC 4155, Appendix A). */
    private static byte[] unquoted(byte[] line) {
        int signs = 0;
        while (signs < line.length && line[signs] == '>') {
            signs++;
        }
        boolean quoted = signs > 0
                && line.length >= signs + 5
                && new String(line, signs, 5, StandardCharsets.ISO_8859_1).equals("From ");
        if (!quoted) {
            return line;
        }
        var without = new byte[line.length - 1];
        System.arraycopy(line, 1, without, 0, without.length);
        return without;
    }
}
