package app.custodex.readers.files;

import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;
import org.apache.commons.io.input.ReaderInputStream;

/**
 * Cuts a file into its cards, one after the other, however many there are. Each comes as text with its lines unfolded, so that what is
 * wrong with one byte, line or card stays there.
 */
final class VcardCutter implements Closeable {
    /** A card with a large photo stays far below; more is no card but an attack or a mix-up. */
    static final int MAX_BYTES = 64 << 20;

    /** Most files hold one card, and a phone has thousands of them. */
    private static final int BUFFER = 8 << 10;

    private static final Charset WESTERN = Charset.forName("windows-1252");
    private static final char REPLACED = '\ufffd';
    private static final Pattern CHARSET = Pattern.compile("CHARSET=\"?([^;:\"]+)");

    /**
     * @param offset of its first byte in the text of the file, behind any byte-order mark
     * @param ended whether its end was there
     * @param foreign lines that were in no charset that they name, and not in UTF-8; they were read as Western European
     * @param tooLarge whether it was left out for its size
     */
    record Card(long offset, String text, boolean ended, int foreign, boolean tooLarge) {
        /** Its lasting identifier, as it is written; empty when it has none. */
        String uid() {
            return CardLine.first(text, "UID", any -> true)
                    .map(line -> text.substring(line.value(), line.end()).strip())
                    .orElse("");
        }
    }

    private final InputStream in;
    private final byte[] buffer = new byte[BUFFER];
    private int from;
    private int to;
    private long at;
    private long lineAt;
    private Optional<byte[]> putBack = Optional.empty();

    VcardCutter(InputStream in) throws IOException {
        this.in = decoded(in.markSupported() ? in : new BufferedInputStream(in, BUFFER));
    }

    /** As UTF-8, or as what is near enough to be told line by line. */
    private static InputStream decoded(InputStream in) throws IOException {
        in.mark(4);
        var start = in.readNBytes(4);
        in.reset();
        if (start.length >= 3 && start[0] == (byte) 0xef && start[1] == (byte) 0xbb && start[2] == (byte) 0xbf) {
            in.skipNBytes(3);
            return in;
        }
        if (start.length < 4) {
            return in;
        }
        boolean marked = start[0] == (byte) 0xfe && start[1] == (byte) 0xff
                || start[0] == (byte) 0xff && start[1] == (byte) 0xfe;
        if (marked || start[0] == 0 && start[2] == 0) {
            return utf8(in, StandardCharsets.UTF_16); // by its mark, else the larger half first (RFC 2781 §4.3)
        }
        return start[1] == 0 && start[3] == 0 ? utf8(in, StandardCharsets.UTF_16LE) : in;
    }

    private static InputStream utf8(InputStream in, Charset charset) throws IOException {
        return new BufferedInputStream(
                ReaderInputStream.builder()
                        .setReader(new InputStreamReader(in, charset))
                        .setCharset(StandardCharsets.UTF_8)
                        .get(),
                BUFFER);
    }

    /** Goes to a card whose offset is known, before any is read. */
    void skipTo(long offset) throws IOException {
        in.skipNBytes(offset - at);
        at = offset;
    }

    /** The next card; empty at the end of the file. */
    Optional<Card> next() throws IOException {
        var line = line();
        while (line.isPresent() && !is(line.get(), "BEGIN:VCARD")) {
            line = line();
        }
        if (line.isEmpty()) {
            return Optional.empty();
        }
        long offset = lineAt;
        var lines = new ArrayList<byte[]>(List.of(line.get()));
        long bytes = 0;
        int depth = 1;
        boolean ended = false;
        for (line = line(); line.isPresent(); line = line()) {
            if (is(line.get(), "BEGIN:VCARD")) {
                if (!isAgent(lines.getLast())) {
                    putBack = line; // the card before it has no end
                    break;
                }
                depth++;
            }
            bytes += line.get().length;
            if (bytes <= MAX_BYTES) {
                lines.add(line.get());
            }
            if (is(line.get(), "END:VCARD") && --depth == 0) {
                ended = true;
                break;
            }
        }
        return Optional.of(
                bytes > MAX_BYTES ? new Card(offset, "", ended, 0, true) : card(offset, logical(lines), ended));
    }

    /** A card inside a card, as vCard 2.1 has it. */
    private static boolean isAgent(byte[] line) {
        return line.length < 64
                && new String(line, StandardCharsets.ISO_8859_1)
                        .strip()
                        .toUpperCase(Locale.ROOT)
                        .matches("(.*\\.)?AGENT(;.*)?:");
    }

    /** @param words in capitals */
    private static boolean is(byte[] line, String words) {
        int from = 0;
        int until = line.length;
        while (from < until && Character.isWhitespace(line[from])) {
            from++;
        }
        if (until - from < words.length() || Character.toUpperCase((char) line[from]) != words.charAt(0)) {
            return false; // as nearly all lines
        }
        while (until > from && Character.isWhitespace(line[until - 1])) {
            until--;
        }
        if (until - from != words.length()) {
            return false;
        }
        for (int i = 0; i < words.length(); i++) {
            if (Character.toUpperCase((char) line[from + i]) != words.charAt(i)) {
                return false;
            }
        }
        return true;
    }

