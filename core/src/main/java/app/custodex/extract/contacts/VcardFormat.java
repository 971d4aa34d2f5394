package app.custodex.extract.contacts;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.model.Contact;
import app.custodex.model.KindGroup;
import ezvcard.VCardVersion;
import ezvcard.io.text.VCardWriter;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Set;

/** Contacts as vCards. */
public final class VcardFormat implements Format {
    static final Choice FILE_EACH = Choice.whether("file-each", "One file a contact", false);

    private final String code;
    private final String label;
    private final VCardVersion version;

    private VcardFormat(String code, String label, VCardVersion version) {
        this.code = code;
        this.label = label;
        this.version = version;
    }

    /** Of every version. */
    public static List<Format> all() {
        return List.of(
                new VcardFormat("vcard4", "vCard 4.0 (RFC 6350)", VCardVersion.V4_0),
                new VcardFormat("vcard3", "vCard 3.0, for older programs (RFC 2426)", VCardVersion.V3_0),
                new VcardFormat("vcard21", "vCard 2.1, for car kits and old phones", VCardVersion.V2_1));
    }

    @Override
    public String code() {
        return code;
    }

    @Override
    public String label() {
        return label;
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.CONTACTS);
    }

    @Override
    public List<Choice> choices() {
        return List.of(FILE_EACH);
    }

    /** @param title of the contact */
    private record Card(String title, String text) {}

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var mapping = new VcardMapping(version, batch);
        var cards = batch.each(thing -> card(mapping, (Contact) thing));
        if (chosen.is(FILE_EACH)) {
            var folder = out.folder(batch.title());
            for (var card : cards) {
                folder.text(card.title(), ".vcf", text -> text.write(card.text()));
            }
        } else {
            out.text(batch.title(), ".vcf", text -> {
                for (var card : cards) {
                    text.write(card.text());
                }
            });
        }
    }

    /** A card is made whole before any of it is written, so that one that can't be made leaves no half behind. */
    private Card card(VcardMapping mapping, Contact contact) {
        var text = new StringWriter();
        try {
            @SuppressWarnings("resource") // nothing lies below it but a text
            var writer = new VCardWriter(new OctetFolder(text), version);
            writer.setAddProdId(false);
            writer.setVersionStrict(false);
            writer.getVObjectWriter().getFoldedLineWriter().setLineLength(null);
            writer.write(mapping.card(contact));
            writer.flush();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return new Card(contact.title(), text.toString());
    }
}
