package app.custodex.backup;

import app.custodex.link.LinkException;
import java.io.IOException;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;

/** Waits for what another thread reads from the phone, and brings its troubles back as they were. */
final class Waiting {
    private Waiting() {}

    static <T> T on(Future<T> answer) throws IOException {
        try {
            return answer.get();
        } catch (ExecutionException e) {
            switch (e.getCause()) {
                case LinkException trouble -> throw trouble;
                case CancellationException stopped -> throw stopped;
                case null, default -> throw new IllegalStateException("reading the phone failed unexpectedly", e);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        }
    }
}