    /** Without its end: CRLF, LF, or CR alone. */
    private Optional<byte[]> line() throws IOException {
        if (putBack.isPresent()) {
            var line = putBack;
            putBack = Optional.empty();
            return line;
        }
        lineAt = at;
        if (from == to && !fill()) {
            return Optional.empty();
        }
        int end = end();
        if (end < to) { // nearly always it lies in the buffer whole
            var line = Arrays.copyOfRange(buffer, from, end);
            at += end - from;
            from = end;
            passEnd();
            return Optional.of(line);
        }
        var line = new ByteArrayOutputStream(2 * BUFFER);
        do {
            end = end();
            line.write(buffer, from, Math.min(end - from, Math.max(0, MAX_BYTES + 1 - line.size())));
            at += end - from;
            from = end;
        } while (from == to && fill());
        if (from < to) {
            passEnd();
        }
        return Optional.of(line.toByteArray());
    }

    /** Where the line ends as far as the buffer goes. */
    private int end() {
        int end = from;
        while (end < to && buffer[end] != '\n' && buffer[end] != '\r') {
            end++;
        }
        return end;
    }

    private void passEnd() throws IOException {
        boolean pair = buffer[from] == '\r';
        step();
        if (pair && (from < to || fill()) && buffer[from] == '\n') {
            step();
        }
    }

    private void step() {
        from++;
        at++;
    }

    private boolean fill() throws IOException {
        from = 0;
        to = Math.max(0, in.read(buffer));
        return to > 0;
    }

    /** A line with what belongs to it: folded lines, and base64 and quoted-printable that go on without an indentation. */
    private static final class Logical {
        private final ByteArrayOutputStream bytes = new ByteArrayOutputStream(80);
        private final String head;

        Logical(byte[] first) {
            head = head(first);
            bytes.writeBytes(first);
        }

        /** Name and parameters in capitals; empty when there are no parameters. */
        private static String head(byte[] line) {
            int end = 0;
            boolean quoted = false;
            boolean parameters = false;
            while (end < line.length && (quoted || line[end] != ':')) {
                parameters |= line[end] == ';';
                quoted ^= line[end++] == '"';
            }
            return parameters ? new String(line, 0, end, StandardCharsets.ISO_8859_1).toUpperCase(Locale.ROOT) : "";
        }

        boolean isBase64() {
            return head.contains("BASE64") || head.contains("ENCODING=B");
        }

        boolean isQuotedPrintable() {
            return head.contains("QUOTED-PRINTABLE");
        }

        boolean endsSoftly() {
            var all = bytes.size() == 0 ? new byte[1] : bytes.toByteArray();
            return isQuotedPrintable() && all[all.length - 1] == '=';
        }
    }

    private static List<Logical> logical(List<byte[]> lines) {
        boolean spaceStays = false;
        for (var line : lines) {
            spaceStays |= is(line, "VERSION:2.1");
        }
        var logical = new ArrayList<Logical>();
        for (var line : lines) {
            boolean indented = line.length > 0 && (line[0] == ' ' || line[0] == '\t');
            if (logical.isEmpty()) {
                logical.add(new Logical(line));
                continue;
            }
            var last = logical.getLast();
            if (last.isQuotedPrintable() && last.endsSoftly()) {
                var whole = last.bytes.toByteArray();
                last.bytes.reset();
                last.bytes.write(whole, 0, whole.length - 1);
                last.bytes.writeBytes(line);
            } else if (indented) {
                // vCard 2.1 folds where a space is, which stays; later versions put one in.
                int from = spaceStays && !last.isBase64() ? 0 : 1;
                last.bytes.write(line, from, line.length - from);
            } else if (last.isBase64() && isBase64(line)) {
                last.bytes.writeBytes(line);
            } else {
                logical.add(new Logical(line));
            }
        }
        return logical;
    }

    private static boolean isBase64(byte[] line) {
        for (byte c : line) {
            if (!Character.isLetterOrDigit(c) && c != '+' && c != '/' && c != '=') {
                return false;
            }
        }
        return line.length > 0;
    }

    private static Card card(long offset, List<Logical> lines, boolean ended) {
        var text = new StringBuilder();
        int foreign = 0;
        for (var line : lines) {
            var named = charset(line);
            var read = line.bytes.toString(named.orElse(StandardCharsets.UTF_8));
            if (named.isEmpty() && read.indexOf(REPLACED) >= 0 && !isUtf8(line.bytes.toByteArray())) {
                read = line.bytes.toString(WESTERN);
                foreign++;
            }
            text.append(read);
            text.append("\r\n");
        }
        if (!ended) {
            text.append("END:VCARD\r\n");
        }
        return new Card(offset, text.toString(), ended, foreign, false);
    }

    private static boolean isUtf8(byte[] bytes) {
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes));
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }

    /** What a line of vCard 2.1 names; in quoted-printable the bytes are ASCII, and the name is for what they stand for. */
    private static Optional<Charset> charset(Logical line) {
        var named = CHARSET.matcher(line.head);
        if (line.isQuotedPrintable() || !named.find()) {
            return Optional.empty();
        }
        try {
            return Optional.of(Charset.forName(named.group(1).strip()));
        } catch (IllegalArgumentException unknown) {
            return Optional.empty();
        }
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
