package app.custodex.backup;

import app.custodex.base.CancelToken;
import app.custodex.link.LinkException;
import app.custodex.link.PhonePath;
import java.io.IOException;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/** Waits for what another thread reads from the phone, and brings its troubles back as they were. */
final class Waiting {
    /** How long at most it goes unnoticed that somebody has asked to stop. */
    private static final long LOOK_EVERY = 200;

    private Waiting() {}

    /** @param item what is waited for; that it can't be read for a reason that nobody foresaw is its own trouble, not the run's */
    static <T> T on(Future<T> answer, PhonePath item, CancelToken cancel) throws IOException {
        try {
            while (true) {
                try {
                    return answer.get(LOOK_EVERY, TimeUnit.MILLISECONDS);
                } catch (TimeoutException notYet) {
                    cancel.check();
                }
            }
        } catch (ExecutionException e) {
            throw trouble(e, item);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        }
    }

    /** What asking the phone came to. */
    static IOException trouble(ExecutionException e, PhonePath item) {
        var cause = e.getCause();
        if (cause instanceof LinkException trouble) {
            return trouble;
        }
        if (cause instanceof CancellationException stopped) {
            throw stopped;
        }
        if (cause instanceof Error broken) {
            throw broken;
        }
        return new LinkException.Item(
                item,
                "It can't be read, for a reason that is not known",
                "Back up again; report this if it happens twice",
                cause);
    }
}
