package app.custodex.catalogue;

import app.custodex.base.CancelToken;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.StoreReading.Job;
import app.custodex.catalogue.StoreReading.Parcel;
import app.custodex.link.PhonePath;
import app.custodex.model.ThingKind;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import app.custodex.readers.Store;
import java.io.IOException;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Predicate;

/**
 * Brings a catalogue up to what a layer holds: stores that are as they were when it was made are not read, things that are as they
 * were are not written. One thread writes; {@link StoreReading} reads beside it.
 */
final class CatalogueBuilder {
    /** How often progress is told. */
    private static final int EACH = 256;

    private final Connection db;
    private final WordIndex words;
    private final PhoneFiles phone;
    private final List<Reader> readers;
    private final Growth growth;
    private final CancelToken cancel;
    /** What the catalogue holds so far. */
    private final Catalogue early;
    /** Fair, so that somebody who looks into it meanwhile gets their turn between two parcels. */
    private final ReentrantLock lock = new ReentrantLock(true);

    /** Stores of which not everything is written yet. */
    private final Map<Job, ThingTable.OpenStore> begun = new IdentityHashMap<>();

    /** How many things were taken from the readers, and told of. */
    private long read;

    private long told;

    /**
     * @param db holds a catalogue, perhaps of a layer below, or an empty one
     * @param words where its words go
     * @param growth is told how it goes
     */
    CatalogueBuilder(
            Connection db, WordIndex words, PhoneFiles phone, List<Reader> readers, Growth growth, CancelToken cancel) {
        this.db = db;
        this.words = words;
        this.phone = phone;
        this.readers = List.copyOf(readers);
        this.growth = growth;
        this.cancel = cancel;
        this.early = Catalogue.growing(db, words.connection(), lock);
    }

    /**
     * Reads what has changed.
     *
     * @throws IOException when the catalogue can't be written; what can't be read is among its problems
     * @throws java.util.concurrent.CancellationException when it was stopped; the catalogue is worth nothing then
     */
    void build() throws IOException {
        try {
            db.setAutoCommit(false);
            try (var writer = new ThingTable(db, words)) {
                boolean isNew = writer.isEmpty();
                if (isNew) {
                    carryOutContacts(plan(writer, CatalogueBuilder::bringsContacts), writer);
                }
                var jobs = plan(writer, reader -> !isNew || !bringsContacts(reader));
                jobs.stream().map(Job::reader).distinct().forEach(Reader::prepare);
                if (isNew) {
                    new People(db).assign();
                    words.catchUp();
                    growth.usable(early);
                }
                carryOut(jobs, writer);
                finish(writer);
            } finally {
                early.end();
            }
            db.commit();
            db.setAutoCommit(true);
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    /** Writes what can be known only when everything is in it. */
    private void finish(ThingTable writer) throws IOException, SQLException {
        lock.lock();
        try {
            writer.forgetOtherStores();
            words.finish();
            new People(db).assign();
            Schema.index(db);
            writer.spine().write(db);
        } finally {
            lock.unlock();
        }
    }

    private static boolean bringsContacts(Reader reader) {
        return reader.kinds().contains(ThingKind.CONTACT);
    }

    /** The stores of some readers that are not as they were. */
    private List<Job> plan(ThingTable writer, Predicate<Reader> of) throws IOException, SQLException {
        var jobs = new ArrayList<Job>();
        for (var reader : readers.stream().filter(of).toList()) {
            for (var store : reader.stores(phone.files())) {
                var version = version(store);
                if (!writer.isCurrent(reader.name(), store.name(), version)) {
                    jobs.add(new Job(reader, store, version, !writer.isKnown(reader.name(), store.name())));
                }
            }
        }
        return jobs;
    }

    private String version(Store store) throws IOException {
        var version = new StringBuilder();
        for (PhonePath item : store.items()) {
            version.append(item.text())
                    .append('=')
                    .append(phone.files().facts(item).version())
                    .append('\n');
        }
        return version.toString();
    }

    private void carryOut(List<Job> jobs, ThingTable writer) throws IOException, SQLException {
        var waiting = new Parcels(jobs.size());
        try (var reading = new StoreReading(jobs, phone)) {
            reading.fileAtOnce();
            while (waiting.stores > 0) {
                write(waiting.take(reading), writer);
            }
        }
    }

    /** Reads them all before any is written, unless there are too many to hold, so that somebody who waits for them sees them sooner. */
    private void carryOutContacts(List<Job> jobs, ThingTable writer) throws IOException, SQLException {
        var waiting = new Parcels(jobs.size());
        try (var reading = new StoreReading(jobs, phone)) {
            var held = new HeldParcels(reading);
            while (waiting.stores > 0 && !held.isFull()) {
                held.add(waiting.take(reading));
            }
            reading.fileAtOnce();
            held.file();
            if (waiting.stores == 0) {
                growth.contacts(held.contacts());
            }
            while (!held.isEmpty() || waiting.stores > 0) {
                early.keepAtHand(write(held.isEmpty() ? waiting.take(reading) : held.next(), writer));
            }
        }
    }

    /** What comes from the readers. */
    private final class Parcels {
        /** Of how many stores something is still to come. */
        private int stores;

        Parcels(int stores) {
            this.stores = stores;
        }

        Parcel take(StoreReading reading) throws IOException {
            var parcel = reading.next(cancel);
            if (parcel.end().isPresent()) {
                stores--;
            }
            read += parcel.things().size();
            if (read - told >= EACH || stores == 0) {
                told = read;
                growth.read(read);
            }
            return parcel;
        }
    }

    /** @return what is new */
    private List<Entry> write(Parcel parcel, ThingTable writer) throws IOException, SQLException {
        cancel.check(); // what is held takes a while to write
        var filed = parcel.filed();
        lock.lock();
        try {
            var there = Optional.ofNullable(begun.remove(parcel.job()));
            var store = there.isPresent() ? there.get() : begin(parcel.job(), writer);
            if (there.isEmpty() && parcel.end().isEmpty()) {
                writer.tell(store);
            }
            var added = writer.put(store, filed);
            if (parcel.end().isPresent()) {
                writer.end(store, parcel.job().version(), parcel.end().get());
            } else {
                begun.put(parcel.job(), store);
            }
            return added;
        } finally {
            lock.unlock();
        }
    }

    private static ThingTable.OpenStore begin(Job job, ThingTable writer) throws SQLException {
        return writer.begin(job.reader().name(), job.store().name());
    }
}
