package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.Event;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.Task;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import biweekly.ICalVersion;
import biweekly.ICalendar;
import biweekly.component.VAlarm;
import biweekly.component.VEvent;
import biweekly.component.VTodo;
import biweekly.io.TimezoneInfo;
import biweekly.io.WriteContext;
import biweekly.io.scribe.property.RecurrenceRuleScribe;
import biweekly.io.text.ICalReader;
import biweekly.property.Attendee;
import biweekly.property.DateOrDateTimeProperty;
import biweekly.property.ICalProperty;
import biweekly.property.RecurrenceRule;
import biweekly.property.TextProperty;
import biweekly.util.ICalDate;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Optional;
import java.util.Set;
import java.util.TimeZone;
import org.jspecify.annotations.Nullable;

/** Reads iCalendar files (RFC 5545). */
public final class IcalendarFiles extends FileReader {
    private final String home;

    /** @param home the folder whose folders are calendars; empty when there is none */
    public IcalendarFiles(String home) {
        super(
                "icalendar",
                Set.of(Kind.CALENDARS),
                home.isEmpty() ? Set.of() : Set.of(".ics", ".ical"),
                Set.of(ThingKind.EVENT, ThingKind.TASK));
        this.home = home;
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        int number = 0;
        boolean any = false;
        try (var in = phone.open(path);
                var reader = new ICalReader(new InputStreamReader(in, StandardCharsets.UTF_8))) {
            for (var calendar = reader.readNext(); calendar != null; calendar = reader.readNext()) {
                any = true;
                var name = name(path, calendar);
                for (var event : calendar.getEvents()) {
                    sink.thing(event(new ThingId(path.text(), Integer.toString(number++)), name, event, calendar));
                }
                for (var task : calendar.getTodos()) {
                    sink.thing(task(new ThingId(path.text(), Integer.toString(number++)), name, task, calendar));
                }
            }
        }
        if (any && !isEnded(path, phone)) {
            sink.problem(Problem.loss(
                    path.text(), "The calendar in this file is cut off", "Compare it with an older layer"));
        }
        if (!any) {
            sink.problem(Problem.failure(
                    path.text(), "There is no calendar in this file", "Take it out as a file and look into it"));
        }
    }

    /** Whether the last line that says something is the end of a calendar (RFC 5545 §3.4). */
    private static boolean isEnded(PhonePath path, PhoneFiles phone) throws IOException {
        try (var in = new BufferedReader(new InputStreamReader(phone.open(path), StandardCharsets.UTF_8))) {
            var last = in.lines().filter(line -> !line.isBlank()).reduce("", (before, line) -> line);
            return last.strip().equalsIgnoreCase("END:VCALENDAR");
        }
    }

    private String name(PhonePath path, ICalendar calendar) {
        var folder = account(path, home);
        if (!folder.isEmpty()) {
            return folder;
        }
        return calendar.getNames().isEmpty()
                ? calendar.getExperimentalProperties("X-WR-CALNAME").stream()
                        .map(property -> property.getValue())
                        .findFirst()
                        .orElse("")
                : text(calendar.getNames().getFirst());
    }

    private static Event event(ThingId id, String calendar, VEvent event, ICalendar of) {
        var zones = of.getTimezoneInfo();
        var begins = moment(event.getDateStart(), zones);
        var ends = moment(event.getDateEnd(), zones);
        if (ends.isEmpty() && event.getDuration() != null && event.getDuration().getValue() != null) {
            ends = begins.flatMap(b ->
                    later(b, Duration.ofMillis(event.getDuration().getValue().toMillis())));
        }
        var except = new ArrayList<Moment>();
        event.getExceptionDates()
                .forEach(dates -> dates.getValues()
                        .forEach(date -> moment(date, dates, zones).ifPresent(except::add)));
        var also = new ArrayList<Moment>();
        event.getRecurrenceDates().forEach(dates -> {
            dates.getDates().forEach(date -> moment(date, dates, zones).ifPresent(also::add));
            dates.getPeriods()
                    .forEach(period ->
                            moment(period.getStartDate(), dates, zones).ifPresent(also::add));
        });
        return new Event(
                id,
                "",
                calendar,
                text(event.getUid()),
                text(event.getSummary()),
                text(event.getLocation()),
                text(event.getDescription()),
                begins,
                ends,
                rule(event.getRecurrenceRule(), zones),
                except,
                also,
                moment(event.getRecurrenceId(), zones),
                event.getAlarms().stream()
                        .flatMap(alarm -> before(alarm).stream())
                        .toList(),
                event.getAttendees().stream().map(IcalendarFiles::party).toList());
    }

