package app.custodex.extract.calendars;

import app.custodex.base.Problem;
import app.custodex.extract.Batch;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.UnreadableException;
import app.custodex.model.Attachment;
import app.custodex.model.KindGroup;
import app.custodex.model.Note;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Notes as files, one each, in the folders in which they lie on the phone. */
public final class NoteFiles implements Format {
    private final boolean markdown;

    private NoteFiles(boolean markdown) {
        this.markdown = markdown;
    }

    /** With their marks and pictures, and as mere text. */
    public static List<Format> all() {
        return List.of(new NoteFiles(true), new NoteFiles(false));
    }

    @Override
    public String code() {
        return markdown ? "markdown" : "text";
    }

    @Override
    public String label() {
        return markdown ? "Markdown, with the pictures (CommonMark)" : "Plain text";
    }

    @Override
    public String leavesOut() {
        return markdown ? "" : "Leaves out the pictures; each note says which";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.NOTES);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var all = out.folder(batch.title());
        for (var note : batch.each(thing -> (Note) thing)) {
            var folder = note.folder().isBlank() ? all : all.sharedFolder(note.folder());
            folder.text(note.title(), markdown ? ".md" : ".txt", text -> {
                text.write((markdown ? "# " : "") + Clean.line(note.title()) + "\n\n");
                text.write(Clean.text(note.text()).strip() + "\n");
                for (var attachment : note.attachments()) {
                    text.write("\n" + line(attachment, folder, batch) + "\n");
                }
            });
        }
    }

    private String line(Attachment attachment, OutFolder folder, Batch batch) throws IOException {
        var title = Clean.line(attachment.title());
        if (!markdown || !attachment.there()) {
            batch.leftOut(attachment.there() ? "pictures of notes" : "pictures of notes that the phone no longer has");
            return "(A picture or file is left out here: " + title + ")";
        }
        return put(attachment, folder, batch)
                .map(name -> "![" + title.replaceAll("[\\[\\]\\\\]", "\\\\$0") + "](<"
                        + name.replaceAll("[<>\\\\]", "\\\\$0") + ">)")
                .orElse("(A picture or file is missing here: " + title + ")");
    }

    private static Optional<String> put(Attachment attachment, OutFolder folder, Batch batch) throws IOException {
        try (var content = batch.material().open(attachment.item())) {
            return Optional.of(folder.relative(folder.original(
                    attachment.title(), content, batch.material().modified(attachment.item()))));
        } catch (UnreadableException e) {
            batch.problem(Problem.loss(
                    attachment.item(),
                    "It can't be read, so it is missing in its note",
                    "Check the layer; look into an older one"));
            return Optional.empty();
        }
    }
}
