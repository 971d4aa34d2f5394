package app.custodex.media;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.media.UnplayableException.Why;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The media that are decoded here, held against what ffmpeg, heif-convert and ffprobe make of them. */
final class MediaWorkersTest {
    private static final MediaWorkers WORKERS = new MediaWorkers(Duration.ofSeconds(10));

    @TempDir
    private Path folder;

    private MediaSamples samples = new MediaSamples(Path.of(""));

    @BeforeEach
    void prepare() {
        samples = new MediaSamples(folder);
    }

    @AfterAll
    static void end() {
        WORKERS.close();
    }

    private static Picture picture(Path file, int side, boolean quick) throws IOException {
        try (var source = MediaSamples.open(file)) {
            return WORKERS.picture(source, side, quick);
        }
    }

    private static Why why(Path file) {
        return assertThrows(UnplayableException.class, () -> picture(file, 320, false), file.toString())
                .why();
    }

    @ParameterizedTest
    @ValueSource(strings = {"a.jpg", "a.png", "a.webp", "a.gif", "a.tiff", "a.bmp", "a.heic"})
    void picturesHaveThePixelsThatOtherProgramsDecode(String name) throws IOException {
        var file = samples.picture(name, 400, 304);
        var found = picture(file, 400, false);
        assertEquals(400, found.width());
        assertEquals(304, found.height());
        assertFalse(found.damaged());
        double difference = MediaSamples.difference(samples.reference(file), found.bgra());
        assertTrue(difference < 2, name + " differs by " + difference);
    }

    /** EXIF 2.32, 4.6.4: orientation. */
    @ParameterizedTest
    @CsvSource({"1", "2", "3", "4", "5", "6", "7", "8"})
    void picturesStandUpright(int orientation) throws IOException {
        var file = samples.picture("turned.jpg", 400, 304);
        MediaSamples.run("exiftool", "-q", "-overwrite_original", "-n", "-Orientation=" + orientation, file.toString());
        var found = picture(file, 400, false);
        boolean onItsSide = orientation >= 5;
        assertEquals(onItsSide ? 304 : 400, found.width());
        assertEquals(onItsSide ? 304 : 400, found.fullWidth());
        double difference = MediaSamples.difference(samples.reference(file), found.bgra());
        assertTrue(difference < 2, "orientation " + orientation + " differs by " + difference);
    }

    @Test
    void largePicturesAreMadeSmaller() throws IOException {
        var found = picture(samples.picture("large.jpg", 2000, 1500), 320, false);
        assertEquals(320, found.width());
        assertEquals(240, found.height());
        assertEquals(2000, found.fullWidth());
        assertEquals(1500, found.fullHeight());
    }

    @Test
    void whatTheCameraLeftInTheFileComesFirst() throws IOException {
        var file = samples.picture("camera.jpg", 1200, 900);
        var thumbnail = samples.picture("small.jpg", 160, 120);
        MediaSamples.run("exiftool", "-q", "-overwrite_original", "-ThumbnailImage<=" + thumbnail, file.toString());
        var quick = picture(file, 320, true);
        assertTrue(quick.embedded());
        assertEquals(160, quick.width());
        assertTrue(MediaSamples.difference(samples.reference(thumbnail), quick.bgra()) < 2);
        assertFalse(picture(file, 320, false).embedded());
    }

    @Test
    void aPictureThatWasCutSaysSo() throws IOException {
        var whole = Files.readAllBytes(samples.picture("whole.jpg", 400, 304));
        var cut = Files.write(folder.resolve("cut.jpg"), Arrays.copyOf(whole, whole.length / 2));
        assertTrue(picture(cut, 400, false).damaged());
        var png = Files.readAllBytes(samples.picture("whole.png", 400, 304));
        assertEquals(Why.DAMAGED, why(Files.write(folder.resolve("cut.png"), Arrays.copyOf(png, png.length / 2))));
        assertEquals(Why.DAMAGED, why(Files.write(folder.resolve("empty.jpg"), new byte[0])));
        assertEquals(Why.DAMAGED, why(Files.writeString(folder.resolve("words.jpg"), "no picture at all")));
    }

