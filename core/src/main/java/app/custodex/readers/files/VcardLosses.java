package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.readers.Sink;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Counts what is wrong with the cards of one file, and tells each sort once. */
final class VcardLosses {
    private final String file;
    private final Map<String, Integer> parameters = new TreeMap<>();
    private int cards;
    private int unended;
    private int tooLarge;
    private int foreign;
    private int odd;
    private int noProperty;

    VcardLosses(String file) {
        this.file = file;
    }

    void count(VcardCutter.Card card) {
        cards++;
        unended += card.ended() ? 0 : 1;
        tooLarge += card.tooLarge() ? 1 : 0;
        foreign += card.foreign();
    }

    /** A parameter of a property that there is no place for. */
    void parameter(String property, String name) {
        parameters.merge(property + " " + name, 1, Integer::sum);
    }

    /** A line that has no colon, and so neither name nor value. */
    void noProperty() {
        noProperty++;
    }

    /** A value that is not as the standard asks; it is kept as it is written. */
    void odd() {
        odd++;
    }

    /** @param empty whether there is nothing in the file at all */
    void tell(boolean empty, Sink sink) {
        if (cards == 0) {
            sink.problem(Problem.failure(
                    file,
                    empty ? "This file is empty; a contact may be missing" : "There is no vCard in this file",
                    empty ? "Look into an older layer" : "Take it out as a file and look into it"));
        }
        if (unended > 0) {
            sink.problem(Problem.loss(
                    file,
                    unended == 1 ? "A card in it is cut off" : unended + " cards in it are cut off",
                    "Compare it with an older layer"));
        }
        if (tooLarge > 0) {
            sink.problem(Problem.loss(
                    file,
                    count(tooLarge, "card", "cards") + " in it larger than 64 MB " + (tooLarge == 1 ? "was" : "were")
                            + " left out",
                    "Take it out as a file and look into it"));
        }
        if (foreign > 0) {
            sink.problem(Problem.loss(
                    file,
                    count(foreign, "line", "lines")
                            + " of it not in UTF-8, as vCard asks for; read as Western European",
                    "Check the names and notes in it"));
        }
        if (noProperty > 0) {
            sink.problem(Problem.loss(
                    file,
                    count(noProperty, "line", "lines") + " in it without a colon " + (noProperty == 1 ? "was" : "were")
                            + " left out",
                    "Take it out as a file and look into it"));
        }
        if (odd > 0) {
            sink.problem(Problem.note(
                    file,
                    count(odd, "value", "values") + " in it not written as vCard asks; kept as written",
                    "Check dates and addresses in it"));
        }
        if (!parameters.isEmpty()) {
            sink.problem(Problem.note(
                    file,
                    "Details that contacts have no place for: "
                            + parameters.entrySet().stream()
                                    .map(e -> e.getKey() + (e.getValue() == 1 ? "" : " (" + e.getValue() + ")"))
                                    .collect(Collectors.joining(", ")),
                    "Take it out as a file where they matter"));
        }
    }

    private static String count(int n, String one, String many) {
        return n + " " + (n == 1 ? one : many);
    }
}
