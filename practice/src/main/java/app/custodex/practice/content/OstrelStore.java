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
import java.time.ZoneOffset;
import java.util.List;

/** Writes what an Ostrel holds: SQLite stores with times in microseconds since 2000-01-01T00:00Z, and media folders. */
public final class OstrelStore {
    private static final Instant EPOCH = Instant.parse("2000-01-01T00:00:00Z");
    private static final LocalDateTime NOW = LocalDateTime.of(2026, 1, 18, 20, 0);

    private OstrelStore() {}

    public static StoreCounts write(Path files, List<Person> people, long seed) throws IOException {
        people(files.resolve("store/people/people.db"), people);
        var messages = Chronicle.messages(seed, people.size(), 1_840);
        var calls = Chronicle.calls(seed, people.size(), 118);
        messages(files.resolve("store/messages/messages.db"), messages);
        calls(files.resolve("store/calls/calls.db"), calls);
        events(files.resolve("store/calendar/calendar.db"));
        notes(files.resolve("store/notes/notes.db"));
        bookmarks(files.resolve("store/web/web.db"));
        media(files, seed);
        return StoreCounts.of(
                people.size(),
                messages.size(),
                calls.size(),
                Chronicle.events().size(),
                Chronicle.notes().size(),
                2);
    }

    private static long micros(LocalDateTime time) {
        return Duration.between(EPOCH, time.toInstant(ZoneOffset.ofHours(1))).toNanos() / 1_000;
    }

