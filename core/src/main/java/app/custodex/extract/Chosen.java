package app.custodex.extract;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.model.KindGroup;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What was chosen for a format; for the rest, what is usual.
 *
 * @param values codes of values by the codes of choices
 */
public record Chosen(Map<String, String> values) {
    /** What is usual for everything. */
    public static final Chosen USUAL = new Chosen(Map.of());

    public Chosen {
        values = Map.copyOf(values);
    }

    /**
     * Reads what somebody typed.
     *
     * @param typed each as "choice=value"
     * @throws ProblemException when a format has no such choice or value
     */
    public static Chosen of(Format format, KindGroup group, List<String> typed) throws ProblemException {
        var values = new HashMap<String, String>();
        for (var one : typed) {
            int equals = one.indexOf('=');
            var code = equals < 0 ? one : one.substring(0, equals);
            var value = equals < 0 ? "yes" : one.substring(equals + 1);
            boolean known = format.choices(group).stream()
                    .filter(choice -> choice.code().equals(code))
                    .anyMatch(choice -> choice.allows(value));
            if (!known) {
                throw new ProblemException(Problem.failure(
                        one, "The format " + format.code() + " has no such choice", advice(format, group)));
            }
            values.put(code, value);
        }
        return new Chosen(values);
    }

    private static String advice(Format format, KindGroup group) {
        return format.choices(group).isEmpty()
                ? "It has none; leave it out"
                : "Choose among "
                        + format.choices(group).stream()
                                .flatMap(choice -> choice.isWords()
                                        ? Stream.of(choice.code() + "=…")
                                        : choice.values().stream()
                                                .map(value -> choice.code() + "=" + value.code()
                                                        + (choice.several() ? "+…" : "")))
                                .collect(Collectors.joining(", "));
    }

    /** As one would type it behind the code of a format, but for words: each choice that was made, behind a colon. */
    public String typed(Format format, KindGroup group) {
        var words = format.choices(group).stream()
                .filter(Choice::isWords)
                .map(Choice::code)
                .collect(Collectors.toSet());
        return values.entrySet().stream()
                .filter(value -> !words.contains(value.getKey()))
                .sorted(Map.Entry.comparingByKey())
                .map(value -> ":" + value.getKey() + "=" + value.getValue())
                .collect(Collectors.joining());
    }

    /** Which value was chosen. */
    public String of(Choice choice) {
        return values.getOrDefault(choice.code(), choice.usual().code());
    }

    public boolean is(Choice choice) {
        return of(choice).equals("yes");
    }
}
