package app.custodex.readers.pellow;

import app.custodex.link.PhonePath;
import app.custodex.model.Attachment;
import app.custodex.model.Call;
import app.custodex.model.Conversation;
import app.custodex.model.Message;
import app.custodex.model.Message.Reaction;
import app.custodex.model.Moment;
import app.custodex.model.Party;
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
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Reads the messages and calls, which lie in one database. Base 8 had no states, replies or reactions. */
final class PellowTalk extends StoreReader {
    private static final String FOLDER = "Shared/Talk/";
    private static final String STORE = FOLDER + "talk.db";

    PellowTalk() {
        super("talk", new PhonePath(STORE), Set.of(ThingKind.CONVERSATION, ThingKind.MESSAGE, ThingKind.CALL));
    }

    private static final class Around {
        private final Map<Long, List<Party>> members = new HashMap<>();
        private final Map<Long, List<Attachment>> parts = new HashMap<>();
        private final Map<Long, List<Reaction>> reactions = new HashMap<>();
    }

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        var around = new Around();
        losses.tell(
                "members of conversations",
                database.each(
                        "thread_member",
                        List.of("thread", "number", "name"),
                        row -> around.members
                                .computeIfAbsent(row.number("thread"), thread -> new ArrayList<>())
                                .add(party(row, phone))));
        losses.tell(
                "attachments",
                database.each(
                        "part",
                        List.of("message", "path", "name", "type"),
                        row -> around.parts
                                .computeIfAbsent(row.number("message"), message -> new ArrayList<>(1))
                                .add(part(row, phone))));
        losses.tell(
                "reactions",
                database.each(
                        "reaction",
                        List.of("message", "number", "name", "sign"),
                        row -> around.reactions
                                .computeIfAbsent(row.number("message"), message -> new ArrayList<>(1))
                                .add(new Reaction(
                                        row.text("number").isEmpty()
                                                ? Optional.empty()
                                                : Optional.of(party(row, phone)),
                                        row.text("sign")))));
        losses.require(
                "conversations",
                database.each(
                        "thread",
                        List.of("id", "title", "is_group"),
                        row -> sink.thing(new Conversation(
                                thread(row.number("id")),
                                "",
                                "",
                                row.text("title"),
                                row.flag("is_group"),
                                around.members.getOrDefault(row.number("id"), List.of())))));
        losses.require(
                "messages",
                database.each(
                        "message",
                        List.of(
                                "id",
                                "thread",
                                "number",
                                "outgoing",
                                "time",
                                "body",
                                "kind",
                                "state",
                                "reply_to",
                                "edited",
                                "withdrawn"),
                        row -> sink.thing(message(row, around, phone))));
        losses.require(
                "calls",
                database.each(
                        "call",
                        List.of(
                                "id",
                                "number",
                                "name",
                                "outgoing",
                                "answered",
                                "rejected",
                                "video",
                                "time",
                                "duration"),
                        row -> sink.thing(call(row, phone))));
    }

    private static Party party(Row row, PhoneFiles phone) throws SQLException {
        var number = row.text("number");
        return new Party(number, phone.e164(number), row.text("name"));
    }

    private static Attachment part(Row row, PhoneFiles phone) throws SQLException, IOException {
        var item = row.text("path").isEmpty() ? "" : FOLDER + row.text("path");
        boolean there = !item.isEmpty() && phone.files().has(new PhonePath(item));
        return new Attachment(there ? item : "", row.text("name"), row.text("type"));
    }

    private static ThingId thread(long id) {
        return new ThingId(STORE, "thread-" + id);
    }

    private static ThingId messageId(long id) {
        return new ThingId(STORE, Long.toString(id));
    }

    /** Milliseconds since 1970; empty for nothing and for zero. */
    static Optional<Moment> moment(Row row, String column) throws SQLException {
        long millis = row.number(column);
        return millis == 0 ? Optional.empty() : Optional.of(Moment.at(Instant.ofEpochMilli(millis)));
    }

    private static Message message(Row row, Around around, PhoneFiles phone) throws SQLException {
        long id = row.number("id");
        boolean sent = row.flag("outgoing");
        var number = row.text("number");
        var replyTo = row.numberIfAny("reply_to");
        return new Message(
                messageId(id),
                "",
                thread(row.number("thread")),
                moment(row, "time"),
                sent,
                sent || number.isEmpty() ? Optional.empty() : Optional.of(new Party(number, phone.e164(number), "")),
                row.text("body"),
                row.text("kind"),
                state(row.text("state")),
                around.parts.getOrDefault(id, List.of()),
                replyTo.isEmpty() ? Optional.empty() : Optional.of(messageId(replyTo.getAsLong())),
                around.reactions.getOrDefault(id, List.of()),
                moment(row, "edited"),
                row.flag("withdrawn"));
    }

    private static Message.State state(String word) {
        return switch (word) {
            case "failed" -> Message.State.FAILED;
            case "sent" -> Message.State.SENT;
            case "delivered" -> Message.State.DELIVERED;
            case "read" -> Message.State.READ;
            default -> Message.State.UNKNOWN;
        };
    }

    private static Call call(Row row, PhoneFiles phone) throws SQLException {
        var length = Duration.ofSeconds(Math.max(0, row.number("duration")));
        boolean answered = row.numberIfAny("answered").isPresent() ? row.flag("answered") : !length.isZero();
        return new Call(
                new ThingId(STORE, "call-" + row.number("id")),
                "",
                moment(row, "time"),
                List.of(party(row, phone)),
                row.flag("outgoing")
                        ? Call.Outcome.MADE
                        : answered
                                ? Call.Outcome.TAKEN
                                : row.flag("rejected") ? Call.Outcome.DECLINED : Call.Outcome.MISSED,
                row.flag("video") ? Call.Medium.VIDEO : Call.Medium.VOICE,
                length);
    }
}
