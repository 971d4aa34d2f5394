package app.custodex.extract.calendars;

import app.custodex.extract.Batch;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pages;
import app.custodex.extract.UnreadableException;
import app.custodex.extract.ZoneText;
import app.custodex.model.Attachment;
import app.custodex.model.KindGroup;
import app.custodex.model.Note;
import java.io.IOException;
import java.io.Writer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Notes as files, one each, in the folders in which they lie on the phone. */
public final class NoteFiles implements Format {
    private final Form form;

    private enum Form {
        MARKDOWN("markdown", "Markdown, with the pictures (CommonMark)", ".md"),
        PAGE("page", "HTML, a page a note, with the pictures", ".html"),
        TEXT("text", "Plain text", ".txt");

        private final String code;
        private final String label;
        private final String ending;

        Form(String code, String label, String ending) {
            this.code = code;
            this.label = label;
            this.ending = ending;
        }
    }

    private NoteFiles(Form form) {
        this.form = form;
    }

    /** With their marks and pictures, as pages, and as mere text. */
    public static List<Format> all() {
        return Arrays.stream(Form.values()).<Format>map(NoteFiles::new).toList();
    }

    @Override
    public String code() {
        return form.code;
    }

    @Override
    public String label() {
        return form.label;
    }

    @Override
    public String leavesOut() {
        return form == Form.TEXT ? "Leaves out the pictures; each note says which" : "";
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
            folder.text(note.title(), form.ending, text -> {
                if (form == Form.PAGE) {
                    page(note, folder, batch, text);
                } else {
                    text.write((form == Form.MARKDOWN ? "# " : "") + Clean.line(note.title()) + "\n\n");
                    text.write(Clean.text(note.text()).strip() + "\n");
                    for (var attachment : note.attachments()) {
                        text.write("\n" + line(attachment, folder, batch) + "\n");
                    }
                }
            });
        }
    }

    /**
     * What hangs on a note, on its page.
     *
     * @param address as a URI reference; empty when it is missing
     * @param picture whether a browser can show it
     */
    public record Hanging(String title, String address, boolean picture) {}

    private static void page(Note note, OutFolder folder, Batch batch, Writer text) throws IOException {
        var hanging = new ArrayList<Hanging>();
        for (var attachment : note.attachments()) {
            hanging.add(new Hanging(
                    Clean.line(attachment.title()),
                    there(attachment, batch)
                            ? put(attachment, folder, batch)
                                    .map(Pages::reference)
                                    .orElse("")
                            : "",
                    Pages.isPicture(attachment.title())));
        }
        var zone = batch.material().zone();
        Pages.render(
                "note.jte",
                Map.of(
                        "title",
                        Clean.line(note.title()),
                        "about",
                        Clean.line(note.moment()
                                        .map(at -> "Changed " + ZoneText.time(at.instant(zone), zone))
                                        .orElse("Without a time")
                                + (note.folder().isBlank() ? "" : " · in " + note.folder())),
                        "text",
                        Clean.text(note.text()).strip(),
                        "hanging",
                        hanging),
                text);
    }

    private static boolean there(Attachment attachment, Batch batch) {
        if (!attachment.there()) {
            batch.leftOut("pictures of notes that the phone no longer has");
        }
        return attachment.there();
    }

    private String line(Attachment attachment, OutFolder folder, Batch batch) throws IOException {
        var title = Clean.line(attachment.title());
        if (!there(attachment, batch)) {
            return leftOut(title);
        }
        if (form == Form.TEXT) {
            batch.leftOut("pictures of notes");
            return leftOut(title);
        }
        return put(attachment, folder, batch)
                .map(name -> "![" + title.replaceAll("[\\[\\]\\\\]", "\\\\$0") + "](<"
                        + name.replaceAll("[<>\\\\]", "\\\\$0") + ">)")
                .orElse("(A picture or file is missing here: " + title + ")");
    }

    private static String leftOut(String title) {
        return "(A picture or file is left out here: " + title + ")";
    }

    private static Optional<String> put(Attachment attachment, OutFolder folder, Batch batch) throws IOException {
        try {
            return Optional.of(folder.relative(batch.original(folder, attachment.title(), attachment.item())));
        } catch (UnreadableException e) {
            batch.unreadable(attachment.item(), "so it is missing in its note");
            return Optional.empty();
        }
    }
}
