package app.custodex.extract.calendars;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.model.Event;
import app.custodex.model.KindGroup;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.Task;
import app.custodex.model.Thing;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;

/**
 * Calendars and tasks (RFC 5545). Times stand in the zone in which they were written, which goes along, so that a series stays at its hour
 * when clocks change.
 */
public final class IcalendarFormat implements Format {
    private static final Choice FILE_EACH = Choice.whether("file-each", "One file a calendar", false);
    private static final DateTimeFormatter DAY = DateTimeFormatter.BASIC_ISO_DATE;
    private static final DateTimeFormatter LOCAL = DateTimeFormatter.ofPattern("uuuuMMdd'T'HHmmss", Locale.ROOT);
    /** RFC 5545, section 3.1. */
    private static final int OCTETS = 75;

    private static final Pattern RULE = Pattern.compile("[A-Z0-9=;,+:\\-]+");
    /** A URI may hold no blank and nothing that ends a line. */
    private static final Pattern MAIL = Pattern.compile("[^\\s<>\"]+@[^\\s<>\"]+");

    @Override
    public String code() {
        return "icalendar";
    }

    @Override
    public String label() {
        return "iCalendar (RFC 5545)";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.EVENTS);
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return List.of(FILE_EACH);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        if (!chosen.is(FILE_EACH)) {
            write(batch, Optional.empty(), batch.title(), out);
            return;
        }
        var calendars = new TreeSet<String>();
        batch.look().forEach(thing -> calendars.add(calendar(thing)));
        var folder = out.folder(batch.title());
        for (var calendar : calendars) {
            write(batch, Optional.of(calendar), calendar.isEmpty() ? "No calendar" : calendar, folder);
        }
    }

    private static String calendar(Thing thing) {
        return switch (thing) {
            case Event event -> event.calendar();
            case Task task -> task.calendar();
            default -> "";
        };
    }

    private static void write(Batch batch, Optional<String> only, String title, OutFolder out) throws IOException {
        var zones = new TreeSet<String>();
        for (var thing : batch.look()) {
            moments(thing).forEach(moment -> zone(moment).ifPresent(zone -> zones.add(zone.getId())));
        }
        out.text(title, ".ics", text -> {
            line(text, "BEGIN:VCALENDAR");
            line(text, "VERSION:2.0");
            line(text, "PRODID:-//Custodex//Calendars//EN");
            line(text, "X-WR-CALNAME:" + escaped(title));
            for (var zone : zones) {
                for (var each : ZoneRulesText.of(ZoneId.of(zone))) {
                    line(text, each);
                }
            }
            for (var lines : batch.only(thing -> only.isEmpty() || only.get().equals(calendar(thing)))
                    .each(thing -> component(thing, batch))) {
                for (var each : lines) {
                    line(text, each);
                }
            }
            line(text, "END:VCALENDAR");
        });
    }

    private static List<Moment> moments(Thing thing) {
        var moments = new ArrayList<Moment>(thing.moment().stream().toList());
        if (thing instanceof Event event) {
            event.ends().ifPresent(moments::add);
            moments.addAll(event.except());
            moments.addAll(event.also());
            event.instead().ifPresent(moments::add);
        }
        return moments;
    }

    /** The zone that goes along; none for UTC and for what has none. */
    private static Optional<ZoneId> zone(Moment moment) {
        return moment instanceof Moment.At at
                ? at.zone().filter(zone -> !(zone.normalized() instanceof ZoneOffset))
                : Optional.empty();
    }

    private static List<String> component(Thing thing, Batch batch) {
        return switch (thing) {
            case Event event -> event(event, batch);
            case Task task -> task(task);
            default -> throw new IllegalArgumentException("in no calendar: " + thing.kind());
        };
    }

    private static List<String> event(Event event, Batch batch) {
        var lines = new ArrayList<String>();
        lines.add("BEGIN:VEVENT");
        head(lines, event, event.uid());
        event.moment().ifPresent(at -> lines.add(time("DTSTART", at)));
        event.ends().ifPresent(at -> lines.add(time("DTEND", at)));
        text(lines, "SUMMARY", event.title());
        text(lines, "LOCATION", event.place());
        text(lines, "DESCRIPTION", event.description());
        text(lines, "CATEGORIES", event.calendar());
        if (!event.rule().isEmpty()) {
            if (RULE.matcher(event.rule()).matches()) {
                lines.add("RRULE:" + event.rule());
            } else {
                batch.leftOut("rules by which an event comes again that are not those of RFC 5545");
            }
        }
        event.except().forEach(at -> lines.add(time("EXDATE", at)));
        event.also().forEach(at -> lines.add(time("RDATE", at)));
        event.instead().ifPresent(at -> lines.add(time("RECURRENCE-ID", at)));
        for (var party : event.people()) {
            attendee(lines, party, batch);
        }
        event.alarms().forEach(alarm -> alarm(lines, alarm, event.title()));
        lines.add("END:VEVENT");
        return lines;
    }

    private static List<String> task(Task task) {
        var lines = new ArrayList<String>();
        lines.add("BEGIN:VTODO");
        head(lines, task, task.uid());
        task.moment().ifPresent(at -> lines.add(time("DUE", at)));
        text(lines, "SUMMARY", task.title());
        text(lines, "DESCRIPTION", task.description());
        text(lines, "CATEGORIES", task.calendar());
        task.done().ifPresent(at -> {
            lines.add("STATUS:COMPLETED");
            lines.add("COMPLETED:" + LOCAL.format(LocalDateTime.ofInstant(at.instant(ZoneOffset.UTC), ZoneOffset.UTC))
                    + "Z");
        });
        lines.add("END:VTODO");
        return lines;
    }

    private static void head(List<String> lines, Thing thing, String uid) {
        lines.add("UID:" + escaped(uid.isBlank() ? thing.id().text() : uid));
        // RFC 5545, section 3.8.7.2: when this was made. The layer does not say; the epoch stands for "not known".
        lines.add("DTSTAMP:19700101T000000Z");
    }

    private static void text(List<String> lines, String name, String value) {
        if (!value.isBlank()) {
            lines.add(name + ":" + escaped(value));
        }
    }

    /** RFC 5545, section 3.3.11. */
    private static String escaped(String value) {
        return Clean.text(value)
                .replace("\\", "\\\\")
                .replace(";", "\\;")
                .replace(",", "\\,")
                .replace("\n", "\\n");
    }

    private static String time(String name, Moment moment) {
        return switch (moment) {
            case Moment.Day day -> name + ";VALUE=DATE:" + DAY.format(day.date());
            case Moment.Floating floating -> name + ":" + LOCAL.format(floating.local());
            case Moment.At at ->
                zone(moment)
                        .map(zone -> name + ";TZID=" + zone.getId() + ":"
                                + LOCAL.format(LocalDateTime.ofInstant(at.instant(), zone)))
                        .orElseGet(() ->
                                name + ":" + LOCAL.format(LocalDateTime.ofInstant(at.instant(), ZoneOffset.UTC)) + "Z");
        };
    }

    private static void attendee(List<String> lines, Party party, Batch batch) {
        var address = Clean.line(party.address());
        if (MAIL.matcher(address).matches()) {
            var name =
                    Clean.line(party.name()).replace("\"", "'"); // RFC 5545, section 3.2: a quoted value holds no quote
            lines.add("ATTENDEE" + (name.isEmpty() ? "" : ";CN=\"" + name + "\"") + ":mailto:" + address);
        } else {
            batch.leftOut("people in events who have no mail address");
        }
    }

    private static void alarm(List<String> lines, Duration before, String title) {
        lines.add("BEGIN:VALARM");
        lines.add("ACTION:DISPLAY");
        lines.add("DESCRIPTION:" + escaped(title.isBlank() ? "Alarm" : title));
        var whole = before.truncatedTo(ChronoUnit.SECONDS);
        lines.add(
                "TRIGGER:" + (whole.isPositive() ? "-" + whole : whole.negated().toString()));
        lines.add("END:VALARM");
    }

    /** Folds at 75 octets, never within a character. */
    private static void line(Writer text, String line) throws IOException {
        int octets = 0;
        for (int i = 0; i < line.length(); ) {
            int c = line.codePointAt(i);
            var sign = Character.toString(c);
            int more = sign.getBytes(StandardCharsets.UTF_8).length;
            if (octets + more > OCTETS) {
                text.write("\r\n ");
                octets = 1;
            }
            text.write(sign);
            octets += more;
            i += Character.charCount(c);
        }
        text.write("\r\n");
    }
}