    private interface Fill {
        void into(Connection db) throws SQLException;
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
            settled.into(db);
            db.commit();
            db.setAutoCommit(true);
            pragma(db, "wal_checkpoint(TRUNCATE)");
            db.setAutoCommit(false);
            recent.into(db);
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
                    try (var sql = db.createStatement()) {
                        sql.executeUpdate(
                                "CREATE TABLE person (id INTEGER PRIMARY KEY, uid TEXT, prefix TEXT, given TEXT,"
                                        + " middle TEXT, family TEXT, suffix TEXT, sound_given TEXT, sound_family TEXT,"
                                        + " nickname TEXT, organisation TEXT, department TEXT, title TEXT, birthday TEXT,"
                                        + " note TEXT, changed INTEGER)");
                        sql.executeUpdate(
                                "CREATE TABLE reach (person INTEGER, place INTEGER, way TEXT, label TEXT, value TEXT)");
                        sql.executeUpdate("CREATE TABLE post (person INTEGER, place INTEGER, label TEXT, street TEXT,"
                                + " town TEXT, region TEXT, code TEXT, country TEXT)");
                        sql.executeUpdate("CREATE TABLE portrait (person INTEGER PRIMARY KEY, image BLOB)");
                        sql.executeUpdate("CREATE TABLE circle (id INTEGER PRIMARY KEY, name TEXT)");
                        sql.executeUpdate("CREATE TABLE circle_member (circle INTEGER, person INTEGER)");
                        sql.executeUpdate("CREATE INDEX reach_person ON reach(person)");
                    }
                    people(db, people.subList(0, people.size() - recent), 1);
                },
                db -> people(db, people.subList(people.size() - recent, people.size()), people.size() - recent + 1));
    }

    private static void people(Connection db, List<Person> people, int firstId) throws SQLException {
        try (var person = db.prepareStatement("INSERT INTO person VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)");
                var reach = db.prepareStatement("INSERT INTO reach VALUES (?,?,?,?,?)");
                var post = db.prepareStatement("INSERT INTO post VALUES (?,?,?,?,?,?,?,?)");
                var portrait = db.prepareStatement("INSERT INTO portrait VALUES (?,?)");
                var circle = db.prepareStatement(
                        "INSERT INTO circle(name) SELECT ?1 WHERE NOT EXISTS (SELECT 1 FROM circle WHERE name=?1)");
                var member = db.prepareStatement("INSERT INTO circle_member SELECT id, ? FROM circle WHERE name=?")) {
            int id = firstId;
            for (var p : people) {
                long changed = p.changedMillis() * 1_000 - EPOCH.toEpochMilli() * 1_000;
                set(
                        person,
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
                        changed);
                for (int i = 0; i < p.reach().size(); i++) {
                    var r = p.reach().get(i);
                    set(reach, id, i, r.way(), r.label(), r.value());
                }
                for (int i = 0; i < p.posts().size(); i++) {
                    var a = p.posts().get(i);
                    set(post, id, i, a.label(), a.street(), a.town(), a.region(), a.code(), a.country());
                }
                if (p.portrait().length > 0) {
                    set(portrait, id, p.portrait());
                }
                for (var name : p.circles()) {
                    set(circle, name);
                    set(member, id, name);
                }
                id++;
            }
        }
    }

    private static void set(java.sql.PreparedStatement statement, Object... values) throws SQLException {
        for (int i = 0; i < values.length; i++) {
            if (values[i] instanceof String text && text.isEmpty()) {
                statement.setString(i + 1, null);
            } else {
                statement.setObject(i + 1, values[i]);
            }
        }
        statement.executeUpdate();
    }

    private static void messages(Path file, List<Chronicle.Said> messages) throws IOException {
        int recent = 12;
        database(
                file,
                db -> {
                    try (var sql = db.createStatement()) {
                        sql.executeUpdate(
                                "CREATE TABLE message (id INTEGER PRIMARY KEY, person INTEGER, sent INTEGER, at INTEGER, text TEXT)");
                    }
                    messages(db, messages.subList(0, messages.size() - recent));
                },
                db -> messages(db, messages.subList(messages.size() - recent, messages.size())));
    }

    private static void messages(Connection db, List<Chronicle.Said> messages) throws SQLException {
        try (var insert = db.prepareStatement("INSERT INTO message(person,sent,at,text) VALUES (?,?,?,?)")) {
            for (var m : messages) {
                set(insert, m.person() + 1, m.sent() ? 1 : 0, micros(m.at()), m.text());
            }
        }
    }

    private static void calls(Path file, List<Chronicle.Call> calls) throws IOException {
        database(
                file,
                db -> {
                    try (var sql = db.createStatement()) {
                        sql.executeUpdate(
                                "CREATE TABLE call (id INTEGER PRIMARY KEY, person INTEGER, made INTEGER, at INTEGER, seconds INTEGER)");
                    }
                    try (var insert =
                            db.prepareStatement("INSERT INTO call(person,made,at,seconds) VALUES (?,?,?,?)")) {
                        for (var c : calls) {
                            set(insert, c.person() + 1, c.made() ? 1 : 0, micros(c.at()), c.seconds());
                        }
                    }
                },
                db -> {});
    }

    private static void events(Path file) throws IOException {
        database(
                file,
                db -> {
                    try (var sql = db.createStatement()) {
                        sql.executeUpdate(
                                "CREATE TABLE event (id INTEGER PRIMARY KEY, title TEXT, place TEXT, begins INTEGER, minutes INTEGER)");
                    }
                    try (var insert =
                            db.prepareStatement("INSERT INTO event(title,place,begins,minutes) VALUES (?,?,?,?)")) {
                        for (var e : Chronicle.events()) {
                            set(insert, e.title(), e.place(), micros(e.from()), e.minutes());
                        }
                    }
                },
                db -> {});
    }

    private static void notes(Path file) throws IOException {
        database(
                file,
                db -> {
                    try (var sql = db.createStatement()) {
                        sql.executeUpdate(
                                "CREATE TABLE note (id INTEGER PRIMARY KEY, title TEXT, text TEXT, changed INTEGER)");
                    }
                    try (var insert = db.prepareStatement("INSERT INTO note(title,text,changed) VALUES (?,?,?)")) {
                        for (var n : Chronicle.notes()) {
                            set(insert, n.title(), n.text(), micros(n.at()));
                        }
                    }
                },
                db -> {});
    }

    private static void bookmarks(Path file) throws IOException {
        database(
                file,
                db -> {
                    try (var sql = db.createStatement()) {
                        sql.executeUpdate(
                                "CREATE TABLE bookmark (id INTEGER PRIMARY KEY, title TEXT, address TEXT, added INTEGER)");
                        sql.executeUpdate("INSERT INTO bookmark(title,address,added) VALUES"
                                + " ('Tide tables','https://example.org/tides',780000000000000),"
                                + " ('Ferry times','https://example.net/ferry?from=nordvoe',790000000000000)");
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
        Clips.put(
                "grandfather.amr", files.resolve("store/voicemail/VM-0001.amr"), LocalDateTime.of(2025, 11, 3, 18, 12));
        Clips.put("slow-tide.m4a", files.resolve("sound/music/Slow tide.m4a"), LocalDateTime.of(2025, 6, 1, 10, 0));
        Clips.put("gannet.m4a", files.resolve("sound/ring/Gannet.m4a"), LocalDateTime.of(2025, 6, 1, 10, 0));
        Clips.put("gannet.m4a", files.resolve("sound/memos/Second verse.m4a"), LocalDateTime.of(2025, 12, 20, 20, 40));
        Clips.text("Tide table 2026\n\n1 January  03:12  15:40\n", files.resolve("books/Tide table 2026.txt"), NOW);
        Clips.text("{\"boats\":2,\"kettle\":true}\n", files.resolve("apps/harbour-log/settings.json"), NOW);
        Clips.text("force nine, gusting\n".repeat(400), files.resolve("apps/storm-watch/log/2025-11.txt"), NOW);
    }
}
