package app.custodex.search;

import app.custodex.model.Contact;
import java.util.stream.Collectors;

/**
 * A contact's text made ready for finding.
 *
 * @param text everything in it, without accents and capitals
 * @param digits its telephone numbers as digits only, as written and in E.164, separated by spaces
 */
record Folded(String text, String digits) {
    /** Fewer digits mean no number. */
    private static final int SHORTEST_NUMBER = 3;

    static Folded of(Contact contact) {
        var text = new StringBuilder();
        contact.texts(part -> text.append(part).append('\n'));
        var digits = contact.phones().stream()
                .map(phone -> digits(phone.written()) + " " + digits(phone.e164()))
                .collect(Collectors.joining(" "));
        return new Folded(Fold.fold(text.toString()), digits);
    }

    /** Empty when there are too few digits to mean a number, or letters among them. */
    static String digits(String text) {
        var digits = Asked.digits(text);
        return digits.length() < SHORTEST_NUMBER || text.codePoints().anyMatch(Character::isLetter) ? "" : digits;
    }
}
