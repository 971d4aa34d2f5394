package app.custodex.link;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.regex.Pattern;

/**
 * A file name as text, whatever bytes it is made of. Names are bytes on many systems; those that are UTF-8 are that text, and every
 * other byte is written as a backslash, an x and two digits: {@code caf\xE9.jpg}. A name that has such a mark in it already gets its
 * backslash written in the same way, so each name has one text, and each text gives back its name.
 */
public final class RawName {
    private static final Pattern MARK = Pattern.compile("\\\\x([0-9A-F]{2})");
    private static final char UNREADABLE = '\ufffd';

    private RawName() {}

    /** The name as text. */
    public static String shown(byte[] name) {
        var plain = new String(name, StandardCharsets.UTF_8);
        if (plain.indexOf(UNREADABLE) < 0) {
            return shown(plain);
        }
        var text = new StringBuilder();
        var decoder = StandardCharsets.UTF_8
                .newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        var in = ByteBuffer.wrap(name);
        while (in.hasRemaining()) {
            var out = CharBuffer.allocate(in.remaining());
            var result = decoder.decode(in, out, true);
            text.append(shown(out.flip().toString()));
            for (int bad = result.isError() ? result.length() : 0; bad > 0; bad--) {
                text.append(mark(in.get()));
            }
            decoder.reset();
        }
        return text.toString();
    }

    /** A name that is proper text already. */
    static String shown(String name) {
        return name.contains("\\x") ? MARK.matcher(name).replaceAll("\\\\x5Cx$1") : name;
    }

    static String mark(byte raw) {
        return String.format(Locale.ROOT, "\\x%02X", raw & 0xff);
    }

    /** Whether a text stands for bytes that it could not show. */
    static boolean hasMarks(String text) {
        return text.contains("\\x") && MARK.matcher(text).find();
    }

    /** The bytes of the name that a text stands for. */
    public static byte[] bytes(String text) {
        if (!hasMarks(text)) {
            return text.getBytes(StandardCharsets.UTF_8);
        }
        var bytes = new ByteArrayOutputStream();
        var mark = MARK.matcher(text);
        int from = 0;
        while (mark.find()) {
            bytes.writeBytes(text.substring(from, mark.start()).getBytes(StandardCharsets.UTF_8));
            bytes.write(Integer.parseInt(mark.group(1), 16));
            from = mark.end();
        }
        bytes.writeBytes(text.substring(from).getBytes(StandardCharsets.UTF_8));
        return bytes.toByteArray();
    }

    /** Percent-encoded for an address (RFC 3986 §2.1). */
    static String encoded(String text) {
        var encoded = new StringBuilder();
        for (byte b : bytes(text)) {
            char c = (char) (b & 0xff);
            if (c < 0x80 && (Character.isLetterOrDigit(c) || "-._~".indexOf(c) >= 0)) {
                encoded.append(c);
            } else {
                encoded.append(String.format(Locale.ROOT, "%%%02X", b & 0xff));
            }
        }
        return encoded.toString();
    }

    /** The text of a percent-encoded name; what is no encoding stays as it is. */
    static String decoded(String segment) {
        return segment.indexOf('%') < 0 ? shown(segment) : shown(percentDecoded(segment));
    }

    static byte[] percentDecoded(String segment) {
        var bytes = new ByteArrayOutputStream();
        for (int i = 0; i < segment.length(); ) {
            int value = segment.charAt(i) == '%' && i + 2 < segment.length() ? hex(segment, i + 1) : -1;
            if (value >= 0) {
                bytes.write(value);
                i += 3;
            } else {
                int c = segment.codePointAt(i);
                bytes.writeBytes(Character.toString(c).getBytes(StandardCharsets.UTF_8));
                i += Character.charCount(c);
            }
        }
        return bytes.toByteArray();
    }

    private static int hex(String text, int at) {
        int high = Character.digit(text.charAt(at), 16);
        int low = Character.digit(text.charAt(at + 1), 16);
        return high < 0 || low < 0 ? -1 : high * 16 + low;
    }
}
