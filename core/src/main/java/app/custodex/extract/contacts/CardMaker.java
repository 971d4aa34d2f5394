package app.custodex.extract.contacts;

import app.custodex.model.Contact;
import ezvcard.VCardVersion;
import ezvcard.io.text.VCardWriter;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;

/** Makes cards one by one, each whole before any of it is written, so that one that can't be made leaves no half behind. */
final class CardMaker {
    private final VcardMapping mapping;
    private final VCardVersion version;
    private StringWriter text = new StringWriter();
    private VCardWriter writer;

    CardMaker(VcardMapping mapping, VCardVersion version) {
        this.mapping = mapping;
        this.version = version;
        writer = writer();
    }

    /** @param title of the contact */
    record Card(String title, String text) {}

    private VCardWriter writer() {
        text = new StringWriter();
        var made = new VCardWriter(new OctetFolder(text), version);
        made.setAddProdId(false);
        made.setVersionStrict(false);
        made.getVObjectWriter().getFoldedLineWriter().setLineLength(null);
        return made;
    }

    Card card(Contact contact) {
        boolean whole = false;
        try {
            text.getBuffer().setLength(0);
            writer.write(mapping.card(contact));
            writer.flush();
            whole = true;
            return new Card(contact.title(), text.toString());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } finally {
            if (!whole) {
                writer = writer(); // the old one stands in the middle of a card
            }
        }
    }
}
