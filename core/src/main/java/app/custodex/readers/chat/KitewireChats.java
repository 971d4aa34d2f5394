package app.custodex.readers.chat;

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

/** Reads Kitewire: a database with times in milliseconds since 1970, and a folder of media beside it. */
public final class KitewireChats extends StoreReader {
    /** How contacts write an address in this app (RFC 4770, IMPP). */
    private static final String SERVICE = "kitewire:";

    private final String app;
    private final String folder;
    private final String store;

    /**
     * A reader for each edition of the app; one phone can have both, which keep apart.
     *
     * @param folder where the app writes its copy on this family of phones
     * @param work the name of the folder beside it into which the edition for work writes
     */
    public static List<KitewireChats> editions(PhonePath folder, String work) {
        return List.of(
                new KitewireChats("kitewire", "Kitewire", folder),
                new KitewireChats(
                        "kitewire-work", "Kitewire Work", folder.parent().child(work)));
    }

    /** @param app what the account of everything in it is called */
    private KitewireChats(String name, String app, PhonePath folder) {
        super(name, folder.child("kitewire.db"), Set.of(ThingKind.CONVERSATION, ThingKind.MESSAGE, ThingKind.CALL));
        this.app = app;
        this.folder = folder.text() + "/";
        this.store = this.folder + "kitewire.db";
    }

    private static final class Around {
        private final Map<String, Party> parties = new HashMap<>();
        private final Map<Long, List<Party>> members = new HashMap<>();
        private final Map<Long, List<Reaction>> reactions = new HashMap<>();
        private String owner = "";

        /** Empty for the owner of the phone. */
        Optional<Party> party(String handle) {
            return handle.isEmpty() || handle.equals(owner)
                    ? Optional.empty()
                    : Optional.of(parties.getOrDefault(handle, new Party(SERVICE + handle, "", "")));
        }
    }

    @Override
    protected void read(PhoneDatabase database, PhoneFiles phone, Sink sink, Losses losses) throws IOException {
        var around = new Around();
        losses.require(
                "owner's account",
                database.each("account", List.of("handle"), row -> around.owner = row.text("handle")));
        losses.require(
                "people",
                database.each(
                        "person",
                        List.of("handle", "name"),
                        row -> around.parties.put(
                                row.text("handle"), new Party(SERVICE + row.text("handle"), "", row.text("name")))));
        losses.tell("members of conversations", database.each("chat_member", List.of("chat", "handle"), row -> {
            var members = around.members.computeIfAbsent(row.number("chat"), chat -> new ArrayList<>());
            around.party(row.text("handle")).ifPresent(members::add);
        }));
        losses.tell(
                "reactions",
                database.each(
                        "reaction",
                        List.of("message", "handle", "sign"),
                        row -> around.reactions
                                .computeIfAbsent(row.number("message"), message -> new ArrayList<>(1))
                                .add(new Reaction(around.party(row.text("handle")), row.text("sign")))));
        losses.require(
                "conversations",
                database.each(
                        "chat",
                        List.of("id", "title", "is_group"),
                        row -> sink.thing(new Conversation(
                                chat(row.number("id")),
                                app,
                                app,
                                row.text("title"),
                                row.flag("is_group"),
                                around.members.getOrDefault(row.number("id"), List.of())))));
        losses.require(
                "messages",
                database.each(
                        "message",
                        List.of("id", "chat", "sender", "at", "body", "reply_to", "edited_at", "deleted", "media"),
                        row -> sink.thing(message(row, around, phone))));
        losses.tell(
                "calls",
                database.each(
                        "call",
                        List.of("id", "chat", "caller", "at", "seconds", "video"),
                        row -> sink.thing(call(row, around))));
    }

    private ThingId chat(long id) {
        return new ThingId(store, "chat-" + id);
    }

    private ThingId messageId(long id) {
        return new ThingId(store, Long.toString(id));
    }

    private static Optional<Moment> moment(Row row, String column) throws SQLException {
        long millis = row.number(column);
        return millis == 0 ? Optional.empty() : Optional.of(Moment.at(Instant.ofEpochMilli(millis)));
    }

    private Message message(Row row, Around around, PhoneFiles phone) throws SQLException, IOException {
        var sender = around.party(row.text("sender"));
        var replyTo = row.numberIfAny("reply_to");
        return new Message(
                messageId(row.number("id")),
                app,
                chat(row.number("chat")),
                moment(row, "at"),
                sender.isEmpty(),
                sender,
                row.text("body"),
                app,
                Message.State.UNKNOWN,
                attachments(row.text("media"), phone),
                replyTo.isEmpty() ? Optional.empty() : Optional.of(messageId(replyTo.getAsLong())),
                around.reactions.getOrDefault(row.number("id"), List.of()),
                moment(row, "edited_at"),
                row.flag("deleted"));
    }

    /** A file that the app has thrown away to save room is named all the same. */
    private List<Attachment> attachments(String media, PhoneFiles phone) throws IOException {
        if (media.isEmpty()) {
            return List.of();
        }
        var path = PhonePath.parse(folder + media);
        boolean there = path.isPresent() && phone.files().has(path.get());
        return List.of(new Attachment(there ? folder + media : "", media.substring(media.lastIndexOf('/') + 1), ""));
    }

    private Call call(Row row, Around around) throws SQLException {
        var length = Duration.ofSeconds(Math.max(0, row.number("seconds")));
        boolean made = around.party(row.text("caller")).isEmpty();
        return new Call(
                new ThingId(store, "call-" + row.number("id")),
                app,
                moment(row, "at"),
                around.members.getOrDefault(row.number("chat"), List.of()),
                made ? Call.Outcome.MADE : length.isZero() ? Call.Outcome.MISSED : Call.Outcome.TAKEN,
                row.flag("video") ? Call.Medium.VIDEO : Call.Medium.APP,
                length);
    }
}