    /** A playlist in the place of a picture would make a decoder open what it names. */
    @Test
    void nothingElseIsOpened() throws IOException {
        var secret = samples.picture("secret.png", 64, 64);
        for (var text : List.of(
                "#EXTM3U\n#EXTINF:1,\n" + secret + "\n",
                "ffconcat version 1.0\nfile '" + secret + "'\n",
                secret + "\n")) {
            assertEquals(Why.DAMAGED, why(Files.writeString(folder.resolve("list.jpg"), text)));
        }
    }

    @ParameterizedTest
    @CsvSource({"a.mp3,libmp3lame", "a.m4a,aac", "a.flac,flac", "a.opus,libopus", "a.ogg,libvorbis", "a.wav,pcm_s16le"})
    void recordingsAreAsLoudAndAsLongAsTheyAre(String name, String codec) throws IOException {
        var file = samples.toneAndSilence(name, 2, "-c:a", codec);
        try (var source = MediaSamples.open(file)) {
            var peaks = WORKERS.peaks(source, 100, false);
            assertEquals(MediaSamples.seconds(file), peaks.length().toMillis() / 1000.0, 0.1);
            assertTrue(peaks.at(20) > 0.5, "the tone " + peaks.at(20));
            assertTrue(peaks.at(80) < 0.05, "the silence " + peaks.at(80));
        }
    }

    @ParameterizedTest
    @CsvSource({"a.mp3,libmp3lame", "a.m4a,aac", "a.opus,libopus", "a.flac,flac"})
    void theFirstLookAtALongRecordingIsRightButForWhatIsShort(String name, String codec) throws IOException {
        var file = samples.toneAndSilence(name, 150, "-c:a", codec);
        try (var source = MediaSamples.open(file)) {
            var look = WORKERS.peaks(source, 100, true);
            var whole = WORKERS.peaks(source, 100, false);
            assertFalse(look.whole());
            assertTrue(whole.whole());
            assertEquals(whole.length().toMillis() / 1000.0, look.length().toMillis() / 1000.0, 0.5);
            for (int part = 0; part < 100; part++) {
                if (part < 49 || part > 51) {
                    assertEquals(whole.at(part), look.at(part), 0.1, name + " at " + part);
                    assertEquals(part < 50, look.at(part) > 0.5, name + " at " + part);
                }
            }
        }
    }

    private static long samplesOf(Path file, Duration from, double speed) throws IOException {
        var bytes = new long[1];
        try (var source = MediaSamples.open(file)) {
            WORKERS.sound(source, from, speed, samples -> {
                bytes[0] += samples.remaining();
                return true;
            });
        }
        return bytes[0] / SoundOutput.SAMPLE;
    }

    @Test
    void soundIsPlayedFromAnyPlaceAtAnySpeed() throws IOException {
        var file = samples.toneAndSilence("a.m4a", 2);
        double second = MediaWorkers.RATE;
        assertEquals(4, samplesOf(file, Duration.ZERO, 1) / second, 0.1);
        assertEquals(3, samplesOf(file, Duration.ofSeconds(1), 1) / second, 0.1);
        assertEquals(2, samplesOf(file, Duration.ZERO, 2) / second, 0.1);
        assertEquals(8, samplesOf(file, Duration.ZERO, 0.5) / second, 0.2);
    }

    @Test
    void soundThatIsNotWantedAnyMoreEnds() throws IOException {
        var file = samples.toneAndSilence("long.mp3", 30);
        var pieces = new int[1];
        try (var source = MediaSamples.open(file)) {
            WORKERS.sound(source, Duration.ZERO, 1, samples -> ++pieces[0] < 5);
        }
        assertEquals(5, pieces[0]);
        assertEquals(0, WORKERS.deaths());
    }

