package app.custodex.extract.calendars;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.zone.ZoneOffsetTransition;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** A time zone as a component of a calendar (RFC 5545, section 3.6.5): every change of its clocks in a stretch of years, one by one. */
final class ZoneRulesText {
    private static final DateTimeFormatter LOCAL = DateTimeFormatter.ofPattern("uuuuMMdd'T'HHmmss", Locale.ROOT);
    private static final int FIRST_YEAR = 1990;
    private static final int LAST_YEAR = 2060;

    private ZoneRulesText() {}

    /** @param change to which offset, and whether that is summer time */
    private record Change(ZoneOffset from, ZoneOffset to, boolean summer) {}

    /** Its lines. */
    static List<String> of(ZoneId zone) {
        var rules = zone.getRules();
        var start = LocalDateTime.of(FIRST_YEAR, 1, 1, 0, 0).toInstant(ZoneOffset.UTC);
        var end = LocalDateTime.of(LAST_YEAR, 1, 1, 0, 0).toInstant(ZoneOffset.UTC);
        Map<Change, List<LocalDateTime>> changes = new LinkedHashMap<>();
        var first = rules.getOffset(start);
        changes.computeIfAbsent(new Change(first, first, rules.isDaylightSavings(start)), c -> new ArrayList<>())
                .add(LocalDateTime.ofInstant(start, first));
        for (ZoneOffsetTransition next = rules.nextTransition(start);
                next != null && next.getInstant().isBefore(end);
                next = rules.nextTransition(next.getInstant())) {
            Instant at = next.getInstant();
            changes.computeIfAbsent(
                            new Change(next.getOffsetBefore(), next.getOffsetAfter(), rules.isDaylightSavings(at)),
                            c -> new ArrayList<>())
                    .add(next.getDateTimeBefore());
        }
        var lines = new ArrayList<>(List.of("BEGIN:VTIMEZONE", "TZID:" + zone.getId()));
        changes.forEach((change, times) -> add(lines, change, times));
        lines.add("END:VTIMEZONE");
        return lines;
    }

    private static void add(List<String> lines, Change change, List<LocalDateTime> times) {
        var name = change.summer() ? "DAYLIGHT" : "STANDARD";
        lines.add("BEGIN:" + name);
        lines.add("DTSTART:" + LOCAL.format(times.getFirst()));
        lines.add("TZOFFSETFROM:" + offset(change.from()));
        lines.add("TZOFFSETTO:" + offset(change.to()));
        for (var time : times.subList(1, times.size())) {
            lines.add("RDATE:" + LOCAL.format(time));
        }
        lines.add("END:" + name);
    }

    private static String offset(ZoneOffset offset) {
        int seconds = Math.abs(offset.getTotalSeconds());
        var text = (offset.getTotalSeconds() < 0 ? "-" : "+") + two(seconds / 3_600) + two(seconds / 60 % 60);
        return seconds % 60 == 0 ? text : text + two(seconds % 60);
    }

    private static String two(int number) {
        return (number < 10 ? "0" : "") + number;
    }
}
