package app.custodex.practice.content;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;

/** Messages and calls as a Pellow of Base 9 keeps them: both in one database, times in milliseconds since 1970. */
final class PellowTalk {
    private static final LocalDateTime NOW = LocalDateTime.of(2026, 1, 18, 20, 0);

    private final List<Person> people;
    private final Chronicle.Talks talks;

    PellowTalk(List<Person> people, Chronicle.Talks talks) {
        this.people = people;
        this.talks = talks;
    }

    private static long millis(LocalDateTime at) {
        return at.toInstant(ZoneOffset.ofHours(1)).toEpochMilli();
    }

    private String number(int person) {
        return person == Chronicle.OWNER ? "" : people.get(person).address();
    }

    void write(Path folder, List<Chronicle.Call> calls) throws IOException {
        Files.createDirectories(folder);
        var file = folder.resolve("talk.db");
        try (var connection = DriverManager.getConnection("jdbc:sqlite:" + file)) {
            connection.setAutoCommit(false);
            try (var db = new Tables(connection)) {
                db.execute(
                        "CREATE TABLE thread (id INTEGER PRIMARY KEY, title TEXT, is_group INTEGER)",
                        "CREATE TABLE thread_member (thread INTEGER, number TEXT, name TEXT)",
                        "CREATE TABLE message (id INTEGER PRIMARY KEY, thread INTEGER, number TEXT, outgoing INTEGER,"
                                + " time INTEGER, body TEXT, kind TEXT, state TEXT, reply_to INTEGER, edited INTEGER,"
                                + " withdrawn INTEGER)",
                        "CREATE TABLE part (message INTEGER, path TEXT, name TEXT, type TEXT)",
                        "CREATE TABLE reaction (message INTEGER, number TEXT, name TEXT, sign TEXT)",
                        "CREATE TABLE call (id INTEGER PRIMARY KEY, number TEXT, name TEXT, outgoing INTEGER,"
                                + " answered INTEGER, rejected INTEGER, video INTEGER, time INTEGER, duration INTEGER)",
                        "CREATE INDEX message_thread ON message (thread, time)");
                talks(db);
                calls(db, calls);
            }
            connection.commit();
        } catch (SQLException e) {
            throw new IOException(e);
        }
        Clips.stamp(file, NOW);
        for (int i = 0; i < talks.said().size(); i++) {
            var said = talks.said().get(i);
            if (!said.clip().isEmpty() && i % 9 != 0) {
                Clips.put(said.clip(), folder.resolve(part(i)), said.at());
            }
        }
    }

    private String part(int message) {
        return "parts/%05d-%s".formatted(message, talks.said().get(message).clip());
    }

    private void talks(Tables db) throws SQLException {
        for (int i = 0; i < talks.talks().size(); i++) {
            var talk = talks.talks().get(i);
            db.put("thread", i + 1, talk.name(), talk.group());
            for (int member : talk.members()) {
                db.put("thread_member", i + 1, number(member), "");
            }
        }
        for (int i = 0; i < talks.said().size(); i++) {
            var said = talks.said().get(i);
            db.put(
                    "message",
                    i + 1,
                    said.talk() + 1,
                    number(said.by()),
                    said.sent(),
                    millis(said.at()),
                    said.removed() ? "" : said.text(),
                    talks.talks().get(said.talk()).service(),
                    !said.sent() ? "" : i % 97 == 0 ? "failed" : i % 5 == 0 ? "delivered" : "read",
                    said.replyTo() == Chronicle.NONE ? "" : said.replyTo() + 1,
                    said.edited() ? millis(said.at().plusMinutes(2)) : "",
                    said.removed());
            if (!said.clip().isEmpty()) {
                db.put("part", i + 1, part(i), said.clip(), said.clip().endsWith("opus") ? "audio/ogg" : "");
            }
            for (var sign : said.signs()) {
                db.put("reaction", i + 1, number(sign.by()), "", sign.sign());
            }
        }
    }

    private void calls(Tables db, List<Chronicle.Call> calls) throws SQLException {
        for (int i = 0; i < calls.size(); i++) {
            var call = calls.get(i);
            db.put(
                    "call",
                    i + 1,
                    number(call.person()),
                    "",
                    call.outcome() == Chronicle.Outcome.MADE,
                    call.outcome() == Chronicle.Outcome.TAKEN,
                    call.outcome() == Chronicle.Outcome.DECLINED,
                    call.video(),
                    millis(call.at()),
                    call.seconds());
        }
    }
}
