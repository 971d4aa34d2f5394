package app.custodex.search;

import app.custodex.model.Contact;
import app.custodex.model.Contact.Labelled;
import java.text.Normalizer;
import java.util.Locale;
import java.util.regex.Pattern;

/**
 * A contact's text made ready for finding.
 *
 * @param text everything in it, without accents and capitals
 * @param digits its telephone numbers as digits only, as written and in E.164, separated by spaces
 */
record Folded(String text, String digits) {
    private static final Pattern MARKS = Pattern.compile("\\p{M}+");

    static Folded of(Contact contact) {
        var text = new StringBuilder();
        var n = contact.name();
        for (var part : new String[] {
            n.display(),
            n.composed(),
            n.phoneticGiven(),
            n.phoneticFamily(),
            contact.organisation().name(),
            contact.organisation().department(),
            contact.organisation().title(),
            contact.organisation().role()
        }) {
            text.append(part).append('\n');
        }
        contact.nicknames().forEach(s -> text.append(s).append('\n'));
        contact.groups().forEach(s -> text.append(s).append('\n'));
        contact.notes().forEach(s -> text.append(s).append('\n'));
        for (Labelled labelled : contact.mails()) {
            text.append(labelled.value()).append('\n');
        }
        contact.webs().forEach(s -> text.append(s.value()).append('\n'));
        contact.chats().forEach(s -> text.append(s.value()).append('\n'));
        contact.addresses()
                .forEach(a -> text.append(String.join(" ", a.lines())).append('\n'));
        var digits = new StringBuilder();
        contact.phones().forEach(phone -> {
            text.append(phone.written()).append('\n').append(phone.e164()).append('\n');
            digits.append(digits(phone.written()))
                    .append(' ')
                    .append(digits(phone.e164()))
                    .append(' ');
        });
        return new Folded(fold(text.toString()), digits.toString());
    }

    static String fold(String text) {
        boolean plain = text.chars().allMatch(c -> c < 0x80);
        var decomposed = plain
                ? text
                : MARKS.matcher(Normalizer.normalize(text, Normalizer.Form.NFKD))
                        .replaceAll("");
        return decomposed.toLowerCase(Locale.ROOT);
    }

    /** Empty when there are too few digits to mean a number, or letters among them. */
    static String digits(String text) {
        var digits = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            int value = Character.digit(text.charAt(i), 10);
            if (value >= 0) {
                digits.append((char) ('0' + value));
            } else if (Character.isLetter(text.charAt(i))) {
                return "";
            }
        }
        return digits.length() < 3 ? "" : digits.toString();
    }
}
