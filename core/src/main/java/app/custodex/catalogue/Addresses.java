package app.custodex.catalogue;

import app.custodex.model.Party;
import app.custodex.search.Asked;
import java.util.Locale;

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

    static String number(String written, String e164) {
        return e164.isEmpty() ? Asked.digits(written) : e164;
    }
}
