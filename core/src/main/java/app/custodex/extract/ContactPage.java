package app.custodex.extract;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.model.Contact;
import gg.jte.ContentType;
import gg.jte.TemplateEngine;
import gg.jte.TemplateException;
import gg.jte.output.WriterOutput;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.IntConsumer;

/** Writes contacts as one HTML page that needs nothing else and runs nothing. */
public final class ContactPage {
    private static final TemplateEngine ENGINE =
            TemplateEngine.createPrecompiled(null, ContentType.Html, null, "app.custodex.extract.pages");

    private final Photos photos;
    private final List<Problem> problems;

    ContactPage(Photos photos, List<Problem> problems) {
        this.photos = photos;
        this.problems = problems;
    }

    void write(String title, List<Contact> contacts, Writer out, IntConsumer progress, CancelToken cancel)
            throws IOException {
        int[] done = {0};
        PhotoSource source = contact -> {
            cancel.check();
            progress.accept(++done[0]);
            return dataAddress(contact);
        };
        try {
            ENGINE.render(
                    "contacts.jte",
                    Map.of("title", Clean.line(title), "contacts", contacts, "photos", source),
                    new WriterOutput(out));
        } catch (UncheckedIOException e) {
            throw e.getCause();
        } catch (TemplateException e) {
            if (e.getCause() instanceof IOException io) {
                throw io;
            }
            if (e.getCause() instanceof UncheckedIOException io) {
                throw io.getCause();
            }
            if (e.getCause() instanceof CancellationException stopped) {
                throw stopped;
            }
            throw e;
        }
    }

    /** The photo as a data address (RFC 2397); empty when there is none that a page may show. */
    private Optional<String> dataAddress(Contact contact) {
        if (!contact.hasPhoto()) {
            return Optional.empty();
        }
        try {
            var photo = photos.of(contact);
            var type = photo.flatMap(PictureFormat::of);
            if (photo.isPresent() && type.isEmpty()) {
                problems.add(Problem.loss(
                        contact.title(), "The photo is in no format that a page can show", "Take it out as a file"));
            }
            return type.map(t ->
                    "data:" + t.mediaType() + ";base64," + Base64.getEncoder().encodeToString(photo.get()));
        } catch (IOException e) {
            problems.add(Problem.loss(contact.title(), "The photo can't be read", "Check the layer"));
            return Optional.empty();
        }
    }

    /** Gives a page the photos one by one, while it is written. */
    public interface PhotoSource {
        Optional<String> of(Contact contact);
    }
}
