package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.Attachment;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Reads notes in Markdown (CommonMark); files in a note's own folder hang on it. */
public final class MarkdownNotes extends FileReader {
    /** Longer than anybody writes; the rest is left out, and said. */
    private static final int LONGEST = 8 << 20;

    private final String home;

    /** @param home the folder in which each note has a folder of its own; empty when there is none */
    public MarkdownNotes(String home) {
        super("markdown", Set.of(Kind.NOTES), Set.of(".md"), Set.of(ThingKind.NOTE));
        this.home = home;
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        byte[] bytes;
        try (var in = phone.open(path)) {
            bytes = in.readNBytes(LONGEST + 1);
        }
        if (bytes.length > LONGEST) {
            sink.problem(Problem.loss(path.text(), "This note is longer than 8 MB", "Take it out as a file"));
        }
        var text = new String(bytes, 0, Math.min(bytes.length, LONGEST), StandardCharsets.UTF_8).strip();
        var heading = text.startsWith("# ");
        var title = heading ? text.lines().findFirst().orElse("").substring(2).strip() : "";
        if (title.isEmpty()) {
            title = path.name().replaceFirst("\\.md$", "");
        }
        int end = text.indexOf('\n');
        var body = !heading ? text : end < 0 ? "" : text.substring(end + 1).strip();
        sink.thing(new Note(
                new ThingId(path.text(), ""),
                "",
                folder(path),
                title,
                body,
                Optional.of(Moment.at(phone.files().facts(path).modified())),
                attachments(path, phone)));
    }

    /** A note of a phone lies in a folder of its own, which is no folder to its owner. */
    private String folder(PhonePath path) {
        var above = path.parent();
        if (home.isEmpty()) {
            return above.text();
        }
        var of = above.parent().text();
        return of.length() > home.length() ? of.substring(home.length() + 1) : "";
    }

    private List<Attachment> attachments(PhonePath path, PhoneFiles phone) throws IOException {
        if (home.isEmpty()) {
            return List.of();
        }
        return phone.files().in(path.parent()).stream()
                .filter(beside -> !beside.equals(path))
                .map(beside -> new Attachment(beside.text(), beside.name(), ""))
                .toList();
    }
}
