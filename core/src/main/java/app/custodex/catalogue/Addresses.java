package app.custodex.catalogue;

import app.custodex.model.Contact;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import app.custodex.search.Asked;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Set;

/** Writes an address in the one form by which people are matched. */
final class Addresses {
    /** Shorter ones are codes and extensions. */
    private static final int SHORTEST_NUMBER = 3;

    private Addresses() {}

    /** Empty for nobody. A name without an address is somebody within one account, and nobody else. */
    static String of(Party party, String account) {
        if (!party.e164().isEmpty()) {
            return party.e164();
        }
        var address = party.address().strip();
        if (address.isEmpty()) {
            return party.name().isBlank()
                    ? ""
                    : "name:" + account + ":" + party.name().strip();
        }
        boolean number = Asked.digits(address).length() >= SHORTEST_NUMBER
                && address.codePoints().noneMatch(Character::isLetter);
        return number ? Asked.digits(address) : address.toLowerCase(Locale.ROOT);
    }

    /** Those of everybody in a thing, each once; of a contact, those that are its own. */
    static Set<String> in(Thing thing) {
        var found = new LinkedHashSet<String>();
        if (thing instanceof Contact contact) {
            contact.phones().forEach(phone -> found.add(number(phone.written(), phone.e164())));
            contact.mails().forEach(mail -> found.add(mail.value().toLowerCase(Locale.ROOT)));
            contact.chats().forEach(chat -> found.add(chat.value().toLowerCase(Locale.ROOT)));
        } else {
            thing.people().forEach(party -> found.add(of(party, thing.account())));
        }
        found.remove("");
        return found;
    }

    static String number(String written, String e164) {
        return e164.isEmpty() ? Asked.digits(written) : e164;
    }
}
