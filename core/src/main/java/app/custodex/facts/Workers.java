package app.custodex.facts;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.facts.FileFacts.Sort;
import app.custodex.facts.FileFacts.Unread;
import app.custodex.facts.FileFacts.Unreadable;
import java.io.IOException;
import java.io.InputStream;
import java.io.InterruptedIOException;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.HashSet;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The processes that parse files of strangers: started when they are needed, kept for the next file, ended when a file keeps one of
 * them too long. A file that ends its process harms nothing else. All readings of this program share them.
 */
public final class Workers {
    private static final Logger LOG = LoggerFactory.getLogger(Workers.class);
    private static final int MOST = 2;
    private static final Duration PATIENCE = Duration.ofSeconds(30);
    private static final Duration KEPT = Duration.ofSeconds(20);
    private static final Workers SHARED = new Workers(PATIENCE);

    private final Duration patience;
    private final Semaphore free = new Semaphore(MOST);
    private final ArrayDeque<Worker> idle = new ArrayDeque<>();
    private final Set<Worker> all = new HashSet<>();
    private final ScheduledExecutorService clock = Executors.newSingleThreadScheduledExecutor(task -> {
        var thread = new Thread(task, "facts-clock");
        thread.setDaemon(true);
        return thread;
    });
    private long used;

    Workers(Duration patience) {
        this.patience = patience;
        Runtime.getRuntime().addShutdownHook(new Thread(this::close, "facts-close"));
        every(KEPT, this::endIdle);
        every(patience.dividedBy(4), this::endLate);
    }

    private void every(Duration time, Runnable task) {
        clock.scheduleWithFixedDelay(task, time.toMillis(), time.toMillis(), TimeUnit.MILLISECONDS);
    }

    public static Workers shared() {
        return SHARED;
    }

    /**
     * What a file says of itself.
     *
     * @param name by which its sort is told where its content leaves it open
     * @throws ProblemException when that can't be read; the rest of the file can
     * @throws IOException when the file itself can't be read
     */
    public FileFacts facts(Sort sort, String path, String name, InputStream file) throws IOException {
        try {
            free.acquire();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException("interrupted");
        }
        try {
            var worker = take();
            try {
                return worker.facts(sort, name, file);
            } catch (Unreadable e) {
                throw new ProblemException(told(path, e.why()), e);
            } catch (Worker.Ended e) {
                LOG.info("a file ended its worker", e);
                throw new ProblemException(
                        Problem.loss(
                                path,
                                "Reading what it says of itself took too long or too much memory",
                                "Open it with care: it may be made to do harm"),
                        e);
            } finally {
                giveBack(worker);
            }
        } finally {
            free.release();
        }
    }

    private static Problem told(String path, Unread why) {
        return switch (why) {
            case DAMAGED ->
                Problem.loss(
                        path,
                        "What it says of itself can't be read; it may be damaged",
                        "Open it, and compare it with an older layer");
            case LOCKED ->
                Problem.note(path, "It is locked with a password, so its text is not found", "Ask the customer for it");
            case TOO_LARGE ->
                Problem.note(path, "It is larger than 64 MB, so its text is not found", "Take it out as a file");
        };
    }

    private synchronized Worker take() throws IOException {
        used++;
        while (!idle.isEmpty()) {
            var worker = idle.pop();
            if (worker.goesOn()) {
                return worker;
            }
            end(worker);
        }
        var worker = Worker.start();
        all.add(worker);
        return worker;
    }

    private synchronized void giveBack(Worker worker) {
        if (worker.goesOn()) {
            idle.push(worker);
        } else {
            end(worker);
        }
    }

    private synchronized void endLate() {
        all.forEach(worker -> worker.killIfLate(patience));
    }

    private synchronized void endIdle() {
        if (used > 0) {
            used = 0; // it was needed since the last look
            return;
        }
        while (!idle.isEmpty()) {
            end(idle.pop());
        }
    }

    private void end(Worker worker) {
        all.remove(worker);
        try {
            worker.close();
        } catch (IOException e) {
            LOG.info("what a worker left could not be removed", e);
        }
    }

    synchronized void close() {
        for (var worker : Set.copyOf(all)) {
            end(worker);
        }
        idle.clear();
    }
}
