package app.custodex.extract;

import java.util.Arrays;
import java.util.List;

/**
 * Something about a format that whoever extracts may choose; the window and the command line show it alike.
 *
 * @param code on the command line, and where it is remembered
 * @param label in words
 * @param values of which one is chosen, the usual one first; empty for words that somebody types
 * @param several whether any number of them is chosen; none means all
 */
public record Choice(String code, String label, List<Value> values, boolean several) {
    private static final String AND = "+";
    private static final Value YES = new Value("yes", "yes");
    private static final Value NO = new Value("no", "no");

    public Choice {
        values = List.copyOf(values);
    }

    /** One of the things to choose. */
    public record Value(String code, String label) {}

    /** Something that is done, or is not. */
    public static Choice whether(String code, String label, boolean usually) {
        return new Choice(code, label, usually ? List.of(YES, NO) : List.of(NO, YES), false);
    }

    /** One of several. */
    public static Choice one(String code, String label, Value... values) {
        return new Choice(code, label, Arrays.asList(values), false);
    }

    /** Any number of several, in the order in which they are chosen; usually all. */
    public static Choice some(String code, String label, List<Value> values) {
        return new Choice(code, label, values, true);
    }

    /** Words that somebody types, usually none. They may be private, and are never remembered. */
    public static Choice words(String code, String label) {
        return new Choice(code, label, List.of(), false);
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
        return isWords() || several ? new Value("", "") : values.getFirst();
    }

    /** Whether that can be chosen. */
    public boolean allows(String chosen) {
        return isWords()
                || several && chosen.isEmpty()
                || (several ? split(chosen) : List.of(chosen))
                        .stream()
                                .allMatch(one -> values.stream()
                                        .anyMatch(value -> value.code().equals(one)));
    }

    /** Those of several that are chosen, in their order. */
    public static List<String> split(String chosen) {
        return chosen.isEmpty() ? List.of() : List.of(chosen.split("[+]", -1));
    }

    /** How several are chosen in one piece. */
    public static String join(List<String> chosen) {
        return String.join(AND, chosen);
    }
}
