package app.custodex.catalogue;

import app.custodex.catalogue.Catalogue.Order;
import app.custodex.model.Conversation;
import app.custodex.model.Message;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** In which conversations files were sent or came, by their items. */
public final class SentIn {
    /**
     * Where a file was sent or came.
     *
     * @param message its number in the catalogue
     * @param title of the conversation, or the names of everybody in it
     */
    public record Sent(int message, Conversation conversation, String title) {}

    private final Map<String, List<Sent>> byItem = new HashMap<>();

    private SentIn() {}

    static SentIn of(Catalogue catalogue) throws IOException {
        var names = catalogue.names();
        var conversations = new HashMap<ThingId, Conversation>();
        catalogue.forEach(
                catalogue.find(Filter.EVERYTHING.of(ThingKind.CONVERSATION), Order.AS_KEPT),
                entry -> conversations.put(entry.thing().id(), (Conversation) entry.thing()));
        var sentIn = new SentIn();
        var withFiles = Filter.EVERYTHING.withAttachments().of(ThingKind.MESSAGE);
        catalogue.forEach(catalogue.find(withFiles, Order.OLDEST_FIRST), entry -> {
            if (entry.thing() instanceof Message message && conversations.containsKey(message.conversation())) {
                var conversation = conversations.get(message.conversation());
                sentIn.add(message, new Sent((int) entry.number(), conversation, names.title(conversation)));
            }
        });
        return sentIn;
    }

    private void add(Message message, Sent sent) {
        for (var file : message.attachments()) {
            if (file.there()) {
                byItem.computeIfAbsent(file.item(), item -> new ArrayList<>()).add(sent);
            }
        }
    }

    /** Where a file was sent or came, the oldest first. */
    public List<Sent> of(String item) {
        return List.copyOf(byItem.getOrDefault(item, List.of()));
    }

    Map<String, List<Sent>> all() {
        return byItem;
    }
}
