package app.custodex.extract;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;

/** Time zones as people read them. */
public final class ZoneText {
    private ZoneText() {}

    /** "UTC+01:00" for one whose clocks never change, else its name in the zone database. */
    public static String of(ZoneId zone) {
        return zone.getRules().isFixedOffset() ? of(zone.getRules().getOffset(Instant.EPOCH)) : zone.getId();
    }

    /** As "UTC+01:00"; "UTC" for none. */
    public static String of(ZoneOffset offset) {
        return offset.getTotalSeconds() == 0 ? "UTC" : "UTC" + offset.getId();
    }
}
