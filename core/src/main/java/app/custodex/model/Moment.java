package app.custodex.model;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Optional;

/** When something is or was, as exactly as the phone says it. */
public sealed interface Moment {
    /** @param zone in which it was written down, if the phone says so */
    record At(Instant instant, Optional<ZoneId> zone) implements Moment {}

    /** By the clock on the wall, wherever that hangs (RFC 5545 §3.3.5, form 1). */
    record Floating(LocalDateTime local) implements Moment {}

    record Day(LocalDate date) implements Moment {}

    static Moment at(Instant instant) {
        return new At(instant, Optional.empty());
    }

    /**
     * The instant by which things are put in order.
     *
     * @param phone the zone of the phone, for what has none of its own
     */
    default Instant instant(ZoneId phone) {
        return switch (this) {
            case At at -> at.instant();
            case Floating floating -> floating.local().atZone(phone).toInstant();
            case Day day -> day.date().atStartOfDay(phone).toInstant();
        };
    }

    /** The day in the calendar, in its own zone or else in the phone's. */
    default LocalDate day(ZoneId phone) {
        return switch (this) {
            case At at -> at.instant().atZone(at.zone().orElse(phone)).toLocalDate();
            case Floating floating -> floating.local().toLocalDate();
            case Day day -> day.date();
        };
    }
}
