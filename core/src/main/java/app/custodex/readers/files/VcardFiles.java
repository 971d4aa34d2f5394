package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import ezvcard.VCard;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Reads vCard files. A file that holds several cards gives several contacts. */
public final class VcardFiles extends FileReader {
    private final String home;

    /** @param home the folder whose folders are accounts; empty when there is none */
    public VcardFiles(String home) {
        // Elsewhere than on a phone, what is a contact was told by the content, whatever the file is called.
        super(
                "vcard",
                Set.of(Kind.CONTACTS),
                home.isEmpty() ? Set.of() : Set.of(".vcf", ".vcard"),
                Set.of(ThingKind.CONTACT));
        this.home = home;
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        var reading = new VcardReading(phone::e164);
        var problems = new ArrayList<Problem>();
        var cards = cards(path, phone, problems);
        problems.forEach(sink::problem);
        for (int i = 0; i < cards.size(); i++) {
            sink.thing(
                    reading.contact(new ThingId(path.text(), Integer.toString(i)), account(path, home), cards.get(i)));
        }
    }

    private static List<VCard> cards(PhonePath path, PhoneFiles phone, List<Problem> problems) throws IOException {
        try (var in = phone.open(path)) {
            return VcardText.parse(path.text(), in, problems);
        }
    }

    /** Each photo is in its contact's own file. */
    @Override
    public Optional<byte[]> picture(ThingId id, PhoneFiles phone) throws IOException {
        var cards = cards(new PhonePath(id.item()), phone, new ArrayList<>());
        int index = Integer.parseInt(id.key());
        return index < cards.size() ? VcardReading.photo(cards.get(index)) : Optional.empty();
    }
}