    /** Wherever it is told to stop, it has not failed, and the worker goes on to the next. */
    @Test
    void stoppingIsNoFault() throws IOException {
        var file = samples.toneAndSilence("long.m4a", 20);
        int before = running().size();
        for (int most = 1; most < 30; most++) {
            var pieces = new int[1];
            int wanted = most;
            try (var source = MediaSamples.anywhere(file)) {
                WORKERS.sound(source, Duration.ZERO, 1, samples -> ++pieces[0] < wanted);
            }
            assertEquals(most, pieces[0]);
        }
        assertTrue(running().size() <= Math.max(1, before), "none was started anew");
    }

    private Path video(String name, String... options) throws IOException {
        var all = new ArrayList<>(List.of("-f", "lavfi", "-i", "testsrc2=size=320x240:rate=25:duration=3"));
        all.addAll(List.of(options));
        return samples.made(name, all.toArray(String[]::new));
    }

    @ParameterizedTest
    @ValueSource(strings = {"a.mp4", "a.mov", "a.webm", "a.3gp"})
    void videosGiveEveryPictureInItsTime(String name) throws IOException {
        var file = name.endsWith("3gp")
                ? video(name, "-s", "352x288", "-c:v", "h263", "-r", "25")
                : video(name, "-pix_fmt", "yuv420p");
        var times = new ArrayList<Duration>();
        try (var source = MediaSamples.open(file)) {
            WORKERS.film(source, Duration.ZERO, true, 640, 480, (at, width, height, bgra) -> {
                times.add(at);
                assertEquals(4 * width * height, bgra.remaining());
                return Optional.of(Duration.ZERO);
            });
        }
        assertEquals(75, times.size(), 1);
        assertEquals(times.stream().sorted().toList(), times);
        assertEquals(40, times.get(10).minus(times.get(9)).toMillis(), 2);
        assertTrue(picture(file, 320, true).height() > 0);
    }

    @Test
    void aVideoBeginsAtAPlaceAndEndsWhenNobodyLooks() throws IOException {
        var file = video("a.mp4", "-pix_fmt", "yuv420p", "-g", "25");
        var times = new ArrayList<Duration>();
        try (var source = MediaSamples.open(file)) {
            WORKERS.film(source, Duration.ofMillis(1500), true, 320, 240, (at, width, height, bgra) -> {
                times.add(at);
                return times.size() < 3 ? Optional.of(Duration.ZERO) : Optional.empty();
            });
        }
        assertEquals(3, times.size());
        assertEquals(1500, times.getFirst().toMillis(), 45);
    }

    private static List<ProcessHandle> running() {
        return ProcessHandle.current()
                .children()
                .filter(child -> child.info().commandLine().orElse("").contains("MediaWorkerMain"))
                .toList();
    }

    @Test
    void aWorkerThatDiesHarmsNothingElse() throws IOException {
        var file = samples.picture("a.jpg", 400, 304);
        try (var workers = new Closing(new MediaWorkers(Duration.ofSeconds(10)))) {
            var others = running();
            var source = new Interrupted(
                    MediaSamples.anywhere(file),
                    () -> running().stream()
                            .filter(worker -> !others.contains(worker))
                            .forEach(ProcessHandle::destroyForcibly));
            var e = assertThrows(UnplayableException.class, () -> workers.all.picture(source, 320, false));
            assertEquals(Why.ENDED, e.why());
            assertEquals(1, workers.all.deaths());
            assertEquals(
                    320,
                    workers.all.picture(MediaSamples.anywhere(file), 320, false).width());
        }
    }

    private record Closing(MediaWorkers all) implements AutoCloseable {
        @Override
        public void close() {
            all.close();
        }
    }

    /** Something happens when it is read for the first time. */
    private static final class Interrupted implements MediaSource {
        private final MediaSource source;
        private final Runnable happens;
        private boolean happened;

        Interrupted(MediaSource source, Runnable happens) {
            this.source = source;
            this.happens = happens;
        }

        @Override
        public long size() {
            return source.size();
        }

        @Override
        public int read(long position, ByteBuffer into) throws IOException {
            if (!happened) {
                happened = true;
                happens.run();
            }
            return source.read(position, into);
        }

