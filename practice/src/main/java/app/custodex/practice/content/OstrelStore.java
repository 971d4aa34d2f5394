package app.custodex.practice.content;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;

/** Writes what an Ostrel holds: SQLite stores with times in microseconds since 2000-01-01T00:00Z, and media folders. */
public final class OstrelStore {
    private static final Instant EPOCH = Instant.parse("2000-01-01T00:00:00Z");
    /** A zone with summer time, by the rules of central Europe. */
    private static final ZoneId ISLAND = ZoneId.of("CET");

    private static final LocalDateTime NOW = LocalDateTime.of(2026, 1, 18, 20, 0);

    private OstrelStore() {}

    /** Which tables an Ostrel has. */
    public enum System {
        NINE,
        ELEVEN
    }

    public static StoreCounts write(Path files, List<Person> people, long seed) throws IOException {
        return write(files, people, seed, System.ELEVEN);
    }

    public static StoreCounts write(Path files, List<Person> people, long seed, System system) throws IOException {
        people(files.resolve("store/people/people.db"), people);
        var talks = Chronicle.talks(seed, people.size(), 1_840);
        var calls = Chronicle.calls(seed, people.size(), 118);
        var talk = new OstrelTalk(people, talks, OstrelStore::micros);
        messages(files.resolve("store/messages/messages.db"), talk, talks.said().size(), system);
        talk.clips(files.resolve("store/messages/files"));
        database(
                files.resolve("store/calls/calls.db"),
                db -> {
                    if (system == System.ELEVEN) {
                        talk.newerCalls(db, calls);
                    } else {
                        talk.olderCalls(db, calls);
                    }
                },
                db -> {});
        voicemail(files.resolve("store/voicemail"), people);
        calendar(files.resolve("store/calendar/calendar.db"), people);
        notes(files.resolve("store/notes"));
        web(files.resolve("store/web/web.db"), seed);
        media(files, seed);
        return StoreCounts.of(
                people.size(),
                talks.said().size(),
                calls.size(),
                Chronicle.events().size(),
                Chronicle.notes().size(),
                Chronicle.marks().size());
    }

    private static long micros(LocalDateTime time) {
        return Duration.between(EPOCH, time.toInstant(ZoneOffset.ofHours(1))).toNanos() / 1_000;
    }

    private interface Fill {
        void into(Tables db) throws SQLException;
    }

    /**
     * Makes a database as a running phone has it: the newest rows are still in the write-ahead log beside it. SQLite
     * folds the log in when it closes, so the pair is copied while it is open.
     */
    private static void database(Path target, Fill settled, Fill recent) throws IOException {
        Files.createDirectories(target.getParent());
        var work = Files.createTempDirectory("practice-phone");
        var file = work.resolve("work.db");
        var log = work.resolve("work.db-wal");
        try (var db = DriverManager.getConnection("jdbc:sqlite:" + file)) {
            pragma(db, "journal_mode=WAL");
            pragma(db, "wal_autocheckpoint=0");
            db.setAutoCommit(false);
            fill(db, settled);
            db.commit();
            db.setAutoCommit(true);
            pragma(db, "wal_checkpoint(TRUNCATE)");
            db.setAutoCommit(false);
            fill(db, recent);
            db.commit();
            Files.copy(file, target);
            Clips.stamp(target, NOW);
            if (Files.size(log) > 0) {
                var targetLog = target.resolveSibling(target.getFileName() + "-wal");
                Files.copy(log, targetLog);
                Clips.stamp(targetLog, NOW);
            }
        } catch (SQLException e) {
            throw new IOException(e);
        } finally {
            try (var left = Files.list(work)) {
                for (var path : left.toList()) {
                    Files.delete(path);
                }
            }
            Files.delete(work);
        }
    }

    private static void fill(Connection db, Fill fill) throws SQLException {
        try (var tables = new Tables(db)) {
            fill.into(tables);
        }
    }

