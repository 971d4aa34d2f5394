package app.custodex.practice.content;

import static app.custodex.practice.content.OstrelDatabase.micros;

import app.custodex.practice.content.OstrelStore.System;
import app.custodex.practice.island.Life;
import app.custodex.practice.island.Life.Outcome;
import app.custodex.practice.island.Talk.Said;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Messages and calls as an Ostrel keeps them, in the tables of its System 11 and of its System 9. */
final class OstrelTalk {
    /** How many of the newest messages are still in the write-ahead log. */
    private static final int RECENT = 12;

    private final Life life;
    private final Map<String, Integer> handles = new HashMap<>();

    OstrelTalk(Life life) {
        this.life = life;
        life.talks()
                .forEach(talk -> talk.members()
                        .forEach(member -> handles.computeIfAbsent(member.address(), address -> handles.size() + 1)));
    }

    void write(Path store, System system) throws IOException {
        var messages = store.resolve("messages");
        int count = life.said().size();
        int settled = Math.max(0, count - RECENT);
        if (system == System.ELEVEN) {
            OstrelDatabase.write(
                    messages.resolve("messages.db"),
                    life.until(),
                    db -> {
                        newerTables(db);
                        erased(db);
                        newerMessages(db, 0, settled);
                    },
                    db -> newerMessages(db, settled, count));
            OstrelDatabase.write(store.resolve("calls/calls.db"), life.until(), this::newerCalls);
        } else {
            OstrelDatabase.write(
                    messages.resolve("messages.db"),
                    life.until(),
                    db -> {
                        olderTables(db);
                        olderMessages(db, 0, settled);
                    },
                    db -> olderMessages(db, settled, count));
            OstrelDatabase.write(store.resolve("calls/calls.db"), life.until(), this::olderCalls);
        }
    }

    /** The files that hang on messages. */
    static List<Roll.Drawing> parts(Path files, Life life) {
        var folder = files.resolve("store/messages/files");
        return Parts.of(life.said(), (i, said) -> folder.resolve(file(i, said)));
    }

    private static String guid(int message) {
        return "m-" + Integer.toHexString(message * 7_919 + 17);
    }

    private static String file(int message, Said said) {
        return "%04d-%s".formatted(message, Parts.name(said.clip().orElseThrow()));
    }

    /** What the owner erased leaves free pages and the remains of rows behind, as in any database. */
    private void erased(Tables db) throws SQLException {
        int id = 10_000_000;
        for (var said : life.erased()) {
            row(db, ++id, "gone-" + id, said, "");
        }
        db.execute("DELETE FROM message WHERE id > 10000000");
    }

    private void newerTables(Tables db) throws SQLException {
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
        for (int i = 0; i < life.talks().size(); i++) {
            var talk = life.talks().get(i);
            db.put("chat", i + 1, talk.name(), talk.group(), talk.service());
            for (var member : talk.members()) {
                db.put(
                        "chat_member",
                        i + 1,
                        handle(member.address()),
                        micros(member.joined()),
                        member.left().<Object>map(OstrelDatabase::micros).orElse(""));
            }
        }
        for (var handle : handles.entrySet()) {
            db.put("handle", handle.getValue(), handle.getKey(), "");
        }
    }

    private int handle(String address) {
        return handles.getOrDefault(address, 0);
    }

    private void newerMessages(Tables db, int from, int to) throws SQLException {
        for (int i = from; i < to; i++) {
            var said = life.said().get(i);
            row(db, i + 1, guid(i), said, said.replyTo().map(OstrelTalk::guid).orElse(""));
            if (said.clip().isPresent()) {
                var clip = said.clip().get();
                db.put("attachment", i + 1, i + 1, file(i, said), Parts.name(clip), Parts.type(clip));
            }
            for (var sign : said.signs()) {
                db.put("reaction", i + 1, sign.by().isEmpty() ? "" : handle(sign.by()), sign.sign());
            }
        }
    }

    private void row(Tables db, int id, String guid, Said said, String replyTo) throws SQLException {
        db.put(
                "message",
                id,
                guid,
                said.talk() + 1,
                said.sent() ? "" : handle(said.by()),
                micros(said.at()),
                said.text(),
                life.talks().get(said.talk()).service(),
                state(id, said),
                replyTo,
                said.former().isPresent() ? micros(said.at().plusMinutes(2)) : "",
                said.removed());
    }

    private static int state(int id, Said said) {
        return !said.sent() ? 0 : id % 97 == 0 ? -1 : id % 5 == 0 ? 2 : 3;
    }

    private void olderTables(Tables db) throws SQLException {
        db.execute(
                "CREATE TABLE chat (id INTEGER PRIMARY KEY, name TEXT, is_group INTEGER)",
                "CREATE TABLE chat_member (chat INTEGER, address TEXT)",
                "CREATE TABLE message (id INTEGER PRIMARY KEY, chat INTEGER, address TEXT, sent INTEGER, at INTEGER,"
                        + " text TEXT, state INTEGER)",
                "CREATE TABLE attachment (message INTEGER, path TEXT)",
                "CREATE INDEX message_at ON message (at)");
        for (int i = 0; i < life.talks().size(); i++) {
            var talk = life.talks().get(i);
            db.put("chat", i + 1, talk.name(), talk.group());
            for (var member : talk.members()) {
                db.put("chat_member", i + 1, member.address());
            }
        }
    }

    private void olderMessages(Tables db, int from, int to) throws SQLException {
        for (int i = from; i < to; i++) {
            var said = life.said().get(i);
            db.put(
                    "message",
                    i + 1,
                    said.talk() + 1,
                    said.by(),
                    said.sent(),
                    micros(said.at()),
                    said.text(),
                    state(i + 1, said));
            if (said.clip().isPresent()) {
                db.put("attachment", i + 1, file(i, said));
            }
        }
    }

    private void newerCalls(Tables db) throws SQLException {
        db.execute(
                "CREATE TABLE call (id INTEGER PRIMARY KEY, address TEXT, name TEXT, outcome INTEGER, medium INTEGER,"
                        + " app TEXT, at INTEGER, seconds INTEGER)");
        List<Life.Call> calls = life.calls();
        for (int i = 0; i < calls.size(); i++) {
            var call = calls.get(i);
            db.put(
                    "call",
                    i + 1,
                    call.address(),
                    "",
                    call.outcome().ordinal() + 1,
                    call.video() ? 2 : 1,
                    call.app(),
                    micros(call.at()),
                    call.seconds());
        }
    }

    private void olderCalls(Tables db) throws SQLException {
        db.execute(
                "CREATE TABLE call (id INTEGER PRIMARY KEY, address TEXT, made INTEGER, at INTEGER, seconds INTEGER)");
        List<Life.Call> calls = life.calls();
        for (int i = 0; i < calls.size(); i++) {
            var call = calls.get(i);
            db.put("call", i + 1, call.address(), call.outcome() == Outcome.MADE, micros(call.at()), call.seconds());
        }
    }
}
