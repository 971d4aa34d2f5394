package app.custodex.practice.content;

import app.custodex.practice.content.PellowStore.Base;
import app.custodex.practice.island.Life;
import app.custodex.practice.island.Life.Outcome;
import app.custodex.practice.island.Talk.Said;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;

/**
 * Messages and calls as a Pellow keeps them: one database, times in milliseconds since 1970, in the tables of Base 9 and of Base 8,
 * which knew no states, replies or reactions.
 */
final class PellowTalk {
    private final Life life;

    PellowTalk(Life life) {
        this.life = life;
    }

    private static long millis(LocalDateTime at) {
        return at.toInstant(ZoneOffset.ofHours(1)).toEpochMilli();
    }

    void write(Path folder, Base base) throws IOException {
        Files.createDirectories(folder);
        var file = folder.resolve("talk.db");
        try (var connection = DriverManager.getConnection("jdbc:sqlite:" + file)) {
            connection.setAutoCommit(false);
            try (var db = new Tables(connection)) {
                if (base == Base.NINE) {
                    newerTables(db);
                } else {
                    olderTables(db);
                }
                for (int i = 0; i < life.said().size(); i++) {
                    message(db, i, life.said().get(i), base);
                }
                for (int i = 0; i < life.calls().size(); i++) {
                    call(db, i + 1, life.calls().get(i), base);
                }
            }
            connection.commit();
        } catch (SQLException e) {
            throw new IOException(e);
        }
        Clips.stamp(file, life.until());
    }

    /** The files that hang on messages. */
    static List<Roll.Drawing> parts(Path files, Life life) {
        var folder = files.resolve("Shared/Talk");
        return Parts.of(life.said(), (i, said) -> folder.resolve(part(i, said)));
    }

    private static String part(int message, Said said) {
        return "parts/%05d-%s".formatted(message, Parts.name(said.clip().orElseThrow()));
    }

    private void newerTables(Tables db) throws SQLException {
        db.execute(
                "CREATE TABLE thread (id INTEGER PRIMARY KEY, title TEXT, is_group INTEGER)",
                "CREATE TABLE thread_member (thread INTEGER, number TEXT, name TEXT, joined INTEGER, gone INTEGER)",
                "CREATE TABLE message (id INTEGER PRIMARY KEY, thread INTEGER, number TEXT, outgoing INTEGER,"
                        + " time INTEGER, body TEXT, kind TEXT, state TEXT, reply_to INTEGER, edited INTEGER,"
                        + " withdrawn INTEGER)",
                "CREATE TABLE part (message INTEGER, path TEXT, name TEXT, type TEXT)",
                "CREATE TABLE reaction (message INTEGER, number TEXT, name TEXT, sign TEXT)",
                "CREATE TABLE call (id INTEGER PRIMARY KEY, number TEXT, name TEXT, outgoing INTEGER,"
                        + " answered INTEGER, rejected INTEGER, video INTEGER, time INTEGER, duration INTEGER)",
                "CREATE INDEX message_thread ON message (thread, time)");
        for (int i = 0; i < life.talks().size(); i++) {
            var talk = life.talks().get(i);
            db.put("thread", i + 1, talk.name(), talk.group());
            for (var member : talk.members()) {
                db.put(
                        "thread_member",
                        i + 1,
                        member.address(),
                        member.name(),
                        millis(member.joined()),
                        member.left().<Object>map(PellowTalk::millis).orElse(""));
            }
        }
    }

    private void olderTables(Tables db) throws SQLException {
        db.execute(
                "CREATE TABLE thread (id INTEGER PRIMARY KEY, title TEXT, is_group INTEGER)",
                "CREATE TABLE thread_member (thread INTEGER, number TEXT)",
                "CREATE TABLE message (id INTEGER PRIMARY KEY, thread INTEGER, number TEXT, outgoing INTEGER,"
                        + " time INTEGER, body TEXT)",
                "CREATE TABLE part (message INTEGER, path TEXT)",
                "CREATE TABLE call (id INTEGER PRIMARY KEY, number TEXT, outgoing INTEGER, time INTEGER,"
                        + " duration INTEGER)");
        for (int i = 0; i < life.talks().size(); i++) {
            var talk = life.talks().get(i);
            db.put("thread", i + 1, talk.name(), talk.group());
            for (var member : talk.members()) {
                db.put("thread_member", i + 1, member.address());
            }
        }
    }

    private void message(Tables db, int i, Said said, Base base) throws SQLException {
        if (base == Base.EIGHT) {
            db.put("message", i + 1, said.talk() + 1, said.by(), said.sent(), millis(said.at()), said.text());
            if (said.clip().isPresent()) {
                db.put("part", i + 1, part(i, said));
            }
            return;
        }
        db.put(
                "message",
                i + 1,
                said.talk() + 1,
                said.by(),
                said.sent(),
                millis(said.at()),
                said.text(),
                life.talks().get(said.talk()).service(),
                !said.sent() ? "" : i % 97 == 0 ? "failed" : i % 5 == 0 ? "delivered" : "read",
                said.replyTo().<Object>map(to -> to + 1).orElse(""),
                said.former().isPresent() ? millis(said.at().plusMinutes(2)) : "",
                said.removed());
        if (said.clip().isPresent()) {
            var clip = said.clip().get();
            db.put("part", i + 1, part(i, said), Parts.name(clip), Parts.type(clip));
        }
        for (var sign : said.signs()) {
            db.put("reaction", i + 1, sign.by(), "", sign.sign());
        }
    }

    private static void call(Tables db, int id, Life.Call call, Base base) throws SQLException {
        boolean made = call.outcome() == Outcome.MADE;
        if (base == Base.EIGHT) {
            db.put("call", id, call.address(), made, millis(call.at()), call.seconds());
        } else {
            db.put(
                    "call",
                    id,
                    call.address(),
                    "",
                    made,
                    call.outcome() == Outcome.TAKEN,
                    call.outcome() == Outcome.DECLINED,
                    call.video(),
                    millis(call.at()),
                    call.seconds());
        }
    }
}