    private static Task task(ThingId id, String calendar, VTodo task, ICalendar of) {
        var zones = of.getTimezoneInfo();
        return new Task(
                id,
                "",
                calendar,
                text(task.getUid()),
                text(task.getSummary()),
                text(task.getDescription()),
                moment(task.getDateDue(), zones),
                Optional.ofNullable(task.getCompleted())
                        .flatMap(done -> Optional.ofNullable(done.getValue()))
                        .map(date -> Moment.at(date.toInstant())));
    }

    private static String text(@Nullable TextProperty property) {
        return property == null || property.getValue() == null ? "" : property.getValue();
    }

    private static Optional<Duration> before(VAlarm alarm) {
        var trigger = alarm.getTrigger();
        return trigger == null || trigger.getDuration() == null
                ? Optional.empty()
                : Optional.of(Duration.ofMillis(-trigger.getDuration().toMillis()));
    }

    private static Party party(Attendee attendee) {
        var mail = attendee.getEmail() != null
                ? attendee.getEmail()
                : attendee.getUri() == null ? "" : attendee.getUri().replaceFirst("(?i)^mailto:", "");
        return new Party(mail, "", attendee.getCommonName() == null ? "" : attendee.getCommonName());
    }

    /** As RFC 5545 writes it, whatever the file's own version did. */
    private static String rule(@Nullable RecurrenceRule rule, TimezoneInfo zones) {
        return rule == null || rule.getValue() == null
                ? ""
                : new RecurrenceRuleScribe().writeText(rule, new WriteContext(ICalVersion.V2_0, zones, null));
    }

    private static Optional<Moment> moment(@Nullable DateOrDateTimeProperty property, TimezoneInfo zones) {
        return property == null ? Optional.empty() : moment(property.getValue(), property, zones);
    }

    private static Optional<Moment> moment(@Nullable ICalDate date, ICalProperty of, TimezoneInfo zones) {
        if (date == null) {
            return Optional.empty();
        }
        var raw = date.getRawComponents();
        try {
            if (raw != null && !date.hasTime()) {
                return Optional.of(new Moment.Day(LocalDate.of(raw.getYear(), raw.getMonth(), raw.getDate())));
            }
            if (raw != null && zones.isFloating(of)) {
                return Optional.of(new Moment.Floating(LocalDateTime.of(
                        raw.getYear(),
                        raw.getMonth(),
                        raw.getDate(),
                        raw.getHour(),
                        raw.getMinute(),
                        raw.getSecond())));
            }
        } catch (DateTimeException impossible) {
            return Optional.empty();
        }
        var assigned = zones.getTimezone(of);
        return Optional.of(
                new Moment.At(date.toInstant(), assigned == null ? Optional.empty() : zone(assigned.getTimeZone())));
    }

    private static Optional<ZoneId> zone(TimeZone zone) {
        try {
            return Optional.of(ZoneId.of(zone.getID()));
        } catch (DateTimeException itsOwn) {
            return Optional.empty();
        }
    }

    private static Optional<Moment> later(Moment moment, Duration by) {
        return Optional.of(
                switch (moment) {
                    case Moment.At at -> new Moment.At(at.instant().plus(by), at.zone());
                    case Moment.Floating floating ->
                        new Moment.Floating(floating.local().plus(by));
                    case Moment.Day day -> new Moment.Day(day.date().plusDays(by.toDays()));
                });
    }
}
