package app.custodex.practice.content;

import app.custodex.practice.content.Chronicle.Said;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.LocalDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.ToLongFunction;

/** Messages and calls as an Ostrel keeps them, in the tables of its System 11 and of its System 9. */
final class OstrelTalk {
    private final List<Person> people;
    private final Chronicle.Talks talks;
    private final ToLongFunction<LocalDateTime> time;

    OstrelTalk(List<Person> people, Chronicle.Talks talks, ToLongFunction<LocalDateTime> time) {
        this.people = people;
        this.talks = talks;
        this.time = time;
    }

    private static String guid(int message) {
        return "m-" + Integer.toHexString(message * 7_919 + 17);
    }

    /** The files that hang on messages, put beside the database. */
    void clips(Path folder) throws IOException {
        for (int i = 0; i < talks.said().size(); i++) {
            var said = talks.said().get(i);
            // One in nine was deleted by its owner to make room.
            if (!said.clip().isEmpty() && i % 9 != 0) {
                Clips.put(said.clip(), folder.resolve(clip(i, said)), said.at());
            }
        }
    }

    private static String clip(int message, Said said) {
        return "%04d-%s".formatted(message, said.clip());
    }

    private static String type(String clip) {
        return clip.endsWith(".webp") ? "image/webp" : clip.endsWith(".heic") ? "image/heic" : "audio/ogg";
    }

    void newerTables(Tables db) throws SQLException {
        db.execute(
                "CREATE TABLE chat (id INTEGER PRIMARY KEY, name TEXT, is_group INTEGER, service TEXT)",
                "CREATE TABLE handle (id INTEGER PRIMARY KEY, address TEXT, name TEXT)",
                "CREATE TABLE chat_member (chat INTEGER, handle INTEGER, joined INTEGER, gone INTEGER)",
                "CREATE TABLE message (id INTEGER PRIMARY KEY, guid TEXT, chat INTEGER, handle INTEGER, at INTEGER,"
                        + " text TEXT, service TEXT, state INTEGER, reply_to TEXT, edited INTEGER, removed INTEGER)",
                "CREATE TABLE attachment (id INTEGER PRIMARY KEY, message INTEGER, path TEXT, name TEXT, type TEXT)",
                "CREATE TABLE reaction (message INTEGER, handle INTEGER, sign TEXT)",
                "CREATE INDEX message_chat ON message (chat, at)",
                "CREATE UNIQUE INDEX message_guid ON message (guid)");
        for (int i = 0; i < talks.talks().size(); i++) {
            var talk = talks.talks().get(i);
            db.put("chat", i + 1, talk.name(), talk.group(), talk.service());
            for (int member : talk.members()) {
                db.put(
                        "chat_member",
                        i + 1,
                        handle(handles(), member),
                        time.applyAsLong(LocalDateTime.of(2023, 1, 1, 8, 0)),
                        "");
            }
        }
        for (var handle : handles().entrySet()) {
            db.put("handle", handle.getValue(), people.get(handle.getKey()).address(), "");
        }
    }

    /** A row of addresses for everybody who is in any conversation. */
    private Map<Integer, Integer> handles() {
        var handles = new HashMap<Integer, Integer>();
        talks.talks()
                .forEach(talk ->
                        talk.members().forEach(member -> handles.computeIfAbsent(member, m -> handles.size() + 1)));
        return handles;
    }

    private static int handle(Map<Integer, Integer> handles, int person) {
        return handles.getOrDefault(person, 0);
    }

    void newerMessages(Tables db, int from, int to) throws SQLException {
        var handles = handles();
        for (int i = from; i < to; i++) {
            var said = talks.said().get(i);
            db.put(
                    "message",
                    i + 1,
                    guid(i),
                    said.talk() + 1,
                    said.sent() ? "" : handle(handles, said.by()),
                    time.applyAsLong(said.at()),
                    said.removed() ? "" : said.text(),
                    talks.talks().get(said.talk()).service(),
                    state(i, said),
                    said.replyTo() == Chronicle.NONE ? "" : guid(said.replyTo()),
                    said.edited() ? time.applyAsLong(said.at().plusMinutes(2)) : "",
                    said.removed());
            if (!said.clip().isEmpty()) {
                db.put("attachment", i + 1, i + 1, clip(i, said), said.clip(), type(said.clip()));
            }
            for (var sign : said.signs()) {
                db.put("reaction", i + 1, sign.by() == Chronicle.OWNER ? "" : handle(handles, sign.by()), sign.sign());
            }
        }
    }

    private static int state(int message, Said said) {
        return !said.sent() ? 0 : message % 97 == 0 ? -1 : message % 5 == 0 ? 2 : 3;
    }

    void olderTables(Tables db) throws SQLException {
        db.execute(
                "CREATE TABLE chat (id INTEGER PRIMARY KEY, name TEXT, is_group INTEGER)",
                "CREATE TABLE chat_member (chat INTEGER, address TEXT)",
                "CREATE TABLE message (id INTEGER PRIMARY KEY, chat INTEGER, address TEXT, sent INTEGER, at INTEGER,"
                        + " text TEXT, state INTEGER)",
                "CREATE TABLE attachment (message INTEGER, path TEXT)",
                "CREATE INDEX message_at ON message (at)");
        for (int i = 0; i < talks.talks().size(); i++) {
            var talk = talks.talks().get(i);
            db.put("chat", i + 1, talk.name(), talk.group());
            for (int member : talk.members()) {
                db.put("chat_member", i + 1, people.get(member).address());
            }
        }
    }

    void olderMessages(Tables db, int from, int to) throws SQLException {
        for (int i = from; i < to; i++) {
            var said = talks.said().get(i);
            db.put(
                    "message",
                    i + 1,
                    said.talk() + 1,
                    said.sent() ? "" : people.get(said.by()).address(),
                    said.sent(),
                    time.applyAsLong(said.at()),
                    said.text(),
                    state(i, said));
            if (!said.clip().isEmpty()) {
                db.put("attachment", i + 1, clip(i, said));
            }
        }
    }

    void newerCalls(Tables db, List<Chronicle.Call> calls) throws SQLException {
        db.execute(
                "CREATE TABLE call (id INTEGER PRIMARY KEY, address TEXT, name TEXT, outcome INTEGER, medium INTEGER,"
                        + " app TEXT, at INTEGER, seconds INTEGER)");
        for (int i = 0; i < calls.size(); i++) {
            var call = calls.get(i);
            db.put(
                    "call",
                    i + 1,
                    people.get(call.person()).address(),
                    "",
                    call.outcome().ordinal() + 1,
                    call.video() ? 2 : 1,
                    i % 30 == 7 ? "Kitewire" : "",
                    time.applyAsLong(call.at()),
                    call.seconds());
        }
    }

    void olderCalls(Tables db, List<Chronicle.Call> calls) throws SQLException {
        db.execute(
                "CREATE TABLE call (id INTEGER PRIMARY KEY, address TEXT, made INTEGER, at INTEGER, seconds INTEGER)");
        for (int i = 0; i < calls.size(); i++) {
            var call = calls.get(i);
            db.put(
                    "call",
                    i + 1,
                    people.get(call.person()).address(),
                    call.outcome() == Chronicle.Outcome.MADE,
                    time.applyAsLong(call.at()),
                    call.seconds());
        }
    }
}
