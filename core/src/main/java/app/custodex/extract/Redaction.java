package app.custodex.extract;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.model.Party;
import app.custodex.search.Asked;
import app.custodex.search.Fold;
import app.custodex.search.Marks;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;

/**
 * Takes chosen people, numbers and words out of what is written, for good: nothing of them is left under the black. Words are found as a
 * search finds them, whole, in any case and with or without accents; numbers in any writing.
 */
public final class Redaction {
    /** What stands in the place of what was taken out, however long that was. */
    public static final String BLACK = "\u2588".repeat(6);

    /** The end of a number, which is the same with and without the code of its country. */
    private static final int END_OF_NUMBER = 7;

    private static final Pattern NUMBER = Pattern.compile("[+(]?[0-9][0-9 ()./\u00a0-]{3,}");
    private static final Pattern NO_DIGITS = Pattern.compile("\\D");

    private final List<Marks> marks = new ArrayList<>();
    private final Set<String> names = new HashSet<>();
    private final Set<String> ends = new HashSet<>();
    private int places;

    /**
     * @param typed people, numbers and words, with commas or semicolons between
     * @throws ProblemException when something was typed that can be found nowhere
     */
    public static Redaction of(String typed) throws ProblemException {
        var redaction = new Redaction();
        for (var term : typed.split("[,;\n]")) {
            if (!term.isBlank()) {
                redaction.add(term.strip());
            }
        }
        return redaction;
    }

    private void add(String term) throws ProblemException {
        if (Asked.of(term).parts().isEmpty()) {
            throw new ProblemException(Problem.failure(
                    term,
                    "It has neither letters nor digits, so it can't be blacked out",
                    "Give names, numbers or words"));
        }
        if (NUMBER.matcher(term).matches()) {
            addNumber(term);
        } else {
            names.add(Fold.fold(term));
            marks.add(Marks.of("\"" + term.replace('"', ' ') + "\""));
        }
    }

    private void addNumber(String number) {
        var end = end(number);
        if (!end.isEmpty() && ends.add(end)) {
            marks.add(Marks.of(end));
        }
    }

    private static String end(String number) {
        var digits = NO_DIGITS.matcher(number).replaceAll("");
        return digits.substring(Math.max(0, digits.length() - END_OF_NUMBER));
    }

    /** Whether anything is to be taken out. */
    public boolean isEmpty() {
        return marks.isEmpty();
    }

    /** How many places were blacked out. */
    public int places() {
        return places;
    }

    /**
     * Learns what a person is called; the name and numbers of somebody who is to be taken out are taken out with them.
     *
     * @param name by which the technician knows them
     */
    public void learn(Party party, String name) {
        if (!hides(party, name)) {
            return;
        }
        if (!Asked.of(name).parts().isEmpty() && names.add(Fold.fold(name))) {
            marks.add(Marks.of("\"" + name.replace('"', ' ') + "\"")); // who was chosen by a number has a name too
        }
        var number = party.reach();
        if (NUMBER.matcher(number).matches()) {
            addNumber(number);
        } else if (!number.isBlank() && names.add(Fold.fold(number))) {
            marks.add(Marks.of("\"" + number.replace('"', ' ') + "\""));
        }
    }

    /** Whether somebody is to be taken out, and so all that comes from them. */
    public boolean hides(Party party, String name) {
        return names.contains(Fold.fold(name))
                || names.contains(Fold.fold(party.address()))
                || ends.contains(end(party.reach()));
    }

    /** Takes out all of a text. */
    public String all(String text) {
        if (text.isBlank()) {
            return text;
        }
        places++;
        return BLACK;
    }

    /** Takes out of a text what is to be taken out. */
    public String text(String text) {
        var found = marks.stream()
                .flatMap(each -> each.in(text).stream())
                .sorted(Comparator.comparingInt(Marks.Mark::from))
                .toList();
        if (found.isEmpty()) {
            return text;
        }
        var left = new StringBuilder();
        int at = 0;
        for (var mark : found) {
            if (mark.from() >= at) {
                left.append(text, at, mark.from()).append(BLACK);
                places++;
            }
            at = Math.max(at, mark.until());
        }
        return left.append(text.substring(at)).toString();
    }
}
