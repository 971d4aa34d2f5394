package app.custodex.extract.talk;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.ZoneText;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.io.Writer;
import java.util.List;
import java.util.Set;

/** Conversations as plain text. */
public final class TranscriptText implements Format {
    private static final Choice FILE_EACH = Choice.whether("file-each", "One file a conversation", true);
    /** A number behind a name that is written from right to left stays as it is (Unicode: left-to-right isolate). */
    private static final char LEFT_TO_RIGHT = '\u2066';

    private static final char END = '\u2069';

    private static final String INDENT = "          ";

    @Override
    public String code() {
        return "text";
    }

    @Override
    public String label() {
        return "Plain text";
    }

    @Override
    public String leavesOut() {
        return "Leaves out the attachments; they are named";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.MESSAGES);
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return List.of(FILE_EACH);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var talks = Talk.of(batch);
        if (chosen.is(FILE_EACH)) {
            var folder = out.folder(batch.title());
            for (var talk : talks) {
                folder.text(talk.messages().title(), ".txt", text -> write(talk, folder, text));
            }
        } else {
            out.text(batch.title(), ".txt", text -> {
                for (var talk : talks) {
                    write(talk, out, text);
                    text.write("\n\n");
                }
            });
        }
    }

    private static void write(Talk talk, OutFolder folder, Writer text) throws IOException {
        var messages = talk.messages();
        text.write(Clean.line(messages.title()) + "\n");
        for (var member : TranscriptPage.members(talk)) {
            text.write(
                    "  " + Clean.line(member.name()) + " " + LEFT_TO_RIGHT + Clean.line(member.address()) + END + "\n");
        }
        text.write("Times in " + ZoneText.of(messages.material().zone()) + "\n");
        var attached = new Attached(messages, folder);
        var day = "";
        for (var line : messages.each(thing -> Line.of(thing, messages, attached::name))) {
            if (!line.day().equals(day)) {
                day = line.day();
                text.write("\n" + day + "\n");
            }
            write(line, text);
        }
    }

    private static void write(Line line, Writer text) throws IOException {
        var said = (line.subject().isEmpty() ? "" : line.subject() + "\n") + line.text();
        // Lines of one message are set in, so that none can pass for another message.
        var body = Clean.text(said).replace("\n", "\n" + INDENT);
        var time = line.time().isEmpty() ? " ".repeat(INDENT.length() - 2) : line.time();
        text.write(time + "  " + Clean.line(line.who()) + ": " + body + "\n");
        for (var file : line.files()) {
            text.write(INDENT + "[" + Clean.line(file.name()) + "]\n");
        }
        for (var mark : line.marks()) {
            text.write(INDENT + "(" + Clean.line(mark) + ")\n");
        }
    }
}
