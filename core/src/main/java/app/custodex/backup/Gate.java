package app.custodex.backup;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.link.LinkException;
import app.custodex.link.PhoneLink;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.function.Consumer;

/** Holds a copy back while the phone is gone or waits for a hand, and lets it go on by itself. */
final class Gate {

    private final PhoneLink link;
    private final String identifier;
    private final Duration patience;
    private final Clock clock;
    private final CancelToken cancel;
    private final Consumer<Optional<Problem>> waiting;
    private Optional<LinkException> gaveUp = Optional.empty();

    /** @param patience how long to wait for the phone before giving up */
    Gate(
            PhoneLink link,
            String identifier,
            Duration patience,
            Clock clock,
            CancelToken cancel,
            Consumer<Optional<Problem>> waiting) {
        this.link = link;
        this.identifier = identifier;
        this.patience = patience;
        this.clock = clock;
        this.cancel = cancel;
        this.waiting = waiting;
    }

    /**
     * Returns when the phone gives its files again; throws the trouble when patience is over. However many readers wait for it, the
     * patience is one.
     */
    synchronized void awaitPhone(LinkException trouble) throws LinkException {
        if (gaveUp.isPresent()) {
            throw gaveUp.get();
        }
        var until = clock.instant().plus(patience);
        try {
            while (!back()) {
                waiting.accept(Optional.of(trouble.problem()));
                cancel.check();
                if (!clock.instant().isBefore(until)) {
                    gaveUp = Optional.of(trouble);
                    throw trouble;
                }
                Thread.sleep(link.askEvery());
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw trouble;
        } finally {
            waiting.accept(Optional.empty());
        }
    }

    private boolean back() {
        try {
            var status = cancel.await("phone-status", link::status);
            return status.readiness().ready()
                    && status.identity()
                            .filter(phone -> phone.identifier().equals(identifier))
                            .isPresent();
        } catch (ExecutionException stillGone) {
            return false;
        }
    }
}
