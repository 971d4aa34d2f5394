package app.custodex.files;

import com.ibm.icu.text.CharsetDetector;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;

/** The bytes of a file as somebody can look at them, whatever it is. */
public final class RawContent {
    private static final int IN_A_LINE = 16;
    private static final int LONGEST_LINE = 100;
    private static final HexFormat HEX = HexFormat.ofDelimiter(" ");
    private static final byte[] DATABASE = "SQLite format 3\0".getBytes(StandardCharsets.US_ASCII);

    private RawContent() {}

    /**
     * Text, and the encoding that it was taken to be in.
     *
     * @param guessed whether another encoding could be meant
     */
    public record Decoded(String text, String encoding, boolean guessed) {}

    /**
     * Reads bytes as text; empty when they are no text.
     *
     * @param bytes the beginning of a file; a character that is cut at their end is left out
     */
    public static Optional<Decoded> text(byte[] bytes) {
        int zeros = 0;
        for (byte b : bytes) {
            zeros += b == 0 ? 1 : 0;
        }
        var utf8 = utf8(bytes);
        if (utf8.isPresent() && zeros == 0) {
            return Optional.of(new Decoded(utf8.get(), "UTF-8", false));
        }
        boolean wide = bytes.length > 1 && (bytes[0] & 0xff) + (bytes[1] & 0xff) == 0xfe + 0xff; // a mark of UTF-16
        if (bytes.length == 0 || zeros > 0 && !wide) {
            return Optional.empty();
        }
        var match = new CharsetDetector().setText(bytes).detect();
        if (match == null || !Charset.isSupported(match.getName())) {
            return Optional.empty();
        }
        var text = new String(bytes, Charset.forName(match.getName()));
        boolean readable = text.chars()
                                .filter(c -> c < ' ' && c != '\n' && c != '\r' && c != '\t' && c != '\f')
                                .count()
                        * 50L
                < text.length();
        return readable ? Optional.of(new Decoded(text, match.getName(), !wide)) : Optional.empty();
    }

    private static Optional<String> utf8(byte[] bytes) {
        // Up to three bytes at the end may be the beginning of a character.
        for (int cut = 0; cut <= Math.min(3, bytes.length); cut++) {
            try {
                return Optional.of(StandardCharsets.UTF_8
                        .newDecoder()
                        .decode(ByteBuffer.wrap(bytes, 0, bytes.length - cut))
                        .toString());
            } catch (CharacterCodingException e) {
                // one less
            }
        }
        return Optional.empty();
    }

    /** Lines of text; long ones are broken, so that a file without line breaks can be shown too. */
    public static List<String> lines(String text) {
        var lines = new ArrayList<String>();
        text.lines().forEach(line -> {
            int from = 0;
            while (line.length() - from > LONGEST_LINE) {
                int end = from + LONGEST_LINE;
                end -= Character.isHighSurrogate(line.charAt(end - 1)) ? 1 : 0;
                lines.add(line.substring(from, end));
                from = end;
            }
            lines.add(line.substring(from));
        });
        return lines;
    }

    /** Sixteen bytes a line: their place, their values, and what of them is ASCII. */
    public static List<String> hex(byte[] bytes) {
        var lines = new ArrayList<String>(bytes.length / IN_A_LINE + 1);
        for (int at = 0; at < bytes.length; at += IN_A_LINE) {
            int end = Math.min(bytes.length, at + IN_A_LINE);
            var values = HEX.formatHex(bytes, at, end);
            var signs = new StringBuilder();
            for (int i = at; i < end; i++) {
                signs.append(bytes[i] >= ' ' && bytes[i] < 0x7f ? (char) bytes[i] : '.');
            }
            lines.add(HexFormat.of().toHexDigits((long) at, 8) + "  " + values
                    + " ".repeat(3 * IN_A_LINE - values.length()) + " " + signs);
        }
        return lines;
    }

    /** Whether it begins as an SQLite database does ("Database File Format", §1.3.1). */
    public static boolean isDatabase(byte[] bytes) {
        return bytes.length >= DATABASE.length
                && ByteBuffer.wrap(bytes, 0, DATABASE.length).equals(ByteBuffer.wrap(DATABASE));
    }
}
