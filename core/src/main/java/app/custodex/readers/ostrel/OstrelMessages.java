package app.custodex.readers.ostrel;

import app.custodex.link.PhonePath;
import app.custodex.model.Attachment;
import app.custodex.model.Conversation;
import app.custodex.model.Message;
import app.custodex.model.Message.Reaction;
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
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Reads the text messages. Since System 10 the addresses lie in a table of their own, and messages have replies, changes and
 * reactions; before, each row had its address.
 */
final class OstrelMessages extends StoreReader {
    private static final String STORE = "store/messages/messages.db";
    private static final String FILES = "store/messages/files/";
    private static final List<String> MESSAGE = List.of(
            "id",
            "guid",
            "chat",
            "handle",
            "address",
            "sent",
            "at",
            "text",
            "service",
            "state",
            "reply_to",
            "edited",
            "removed");

    OstrelMessages() {
        super("messages", new PhonePath(STORE), Set.of(ThingKind.CONVERSATION, ThingKind.MESSAGE));
    }

    /** What the rows of messages point at. */
    private static final class Around {
        private final Map<Long, Party> handles = new HashMap<>();
        private final Map<Long, List<Party>> members = new HashMap<>();
        private final Map<Long, List<Attachment>> attachments = new HashMap<>();
        private final Map<Long, List<Reaction>> reactions = new HashMap<>();
        private final Map<String, Long> byGuid = new HashMap<>();
        /** Whether addresses lie in a table of their own. */
        private boolean newer;
    }

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        var around = new Around();
        around.newer = database.has("message", "handle");
        losses.tell(
                "addresses",
                database.each(
                        "handle",
                        List.of("id", "address", "name"),
                        row -> around.handles.put(row.number("id"), party(row, phone))));
        losses.tell(
                "members of conversations",
                database.each(
                        "chat_member",
                        List.of("chat", "handle", "address", "name"),
                        row -> around.members
                                .computeIfAbsent(row.number("chat"), chat -> new ArrayList<>())
                                .add(who(row, around, phone))));
        losses.tell(
                "attachments",
                database.each(
                        "attachment",
                        List.of("message", "path", "name", "type"),
                        row -> around.attachments
                                .computeIfAbsent(row.number("message"), m -> new ArrayList<>(1))
                                .add(attachment(row, phone))));
        losses.tell(
                "reactions",
                database.each(
                        "reaction",
                        List.of("message", "handle", "sign"),
                        row -> around.reactions
                                .computeIfAbsent(row.number("message"), m -> new ArrayList<>(1))
                                .add(new Reaction(
                                        Optional.ofNullable(around.handles.get(row.number("handle"))),
                                        row.text("sign")))));
        losses.require(
                "conversations",
                database.each(
                        "chat",
                        List.of("id", "name", "is_group", "service"),
                        row -> sink.thing(conversation(row, around))));
        if (database.has("message", "reply_to")) {
            database.each(
                    "message", List.of("id", "guid"), row -> around.byGuid.put(row.text("guid"), row.number("id")));
        }
        losses.require("messages", database.each("message", MESSAGE, row -> sink.thing(message(row, around, phone))));
    }

    private static Party party(Row row, PhoneFiles phone) throws SQLException {
        var address = row.text("address");
        return new Party(address, phone.e164(address), row.text("name"));
    }

    private static Party who(Row row, Around around, PhoneFiles phone) throws SQLException {
        var handle = around.handles.get(row.number("handle"));
        return handle != null ? handle : party(row, phone);
    }

    private static Attachment attachment(Row row, PhoneFiles phone) throws SQLException, IOException {
        var path = row.text("path");
        var item = path.isEmpty() ? "" : FILES + path;
        boolean there = !item.isEmpty() && phone.files().has(new PhonePath(item));
        return new Attachment(
                there ? item : "", row.text("name").isEmpty() ? path : row.text("name"), row.text("type"));
    }

    private static ThingId chat(long id) {
        return new ThingId(STORE, "chat-" + id);
    }

    private static ThingId messageId(long id) {
        return new ThingId(STORE, Long.toString(id));
    }

    private static Conversation conversation(Row row, Around around) throws SQLException {
        return new Conversation(
                chat(row.number("id")),
                "",
                row.text("service"),
                row.text("name"),
                row.flag("is_group"),
                around.members.getOrDefault(row.number("id"), List.of()));
    }

    private static Message message(Row row, Around around, PhoneFiles phone) throws SQLException {
        boolean sent = around.newer ? row.number("handle") == 0 : row.flag("sent");
        var sender = sent
                ? Optional.<Party>empty()
                : around.newer
                        ? Optional.ofNullable(around.handles.get(row.number("handle")))
                        : Optional.of(new Party(row.text("address"), phone.e164(row.text("address")), ""));
        var replyTo = Optional.ofNullable(around.byGuid.get(row.text("reply_to")));
        long id = row.number("id");
        return new Message(
                messageId(id),
                "",
                chat(row.number("chat")),
                Ostrel.moment(row, "at"),
                sent,
                sender,
                row.text("text"),
                row.text("service"),
                state(row.number("state")),
                around.attachments.getOrDefault(id, List.of()),
                replyTo.map(OstrelMessages::messageId),
                around.reactions.getOrDefault(id, List.of()),
                Ostrel.moment(row, "edited"),
                row.flag("removed"));
    }

    private static Message.State state(long state) {
        return switch ((int) Math.clamp(state, -2, 9)) {
            case -1 -> Message.State.FAILED;
            case 1 -> Message.State.SENT;
            case 2 -> Message.State.DELIVERED;
            case 3 -> Message.State.READ;
            default -> Message.State.UNKNOWN;
        };
    }
}
