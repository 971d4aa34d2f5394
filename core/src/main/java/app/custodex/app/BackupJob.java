package app.custodex.app;

import app.custodex.backup.BackupProgress;
import app.custodex.backup.BackupResult;
import app.custodex.backup.BackupRun;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.io.IOException;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** A backup on a thread of its own. */
public final class BackupJob {
    private static final Logger LOG = LoggerFactory.getLogger(BackupJob.class);

    /** How a backup ended. */
    public sealed interface Outcome {
        record Done(BackupResult result) implements Outcome {}

        /** On request; what is done is kept for the next time. */
        record Stopped() implements Outcome {}

        record Failed(Problem problem) implements Outcome {}
    }

    private final BackupRun run;
    private final CancelToken cancel;
    private final CompletableFuture<Outcome> outcome = new CompletableFuture<>();

    BackupJob(BackupRun run, CancelToken cancel) {
        this.run = run;
        this.cancel = cancel;
    }

    /** Writes down how a backup ended. */
    interface Afterwards {
        void accept(Outcome outcome) throws IOException;
    }

    void start(String phone, Afterwards afterwards) {
        Thread.ofVirtual().name("backup of " + phone).start(() -> {
            Outcome ended = unexpected(phone);
            try {
                ended = outcome(phone);
            } finally {
                conclude(ended, afterwards);
            }
        });
    }

    /** Whatever happens here, whoever waits for the end is told of it. */
    private void conclude(Outcome ended, Afterwards afterwards) {
        try {
            afterwards.accept(ended);
        } catch (IOException | RuntimeException e) {
            LOG.error("how a backup ended could not be written down", e);
        } finally {
            outcome.complete(ended);
        }
    }

    private Outcome outcome(String phone) {
        try {
            return new Outcome.Done(run.run());
        } catch (CancellationException e) {
            return new Outcome.Stopped();
        } catch (ProblemException e) {
            LOG.warn("backup ended early", e);
            return new Outcome.Failed(e.problem());
        } catch (IOException | RuntimeException e) {
            LOG.error("backup ended unexpectedly", e);
            return unexpected(phone);
        }
    }

    private static Outcome unexpected(String phone) {
        return new Outcome.Failed(Problem.failure(
                phone,
                "The backup ended for a reason that is not known",
                "What was copied is safe; start it again, and report this if it happens twice"));
    }

    public BackupProgress progress() {
        return run.progress();
    }

    /** Ends it soon; what is done is kept for the next time. */
    public void stop() {
        cancel.cancel();
    }

    /** Completes when the backup has ended, one way or the other. */
    public CompletableFuture<Outcome> outcome() {
        return outcome.copy();
    }
}
