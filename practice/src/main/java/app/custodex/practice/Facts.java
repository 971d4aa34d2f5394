package app.custodex.practice;

import app.custodex.link.Family;
import app.custodex.link.KindCount;
import app.custodex.link.PhoneIdentity;
import java.time.ZoneId;
import java.util.List;

/**
 * What a practice phone is and holds; kept beside its files.
 *
 * @param phone as it describes itself; how much of it is used is counted anew
 * @param port where it answers on loopback; the same each time it is plugged in
 * @param burrowKey the key with which its owner's Burrow writes its copies: an age identity
 */
record Facts(PhoneIdentity phone, String passcode, int port, String burrowKey, List<KindCount> contents) {
    /**
     * A phone of the island as it comes out of its box.
     *
     * @param imei its TAC 00440100 is of the range that the GSMA keeps for tests (from memory); the last digit is Luhn's
     * @param capacity bytes
     */
    static PhoneIdentity phone(
            String identifier,
            String name,
            Family family,
            String model,
            String serial,
            String imei,
            String system,
            long capacity) {
        return new PhoneIdentity(
                identifier, name, family, model, serial, imei, system, "GB", ZoneId.of("Etc/GMT-1"), capacity, 0);
    }

    PhoneIdentity identity() {
        return new PhoneIdentity(
                phone.identifier(),
                phone.name(),
                phone.family(),
                phone.model(),
                phone.serial(),
                phone.imei(),
                phone.system(),
                phone.region(),
                phone.timeZone(),
                phone.capacity(),
                contents.stream().mapToLong(KindCount::bytes).sum());
    }

    Facts withPort(int newPort) {
        return new Facts(phone, passcode, newPort, burrowKey, contents);
    }

    Facts withContents(List<KindCount> newContents) {
        return new Facts(phone, passcode, port, burrowKey, newContents);
    }
}
