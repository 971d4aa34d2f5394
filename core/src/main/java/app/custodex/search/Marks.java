package app.custodex.search;

import app.custodex.search.Asked.Part;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Shows where in a text the words are by which it was found; by the same rules as they are found. */
public final class Marks {
    private final Asked asked;

    private Marks(Asked asked) {
        this.asked = asked;
    }

    public static Marks of(String typed) {
        return new Marks(Asked.of(typed));
    }

    /**
     * A stretch of a text, in chars; whole words.
     *
     * @param until is not part of it
     */
    public record Mark(int from, int until) {}

    private record Word(String text, int from, int until) {}

    /** Where the words are, from the first to the last; stretches neither touch nor overlap. */
    public List<Mark> in(String text) {
        var words = words(text);
        var found = new ArrayList<Mark>();
        for (var part : asked.parts()) {
            for (int i = 0; i + part.words().size() <= words.size(); i++) {
                if (is(part, words, i)) {
                    found.add(new Mark(
                            words.get(i).from(),
                            words.get(i + part.words().size() - 1).until()));
                }
            }
        }
        asked.number().ifPresent(number -> numbers(text, number, found));
        return merged(found);
    }

    private static boolean is(Part part, List<Word> words, int at) {
        int last = part.words().size() - 1;
        for (int i = 0; i <= last; i++) {
            var word = sameSigma(words.get(at + i).text());
            var wanted = sameSigma(part.words().get(i));
            if (!(i == last && part.open() ? word.startsWith(wanted) : word.equals(wanted))) {
                return false;
            }
        }
        return true;
    }

    /** Whether a sigma is the last letter of its word can't be told from one letter alone. */
    private static String sameSigma(String word) {
        return word.replace('ς', 'σ');
    }

    /** The words of a text as it is, each with its place. */
    private static List<Word> words(String text) {
        var words = new ArrayList<Word>();
        var word = new StringBuilder();
        int from = 0;
        for (int at = 0; at < text.length(); ) {
            int next = clusterEnd(text, at);
            var folded = Fold.fold(text.substring(at, next));
            for (int i = 0; i < folded.length(); ) {
                int c = folded.codePointAt(i);
                i += Character.charCount(c);
                boolean unspaced = Fold.isUnspaced(c);
                if ((unspaced || !Fold.isWord(c)) && !word.isEmpty()) {
                    words.add(new Word(word.toString(), from, at));
                    word.setLength(0);
                }
                if (unspaced) {
                    words.add(new Word(Character.toString(c), at, next));
                } else if (Fold.isWord(c)) {
                    from = word.isEmpty() ? at : from;
                    word.appendCodePoint(c);
                }
            }
            at = next;
        }
        if (!word.isEmpty()) {
            words.add(new Word(word.toString(), from, text.length()));
        }
        return words;
    }

    /** Behind a character and the marks that follow it. */
    private static int clusterEnd(String text, int at) {
        int end = at + Character.charCount(text.codePointAt(at));
        while (end < text.length() && isMark(text.codePointAt(end))) {
            end += Character.charCount(text.codePointAt(end));
        }
        return end;
    }

    private static boolean isMark(int c) {
        return switch (Character.getType(c)) {
            case Character.NON_SPACING_MARK, Character.ENCLOSING_MARK, Character.COMBINING_SPACING_MARK -> true;
            default -> false;
        };
    }

    /** Numbers that hold the digits, whatever stands between these. */
    private static void numbers(String text, String wanted, List<Mark> found) {
        var digits = new StringBuilder();
        int from = 0;
        int until = 0;
        for (int at = 0; at <= text.length(); ) {
            int c = at < text.length() ? text.codePointAt(at) : 'x';
            int digit = Character.digit(c, 10);
            if (digit >= 0) {
                from = digits.isEmpty() ? at : from;
                until = at + Character.charCount(c);
                digits.append(digit);
            } else if (!digits.isEmpty() && " ()/.-\u00a0".indexOf(c) < 0) {
                if (digits.indexOf(wanted) >= 0) {
                    found.add(new Mark(from, until));
                }
                digits.setLength(0);
            }
            at += Character.charCount(c);
        }
    }

    private static List<Mark> merged(List<Mark> marks) {
        marks.sort(Comparator.comparingInt(Mark::from));
        var merged = new ArrayList<Mark>();
        for (var mark : marks) {
            if (!merged.isEmpty() && mark.from() <= merged.getLast().until()) {
                var last = merged.removeLast();
                merged.add(new Mark(last.from(), Math.max(last.until(), mark.until())));
            } else {
                merged.add(mark);
            }
        }
        return merged;
    }
}
