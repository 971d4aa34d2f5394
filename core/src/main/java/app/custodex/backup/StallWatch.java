package app.custodex.backup;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.link.LinkException;
import app.custodex.link.PhoneContent;
import app.custodex.link.PhoneLink;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.function.Consumer;

/**
 * Notices when nothing comes from a phone any more though the connection is open: says so, says what to look at, and after a while
 * hangs up, so that the reading goes on over a new connection. Only the waiting for the phone counts, not a slow disk.
 */
final class StallWatch implements AutoCloseable {
    /** Well over what a phone needs to find a file, and so that with one round of asking it is told within 15 s. */
    static final Duration TELL_AFTER = Duration.ofSeconds(8);
    /** Long enough for a phone that was busy; a new connection costs little. */
    static final Duration HANG_UP_AFTER = Duration.ofSeconds(30);

    private static final Duration LOOK_EVERY = Duration.ofMillis(500);

    private final PhoneLink link;
    private final Consumer<Optional<Problem>> waiting;
    private final CancelToken cancel;
    private final Duration tellAfter;
    private final Duration hangUpAfter;
    private final Set<Wait> waits = ConcurrentHashMap.newKeySet();
    private final Thread thread;
    private boolean told;

    /**
     * @param waiting is told what the copy waits for, and when it goes on
     * @param cancel when it was called, whoever waits for the phone waits no longer
     */
    StallWatch(
            PhoneLink link,
            Consumer<Optional<Problem>> waiting,
            CancelToken cancel,
            Duration tellAfter,
            Duration hangUpAfter) {
        this.link = link;
        this.cancel = cancel;
        this.waiting = waiting;
        this.tellAfter = tellAfter;
        this.hangUpAfter = hangUpAfter;
        this.thread = Thread.ofVirtual().name("stall-watch").start(this::look);
    }

    /** One wait for the phone. */
    private record Wait(long since, Runnable hangUp) {
        Duration lasted() {
            return Duration.ofNanos(System.nanoTime() - since);
        }
    }

    /** Something that is asked of the phone. */
    interface Question<T> {
        T ask() throws LinkException;
    }

    /** Asks the phone something, watched. */
    <T> T watched(Question<T> question) throws LinkException {
        var wait = new Wait(System.nanoTime(), () -> {});
        waits.add(wait);
        try {
            return question.ask();
        } finally {
            waits.remove(wait);
        }
    }

    /** The same content, watched while it is read. */
    PhoneContent watched(PhoneContent content) {
        return new PhoneContent(content.size(), content.etag(), new Watched(content.stream()));
    }

    private final class Watched extends FilterInputStream {
        Watched(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            var one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            cancel.check();
            var wait = new Wait(System.nanoTime(), this::hangUp);
            waits.add(wait);
            try {
                return super.read(buffer, offset, length);
            } finally {
                waits.remove(wait);
            }
        }

        private void hangUp() {
            try {
                in.close();
            } catch (IOException e) {
                // It was to be given up anyway.
            }
        }
    }

    private void look() {
        try {
            while (!Thread.currentThread().isInterrupted()) {
                Thread.sleep(LOOK_EVERY);
                try {
                    lookOnce();
                } catch (CancellationException stopped) {
                    // The next look hangs up.
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void lookOnce() {
        if (cancel.isCancelled()) {
            waits.forEach(wait -> wait.hangUp().run());
            return;
        }
        boolean stalled = waits.stream().anyMatch(wait -> wait.lasted().compareTo(tellAfter) > 0);
        if (stalled && !told) {
            waiting.accept(Optional.of(whatToLookAt()));
        } else if (!stalled && told) {
            waiting.accept(Optional.empty());
        }
        told = stalled;
        waits.stream()
                .filter(wait -> wait.lasted().compareTo(hangUpAfter) > 0)
                .forEach(wait -> wait.hangUp().run());
    }

    private Problem whatToLookAt() {
        var subject = "The phone";
        try {
            var status = cancel.await("phone-status", link::status);
            subject = status.model();
            var next = status.readiness().next();
            if (next.isPresent()) {
                return Problem.failure(
                        subject,
                        "Nothing comes from the phone: it " + next.get().waiting(),
                        next.get().instruction());
            }
        } catch (ExecutionException e) {
            return Problem.failure(
                    subject,
                    "Nothing comes, and it does not answer",
                    "Check the cable at both ends, or the network; then look whether it is on");
        }
        return Problem.failure(
                subject,
                "Nothing comes, though it is connected",
                "Look at it: is it locked, does it ask something? Then try the cable at both ends, or the network");
    }

    @Override
    public void close() {
        thread.interrupt();
    }
}
