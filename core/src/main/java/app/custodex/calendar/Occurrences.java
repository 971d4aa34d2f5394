package app.custodex.calendar;

import app.custodex.model.Event;
import app.custodex.model.Moment;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.TimeZone;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.dmfs.rfc5545.DateTime;
import org.dmfs.rfc5545.recur.InvalidRecurrenceRuleException;
import org.dmfs.rfc5545.recur.RecurrenceRule;
import org.dmfs.rfc5545.recur.RecurrenceRule.RfcMode;

/**
 * Works out when an event takes place: by its rule, in the zone that it was written in, so that it keeps its hour when the clocks
 * change; without the times that fall out, and with those that were added (RFC 5545 §3.8.5).
 */
public final class Occurrences {
    /** A rule that asks for more is a hostile one, or a mistake. */
    private static final int MOST_STEPS = 100_000;

    private final Event event;
    private final ZoneId phone;

    /** @param phone the zone for times that have none of their own */
    public Occurrences(Event event, ZoneId phone) {
        this.event = event;
        this.phone = phone;
    }

    /** Whether it comes more than once. */
    public static boolean severalOf(Event event) {
        return !event.rule().isEmpty() || !event.also().isEmpty();
    }

    /**
     * The times at which it begins, in order, from the first of them that is not before a moment.
     *
     * @param until the first moment that is of no interest any more
     * @param most how many are wanted
     * @param others the events of the same calendar: one that takes the place of an occurrence stands for itself
     */
    public List<Moment> between(Instant from, Instant until, int most, List<Event> others) {
        if (event.moment().isEmpty()) {
            return List.of();
        }
        var out = new HashSet<Instant>();
        Stream.concat(
                        event.except().stream(),
                        others.stream()
                                .filter(other -> !event.uid().isEmpty()
                                        && other.uid().equals(event.uid())
                                        && !other.id().equals(event.id()))
                                .flatMap(other -> other.instead().stream()))
                .forEach(moment -> out.add(moment.instant(phone)));
        var all = new TreeMap<Instant, Moment>(Comparator.naturalOrder());
        var start = event.moment().get();
        Stream.concat(Stream.of(start), event.also().stream())
                .forEach(moment -> all.put(moment.instant(phone), moment));
        byRule(start, from, until, most + out.size(), all);
        return all.entrySet().stream()
                .filter(entry ->
                        !entry.getKey().isBefore(from) && entry.getKey().isBefore(until))
                .filter(entry -> !out.contains(entry.getKey()))
                .limit(most)
                .map(java.util.Map.Entry::getValue)
                .toList();
    }

    /** A rule that can't be understood leaves the event at its one time. */
    private void byRule(Moment start, Instant from, Instant until, int most, TreeMap<Instant, Moment> to) {
        if (event.rule().isEmpty()) {
            return;
        }
        try {
            var rule = new RecurrenceRule(event.rule(), RfcMode.RFC5545_LAX);
            var first = first(start);
            until(rule, start, first);
            var iterator = rule.iterator(first);
            int found = 0;
            for (int step = 0; step < MOST_STEPS && found < most && iterator.hasNext(); step++) {
                var moment = moment(iterator.nextDateTime(), start);
                var instant = moment.instant(phone);
                if (!instant.isBefore(until)) {
                    return;
                }
                if (!instant.isBefore(from)) {
                    to.putIfAbsent(instant, moment);
                    found++;
                }
            }
        } catch (InvalidRecurrenceRuleException | IllegalArgumentException | DateTimeException strange) {
            // It was written by another program, or is damaged.
        }
    }

    private ZoneId zone(Optional<ZoneId> own) {
        return own.orElse(phone);
    }

    private DateTime first(Moment start) {
        return switch (start) {
            case Moment.At(var instant, var zone) -> {
                var local = instant.atZone(zone(zone));
                yield new DateTime(
                        TimeZone.getTimeZone(zone(zone)),
                        local.getYear(),
                        local.getMonthValue() - 1,
                        local.getDayOfMonth(),
                        local.getHour(),
                        local.getMinute(),
                        local.getSecond());
            }
            case Moment.Floating(var local) ->
                new DateTime(
                        local.getYear(),
                        local.getMonthValue() - 1,
                        local.getDayOfMonth(),
                        local.getHour(),
                        local.getMinute(),
                        local.getSecond());
            case Moment.Day(var day) -> new DateTime(day.getYear(), day.getMonthValue() - 1, day.getDayOfMonth());
        };
    }

    /** The end of a rule is to be of the same form as the start (RFC 5545 §3.3.10); not every program keeps to that. */
    private void until(RecurrenceRule rule, Moment start, DateTime first) {
        var end = rule.getUntil();
        if (end == null) {
            return;
        }
        if (first.isAllDay()) {
            rule.setUntil(end.isAllDay() ? end : end.toAllDay());
        } else if (end.isAllDay() || end.isFloating() != first.isFloating()) {
            var zone = TimeZone.getTimeZone(start instanceof Moment.At at ? zone(at.zone()) : phone);
            var clock = end.isAllDay()
                    ? new DateTime(zone, end.getYear(), end.getMonth(), end.getDayOfMonth(), 23, 59, 59)
                    : end.isFloating() ? end.swapTimeZone(zone) : end.shiftTimeZone(zone);
            rule.setUntil(
                    first.isFloating()
                            ? new DateTime(
                                    clock.getYear(),
                                    clock.getMonth(),
                                    clock.getDayOfMonth(),
                                    clock.getHours(),
                                    clock.getMinutes(),
                                    clock.getSeconds())
                            : clock);
        }
    }

    private static Moment moment(DateTime time, Moment start) {
        return switch (start) {
            case Moment.At(var instant, var zone) -> new Moment.At(Instant.ofEpochMilli(time.getTimestamp()), zone);
            case Moment.Floating floating ->
                new Moment.Floating(LocalDateTime.of(
                        time.getYear(),
                        time.getMonth() + 1,
                        time.getDayOfMonth(),
                        time.getHours(),
                        time.getMinutes(),
                        time.getSeconds()));
            case Moment.Day day ->
                new Moment.Day(LocalDate.of(time.getYear(), time.getMonth() + 1, time.getDayOfMonth()));
        };
    }
}