        @Override
        public void close() throws IOException {
            source.close();
        }
    }

    @Test
    void whatCannotBeReadIsNotBlamedOnTheFile() throws IOException {
        var file = samples.picture("a.jpg", 400, 304);
        var cut = new StreamSource(Files.size(file) + 1_000_000, () -> Files.newInputStream(file));
        var e = assertThrows(IOException.class, () -> WORKERS.picture(cut, 320, false));
        assertFalse(e instanceof UnplayableException, e.toString());
        var closed = new Interrupted(MediaSamples.anywhere(file), () -> {
            throw new CancellationException("it was closed meanwhile");
        });
        assertThrows(CancellationException.class, () -> WORKERS.picture(closed, 320, false));
        assertEquals(320, picture(file, 320, false).width());
    }

    /** On Linux on x86-64: a filter of system calls is on, and no other program may look into the process (proc(5)). */
    @Test
    void aWorkerIsConfined() throws IOException {
        picture(samples.picture("a.png", 64, 64), 64, false);
        var status = Path.of("/proc", String.valueOf(running().getFirst().pid()), "status");
        if (Files.exists(status) && System.getProperty("os.arch").equals("amd64")) {
            var lines = Files.readAllLines(status);
            assertTrue(lines.contains("Seccomp:\t2"), String.join("\n", lines));
            assertTrue(lines.contains("NoNewPrivs:\t1"));
        }
    }

    /** Some are decoded in part, the rest say what is the matter; none of them ends a worker or keeps it. */
    @Test
    void fiveHundredDamagedFilesHarmNothing() throws IOException {
        var whole = List.of(
                samples.picture("a.jpg", 200, 150),
                samples.picture("a.png", 200, 150),
                samples.picture("a.webp", 200, 150),
                samples.picture("a.gif", 200, 150),
                samples.picture("a.tiff", 200, 150),
                samples.picture("a.heic", 200, 152),
                samples.toneAndSilence("a.mp3", 1),
                samples.toneAndSilence("a.m4a", 1),
                samples.toneAndSilence("a.opus", 1),
                video("a.mp4", "-pix_fmt", "yuv420p"));
        var random = new Random(7);
        int decoded = 0;
        int refused = 0;
        for (int i = 0; i < 500; i++) {
            var bytes = Files.readAllBytes(whole.get(i % whole.size()));
            var file = Files.write(folder.resolve("damaged"), damage(bytes, random));
            try (var source = MediaSamples.open(file)) {
                if (i % whole.size() >= 6 && i % whole.size() < 9) {
                    WORKERS.peaks(source, 50, false);
                } else {
                    WORKERS.picture(source, 160, random.nextBoolean());
                }
                decoded++;
            } catch (UnplayableException e) {
                assertEquals(Why.DAMAGED, e.why());
                refused++;
            }
        }
        assertEquals(500, decoded + refused);
        assertTrue(decoded > 50 && refused > 50, decoded + " decoded, " + refused + " refused");
        assertEquals(0, WORKERS.deaths());
    }

    private static byte[] damage(byte[] bytes, Random random) {
        switch (random.nextInt(5)) {
            case 0 -> {
                return Arrays.copyOf(bytes, random.nextInt(bytes.length));
            }
            case 1 -> { // the head, where lengths stand
                for (int i = 0; i < 10; i++) {
                    bytes[random.nextInt(Math.min(400, bytes.length))] ^= (byte) (1 << random.nextInt(8));
                }
            }
            case 2 -> {
                for (int i = 0; i < 40; i++) {
                    bytes[random.nextInt(bytes.length)] = (byte) random.nextInt();
                }
            }
            case 3 -> {
                int from = random.nextInt(bytes.length);
                Arrays.fill(bytes, from, Math.min(bytes.length, from + 4096), (byte) 0);
            }
            default -> {
                int at = random.nextInt(Math.max(1, Math.min(400, bytes.length - 4)));
                ByteBuffer.wrap(bytes).putInt(at, Integer.MAX_VALUE - random.nextInt(100));
            }
        }
        return bytes;
    }
}
