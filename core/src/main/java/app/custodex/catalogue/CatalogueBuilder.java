package app.custodex.catalogue;

import app.custodex.base.CancelToken;
import app.custodex.base.Json;
import app.custodex.base.PlaceFailure;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.PhonePath;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import app.custodex.readers.Sink;
import app.custodex.readers.Store;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.ZoneId;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Predicate;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Brings a catalogue up to what a layer holds: stores that are as they were when it was made are not read, things that are as they
 * were are not written. Readers, those who make things ready, and the one thread that writes work beside each other.
 */
final class CatalogueBuilder {
    private static final Logger LOG = LoggerFactory.getLogger(CatalogueBuilder.class);
    private static final int READERS = 2;
    private static final int BATCH = 256;
    /** Batches that may wait to be written. */
    private static final int WAITING = 64;

    private static final byte[] NO_PROBLEMS = "[]".getBytes(StandardCharsets.UTF_8);

    private final Connection db;
    private final WordIndex words;
    private final PhoneFiles phone;
    private final List<Reader> readers;
    private final Growth growth;
    private final CancelToken cancel;
    /** What the catalogue holds so far. */
    private final Catalogue early;
    /** Of a reader's thread, for the one that writes. */
    private volatile Optional<Throwable> failure = Optional.empty();

    /** Fair, so that somebody who looks into it meanwhile gets their turn between two parcels. */
    private final ReentrantLock lock = new ReentrantLock(true);

    /** Whether contacts are being read, so that they can be shown before anything else. */
    private boolean contactsFirst;

    private long written;
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
     * A store that has to be read.
     *
     * @param isNew whether no layer below had it
     */
    private record Job(Reader reader, Store store, String version, boolean isNew) {}

    /** What a reader hands to the writer. */
    private sealed interface Parcel {
        /** @param filed is ready soon */
        record Things(Job job, Future<List<Filed>> filed) implements Parcel {}

        /** @param rest the last things, which for the many small files of some phones are all there are */
        record Done(Job job, List<Filed> rest, List<Problem> problems) implements Parcel {}
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
                    contactsFirst = true;
                    carryOut(plan(writer, CatalogueBuilder::bringsContacts), writer);
                    contactsFirst = false;
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
        if (jobs.isEmpty()) {
            return;
        }
        var parcels = new ArrayBlockingQueue<Parcel>(WAITING);
        var waiting = new ArrayDeque<>(jobs);
        try (ExecutorService threads = Executors.newFixedThreadPool(READERS);
                ExecutorService filing = Executors.newFixedThreadPool(READERS)) {
            try {
                for (int i = 0; i < READERS; i++) {
                    threads.submit(() -> work(waiting, parcels, filing));
                }
                write(jobs.size(), parcels, writer);
            } finally {
                threads.shutdownNow();
                filing.shutdownNow();
            }
        }
    }

