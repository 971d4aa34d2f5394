package app.custodex.readers.files;

import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Reads vCard files (RFC 6350, RFC 2426, and vCard 2.1 as phones still write it). A file that holds several cards gives several contacts. */
public final class VcardFiles extends FileReader {
    private static final int LONGEST_KEY = 200;

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
        var losses = new VcardLosses(path.text());
        var keys = new Keys();
        try (var cutter = new VcardCutter(phone.open(path))) {
            for (var card = cutter.next(); card.isPresent(); card = cutter.next()) {
                losses.count(card.get());
                var key = keys.next(card.get());
                if (!card.get().tooLarge()) {
                    sink.thing(new VcardReading(new VcardParse(card.get().text(), losses), phone::e164, losses)
                            .contact(new ThingId(path.text(), key), account(path, home)));
                }
            }
        }
        losses.tell(phone.files().facts(path).bytes() == 0, sink);
    }

    /** A card is named by its own lasting identifier, so that it is known again when others come before it. */
    private static final class Keys {
        private final Set<String> taken = new HashSet<>();
        private int index;

        String next(VcardCutter.Card card) {
            var key = Integer.toString(index++);
            var uid = card.uid();
            return !uid.isEmpty() && uid.length() <= LONGEST_KEY && taken.add(uid) ? uid : key;
        }
    }

    @Override
    public Optional<byte[]> picture(ThingId id, PhoneFiles phone) throws IOException {
        var path = new PhonePath(id.item());
        try (var cutter = new VcardCutter(phone.open(path))) {
            var first = cutter.next(); // most files hold one card
            if (first.isPresent() && new Keys().next(first.get()).equals(id.key())) {
                return VcardParse.photo(first.get().text());
            }
        }
        var offset = phone.place(path, id.key(), () -> places(path, phone));
        if (offset.isEmpty()) {
            return Optional.empty();
        }
        try (var cutter = new VcardCutter(phone.open(path))) {
            cutter.skipTo(offset.get());
            return cutter.next().flatMap(card -> VcardParse.photo(card.text()));
        }
    }

    private static Map<String, Long> places(PhonePath path, PhoneFiles phone) throws IOException {
        var places = new HashMap<String, Long>();
        var keys = new Keys();
        try (var cutter = new VcardCutter(phone.open(path))) {
            for (var card = cutter.next(); card.isPresent(); card = cutter.next()) {
                places.put(keys.next(card.get()), card.get().offset());
            }
        }
        return places;
    }
}
