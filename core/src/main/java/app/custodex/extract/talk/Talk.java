package app.custodex.extract.talk;

import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.extract.Batch;
import app.custodex.model.Conversation;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;

/**
 * The messages of one conversation that are written.
 *
 * @param conversation absent for mails, and for messages whose conversation the phone does not have
 */
record Talk(Optional<Conversation> conversation, Batch messages) {
    /** Each conversation with those of its messages that are in a batch; at the end what is in none. */
    static List<Talk> of(Batch batch) throws IOException {
        var catalogue = batch.material().catalogue();
        var wanted = new BitSet();
        Arrays.stream(batch.numbers()).forEach(number -> wanted.set((int) number));
        var talks = new ArrayList<Talk>();
        var conversations = new ArrayList<Conversation>();
        catalogue.forEach(
                catalogue.find(Filter.EVERYTHING.of(ThingKind.CONVERSATION), Order.AS_KEPT),
                entry -> conversations.add((Conversation) entry.thing()));
        for (var conversation : conversations) {
            var own = Arrays.stream(catalogue.within(conversation.id()))
                    .filter(number -> wanted.get((int) number))
                    .toArray();
            if (own.length > 0) {
                Arrays.stream(own).forEach(number -> wanted.clear((int) number));
                var title = batch.material().names().title(conversation);
                talks.add(
                        new Talk(Optional.of(conversation), batch.part(title.isBlank() ? "Conversation" : title, own)));
            }
        }
        if (!wanted.isEmpty()) {
            var rest = Arrays.stream(batch.numbers())
                    .filter(number -> wanted.get((int) number))
                    .toArray();
            talks.add(new Talk(Optional.empty(), batch.part("Mails and single messages", rest)));
        }
        return talks;
    }
}
