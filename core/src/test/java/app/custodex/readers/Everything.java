package app.custodex.readers;

import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.Family;
import app.custodex.link.PhoneIdentity;
import app.custodex.model.Contact;
import app.custodex.model.Thing;
import app.custodex.readers.families.FamilyReaders;
import java.io.Closeable;
import java.io.IOException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** All that the readers of a family give of a phone's files. */
final class Everything implements Sink, Closeable {
    private final List<Thing> things = new ArrayList<>();
    private final List<Problem> problems = new ArrayList<>();
    private final List<Reader> readers;
    private final PhoneFiles phone;

    private Everything(PhoneFiles phone, List<Reader> readers) {
        this.phone = phone;
        this.readers = readers;
    }

    static PhoneIdentity phone(Family family) {
        return new PhoneIdentity("id", "n", family, "m", "s", "i", "sys", "GB", ZoneId.of("Etc/GMT-1"), 1, 1);
    }

    static Everything of(MemoryFiles files, Family family, PrivatePlace place) throws IOException {
        var all = new Everything(new PhoneFiles(files, phone(family), place), FamilyReaders.of(family));
        for (var reader : all.readers) {
            for (var store : reader.stores(files)) {
                try {
                    reader.read(store, all.phone, all);
                } catch (ProblemException e) {
                    all.problems.add(e.problem());
                }
            }
        }
        return all;
    }

    @Override
    public void thing(Thing thing) {
        things.add(thing);
    }

    @Override
    public void problem(Problem problem) {
        problems.add(problem);
    }

    <T extends Thing> List<T> all(Class<T> type) {
        return things.stream().filter(type::isInstance).map(type::cast).toList();
    }

    List<Contact> contacts() {
        return all(Contact.class);
    }

    List<Problem> problems() {
        return problems;
    }

    Optional<byte[]> photo(Contact contact) throws IOException {
        for (var reader : readers) {
            if (reader.kinds().contains(contact.kind())) {
                return reader.picture(contact.id(), phone);
            }
        }
        return Optional.empty();
    }

    @Override
    public void close() throws IOException {
        phone.close();
    }
}
