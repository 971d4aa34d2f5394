package app.custodex.media;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/**
 * Plays one recording. Place, speed and pause can be changed at any time; each change begins a new stream at the place that is heard.
 */
public final class SoundPlayer implements Playback {
    /** Samples between two looks whether something was changed. */
    private static final int PIECE = MediaWorkers.RATE / 50 * SoundOutput.SAMPLE;

    private final MediaWorkers workers;
    private final MediaSource source;
    private final SoundOutput output;
    private final Consumer<IOException> trouble;
    private final ExecutorService thread = Executors.newSingleThreadExecutor(
            Thread.ofPlatform().daemon().name("sound").factory());
    private volatile int turn;
    private boolean playing;
    private boolean ended;
    /** Whether nothing is heard yet since the last change. */
    private boolean waiting = true;

    private double speed = 1;
    /** Where it was, in microseconds, when so many samples had been heard. */
    private long base;

    private long baseHeard;

    /**
     * Closes the source in the end.
     *
     * @param trouble is told when it can't go on, on a thread of its own
     */
    public SoundPlayer(MediaWorkers workers, MediaSource source, SoundOutput output, Consumer<IOException> trouble) {
        this.workers = workers;
        this.source = source;
        this.output = output;
        this.trouble = trouble;
    }

    @Override
    public synchronized Duration place() {
        long micros =
                waiting ? base : base + Math.round((output.heard() - baseHeard) * speed * 1e6 / MediaWorkers.RATE);
        return Duration.ofNanos(TimeUnit.MICROSECONDS.toNanos(micros));
    }

    @Override
    public synchronized boolean isPlaying() {
        return playing;
    }

    @Override
    public synchronized boolean hasEnded() {
        return ended;
    }

    @Override
    public synchronized void play(Duration from) {
        stopAt(from);
        playing = true;
        int mine = turn;
        double mySpeed = speed;
        thread.execute(() -> feed(mine, from, mySpeed));
    }

    @Override
    public synchronized void pause() {
        stopAt(place());
    }

    @Override
    public synchronized void goTo(Duration to) {
        if (playing) {
            play(to);
        } else {
            stopAt(to);
        }
    }

    @Override
    public synchronized void speed(double times) {
        var at = place();
        speed = times;
        goTo(at);
    }

    @Override
    public void volume(double loudness) {
        output.volume(loudness);
    }

    @Override
    public Optional<String> silentBecause() {
        return output.silentBecause();
    }

    private void stopAt(Duration at) {
        turn++; // whoever feeds it ends at the next piece
        base = TimeUnit.MICROSECONDS.convert(at.isNegative() ? Duration.ZERO : at);
        waiting = true;
        playing = false;
        ended = false;
        output.pause(true); // before the flush, so that a write that waits for room returns
        output.flush();
    }

    private void feed(int mine, Duration from, double at) {
        if (!begin(mine)) {
            return;
        }
        try {
            var piece = new byte[PIECE];
            workers.sound(source, from, at, samples -> write(mine, samples, piece));
            drain(mine);
        } catch (IOException e) {
            if (mine == turn) {
                trouble.accept(e);
            }
        } catch (CancellationException closed) {
            // whoever closed what it plays from wants to hear no more
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private synchronized boolean begin(int mine) {
        if (mine != turn) {
            return false;
        }
        output.flush();
        output.pause(false);
        baseHeard = output.heard();
        waiting = false;
        return true;
    }

    private boolean write(int mine, ByteBuffer samples, byte[] piece) throws IOException {
        try {
            while (samples.hasRemaining() && mine == turn) {
                int n = Math.min(samples.remaining(), PIECE);
                samples.get(piece, 0, n);
                output.write(piece, n);
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
        return mine == turn;
    }

    /** Waits until what was written is heard. */
    private void drain(int mine) throws InterruptedException {
        long last = -1;
        for (long heard = output.heard(); heard != last && mine == turn; heard = output.heard()) {
            last = heard;
            TimeUnit.MILLISECONDS.sleep(SoundOutput.BUFFER_MILLIS);
        }
        synchronized (this) {
            if (mine == turn) {
                stopAt(place());
                ended = true;
            }
        }
    }

    @Override
    public void close() throws IOException {
        turn++;
        thread.shutdownNow();
        output.close();
        source.close();
    }
}
