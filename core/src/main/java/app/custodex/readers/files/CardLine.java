package app.custodex.readers.files;

import java.util.Optional;
import java.util.function.Predicate;

/**
 * Where a property stands in a card whose lines are unfolded; found without parsing any of the others.
 *
 * @param text of the whole card
 * @param name where the parameters begin, behind the name
 * @param value where the value begins
 * @param end of the line, before its end mark
 */
record CardLine(String text, int name, int value, int end) {
    /** The first property of this name, in small letters or capitals, in a group or not, that fits. */
    static Optional<CardLine> first(String text, String property, Predicate<CardLine> fits) {
        for (int start = 0; start < text.length(); start = next(text, start)) {
            int end = end(text, start);
            int name = start;
            while (name < end && isOfName(text.charAt(name))) {
                if (text.charAt(name++) == '.') {
                    start = name;
                }
            }
            if (name - start == property.length() && text.regionMatches(true, start, property, 0, name - start)) {
                int value = value(text, name, end);
                var line = new CardLine(text, name, value, end);
                if (value <= end && fits.test(line)) {
                    return Optional.of(line);
                }
            }
        }
        return Optional.empty();
    }

    private static boolean isOfName(char c) {
        return c != ';' && c != ':';
    }

    /** Behind the colon, which is none inside quotes. */
    private static int value(String text, int from, int end) {
        boolean quoted = false;
        int at = from;
        while (at < end && (quoted || text.charAt(at) != ':')) {
            quoted ^= text.charAt(at++) == '"';
        }
        return at + 1;
    }

    private static int end(String text, int start) {
        int end = text.indexOf('\n', start);
        if (end < 0) {
            return text.length();
        }
        return end > start && text.charAt(end - 1) == '\r' ? end - 1 : end;
    }

    private static int next(String text, int start) {
        int end = text.indexOf('\n', start);
        return end < 0 ? text.length() : end + 1;
    }

    String parameters() {
        return text.substring(name, value - 1);
    }
}
