package app.custodex.search;

import app.custodex.search.Marks.Mark;
import com.github.difflib.DiffUtils;
import com.github.difflib.patch.Chunk;
import com.ibm.icu.text.BreakIterator;
import com.ibm.icu.util.ULocale;
import java.util.ArrayList;
import java.util.List;

/**
 * Which words of a text were changed, between an earlier state of it and a later one. Words are what Unicode Standard Annex 29 calls so.
 *
 * @param before what went, in the earlier text
 * @param after what came, in the later one
 */
public record WordChanges(List<Mark> before, List<Mark> after) {
    /** So many words a side are compared; of longer texts all is marked. */
    private static final int MOST_WORDS = 20_000;

    public WordChanges {
        before = List.copyOf(before);
        after = List.copyOf(after);
    }

    public static WordChanges between(String before, String after) {
        var was = words(before);
        var is = words(after);
        if (was.size() > MOST_WORDS || is.size() > MOST_WORDS) {
            return before.equals(after)
                    ? new WordChanges(List.of(), List.of())
                    : new WordChanges(whole(before), whole(after));
        }
        var went = new ArrayList<Mark>();
        var came = new ArrayList<Mark>();
        for (var delta : DiffUtils.diff(was, is).getDeltas()) {
            mark(delta.getSource(), was, went);
            mark(delta.getTarget(), is, came);
        }
        return new WordChanges(went, came);
    }

    private static List<Mark> whole(String text) {
        return text.isEmpty() ? List.of() : List.of(new Mark(0, text.length()));
    }

    private static void mark(Chunk<String> chunk, List<String> words, List<Mark> marks) {
        int from = length(words, 0, chunk.getPosition());
        int until = from + length(words, chunk.getPosition(), chunk.getPosition() + chunk.size());
        if (until > from) {
            marks.add(new Mark(from, until));
        }
    }

    private static int length(List<String> words, int first, int end) {
        return words.subList(first, end).stream().mapToInt(String::length).sum();
    }

    /** With the spaces and signs between them, so that put together they are the text. */
    private static List<String> words(String text) {
        var words = new ArrayList<String>();
        var breaks = BreakIterator.getWordInstance(ULocale.ROOT);
        breaks.setText(text);
        int from = breaks.first();
        for (int until = breaks.next(); until != BreakIterator.DONE; until = breaks.next()) {
            words.add(text.substring(from, until));
            from = until;
        }
        return words;
    }
}
