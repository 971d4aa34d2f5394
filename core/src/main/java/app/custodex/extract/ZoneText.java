package app.custodex.extract;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** Time zones as people read them. */
public final class ZoneText {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss", Locale.ROOT);

    private ZoneText() {}

    /** "UTC+01:00" for one whose clocks never change, else its name in the zone database. */
    public static String of(ZoneId zone) {
        return zone.getRules().isFixedOffset() ? of(zone.getRules().getOffset(Instant.EPOCH)) : zone.getId();
    }

    /** A time by the clock of a zone, to the second, with its distance from UTC: "2026-01-31 21:04:11 UTC+01:00". */
    public static String time(Instant at, ZoneId zone) {
        var local = at.atZone(zone);
        return TIME.format(local) + " " + of(local.getOffset());
    }

    /** As "UTC+01:00"; "UTC" for none. */
    public static String of(ZoneOffset offset) {
        return offset.getTotalSeconds() == 0 ? "UTC" : "UTC" + offset.getId();
    }
}
