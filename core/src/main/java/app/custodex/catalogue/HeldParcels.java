package app.custodex.catalogue;

import app.custodex.catalogue.StoreReading.Parcel;
import app.custodex.model.Contact;
import app.custodex.model.Thing;
import java.util.ArrayDeque;
import java.util.List;
import java.util.stream.Stream;

/**
 * What was read and is held back until all of it is. Then it is made ready a piece ahead of whoever writes it, and no more, because
 * that takes several times the memory.
 */
final class HeldParcels {
    /** What is kept in memory, about: a hundred thousand contacts, or fewer with long notes. */
    private static final long MOST_CHARACTERS = 100_000_000;

    /** Of a contact without its notes, about. */
    private static final int EACH = 1_000;

    /** Things that are made ready ahead. */
    private static final int MOST_AHEAD = 1 << 14;

    private final StoreReading reading;
    private final ArrayDeque<Parcel> held = new ArrayDeque<>();
    private final ArrayDeque<Parcel> filed = new ArrayDeque<>();
    private int ahead;
    private long characters;

    HeldParcels(StoreReading reading) {
        this.reading = reading;
    }

    void add(Parcel parcel) {
        held.add(parcel);
        parcel.things().forEach(thing -> characters += characters(thing));
    }

    private static long characters(Thing thing) {
        long all = EACH;
        if (thing instanceof Contact contact) {
            for (var note : contact.notes()) {
                all += note.length();
            }
            for (var extra : contact.extras()) {
                all += extra.value().length();
            }
        }
        return all;
    }

    /** Whether more would take too much memory. */
    boolean isFull() {
        return characters >= MOST_CHARACTERS;
    }

    boolean isEmpty() {
        return held.isEmpty() && filed.isEmpty();
    }

    /** Those among the things that are still here. */
    List<Contact> contacts() {
        return Stream.concat(filed.stream(), held.stream())
                .flatMap(parcel -> parcel.things().stream())
                .filter(Contact.class::isInstance)
                .map(Contact.class::cast)
                .toList();
    }

    /** Begins to make them ready. */
    void file() {
        while (!held.isEmpty() && ahead < MOST_AHEAD) {
            var parcel = held.remove();
            reading.file(parcel);
            filed.add(parcel);
            ahead += parcel.things().size();
        }
    }

    Parcel next() {
        file();
        var parcel = filed.remove();
        ahead -= parcel.things().size();
        return parcel;
    }
}
