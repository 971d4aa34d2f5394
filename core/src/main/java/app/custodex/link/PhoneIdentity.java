package app.custodex.link;

import java.time.ZoneId;
import java.util.Locale;

/**
 * Who a phone is, as it says itself once it trusts the bench.
 *
 * @param identifier the phone's own lasting identifier; layers are filed under it, never under the name
 * @param name what the owner calls it
 * @param model maker's model name
 * @param serial maker's serial number
 * @param imei International Mobile Equipment Identity, 15 digits (3GPP TS 23.003)
 * @param system name and version of its system
 * @param region ISO 3166-1 alpha-2 code of the country it is set to; phone numbers without a prefix are read by it; empty for what
 *     is no phone
 * @param timeZone the zone that its owner's times are in
 * @param capacity bytes of storage
 * @param used bytes of storage in use
 */
public record PhoneIdentity(
        String identifier,
        String name,
        Family family,
        String model,
        String serial,
        String imei,
        String system,
        String region,
        ZoneId timeZone,
        long capacity,
        long used) {
    /** The same, in the country of a locale where it has none of its own, as a folder has. */
    public PhoneIdentity in(Locale locale) {
        return in(locale.getCountry());
    }

    /**
     * The same, in a country where it has none of its own.
     *
     * @param country by ISO 3166-1 alpha-2; may be empty
     */
    public PhoneIdentity in(String country) {
        return !region.isEmpty()
                ? this
                : new PhoneIdentity(
                        identifier, name, family, model, serial, imei, system, country, timeZone, capacity, used);
    }
}
