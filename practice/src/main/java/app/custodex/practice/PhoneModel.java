package app.custodex.practice;

import app.custodex.link.Family;
import app.custodex.link.PhoneIdentity;
import java.time.ZoneId;

/**
 * What stands on a practice phone's box.
 *
 * @param imei its TAC 00440100 is of the range that the GSMA keeps for tests (from memory); the last digit is Luhn's
 * @param capacity bytes
 */
record PhoneModel(
        String identifier,
        String name,
        Family family,
        String model,
        String serial,
        String imei,
        String system,
        long capacity) {
    PhoneIdentity identity() {
        return new PhoneIdentity(
                identifier, name, family, model, serial, imei, system, "GB", ZoneId.of("Etc/GMT-1"), capacity, 0);
    }
}
