package app.custodex.search;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * What somebody typed to find something: words, each of which may be the beginning of one; phrases in quotation marks; numbers in any
 * writing.
 *
 * @param parts all of which must be there
 * @param number the digits of a telephone number or a part of one, when all that was typed may be one
 */
public record Asked(List<Part> parts, Optional<String> number) {
    private static final int SHORTEST_NUMBER = 3;

    public Asked {
        parts = List.copyOf(parts);
    }

    /**
     * Words that follow one another.
     *
     * @param open whether the last of them may go on
     */
    public record Part(List<String> words, boolean open) {
        public Part {
            words = List.copyOf(words);
        }
    }

    public static Asked of(String typed) {
        var parts = new ArrayList<Part>();
        boolean quoted = false;
        for (var piece : typed.split("[\"“”„«»]", -1)) {
            parts.addAll(quoted ? phrase(piece) : loose(piece));
            quoted = !quoted;
        }
        return new Asked(parts, number(typed));
    }

    private static List<Part> phrase(String piece) {
        var words = Fold.words(Fold.fold(piece)).stream().map(Fold.Word::text).toList();
        return words.isEmpty() ? List.of() : List.of(new Part(words, false));
    }

    /** Words by themselves; characters of a script without spaces that stand together stay together. */
    private static List<Part> loose(String piece) {
        var parts = new ArrayList<Part>();
        var run = new ArrayList<String>();
        for (var word : Fold.words(Fold.fold(piece))) {
            if (!word.joined() && !run.isEmpty()) {
                parts.add(part(run));
                run.clear();
            }
            run.add(word.text());
        }
        if (!run.isEmpty()) {
            parts.add(part(run));
        }
        return parts;
    }

    private static Part part(List<String> run) {
        return new Part(run, !Fold.isUnspaced(run.getLast().codePointAt(0)));
    }

    private static Optional<String> number(String typed) {
        if (!typed.strip().matches("[+(]?[\\p{Nd}][\\p{Nd}\\s()/.\\-]*")) {
            return Optional.empty();
        }
        var digits = digits(typed);
        return digits.length() < SHORTEST_NUMBER ? Optional.empty() : Optional.of(digits);
    }

    /** The digits of a text, of any script, as 0 to 9. */
    public static String digits(String text) {
        var digits = new StringBuilder();
        text.codePoints().map(c -> Character.digit(c, 10)).filter(d -> d >= 0).forEach(digits::append);
        return digits.toString();
    }

    /** Whether there is nothing to look for. */
    public boolean isEmpty() {
        return parts.isEmpty();
    }

    /** All of these, as an FTS5 query string ("Full-text Query Syntax"). */
    public static String match(List<Part> parts) {
        return parts.stream()
                .map(part -> part.words().stream().map(Asked::quoted).collect(Collectors.joining(" + "))
                        + (part.open() ? "*" : ""))
                .collect(Collectors.joining(" AND "));
    }

    private static String quoted(String word) {
        return '"' + word.replace("\"", "\"\"") + '"';
    }
}