    /** In a statement of its own, since an open answer would keep the transaction from ending. */
    private static void pragma(Connection db, String pragma) throws SQLException {
        try (var sql = db.createStatement()) {
            sql.execute("PRAGMA " + pragma);
        }
    }

    private static void people(Path file, List<Person> people) throws IOException {
        int recent = Math.min(3, people.size() - 1);
        database(
                file,
                db -> {
                    db.execute(
                            "CREATE TABLE person (id INTEGER PRIMARY KEY, uid TEXT, prefix TEXT, given TEXT,"
                                    + " middle TEXT, family TEXT, suffix TEXT, sound_given TEXT, sound_family TEXT,"
                                    + " nickname TEXT, organisation TEXT, department TEXT, title TEXT, birthday TEXT,"
                                    + " note TEXT, changed INTEGER)",
                            "CREATE TABLE reach (person INTEGER, place INTEGER, way TEXT, label TEXT, value TEXT)",
                            "CREATE TABLE post (person INTEGER, place INTEGER, label TEXT, street TEXT,"
                                    + " town TEXT, region TEXT, code TEXT, country TEXT)",
                            "CREATE TABLE portrait (person INTEGER PRIMARY KEY, image BLOB)",
                            "CREATE TABLE circle (id INTEGER PRIMARY KEY, name TEXT UNIQUE)",
                            "CREATE TABLE circle_member (circle INTEGER, person INTEGER)",
                            "CREATE INDEX reach_person ON reach(person)");
                    people(db, people, 0, people.size() - recent);
                },
                db -> people(db, people, people.size() - recent, people.size()));
    }

    private static void people(Tables db, List<Person> people, int from, int to) throws SQLException {
        var circles = new ArrayList<String>();
        people.forEach(person -> person.circles().stream()
                .filter(name -> !circles.contains(name))
                .forEach(circles::add));
        if (from == 0) {
            for (int i = 0; i < circles.size(); i++) {
                db.put("circle", i + 1, circles.get(i));
            }
        }
        for (int id = from + 1; id <= to; id++) {
            var p = people.get(id - 1);
            db.put(
                    "person",
                    id,
                    p.uid(),
                    p.prefix(),
                    p.given(),
                    p.middle(),
                    p.family(),
                    p.suffix(),
                    p.phoneticGiven(),
                    p.phoneticFamily(),
                    p.nickname(),
                    p.organisation(),
                    p.department(),
                    p.title(),
                    p.birthday(),
                    p.note(),
                    p.changedMillis() * 1_000 - EPOCH.toEpochMilli() * 1_000);
            for (int i = 0; i < p.reach().size(); i++) {
                var r = p.reach().get(i);
                db.put("reach", id, i, r.way(), r.label(), r.value());
            }
            for (int i = 0; i < p.posts().size(); i++) {
                var a = p.posts().get(i);
                db.put("post", id, i, a.label(), a.street(), a.town(), a.region(), a.code(), a.country());
            }
            if (p.portrait().length > 0) {
                db.put("portrait", id, p.portrait());
            }
            for (var name : p.circles()) {
                db.put("circle_member", circles.indexOf(name) + 1, id);
            }
        }
    }

    private static void messages(Path file, OstrelTalk talk, int count, System system) throws IOException {
        int settled = count - 12;
        database(
                file,
                db -> {
                    if (system == System.ELEVEN) {
                        talk.newerTables(db);
                        talk.newerMessages(db, 0, settled);
                    } else {
                        talk.olderTables(db);
                        talk.olderMessages(db, 0, settled);
                    }
                },
                db -> {
                    if (system == System.ELEVEN) {
                        talk.newerMessages(db, settled, count);
                    } else {
                        talk.olderMessages(db, settled, count);
                    }
                });
    }

