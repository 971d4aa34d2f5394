package app.custodex.link;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonValue;
import java.util.Locale;
import java.util.Optional;

/**
 * Where something is on a phone: segments joined by "/", none of them empty, "." or "..". It may hold anything else,
 * line breaks and other systems' separators too, so it is never turned into a path on this computer.
 *
 * @param text without a leading or trailing "/"; empty for the root
 */
public record PhonePath(String text) implements Comparable<PhonePath> {
    public static final PhonePath ROOT = new PhonePath("");

    @JsonCreator
    public PhonePath {
        if (!text.isEmpty()) {
            int begin = 0;
            for (int end = text.indexOf('/'); end >= 0; end = text.indexOf('/', begin)) {
                requireName(text, begin, end);
                begin = end + 1;
            }
            requireName(text, begin, text.length());
        }
    }

    private static void requireName(String text, int begin, int end) {
        if (!isName(begin == 0 && end == text.length() ? text : text.substring(begin, end))) {
            throw new IllegalArgumentException("not a path on a phone: " + text);
        }
    }

    /** Whether this can be the name of a file or folder on a phone. */
    public static boolean isName(String segment) {
        return !segment.isEmpty()
                && !segment.equals(".")
                && !segment.equals("..")
                && segment.indexOf('/') < 0
                && segment.indexOf('\0') < 0;
    }

    @JsonValue
    @Override
    public String text() {
        return text;
    }

    public PhonePath child(String name) {
        if (!isName(name)) {
            throw new IllegalArgumentException("not a name on a phone: " + name);
        }
        return new PhonePath(text.isEmpty() ? name : text + "/" + name);
    }

    /** The folder that it lies in; the root for what lies there, and for the root itself. */
    public PhonePath parent() {
        int slash = text.lastIndexOf('/');
        return slash < 0 ? ROOT : new PhonePath(text.substring(0, slash));
    }

    public String name() {
        return text.substring(text.lastIndexOf('/') + 1);
    }

    /** A path that somebody wrote down; empty when it can't be one on a phone. */
    public static Optional<PhonePath> parse(String text) {
        try {
            return Optional.of(new PhonePath(text));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /** A path that says what was meant by a text that may be none: what no path can hold is written as {@link RawName} writes it. */
    public static PhonePath nearest(String text) {
        var path = new StringBuilder();
        for (var segment : text.split("/")) {
            if (segment.isEmpty() || segment.equals(".")) {
                continue;
            }
            var name = segment.equals("..") ? "\\x2E\\x2E" : segment.replace("\0", "\\x00");
            path.append(path.isEmpty() ? "" : "/").append(name);
        }
        return new PhonePath(path.isEmpty() ? "\\x2F" : path.toString());
    }

    /** The ending in lower case with its dot; empty when there is none. */
    public String ending() {
        var name = name();
        int dot = name.lastIndexOf('.');
        return dot <= 0 ? "" : name.substring(dot).toLowerCase(Locale.ROOT);
    }

    /** Whether this lies in the folder, at any depth. */
    public boolean in(PhonePath folder) {
        return folder.text.isEmpty() || text.startsWith(folder.text + "/");
    }

    @Override
    public int compareTo(PhonePath other) {
        return text.compareTo(other.text);
    }

    @Override
    public String toString() {
        return text;
    }
}
