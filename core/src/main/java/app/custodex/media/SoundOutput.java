package app.custodex.media;

import java.util.Optional;
import java.util.concurrent.TimeUnit;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioSystem;
import javax.sound.sampled.DataLine;
import javax.sound.sampled.FloatControl;
import javax.sound.sampled.LineUnavailableException;
import javax.sound.sampled.SourceDataLine;

/** Where sound goes: to the system, or nowhere at the same pace. */
public interface SoundOutput extends AutoCloseable {
    /** Bytes of one sample of both channels. */
    int SAMPLE = 4;

    /** How long it takes until a change is heard. */
    int BUFFER_MILLIS = 150;

    /** Takes samples; waits while there is no room for them, and returns early when it is paused. */
    void write(byte[] samples, int length) throws InterruptedException;

    /** Samples that were heard since it was opened. */
    long heard();

    /** Stops or goes on. */
    void pause(boolean paused);

    /** Forgets what was not heard yet. */
    void flush();

    /** @param loudness 0 to 1 */
    void volume(double loudness);

    /** Why nothing is heard; empty when it is. */
    Optional<String> silentBecause();

    @Override
    void close();

    /** Opens the system's, or the silent one where it has none. */
    static SoundOutput open() {
        var format = new AudioFormat(MediaWorkers.RATE, 16, 2, true, false);
        try {
            var line = (SourceDataLine) AudioSystem.getLine(new DataLine.Info(SourceDataLine.class, format));
            line.open(format, MediaWorkers.RATE * SAMPLE * BUFFER_MILLIS / 1000);
            line.start();
            return new Loudspeaker(line);
        } catch (LineUnavailableException | IllegalArgumentException | SecurityException none) {
            return new Silent("This computer has no sound output, so nothing is heard");
        }
    }

    /** The system's. */
    final class Loudspeaker implements SoundOutput {
        private final SourceDataLine line;

        Loudspeaker(SourceDataLine line) {
            this.line = line;
        }

        @Override
        public void write(byte[] samples, int length) {
            line.write(samples, 0, length);
        }

        @Override
        public long heard() {
            return line.getLongFramePosition();
        }

        @Override
        public void pause(boolean paused) {
            if (paused) {
                line.stop();
            } else {
                line.start();
            }
        }

        @Override
        public void flush() {
            line.flush();
        }

        @Override
        public void volume(double loudness) {
            if (line.isControlSupported(FloatControl.Type.MASTER_GAIN)) {
                var gain = (FloatControl) line.getControl(FloatControl.Type.MASTER_GAIN);
                float decibels = (float) (20 * Math.log10(Math.max(1e-4, loudness)));
                gain.setValue(Math.clamp(decibels, gain.getMinimum(), gain.getMaximum()));
            }
        }

        @Override
        public Optional<String> silentBecause() {
            return Optional.empty();
        }

        @Override
        public void close() {
            line.stop();
            line.close();
        }
    }

    /** Takes samples as fast as they would be heard. */
    final class Silent implements SoundOutput {
        private static final long BUFFER = (long) MediaWorkers.RATE * BUFFER_MILLIS / 1000;

        private final String why;
        private long written;
        /** What was heard when the clock below was set. */
        private long before;

        private long since = System.nanoTime();
        private boolean paused;

        Silent(String why) {
            this.why = why;
        }

        @Override
        public synchronized void write(byte[] samples, int length) throws InterruptedException {
            while (!paused && written - heard() > BUFFER) {
                TimeUnit.MILLISECONDS.timedWait(this, 5);
            }
            if (!paused) {
                written += length / SAMPLE;
            }
        }

        @Override
        public synchronized long heard() {
            long now = paused
                    ? before
                    : before + (System.nanoTime() - since) * MediaWorkers.RATE / TimeUnit.SECONDS.toNanos(1);
            if (now > written) { // it has run dry, so the clock waits
                before = written;
                since = System.nanoTime();
                return written;
            }
            return now;
        }

        @Override
        public synchronized void pause(boolean nowPaused) {
            before = heard();
            since = System.nanoTime();
            paused = nowPaused;
            notifyAll();
        }

        @Override
        public synchronized void flush() {
            before = heard();
            written = before;
            since = System.nanoTime();
        }

        @Override
        public void volume(double loudness) {
            // nothing is heard anyway
        }

        @Override
        public Optional<String> silentBecause() {
            return Optional.of(why);
        }

        @Override
        public void close() {
            pause(true);
        }
    }
}