    private static void voicemail(Path folder, List<Person> people) throws IOException {
        var mails = Chronicle.mails();
        database(
                folder.resolve("voicemail.db"),
                db -> {
                    db.execute("CREATE TABLE mail (id INTEGER PRIMARY KEY, address TEXT, at INTEGER, seconds INTEGER,"
                            + " heard INTEGER, path TEXT)");
                    for (int i = 0; i < mails.size(); i++) {
                        var mail = mails.get(i);
                        db.put(
                                "mail",
                                i + 1,
                                people.get(Math.min(mail.person(), people.size() - 1))
                                        .address(),
                                micros(mail.at()),
                                mail.seconds(),
                                mail.heard(),
                                "VM-%04d.amr".formatted(i + 1));
                    }
                },
                db -> {});
        for (int i = 0; i < mails.size(); i++) {
            Clips.put(
                    mails.get(i).clip(),
                    folder.resolve("VM-%04d.amr".formatted(i + 1)),
                    mails.get(i).at());
        }
    }

    private static void calendar(Path file, List<Person> people) throws IOException {
        database(
                file,
                db -> {
                    db.execute(
                            "CREATE TABLE calendar (id INTEGER PRIMARY KEY, name TEXT, account TEXT)",
                            "CREATE TABLE event (id INTEGER PRIMARY KEY, uid TEXT, calendar INTEGER, title TEXT,"
                                    + " place TEXT, notes TEXT, begins INTEGER, ends INTEGER, all_day INTEGER,"
                                    + " zone TEXT, rule TEXT, instead INTEGER)",
                            "CREATE TABLE exception (event INTEGER, at INTEGER)",
                            "CREATE TABLE alarm (event INTEGER, minutes INTEGER)",
                            "CREATE TABLE attendee (event INTEGER, address TEXT, name TEXT)",
                            "CREATE TABLE task (id INTEGER PRIMARY KEY, uid TEXT, calendar INTEGER, title TEXT,"
                                    + " notes TEXT, due INTEGER, done INTEGER)");
                    db.put("calendar", 1, "Island", "");
                    db.put("calendar", 2, "Choir", "choir@example.org");
                    for (int i = 0; i < Chronicle.events().size(); i++) {
                        event(db, i + 1, Chronicle.events().get(i), people);
                    }
                    for (int i = 0; i < Chronicle.todos().size(); i++) {
                        var todo = Chronicle.todos().get(i);
                        db.put(
                                "task",
                                i + 1,
                                "task-" + i + "@example.org",
                                1,
                                todo.title(),
                                "",
                                micros(todo.due()),
                                todo.done() ? micros(todo.due()) : "");
                    }
                },
                db -> {});
    }

    private static void event(Tables db, int id, Chronicle.Event event, List<Person> people) throws SQLException {
        db.put(
                "event",
                id,
                "event-" + id + "@example.org",
                event.calendar().equals("Choir") ? 2 : 1,
                event.title(),
                event.place(),
                "",
                time(event, event.from()),
                time(event, event.from().plusMinutes(event.minutes())),
                event.allDay(),
                event.allDay() ? "" : ISLAND.getId(),
                event.rule(),
                "");
        for (var except : event.except()) {
            db.put("exception", id, time(event, except));
        }
        if (event.alarm() > 0) {
            db.put("alarm", id, event.alarm());
        }
        for (int attendee : event.attendees()) {
            var person = people.get(Math.min(attendee, people.size() - 1));
            db.put("attendee", id, person.address(), person.name());
        }
    }

    /** Events keep to a zone with summer time; whole days are midnight in UTC. */
    private static long time(Chronicle.Event event, LocalDateTime at) {
        var instant = event.allDay()
                ? at.toInstant(ZoneOffset.UTC)
                : at.atZone(ISLAND).toInstant();
        return Duration.between(EPOCH, instant).toNanos() / 1_000;
    }

