package app.custodex.model;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Optional;

/**
 * When something is or was, as exactly as the phone says it. What is so far away that its milliseconds can't be counted is no moment: a
 * {@link DateTimeException}, as for a date that does not exist.
 */
public sealed interface Moment {
    /** @param zone in which it was written down, if the phone says so */
    record At(Instant instant, Optional<ZoneId> zone) implements Moment {
        public At {
            if (instant.isBefore(EARLIEST) || instant.isAfter(LATEST)) {
                throw new DateTimeException("too far away: " + instant);
            }
        }
    }

    /** By the clock on the wall, wherever that hangs (RFC 5545 §3.3.5, form 1). */
    record Floating(LocalDateTime local) implements Moment {
        public Floating {
            requireCountable(local.toLocalDate());
        }
    }

    record Day(LocalDate date) implements Moment {
        public Day {
            requireCountable(date);
        }
    }

    Instant EARLIEST = Instant.ofEpochMilli(Long.MIN_VALUE);
    Instant LATEST = Instant.ofEpochMilli(Long.MAX_VALUE);
    /** Of a day: within the two above in every zone. */
    int MOST_YEARS = 290_000_000;

    private static void requireCountable(LocalDate date) {
        if (Math.abs(date.getYear()) > MOST_YEARS) {
            throw new DateTimeException("too far away: " + date);
        }
    }

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

    /** In one piece: ISO 8601, an instant with its zone in brackets behind it. */
    default String text() {
        return switch (this) {
            case At at -> at.instant() + at.zone().map(zone -> "[" + zone + "]").orElse("");
            case Floating floating -> floating.local().toString();
            case Day day -> day.date().toString();
        };
    }

    /**
     * Reads what {@link #text} wrote.
     *
     * @throws java.time.DateTimeException when it is something else
     */
    static Moment parse(String text) {
        int zone = text.indexOf('[');
        if (zone >= 0) {
            return new At(
                    Instant.parse(text.substring(0, zone)),
                    Optional.of(ZoneId.of(text.substring(zone + 1, text.length() - 1))));
        }
        if (text.endsWith("Z")) {
            return at(Instant.parse(text));
        }
        return text.indexOf('T', 1) < 0 ? new Day(LocalDate.parse(text)) : new Floating(LocalDateTime.parse(text));
    }
}
