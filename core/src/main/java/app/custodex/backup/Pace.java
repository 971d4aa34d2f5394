package app.custodex.backup;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;

/**
 * How fast a copy goes and how long it still takes. A phone has two speeds, bytes a second and files a second; whichever
 * is the tighter for what is left decides.
 */
public final class Pace {
    /** Long enough to even out single large files, short enough to follow a cable that got worse. */
    private static final Duration WINDOW = Duration.ofSeconds(30);
    /** Before this, an estimate would only jump. */
    private static final Duration SETTLE = Duration.ofSeconds(2);

    private record Sample(Instant at, long bytes, long files) {}

    private final Deque<Sample> samples = new ArrayDeque<>();

    /** Tells how much is done in all at a moment; moments never go back. */
    public synchronized void at(Instant now, long bytes, long files) {
        if (!samples.isEmpty() && now.isBefore(samples.getLast().at())) {
            samples.clear(); // the computer's clock was set back
        }
        samples.addLast(new Sample(now, bytes, files));
        while (samples.size() > 2 && samples.getFirst().at().isBefore(now.minus(WINDOW))) {
            samples.removeFirst();
        }
    }

    /** Bytes a second over the last half minute; 0 before anything can be said. */
    public synchronized long bytesPerSecond() {
        return perSecond(
                samples.isEmpty()
                        ? 0
                        : samples.getLast().bytes() - samples.getFirst().bytes());
    }

    private long perSecond(long amount) {
        double seconds = span().toMillis() / 1000.0;
        return seconds <= 0 ? 0 : Math.round(amount / seconds);
    }

    private Duration span() {
        return samples.isEmpty()
                ? Duration.ZERO
                : Duration.between(samples.getFirst().at(), samples.getLast().at());
    }

    /** Empty until there is something to go by. */
    public synchronized Optional<Duration> left(long bytes, long files) {
        if (span().compareTo(SETTLE) < 0) {
            return Optional.empty();
        }
        double seconds = span().toMillis() / 1000.0;
        double bytesDone = samples.getLast().bytes() - samples.getFirst().bytes();
        double filesDone = samples.getLast().files() - samples.getFirst().files();
        if (bytesDone <= 0 && filesDone <= 0) {
            return Optional.empty();
        }
        double byBytes = bytesDone > 0 ? bytes * seconds / bytesDone : 0;
        double byFiles = filesDone > 0 ? files * seconds / filesDone : 0;
        return Optional.of(Duration.ofMillis((long) (1000 * Math.max(byBytes, byFiles))));
    }
}
