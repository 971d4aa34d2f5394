package app.custodex.search;

import java.lang.Character.UnicodeScript;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Makes text ready for finding: one form for what looks and means the same, whatever the capitals, accents and widths. What is
 * indexed and what is asked for go through here both.
 */
public final class Fold {
    private Fold() {}

    /**
     * Compatibility forms are one (Unicode Standard Annex #15, NFKC); accents of European scripts, points of Hebrew and vowel signs
     * of Arabic are dropped; small letters. Marks that make another letter, as in Devanagari, Thai and kana, stay.
     */
    public static String fold(String text) {
        if (isPlain(text)) {
            return text.toLowerCase(Locale.ROOT);
        }
        var decomposed = Normalizer.normalize(text, Normalizer.Form.NFKD).toLowerCase(Locale.ROOT);
        var kept = new StringBuilder(decomposed.length());
        decomposed.codePoints().filter(c -> !isDropped(c)).forEach(kept::appendCodePoint);
        return Normalizer.normalize(kept, Normalizer.Form.NFC);
    }

    private static boolean isPlain(String text) {
        for (int i = 0; i < text.length(); i++) {
            if (text.charAt(i) >= 0x80) {
                return false;
            }
        }
        return true;
    }

    /** By block: to strip every mark would turn が into か and take the vowels out of Thai. */
    private static boolean isDropped(int c) {
        return c >= 0x0300 && c <= 0x036f // combining diacritical marks
                || c >= 0x0591 && c <= 0x05bd // Hebrew points and accents
                || c >= 0x064b && c <= 0x065f // Arabic vowel signs
                || c == 0x0640 // the stretch of Arabic letters
                || c == 0x0670
                || c >= 0x200b && c <= 0x200f // invisible: zero width, marks of direction
                || c >= 0x202a && c <= 0x202e
                || c >= 0x2066 && c <= 0x2069
                || c == 0xfeff
                || c >= 0xfe00 && c <= 0xfe0f; // variation selectors
    }

    /** Whether words of its script are written without spaces, so that any part of a text may be a word. */
    public static boolean isUnspaced(int c) {
        if (c < 0x0e00) {
            return false;
        }
        return switch (UnicodeScript.of(c)) {
            case HAN, HIRAGANA, KATAKANA, THAI, LAO, KHMER, MYANMAR -> true;
            default -> c == 'ー';
        };
    }

    static boolean isWord(int c) {
        return Character.isLetterOrDigit(c)
                || Character.getType(c) == Character.NON_SPACING_MARK
                || Character.getType(c) == Character.COMBINING_SPACING_MARK;
    }

    /**
     * The words of a folded text, in its order. In scripts without spaces each character is one.
     *
     * @param joined whether the word follows the one before it without a gap, inside one run of such a script
     */
    public record Word(String text, boolean joined) {}

    /** The words of a text that was folded. */
    public static List<Word> words(String folded) {
        var words = new ArrayList<Word>();
        var word = new StringBuilder();
        boolean afterUnspaced = false;
        for (int i = 0; i < folded.length(); ) {
            int c = folded.codePointAt(i);
            i += Character.charCount(c);
            if (isUnspaced(c)) {
                end(word, words);
                words.add(new Word(Character.toString(c), afterUnspaced));
                afterUnspaced = true;
                continue;
            }
            afterUnspaced = false;
            if (isWord(c)) {
                word.appendCodePoint(c);
            } else {
                end(word, words);
            }
        }
        end(word, words);
        return words;
    }

    private static void end(StringBuilder word, List<Word> words) {
        if (!word.isEmpty()) {
            words.add(new Word(word.toString(), false));
            word.setLength(0);
        }
    }

    /** Folded text with a space around each word, for an index that splits at spaces. */
    public static String spaced(String text) {
        if (isPlain(text)) {
            return text.toLowerCase(Locale.ROOT); // the index splits it at the same places
        }
        var folded = fold(text);
        if (isPlain(folded)) {
            return folded;
        }
        var spaced = new StringBuilder(folded.length() + 16);
        words(folded).forEach(word -> spaced.append(word.text()).append(' '));
        return spaced.toString();
    }
}
