package app.custodex.base;

import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicBoolean;

/** A one-way switch that a long task looks at between steps. No thread is ever killed. */
public final class CancelToken {
    private final AtomicBoolean cancelled = new AtomicBoolean();

    public void cancel() {
        cancelled.set(true);
    }

    public boolean isCancelled() {
        return cancelled.get();
    }

    /** @throws CancellationException once {@link #cancel} was called */
    public void check() {
        if (isCancelled()) {
            throw new CancellationException("stopped on request");
        }
    }
}
