package app.custodex.extract.contacts;

import app.custodex.extract.Batch;
import app.custodex.extract.Choice;
import app.custodex.extract.Chosen;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.extract.Split;
import app.custodex.model.Contact;
import app.custodex.model.KindGroup;
import ezvcard.VCardVersion;
import ezvcard.io.json.JCardWriter;
import java.io.IOException;
import java.util.List;
import java.util.Set;

/** Contacts as vCards in JSON (RFC 7095), all in one array. */
public final class JcardFormat implements Format {
    @Override
    public String code() {
        return "jcard";
    }

    @Override
    public String label() {
        return "jCard, vCard in JSON (RFC 7095)";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.CONTACTS);
    }

    @Override
    public List<Choice> choices(KindGroup group) {
        return Split.choices(group);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        Split.write(batch, chosen, out, JcardFormat::cards);
    }

    private static void cards(Batch batch, OutFolder out) throws IOException {
        var mapping = new VcardMapping(VCardVersion.V4_0, batch);
        out.text(batch.title(), ".json", text -> {
            @SuppressWarnings("resource") // the caller closes what lies below
            var writer = new JCardWriter(text, true);
            writer.setAddProdId(false);
            writer.setVersionStrict(false);
            for (var card : batch.each(thing -> mapping.card((Contact) thing))) {
                writer.write(card);
            }
            writer.closeJsonStream();
        });
    }
}
