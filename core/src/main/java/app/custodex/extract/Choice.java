package app.custodex.extract;

import java.util.Arrays;
import java.util.List;

/**
 * Something about a format that whoever extracts may choose; the window and the command line show it alike.
 *
 * @param code on the command line, and where it is remembered
 * @param label in words
 * @param values of which one is chosen, the usual one first; empty for words that somebody types
 */
public record Choice(String code, String label, List<Value> values) {
    private static final Value YES = new Value("yes", "yes");
    private static final Value NO = new Value("no", "no");

    public Choice {
        values = List.copyOf(values);
    }

    /** One of the things to choose. */
    public record Value(String code, String label) {}

    /** Something that is done, or is not. */
    public static Choice whether(String code, String label, boolean usually) {
        return new Choice(code, label, usually ? List.of(YES, NO) : List.of(NO, YES));
    }

    /** One of several. */
    public static Choice one(String code, String label, Value... values) {
        return new Choice(code, label, Arrays.asList(values));
    }

    /** Words that somebody types, usually none. They may be private, and are never remembered. */
    public static Choice words(String code, String label) {
        return new Choice(code, label, List.of());
    }

    /** Whether it is about words that somebody types. */
    public boolean isWords() {
        return values.isEmpty();
    }

    /** Whether it is about doing something or not. */
    public boolean isYesOrNo() {
        return values.contains(YES) && values.contains(NO);
    }

    public Value usual() {
        return isWords() ? new Value("", "") : values.getFirst();
    }
}