    private static void notes(Path folder) throws IOException {
        database(
                folder.resolve("notes.db"),
                db -> {
                    db.execute(
                            "CREATE TABLE folder (id INTEGER PRIMARY KEY, name TEXT)",
                            "CREATE TABLE note (id INTEGER PRIMARY KEY, folder INTEGER, title TEXT, text TEXT,"
                                    + " changed INTEGER, account TEXT)",
                            "CREATE TABLE note_file (note INTEGER, path TEXT, name TEXT, type TEXT)");
                    db.put("folder", 1, "Boat");
                    db.put("folder", 2, "Choir");
                    for (int i = 0; i < Chronicle.notes().size(); i++) {
                        var note = Chronicle.notes().get(i);
                        db.put("note", i + 1, folder(note.folder()), note.title(), note.text(), micros(note.at()), "");
                        if (!note.drawing().isEmpty()) {
                            db.put("note_file", i + 1, "files/" + note.drawing(), note.drawing(), "image/webp");
                        }
                    }
                },
                db -> {});
        for (var note : Chronicle.notes()) {
            if (!note.drawing().isEmpty()) {
                Clips.put(note.drawing(), folder.resolve("files").resolve(note.drawing()), note.at());
            }
        }
    }

    /** The number of a folder's row; nothing for none. */
    private static Object folder(String name) {
        return switch (name) {
            case "Boat", "Sea" -> 1;
            case "Choir", "Sea/Ferry" -> 2;
            default -> "";
        };
    }

    private static void web(Path file, long seed) throws IOException {
        database(
                file,
                db -> {
                    db.execute(
                            "CREATE TABLE folder (id INTEGER PRIMARY KEY, parent INTEGER, title TEXT)",
                            "CREATE TABLE bookmark (id INTEGER PRIMARY KEY, folder INTEGER, title TEXT, address TEXT,"
                                    + " later INTEGER, added INTEGER)",
                            "CREATE TABLE visit (id INTEGER PRIMARY KEY, title TEXT, address TEXT, at INTEGER)");
                    db.put("folder", 1, "", "Sea");
                    db.put("folder", 2, 1, "Ferry");
                    for (int i = 0; i < Chronicle.marks().size(); i++) {
                        var mark = Chronicle.marks().get(i);
                        db.put(
                                "bookmark",
                                i + 1,
                                folder(mark.folder()),
                                mark.title(),
                                mark.address(),
                                mark.later(),
                                micros(mark.added().atTime(12, 0)));
                    }
                    var visits = Chronicle.visits(seed, 60);
                    for (int i = 0; i < visits.size(); i++) {
                        var visit = visits.get(i);
                        db.put("visit", i + 1, visit.title(), visit.address(), micros(visit.at()));
                    }
                },
                db -> {});
    }

    private static void media(Path files, long seed) throws IOException {
        for (int i = 0; i < 36; i++) {
            var day = Photographer.LAST_DAY.minusDays(i * 11L);
            var folder = Files.createDirectories(
                    files.resolve("roll/%d-%02d".formatted(day.getYear(), day.getMonthValue())));
            if (i % 6 == 0) {
                Clips.put(
                        "island-%d.heic".formatted(i / 6),
                        folder.resolve("P%04d.heic".formatted(i)),
                        day.atTime(12, 4));
            } else {
                Photographer.take(folder.resolve("P%04d.jpg".formatted(i)), seed * 100 + i, day);
            }
        }
        Clips.put("storm-night.mp4", files.resolve("roll/2025-11/V0001.mp4"), LocalDateTime.of(2025, 11, 14, 21, 31));
        Clips.put("slow-tide.m4a", files.resolve("sound/music/Slow tide.m4a"), LocalDateTime.of(2025, 6, 1, 10, 0));
        Clips.put("gannet.m4a", files.resolve("sound/ring/Gannet.m4a"), LocalDateTime.of(2025, 6, 1, 10, 0));
        Clips.put("gannet.m4a", files.resolve("sound/memos/Second verse.m4a"), LocalDateTime.of(2025, 12, 20, 20, 40));
        Clips.text("Tide table 2026\n\n1 January  03:12  15:40\n", files.resolve("books/Tide table 2026.txt"), NOW);
        Clips.text("{\"boats\":2,\"kettle\":true}\n", files.resolve("apps/harbour-log/settings.json"), NOW);
        Clips.text("force nine, gusting\n".repeat(400), files.resolve("apps/storm-watch/log/2025-11.txt"), NOW);
    }
}
