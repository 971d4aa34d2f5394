package app.custodex.extract.talk;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pages;
import app.custodex.extract.ZoneText;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.text.Bidi;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** Conversations as HTML pages, one each, with what hangs on the messages in folders beside them. */
public final class TranscriptPage implements Format {
    private static final Choice ATTACHMENTS =
            Choice.whether("attachments", "With the attachments, in a folder beside", true);

    @Override
    public String code() {
        return "page";
    }

    @Override
    public String label() {
        return "HTML, a page a conversation";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.MESSAGES);
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return List.of(ATTACHMENTS);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var folder = out.folder(batch.title());
        for (var talk : Talk.of(batch)) {
            var messages = talk.messages();
            var attached = new Attached(messages, folder);
            var lines = messages.each(
                    thing -> Line.of(thing, messages, chosen.is(ATTACHMENTS) ? attached::put : attached::name));
            folder.text(
                    messages.title(),
                    ".html",
                    text -> Pages.render(
                            "transcript.jte",
                            Map.of(
                                    "title",
                                    Clean.line(messages.title()),
                                    "phone",
                                    batch.material().phone(),
                                    "zone",
                                    ZoneText.of(batch.material().zone()),
                                    "members",
                                    members(talk),
                                    "count",
                                    messages.count(),
                                    "lines",
                                    lines),
                            text));
        }
    }

    /** Somebody in a conversation. */
    public record Member(String name, String address) {
        /** From left to right, with the name in its own direction (Unicode Standard Annex 9, first strong isolate). */
        private static final String ISOLATED = "\u200e\u2068%s\u2069";

        /** In one line; the address is left out where there is none. */
        String inOne() {
            var own = Bidi.requiresBidi(name.toCharArray(), 0, name.length())
                    ? String.format(Locale.ROOT, ISOLATED, name)
                    : name;
            return address.isBlank() ? own : own + " (" + address + ")";
        }
    }

    /** Everybody in it with their number or address. */
    static List<Member> members(Talk talk) {
        return talk.conversation()
                .map(conversation -> conversation.members().stream()
                        .map(party ->
                                new Member(talk.messages().material().names().of(party, conversation), party.reach()))
                        .toList())
                .orElse(List.of());
    }
}
