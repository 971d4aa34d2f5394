package app.custodex.readers;

import app.custodex.base.Problem;
import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import app.custodex.model.Contact;
import ezvcard.VCard;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/** Reads the vCard files of a folder, at any depth. A file that holds several cards gives several contacts. */
final class VcardContacts {
    private final FileSource files;
    private final PhonePath folder;
    private final VcardReading reading;

    VcardContacts(FileSource files, PhonePath folder, PhoneNumbers numbers) {
        this.files = files;
        this.folder = folder;
        this.reading = new VcardReading(numbers);
    }

    private record Read(List<Contact> contacts, List<Problem> problems) {}

    ContactBook read() throws IOException {
        var paths = files.in(folder).stream()
                .filter(path -> path.ending().equals(".vcf") || path.ending().equals(".vcard"))
                .toList();
        // Parsing is all processor and the files are small: every core takes its share.
        var all = paths.parallelStream().map(this::file).toList();
        var contacts = new ArrayList<Contact>();
        var problems = new ArrayList<Problem>();
        for (var read : all) {
            contacts.addAll(read.contacts());
            problems.addAll(read.problems());
        }
        return new ContactBook(contacts, problems, new Photos(files));
    }

    private Read file(PhonePath path) {
        var problems = new ArrayList<Problem>();
        try {
            var cards = cards(files, path, problems);
            var contacts = IntStream.range(0, cards.size())
                    .mapToObj(i -> reading.contact(path.text() + "#" + i, cards.get(i)))
                    .toList();
            return new Read(contacts, problems);
        } catch (IOException e) {
            problems.add(Problem.failure(path.text(), "This contact can't be read", "Check the layer"));
            return new Read(List.of(), problems);
        }
    }

    private static List<VCard> cards(FileSource files, PhonePath path, List<Problem> problems) throws IOException {
        try (var in = files.open(path)) {
            return VcardText.parse(path.text(), in, problems);
        }
    }

    /** Each photo is in its contact's own file. */
    record Photos(FileSource files) implements ContactBook.Photos {
        @Override
        public Optional<byte[]> of(Contact contact) throws IOException {
            int hash = contact.id().lastIndexOf('#');
            var cards = cards(files, new PhonePath(contact.id().substring(0, hash)), new ArrayList<>());
            int index = Integer.parseInt(contact.id().substring(hash + 1));
            return index < cards.size() ? VcardReading.photo(cards.get(index)) : Optional.empty();
        }

        @Override
        public void close() {}
    }
}
