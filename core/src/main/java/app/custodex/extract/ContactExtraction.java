package app.custodex.extract;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.SafeNames;
import app.custodex.model.Contact;
import ezvcard.io.text.VCardWriter;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.function.IntConsumer;

/**
 * Writes contacts into a chosen folder. Nothing that is there is overwritten: a name that is taken gets a number. Each
 * file is written under a name ending in ".part" and gets its own name once it is complete.
 */
public final class ContactExtraction {
    private final ContactFormat format;
    private final Photos photos;

    public ContactExtraction(ContactFormat format, Photos photos) {
        this.format = format;
        this.photos = photos;
    }

    /**
     * @param title of the file, and of the page; made into a safe file name
     * @param progress is told how many contacts are written
     * @throws ProblemException when the folder can't be written
     */
    public ExtractResult write(
            List<Contact> contacts, String title, Path folder, IntConsumer progress, CancelToken cancel)
            throws IOException {
        try {
            Files.createDirectories(folder);
            var problems = new ArrayList<Problem>();
            var files = switch (format) {
                case ContactFormat.Vcard vcard
                when vcard.filePerContact() -> cardFiles(vcard, contacts, folder, problems, progress, cancel);
                case ContactFormat.Vcard vcard -> {
                    var mapping = new VcardMapping(vcard.version(), problems);
                    var file = file(folder, title, out -> cards(mapping, contacts, out, progress, cancel));
                    mapping.tellForms();
                    yield List.of(file);
                }
                case ContactFormat.Csv csv ->
                    List.of(file(folder, title, out -> new ContactTable(csv).write(contacts, out, progress, cancel)));
                case ContactFormat.Html html ->
                    List.of(file(
                            folder,
                            title,
                            out -> new ContactPage(photos, problems).write(title, contacts, out, progress, cancel)));
            };
            return new ExtractResult(files, contacts.size(), problems);
        } catch (ProblemException e) {
            throw e;
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.failure(
                            folder.toString(),
                            "The files can't be written to this folder",
                            "Choose another folder, or free some space; files that are complete stay there"),
                    e);
        }
    }

    private interface Body {
        void writeTo(Writer out) throws IOException;
    }

    private Path file(Path folder, String title, Body body) throws IOException {
        var stem = SafeNames.of(title, "Contacts");
        var part = SafeNames.free(folder, stem, format.ending() + ".part");
        boolean complete = false;
        try {
            try (Writer out = new BufferedWriter(
                    Files.newBufferedWriter(part, StandardCharsets.UTF_8, StandardOpenOption.CREATE_NEW), 1 << 16)) {
                body.writeTo(out);
            }
            var target = nameIt(part, folder, stem);
            complete = true;
            return target;
        } finally {
            if (!complete) {
                Files.deleteIfExists(part);
            }
        }
    }

    private Path nameIt(Path part, Path folder, String stem) throws IOException {
        while (true) {
            var target = SafeNames.free(folder, stem, format.ending());
            try {
                return Files.move(part, target);
            } catch (FileAlreadyExistsException takenMeanwhile) {
                // Another program was faster; the next number will do.
            }
        }
    }

    private List<Path> cardFiles(
            ContactFormat.Vcard vcard,
            List<Contact> contacts,
            Path folder,
            List<Problem> problems,
            IntConsumer progress,
            CancelToken cancel)
            throws IOException {
        var mapping = new VcardMapping(vcard.version(), problems);
        var files = new ArrayList<Path>();
        for (var contact : contacts) {
            cancel.check();
            files.add(file(folder, contact.title(), out -> cards(mapping, List.of(contact), out, done -> {}, cancel)));
            progress.accept(files.size());
        }
        mapping.tellForms();
        return files;
    }

    private void cards(
            VcardMapping mapping, List<Contact> contacts, Writer out, IntConsumer progress, CancelToken cancel)
            throws IOException {
        @SuppressWarnings("resource") // the caller closes what lies below
        var writer = new VCardWriter(new OctetFolder(out), mapping.version());
        writer.setAddProdId(false);
        writer.setVersionStrict(false);
        writer.getVObjectWriter().getFoldedLineWriter().setLineLength(null);
        int done = 0;
        for (var contact : contacts) {
            cancel.check();
            writer.write(mapping.card(contact, photos));
            progress.accept(++done);
        }
        writer.flush();
    }
}
