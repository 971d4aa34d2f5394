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
import java.io.IOException;
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
    public List<Choice> choices(KindGroup group) {
        return Split.choices(group, List.of(FILE_EACH));
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        Split.write(batch, chosen, out, (part, folder) -> cards(part, chosen, folder));
    }

    private void cards(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var maker = new CardMaker(new VcardMapping(version, batch), version);
        var cards = batch.each(thing -> maker.card((Contact) thing));
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
}
