package app.custodex.readers.chat;

import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.FileSource;
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
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import app.custodex.readers.Sink;
import app.custodex.readers.Store;
import app.custodex.seal.CustomerKey;
import app.custodex.seal.Passphrase;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.StreamSupport;

/**
 * Reads Burrow: lines of JSON in the order in which things happened, sealed with a key that only the customer has, and sealed media
 * beside them. What is read with the key is not kept anywhere.
 */
public final class BurrowChats implements Reader {
    private static final String APP = "Burrow";
    private static final String SERVICE = "burrow:";

    private final PhonePath folder;
    private final PhonePath copy;
    private final Optional<Passphrase> key;

    /**
     * @param folder where the app writes its copy on this family of phones
     * @param key the customer's, if it was given; it stays the caller's to destroy
     */
    public BurrowChats(PhonePath folder, Optional<Passphrase> key) {
        this.folder = folder;
        this.copy = folder.child("copy.jsonl.age");
        this.key = key;
    }

    /** Another one with the key, so that what was read without it does not count as read. */
    @Override
    public String name() {
        return key.isPresent() ? "burrow-opened" : "burrow";
    }

    @Override
    public Set<ThingKind> kinds() {
        return Set.of(ThingKind.CONVERSATION, ThingKind.MESSAGE, ThingKind.CALL);
    }

    @Override
    public List<Store> stores(FileSource files) throws IOException {
        return files.has(copy) ? List.of(Store.of(copy)) : List.of();
    }

    @Override
    public void read(Store store, PhoneFiles phone, Sink sink) throws IOException {
        if (key.isEmpty()) {
            sink.problem(Problem.note(
                    copy.text(),
                    "Burrow's copy is sealed with a key that only the customer has",
                    "Ask the customer for the key, and open the layer with it"));
            return;
        }
        var around = new Around();
        each(phone, Optional.of(sink), (is, line) -> around.gather(is, line));
        each(phone, Optional.empty(), (is, line) -> give(is, line, around, phone, sink));
    }

    private interface Line {
        void take(String is, JsonNode line) throws IOException;
    }

    /** @param told is told what is damaged; nobody when it was told before */
    private void each(PhoneFiles phone, Optional<Sink> told, Line action) throws IOException {
        int damaged = 0;
        try (var lines = new BufferedReader(new InputStreamReader(
                CustomerKey.decrypting(key.orElseThrow(), phone.open(copy), copy.text()), StandardCharsets.UTF_8))) {
            for (var text = lines.readLine(); text != null; text = lines.readLine()) {
                try {
                    var line = Json.LINE.readTree(text);
                    action.take(line.path("is").asText(), line);
                } catch (JsonProcessingException e) {
                    damaged++;
                }
            }
        } catch (ProblemException wrongKey) {
            throw wrongKey;
        } catch (IOException cut) {
            if (told.isPresent()) {
                told.get()
                        .problem(Problem.loss(
                                copy.text(),
                                "Burrow's copy breaks off or is damaged; what stands before that was read",
                                "Let the app write its copy again, or look into an older layer"));
            }
        }
        if (damaged > 0 && told.isPresent()) {
            told.get()
                    .problem(Problem.loss(
                            copy.text(),
                            damaged + (damaged == 1 ? " line" : " lines") + " of Burrow's copy can't be understood",
                            "Look into an older layer for them"));
        }
    }

    /** What is said of messages behind them. */
    private static final class Around {
        private String owner = "";
        private final Map<String, List<Party>> members = new HashMap<>();
        private final Map<String, List<Reaction>> reactions = new HashMap<>();
        private final Map<String, JsonNode> edits = new HashMap<>();
        private final Set<String> deleted = new HashSet<>();

        void gather(String is, JsonNode line) {
            var id = line.path("id").asText();
            switch (is) {
                case "account" -> owner = line.path("name").asText();
                case "chat" ->
                    members.put(
                            id,
                            StreamSupport.stream(line.path("members").spliterator(), false)
                                    .flatMap(member -> party(member.asText()).stream())
                                    .toList());
                case "edit" -> edits.put(id, line);
                case "deletion" -> deleted.add(id);
                case "reaction" ->
                    reactions
                            .computeIfAbsent(id, message -> new ArrayList<>(1))
                            .add(new Reaction(
                                    party(line.path("from").asText()),
                                    line.path("sign").asText()));
                default -> {}
            }
        }

        /** Empty for the owner of the phone. */
        Optional<Party> party(String name) {
            return name.isEmpty() || name.equals(owner)
                    ? Optional.empty()
                    : Optional.of(
                            new Party(SERVICE + name.toLowerCase(Locale.ROOT).replace(' ', '.'), "", name));
        }
    }

    private void give(String is, JsonNode line, Around around, PhoneFiles phone, Sink sink) throws IOException {
        switch (is) {
            case "chat" ->
                sink.thing(new Conversation(
                        id("chat-" + line.path("id").asText()),
                        APP,
                        APP,
                        line.path("title").asText(),
                        line.path("group").asBoolean(),
                        around.members.getOrDefault(line.path("id").asText(), List.of())));
            case "message" -> sink.thing(message(line, around, phone));
            case "call" -> sink.thing(call(line, around));
            default -> {}
        }
    }

    private ThingId id(String key) {
        return new ThingId(copy.text(), key);
    }

    private static Optional<Moment> moment(JsonNode line) {
        return line.path("at").isIntegralNumber()
                ? Optional.of(Moment.at(Instant.ofEpochMilli(line.path("at").asLong())))
                : Optional.empty();
    }

    private Message message(JsonNode line, Around around, PhoneFiles phone) throws IOException {
        var key = line.path("id").asText();
        var sender = around.party(line.path("from").asText());
        var edit = Optional.ofNullable(around.edits.get(key));
        var reply = line.path("reply").asText();
        return new Message(
                id(key),
                APP,
                id("chat-" + line.path("chat").asText()),
                moment(line),
                sender.isEmpty(),
                sender,
                edit.orElse(line).path("text").asText(),
                APP,
                Message.State.UNKNOWN,
                attachments(line.path("media").asText(), phone),
                reply.isEmpty() ? Optional.empty() : Optional.of(id(reply)),
                around.reactions.getOrDefault(key, List.of()),
                edit.flatMap(BurrowChats::moment),
                around.deleted.contains(key));
    }

    /** A file that the app has thrown away to save room is named all the same. */
    private List<Attachment> attachments(String media, PhoneFiles phone) throws IOException {
        if (media.isEmpty()) {
            return List.of();
        }
        var item = folder.text() + "/" + media + ".age";
        var name = media.substring(media.lastIndexOf('/') + 1);
        var path = PhonePath.parse(item);
        boolean there = path.isPresent() && phone.files().has(path.get());
        return List.of(new Attachment(there ? item : "", name, ""));
    }

    private Call call(JsonNode line, Around around) {
        var length = Duration.ofSeconds(Math.max(0, line.path("seconds").asLong()));
        boolean made = around.party(line.path("from").asText()).isEmpty();
        return new Call(
                id("call-" + line.path("id").asText()),
                APP,
                moment(line),
                around.members.getOrDefault(line.path("chat").asText(), List.of()),
                made ? Call.Outcome.MADE : length.isZero() ? Call.Outcome.MISSED : Call.Outcome.TAKEN,
                line.path("video").asBoolean() ? Call.Medium.VIDEO : Call.Medium.APP,
                length);
    }
}