    private void work(ArrayDeque<Job> waiting, BlockingQueue<Parcel> parcels, ExecutorService filing) {
        try {
            while (true) {
                Job job;
                synchronized (waiting) {
                    job = waiting.poll();
                }
                if (job == null) {
                    return;
                }
                read(job, new Batches(job, parcels, filing, phone.zone()));
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        } catch (RuntimeException | Error e) {
            failure = Optional.of(e);
        }
    }

    /** Whatever happens while a store is read, the others are read all the same. */
    private void read(Job job, Batches sink) throws InterruptedException {
        var name = job.store().name();
        try {
            job.reader().read(job.store(), phone, sink);
        } catch (PlaceFailure e) { // the catalogue would say of a sound store that it can't be read
            failure = Optional.of(e);
            return;
        } catch (ProblemException e) {
            sink.problem(e.problem());
        } catch (Interrupted e) {
            throw new InterruptedException();
        } catch (IOException | RuntimeException | StackOverflowError e) { // a hostile file may nest without end
            LOG.info("a store could not be read", e);
            sink.problem(Problem.failure(name, "It can't be read", "Check the layer; look into an older one"));
        }
        sink.end();
    }

    private static final class Interrupted extends IOException {
        private static final long serialVersionUID = 1L;
    }

    private static final class Batches implements Sink {
        private final Job job;
        private final BlockingQueue<Parcel> parcels;
        private final ExecutorService filing;
        private final ZoneId zone;
        /** Of the reader, and of those who make its things ready; complete when all of those are. */
        private final List<Problem> problems = Collections.synchronizedList(new ArrayList<>());

        private List<Thing> things = new ArrayList<>();

        Batches(Job job, BlockingQueue<Parcel> parcels, ExecutorService filing, ZoneId zone) {
            this.job = job;
            this.parcels = parcels;
            this.filing = filing;
            this.zone = zone;
        }

        @Override
        public void thing(Thing thing) throws IOException {
            things.add(thing);
            if (things.size() >= BATCH) {
                flush();
            }
        }

        @Override
        public void problem(Problem problem) {
            problems.add(problem);
        }

        private void flush() throws IOException {
            var read = things;
            things = new ArrayList<>();
            try {
                parcels.put(new Parcel.Things(job, filing.submit(() -> filed(read))));
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new Interrupted();
            }
        }

        private List<Filed> filed(List<Thing> read) {
            var filed = new ArrayList<Filed>(read.size());
            for (var thing : read) {
                try {
                    filed.add(Filed.of(thing, zone, job.isNew()));
                } catch (IOException | RuntimeException e) { // what one thing holds must not keep all others away
                    LOG.info("a thing could not be made ready", e);
                    problem(Problem.loss(
                            job.store().name(),
                            "Something in it can't be understood: "
                                    + thing.kind().label(),
                            "Take it out as a file and look into it"));
                }
            }
            return filed;
        }

        /** What was read before something went wrong counts too. */
        void end() throws InterruptedException {
            parcels.put(new Parcel.Done(job, filed(things), problems));
        }
    }

    private void write(int jobs, BlockingQueue<Parcel> parcels, ThingTable writer) throws IOException, SQLException {
        Map<Job, ThingTable.OpenStore> begun = new HashMap<>();
        for (int done = 0; done < jobs; ) {
            cancel.check();
            if (failure.isPresent()) {
                throw new IOException("a reader failed", failure.get());
            }
            var parcel = next(parcels);
            if (parcel.isEmpty()) {
                continue;
            }
            if (parcel.get() instanceof Parcel.Done) {
                done++;
            }
            lock.lock();
            try {
                write(parcel.get(), begun, writer);
            } finally {
                lock.unlock();
            }
            if (written - told >= BATCH) {
                told = written;
                growth.read(written);
            }
        }
        growth.read(written);
    }

    private void write(Parcel parcel, Map<Job, ThingTable.OpenStore> begun, ThingTable writer)
            throws IOException, SQLException {
        switch (parcel) {
            case Parcel.Things things -> {
                var store = begun.get(things.job());
                if (store == null) {
                    store = begin(things.job(), writer);
                    writer.tell(store, "", NO_PROBLEMS);
                    begun.put(things.job(), store);
                }
                put(ready(things.filed()), store, writer);
            }
            case Parcel.Done end -> {
                var there = begun.remove(end.job());
                var store = there == null ? begin(end.job(), writer) : there;
                writer.tell(
                        store,
                        end.job().version(),
                        end.problems().isEmpty() ? NO_PROBLEMS : Json.LINE.writeValueAsBytes(end.problems()));
                put(end.rest(), store, writer);
                writer.end(store);
            }
        }
    }

    private static ThingTable.OpenStore begin(Job job, ThingTable writer) {
        return writer.begin(job.reader().name(), job.store().name());
    }

    private void put(List<Filed> filed, ThingTable.OpenStore store, ThingTable writer)
            throws IOException, SQLException {
        var added = writer.put(store, filed);
        if (contactsFirst) {
            early.keepAtHand(added);
        }
        written += filed.size();
    }

    private static List<Filed> ready(Future<List<Filed>> filed) throws IOException {
        try {
            return filed.get();
        } catch (ExecutionException e) {
            throw new IOException("a thing could not be made ready", e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }

    private static Optional<Parcel> next(BlockingQueue<Parcel> parcels) throws IOException {
        try {
            return Optional.ofNullable(parcels.poll(200, TimeUnit.MILLISECONDS));
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }
}
