package app.custodex.readers.ostrel;

import app.custodex.link.PhonePath;
import app.custodex.model.Event;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.Task;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.Losses;
import app.custodex.readers.PhoneDatabase;
import app.custodex.readers.PhoneDatabase.Row;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.readers.StoreReader;
import java.io.IOException;
import java.sql.SQLException;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Reads calendars and tasks. Whole days are written as midnight in UTC. */
final class OstrelCalendar extends StoreReader {
    private static final String STORE = "store/calendar/calendar.db";
    private static final List<String> EVENT = List.of(
            "id",
            "uid",
            "calendar",
            "title",
            "place",
            "notes",
            "begins",
            "ends",
            "minutes",
            "all_day",
            "zone",
            "rule",
            "instead");

    OstrelCalendar() {
        super("calendar", new PhonePath(STORE), Set.of(ThingKind.EVENT, ThingKind.TASK));
    }

    private record Calendar(String name, String account) {
        static final Calendar NONE = new Calendar("", "");
    }

    private static final class Around {
        private final Map<Long, Calendar> calendars = new HashMap<>();
        private final Map<Long, List<Long>> exceptions = new HashMap<>();
        private final Map<Long, List<Duration>> alarms = new HashMap<>();
        private final Map<Long, List<Party>> attendees = new HashMap<>();
    }

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        var around = new Around();
        losses.tell(
                "calendars",
                database.each(
                        "calendar",
                        List.of("id", "name", "account"),
                        row -> around.calendars.put(
                                row.number("id"), new Calendar(row.text("name"), row.text("account")))));
        losses.tell(
                "exceptions of events",
                database.each(
                        "exception",
                        List.of("event", "at"),
                        row -> list(around.exceptions, row).add(row.number("at"))));
        losses.tell(
                "alarms",
                database.each(
                        "alarm",
                        List.of("event", "minutes"),
                        row -> list(around.alarms, row).add(Duration.ofMinutes(row.number("minutes")))));
        losses.tell(
                "attendees",
                database.each(
                        "attendee",
                        List.of("event", "address", "name"),
                        row -> list(around.attendees, row)
                                .add(new Party(
                                        row.text("address"), phone.e164(row.text("address")), row.text("name")))));
        losses.require("events", database.each("event", EVENT, row -> sink.thing(event(row, around))));
        losses.tell(
                "tasks",
                database.each(
                        "task",
                        List.of("id", "uid", "calendar", "title", "notes", "due", "done"),
                        row -> sink.thing(task(row, around))));
    }

    private static <T> List<T> list(Map<Long, List<T>> lists, Row row) throws SQLException {
        return lists.computeIfAbsent(row.number("event"), id -> new ArrayList<>(1));
    }

    private static Event event(Row row, Around around) throws SQLException {
        long id = row.number("id");
        var calendar = around.calendars.getOrDefault(row.number("calendar"), Calendar.NONE);
        var zone = zone(row.text("zone"));
        boolean day = row.flag("all_day");
        var begins = moment(row.number("begins"), day, zone);
        var ends = row.number("ends") != 0
                ? moment(row.number("ends"), day, zone)
                : moment(
                        row.number("begins") == 0 || row.number("minutes") == 0
                                ? 0
                                : row.number("begins") + row.number("minutes") * 60_000_000,
                        day,
                        zone);
        return new Event(
                new ThingId(STORE, Long.toString(id)),
                calendar.account(),
                calendar.name(),
                row.text("uid"),
                row.text("title"),
                row.text("place"),
                row.text("notes"),
                begins,
                ends,
                row.text("rule"),
                around.exceptions.getOrDefault(id, List.of()).stream()
                        .flatMap(at -> moment(at, day, zone).stream())
                        .toList(),
                List.of(),
                moment(row.number("instead"), day, zone),
                around.alarms.getOrDefault(id, List.of()),
                around.attendees.getOrDefault(id, List.of()));
    }

    private static Task task(Row row, Around around) throws SQLException {
        var calendar = around.calendars.getOrDefault(row.number("calendar"), Calendar.NONE);
        return new Task(
                new ThingId(STORE, "task-" + row.number("id")),
                calendar.account(),
                calendar.name(),
                row.text("uid"),
                row.text("title"),
                row.text("notes"),
                Ostrel.moment(row, "due"),
                Ostrel.moment(row, "done"));
    }

    private static Optional<ZoneId> zone(String name) {
        try {
            return name.isEmpty() ? Optional.empty() : Optional.of(ZoneId.of(name));
        } catch (DateTimeException unknown) {
            return Optional.empty();
        }
    }

    private static Optional<Moment> moment(long micros, boolean day, Optional<ZoneId> zone) {
        return Ostrel.instant(micros)
                .map(instant -> day
                        ? new Moment.Day(instant.atZone(ZoneOffset.UTC).toLocalDate())
                        : new Moment.At(instant, zone));
    }
}
