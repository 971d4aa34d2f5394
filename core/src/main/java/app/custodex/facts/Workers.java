package app.custodex.facts;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.WarmPool;
import app.custodex.facts.FileFacts.Sort;
import app.custodex.facts.FileFacts.Unread;
import app.custodex.facts.FileFacts.Unreadable;
import java.io.IOException;
import java.io.InputStream;
import java.io.InterruptedIOException;
import java.time.Duration;
import java.util.concurrent.Semaphore;
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
    private static final Workers SHARED = new Workers(PATIENCE);

    private final Semaphore free = new Semaphore(MOST);
    private final WarmPool<Worker> pool = new WarmPool<>("facts", Worker::start);

    Workers(Duration patience) {
        pool.every(patience.dividedBy(4), () -> pool.each(worker -> worker.killIfLate(patience)));
    }

    public static Workers shared() {
        return SHARED;
    }

    /** Starts a process, so that the first file need not wait for it. */
    public void prepare() {
        pool.prepare();
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
            var worker = pool.take();
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
                pool.giveBack(worker);
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

    void close() {
        pool.close();
    }
}
