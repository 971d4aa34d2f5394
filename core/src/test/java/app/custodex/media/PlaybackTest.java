package app.custodex.media;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

@Timeout(60)
final class PlaybackTest {
    private static final MediaWorkers WORKERS = new MediaWorkers(Duration.ofSeconds(10));
    private static final int SECOND = MediaWorkers.RATE;

    @TempDir
    private Path folder;

    @AfterAll
    static void end() {
        WORKERS.close();
    }

    /** A loudspeaker that plays when it is told to: it takes everything at once, and the test says how much of it was heard. */
    private static final class Held implements SoundOutput {
        private final BlockingQueue<Long> written = new LinkedBlockingQueue<>();
        private final CountDownLatch closed = new CountDownLatch(1);
        private long all;
        private long heard;
        private boolean paused = true;

        @Override
        public synchronized void write(byte[] samples, int length) {
            all += length / SAMPLE;
            written.add(all);
        }

        /** Waits until so many samples have come, and lets so many be heard. */
        void hear(long samples) throws InterruptedException {
            while (written.take() < samples) {
                // more comes
            }
            synchronized (this) {
                heard = samples;
            }
        }

        @Override
        public synchronized long heard() {
            return heard;
        }

        @Override
        public synchronized void pause(boolean nowPaused) {
            paused = nowPaused;
        }

        synchronized boolean isPaused() {
            return paused;
        }

        @Override
        public synchronized void flush() {
            all = heard;
            written.clear();
        }

        @Override
        public void volume(double loudness) {}

        @Override
        public Optional<String> silentBecause() {
            return Optional.empty();
        }

        @Override
        public void close() {
            closed.countDown();
        }
    }

    private SoundPlayer player(SoundOutput output, int seconds) throws IOException {
        var file = new MediaSamples(folder).toneAndSilence("a.mp3", seconds);
        return new SoundPlayer(WORKERS, MediaSamples.open(file), output, e -> {
            throw new AssertionError(e);
        });
    }

    @Test
    void theClockIsWhatWasHeard() throws Exception {
        var output = new Held();
        try (var player = player(output, 5)) {
            assertEquals(Duration.ZERO, player.place());
            player.play(Duration.ofSeconds(2));
            output.hear(SECOND);
            assertEquals(Duration.ofSeconds(3), player.place());
            assertTrue(player.isPlaying());
            player.pause();
            assertEquals(Duration.ofSeconds(3), player.place());
            assertFalse(player.isPlaying());
            assertTrue(output.isPaused());
            player.goTo(Duration.ofSeconds(1));
            assertEquals(Duration.ofSeconds(1), player.place());
            assertFalse(player.isPlaying());
        }
        assertTrue(output.closed.await(1, TimeUnit.SECONDS));
    }

    @Test
    void twiceAsFastIsTwiceAsFar() throws Exception {
        var output = new Held();
        try (var player = player(output, 5)) {
            player.speed(2);
            player.play(Duration.ZERO);
            output.hear(SECOND);
            assertEquals(Duration.ofSeconds(2), player.place());
        }
    }

    @Test
    void itEndsByItself() throws Exception {
        try (var player = player(new SoundOutput.Silent("a test has no ears"), 1)) {
            player.play(Duration.ofMillis(1700));
            while (!player.hasEnded()) {
                TimeUnit.MILLISECONDS.sleep(20);
            }
            assertEquals(2, player.place().toMillis() / 1000.0, 0.1);
            assertFalse(player.isPlaying());
            assertEquals(Optional.of("a test has no ears"), player.silentBecause());
        }
    }

    @Test
    void whatHasNoSoundFollowsAClock() {
        var nanos = new AtomicLong(1_000);
        try (var playback = new SilentPlayback(Duration.ofSeconds(10), nanos::get)) {
            playback.play(Duration.ofSeconds(1));
            nanos.addAndGet(Duration.ofSeconds(2).toNanos());
            assertEquals(Duration.ofSeconds(3), playback.place());
            playback.speed(2);
            nanos.addAndGet(Duration.ofSeconds(1).toNanos());
            assertEquals(Duration.ofSeconds(5), playback.place());
            playback.pause();
            nanos.addAndGet(Duration.ofSeconds(1).toNanos());
            assertEquals(Duration.ofSeconds(5), playback.place());
            playback.goTo(Duration.ofSeconds(8));
            assertFalse(playback.isPlaying());
            playback.play(playback.place());
            nanos.addAndGet(Duration.ofSeconds(3).toNanos());
            assertEquals(Duration.ofSeconds(10), playback.place());
            assertTrue(playback.hasEnded());
        }
    }
}
