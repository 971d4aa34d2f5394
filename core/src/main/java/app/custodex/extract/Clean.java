package app.custodex.extract;

import java.util.regex.Pattern;

/** Removes what no text format can carry: NUL and other controls, halves of surrogate pairs, and what is no character at all. */
public final class Clean {
    private static final Pattern CONTROLS = Pattern.compile("[\\p{Cc}&&[^\\n\\t]]|\\p{Cs}|[\\ufffe\\uffff]");

    private Clean() {}

    /** Keeps line breaks, all as \n. */
    public static String text(String text) {
        var unix = text.indexOf('\r') < 0 ? text : text.replace("\r\n", "\n").replace('\r', '\n');
        return isPlain(unix) ? unix : CONTROLS.matcher(unix).replaceAll("");
    }

    /** Whether there is nothing to look for, as in nearly all texts. */
    private static boolean isPlain(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (Character.isISOControl(c) && c != '\n' && c != '\t' || Character.isSurrogate(c) || c >= '\ufffe') {
                return false;
            }
        }
        return true;
    }

    /** Without line breaks too. */
    public static String line(String text) {
        return text(text).replace('\n', ' ').strip();
    }
}
