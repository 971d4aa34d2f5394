package app.custodex.catalogue;

import app.custodex.catalogue.Spine.Span;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.stream.LongStream;

/** The stretches of the calendar into which a timeline is cut, the finest first. A month is a month, however long it is. */
public enum CalendarStep {
    HOUR(ChronoUnit.HOURS, 1),
    QUARTER_DAY(ChronoUnit.HOURS, 6),
    DAY(ChronoUnit.DAYS, 1),
    WEEK(ChronoUnit.WEEKS, 1),
    MONTH(ChronoUnit.MONTHS, 1),
    QUARTER(ChronoUnit.MONTHS, 3),
    YEAR(ChronoUnit.YEARS, 1),
    TEN_YEARS(ChronoUnit.YEARS, 10);

    private final ChronoUnit unit;
    private final int by;

    CalendarStep(ChronoUnit unit, int by) {
        this.unit = unit;
        this.by = by;
    }

    /** The finest of which no more than so many are needed. */
    public static CalendarStep of(Span span, int most) {
        for (var step : values()) {
            if (span.length() / (step.unit.getDuration().toMillis() * step.by) < most) {
                return step;
            }
        }
        return TEN_YEARS;
    }

    /** The stretch that a moment lies in begins here. */
    public ZonedDateTime floor(ZonedDateTime at) {
        var day = at.truncatedTo(ChronoUnit.DAYS);
        return switch (this) {
            case HOUR -> at.truncatedTo(ChronoUnit.HOURS);
            case QUARTER_DAY -> day.withHour(at.getHour() / by * by);
            case DAY -> day;
            case WEEK -> day.minusDays(day.getDayOfWeek().getValue() - 1L);
            case MONTH -> day.withDayOfMonth(1);
            case QUARTER -> day.withDayOfMonth(1).withMonth((at.getMonthValue() - 1) / by * by + 1);
            case YEAR, TEN_YEARS -> day.withDayOfYear(1).withYear(Math.floorDiv(at.getYear(), by) * by);
        };
    }

    public ZonedDateTime next(ZonedDateTime edge) {
        return floor(edge.plus(by, unit));
    }

    /** The edges of the stretches that a span touches, one more than there are stretches; milliseconds since 1970. */
    public long[] edges(Span span, ZoneId zone) {
        var edges = LongStream.builder();
        var at = floor(Instant.ofEpochMilli(span.from()).atZone(zone));
        edges.add(at.toInstant().toEpochMilli());
        while (at.toInstant().toEpochMilli() < span.until()) {
            var next = next(at);
            // Where the clocks go back, the same hour would begin twice.
            at = next.isAfter(at) ? next : at.plus(by, unit);
            edges.add(at.toInstant().toEpochMilli());
        }
        return edges.build().toArray();
    }
}
