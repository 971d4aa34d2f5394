package app.custodex.catalogue;

import app.custodex.base.CancelToken;
import app.custodex.base.PlaceFailure;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.model.Thing;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import app.custodex.readers.Sink;
import app.custodex.readers.Store;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Stores that are being read, by threads of their own; others make ready for the catalogue what was read. Whoever writes it takes one
 * parcel after the other. Closing it ends the threads and waits for them.
 */
final class StoreReading implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(StoreReading.class);
    private static final int READERS = 2;
    private static final int BATCH = 256;
    /** Parcels that may wait to be taken. */
    private static final int WAITING = 64;

    private final PhoneFiles phone;
    private final ArrayDeque<Job> jobs;
    private final BlockingQueue<Parcel> parcels = new ArrayBlockingQueue<>(WAITING);
    private final ExecutorService reading = Executors.newFixedThreadPool(READERS);
    private final ExecutorService filing = Executors.newFixedThreadPool(READERS);
    /** Whether things are made ready as soon as they are read. */
    private volatile boolean filingAtOnce;
    /** Of a reader's thread, for the one that writes. */
    private volatile Optional<Throwable> failure = Optional.empty();

    /** Begins to read, without making ready what is read. */
    StoreReading(List<Job> jobs, PhoneFiles phone) {
        this.phone = phone;
        this.jobs = new ArrayDeque<>(jobs);
        for (int i = 0; i < Math.min(READERS, jobs.size()); i++) {
            reading.execute(this::work);
        }
    }

    /**
     * A store that has to be read.
     *
     * @param isNew whether no layer below had it
     */
    record Job(Reader reader, Store store, String version, boolean isNew) {}

    /**
     * Some of the things of a store.
     *
     * @param task makes them ready, whoever runs it first
     * @param end what could not be read in the store, when these are its last things
     */
    record Parcel(Job job, List<Thing> things, FutureTask<List<Filed>> task, Optional<List<Problem>> end) {
        /** The things made ready. Does that itself where nobody has begun to. */
        List<Filed> filed() throws IOException {
            task.run();
            try {
                return task.get();
            } catch (ExecutionException e) {
                throw new IOException("a thing could not be made ready", e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IOException(e);
            }
        }
    }

    /** From now on things are made ready as soon as they are read. */
    void fileAtOnce() {
        filingAtOnce = true;
    }

    /** Makes ready what was read before that. */
    void file(Parcel parcel) {
        filing.execute(parcel.task());
    }

    /**
     * Waits for the next things.
     *
     * @throws IOException when a reader failed for which no store is at fault
     * @throws java.util.concurrent.CancellationException when it was stopped
     */
    Parcel next(CancelToken cancel) throws IOException {
        while (true) {
            cancel.check();
            if (failure.isPresent()) {
                throw new IOException("a reader failed", failure.get());
            }
            try {
                var parcel = Optional.ofNullable(parcels.poll(200, TimeUnit.MILLISECONDS));
                if (parcel.isPresent()) {
                    return parcel.get();
                }
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IOException(e);
            }
        }
    }

    private void work() {
        try {
            for (var job = nextJob(); job.isPresent(); job = nextJob()) {
                read(job.get());
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        } catch (RuntimeException | Error e) {
            failure = Optional.of(e);
        }
    }

    private Optional<Job> nextJob() {
        synchronized (jobs) {
            return Optional.ofNullable(jobs.poll());
        }
    }

    /** Whatever happens while a store is read, the others are read all the same. */
    private void read(Job job) throws InterruptedException {
        var name = job.store().name();
        var sink = new Batches(job);
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

    private final class Batches implements Sink {
        private final Job job;
        /** Of the reader, and of those who make its things ready; complete when all of those are. */
        private final List<Problem> problems = Collections.synchronizedList(new ArrayList<>());

        private List<Thing> things = new ArrayList<>();

        Batches(Job job) {
            this.job = job;
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
            var parcel = parcel(Optional.empty());
            things = new ArrayList<>();
            if (filingAtOnce) {
                file(parcel);
            }
            try {
                parcels.put(parcel);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new Interrupted();
            }
        }

        private Parcel parcel(Optional<List<Problem>> end) {
            var read = things;
            return new Parcel(job, read, new FutureTask<>(() -> filed(read)), end);
        }

        private List<Filed> filed(List<Thing> read) {
            var filed = new ArrayList<Filed>(read.size());
            for (var thing : read) {
                try {
                    filed.add(Filed.of(thing, phone.zone(), job.isNew()));
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
            var parcel = parcel(Optional.of(problems));
            if (filingAtOnce) {
                parcel.task().run(); // for the many small files of some phones that is less work than to hand it on
            }
            parcels.put(parcel);
        }
    }

    @Override
    public void close() {
        reading.shutdownNow();
        filing.shutdownNow();
        reading.close();
        filing.close();
    }
}
