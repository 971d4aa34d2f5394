package app.custodex.media;

import java.time.Duration;
import java.util.Optional;
import java.util.function.LongSupplier;

/** Plays what has no sound: only time passes. */
public final class SilentPlayback implements Playback {
    private final Duration length;
    private final LongSupplier nanos;
    private Duration base = Duration.ZERO;
    private long since;
    private double speed = 1;
    private boolean running;

    /** @param nanos a clock that never goes back, such as {@link System#nanoTime} */
    public SilentPlayback(Duration length, LongSupplier nanos) {
        this.length = length;
        this.nanos = nanos;
    }

    @Override
    public synchronized Duration place() {
        var now = running ? base.plusNanos(Math.round((nanos.getAsLong() - since) * speed)) : base;
        return now.compareTo(length) > 0 ? length : now;
    }

    @Override
    public synchronized boolean isPlaying() {
        return running && !hasEnded();
    }

    @Override
    public synchronized boolean hasEnded() {
        return running && place().compareTo(length) >= 0;
    }

    @Override
    public synchronized void play(Duration from) {
        base = from.isNegative() ? Duration.ZERO : from;
        since = nanos.getAsLong();
        running = true;
    }

    @Override
    public synchronized void pause() {
        base = place();
        running = false;
    }

    @Override
    public synchronized void goTo(Duration to) {
        if (isPlaying()) {
            play(to);
        } else {
            base = to.isNegative() ? Duration.ZERO : to;
            running = false;
        }
    }

    @Override
    public synchronized void speed(double times) {
        base = place();
        since = nanos.getAsLong();
        speed = times;
    }

    @Override
    public void volume(double loudness) {
        // there is no sound
    }

    @Override
    public Optional<String> silentBecause() {
        return Optional.of("This video has no sound");
    }

    @Override
    public void close() {
        pause();
    }
}
