package app.custodex.extract.contacts;

import app.custodex.base.Problem;
import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Pages;
import app.custodex.extract.Split;
import app.custodex.model.Contact;
import app.custodex.model.Contact.Extra;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Contacts as one HTML page that needs nothing else and runs nothing. */
public final class ContactPage implements Format {
    private static final Set<String> FOR_PROGRAMS =
            Set.of("REV", "VERSION", "PRODID", "UID", "CLIENTPIDMAP", "MAILER", "PROFILE", "SORT-STRING");

    @Override
    public String code() {
        return "page";
    }

    @Override
    public String label() {
        return "HTML, a page to read and print";
    }

    @Override
    public String leavesOut() {
        return "Leaves out the parts of which a name is made";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.CONTACTS);
    }

    /**
     * A contact on the page.
     *
     * @param photo as a data address (RFC 2397)
     */
    public record Shown(Contact contact, Optional<String> photo) {
        /** What it has no field for, under names that people read; what only programs need is left away. */
        public List<Extra> extras() {
            return contact.extras().stream()
                    .filter(extra -> !FOR_PROGRAMS.contains(extra.name().toUpperCase(Locale.ROOT)))
                    .filter(extra -> !extra.value().startsWith("data:"))
                    .map(extra ->
                            new Extra(extra.name().replaceFirst("^[Xx]-", "").replace('-', ' '), extra.value()))
                    .toList();
        }
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return Split.choices(group);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        Split.write(batch, chosen, out, ContactPage::page);
    }

    private static void page(Batch batch, OutFolder out) throws IOException {
        var contacts = batch.each(thing -> new Shown((Contact) thing, photo((Contact) thing, batch)));
        out.text(
                batch.title(),
                ".html",
                text -> Pages.render(
                        "contacts.jte",
                        Map.of("title", Clean.line(batch.title()), "count", batch.count(), "contacts", contacts),
                        text));
    }

    /** Empty when there is none that a page may show. */
    private static Optional<String> photo(Contact contact, Batch batch) {
        var photo = ContactPhotos.of(contact, batch);
        var type = photo.flatMap(PictureFormat::of);
        if (photo.isPresent() && type.isEmpty()) {
            batch.problem(Problem.loss(
                    contact.title(), "The photo is in no format that a page can show", "Take it out as a file"));
        }
        return type.map(
                t -> "data:" + t.mediaType() + ";base64," + Base64.getEncoder().encodeToString(photo.orElseThrow()));
    }
}
