package app.custodex.base;

/**
 * Text that somebody else wrote (names on a phone, targets of links, words of a server), made fit for a message: one line, and
 * nothing in it that a terminal would obey or that would turn the order of the line around.
 */
public final class VisibleText {
    private VisibleText() {}

    /** The text with a blank for each control character, line break, direction mark and lone surrogate. */
    public static String oneLine(String text) {
        for (int i = 0; i < text.length(); i++) {
            if (!isPlain(text, i)) {
                return cleaned(text, i);
            }
        }
        return text;
    }

    private static String cleaned(String text, int from) {
        var clean = new StringBuilder(text);
        for (int i = from; i < text.length(); i++) {
            if (!isPlain(text, i)) {
                clean.setCharAt(i, ' ');
            }
        }
        return clean.toString();
    }

    private static boolean isPlain(String text, int at) {
        char c = text.charAt(at);
        if (c >= ' ' && c < 0x7f) {
            return true;
        }
        if (Character.isHighSurrogate(c)) {
            return at + 1 < text.length() && Character.isLowSurrogate(text.charAt(at + 1));
        }
        if (Character.isLowSurrogate(c)) {
            return at > 0 && Character.isHighSurrogate(text.charAt(at - 1));
        }
        return !Character.isISOControl(c) && !isLineBreak(c) && !turnsDirection(c);
    }

    private static boolean isLineBreak(char c) {
        return c == 0x2028 || c == 0x2029;
    }

    /** Embeddings, overrides and isolates (Unicode Standard Annex 9), and the marks of direction. */
    private static boolean turnsDirection(char c) {
        return c >= 0x202a && c <= 0x202e || c >= 0x2066 && c <= 0x2069 || c == 0x200e || c == 0x200f || c == 0x61c;
    }
}
