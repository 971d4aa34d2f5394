package app.custodex.media;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Json;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.ShortBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Sound in other forms, looked at by ffprobe and decoded again by ffmpeg. */
class SoundConversionTest {
    @TempDir
    private Path folder;

    private MediaSamples samples = new MediaSamples(Path.of(""));

    @BeforeEach
    void prepare() {
        samples = new MediaSamples(folder);
    }

    private Path converted(Path file, SoundCoding coding, String name) throws IOException {
        return converted(file, coding, name, Optional.empty());
    }

    private Path converted(Path file, SoundCoding coding, String name, Optional<SoundCut> cut) throws IOException {
        var out = new ByteArrayOutputStream();
        try (var source = MediaSamples.open(file)) {
            MediaWorkers.shared().convert(source, coding, 192, cut, out);
        }
        return Files.write(folder.resolve(name), out.toByteArray());
    }

    private static JsonNode probe(Path file) throws IOException {
        return Json.LINE.readTree(MediaSamples.run(
                "ffprobe", "-v", "quiet", "-of", "json", "-show_format", "-show_streams", file.toString()));
    }

    private static byte[] samplesOf(Path file) throws IOException {
        return MediaSamples.run("ffmpeg", "-v", "quiet", "-i", file.toString(), "-f", "s16le", "-");
    }

    private Path song(String name, String... options) throws IOException {
        return samples.made(name, all(options));
    }

    private static String[] all(String... options) {
        var common = new String[] {
            "-f",
            "lavfi",
            "-i",
            "sine=frequency=440:sample_rate=44100:duration=7",
            "-metadata",
            "title=Løft",
            "-metadata",
            "artist=Ærø Choir"
        };
        var all = Arrays.copyOf(common, common.length + options.length);
        System.arraycopy(options, 0, all, common.length, options.length);
        return all;
    }

    @ParameterizedTest
    @CsvSource({
        "MP3, made.mp3, mp3, 44100",
        "M4A, made.m4a, aac, 44100",
        "OPUS, made.opus, opus, 48000",
        "FLAC, made.flac, flac, 44100",
        "WAV, made.wav, pcm_s16le, 44100"
    })
    void aSongComesInEveryFormWithItsTags(SoundCoding coding, String name, String codec, int rate) throws IOException {
        var made = converted(song("song.flac", "-ac", "2"), coding, name);
        var probed = probe(made);
        var stream = probed.get("streams").get(0);
        assertEquals(codec, stream.get("codec_name").asText());
        assertEquals(rate, stream.get("sample_rate").asInt());
        assertEquals(2, stream.get("channels").asInt());
        assertEquals(7.0, probed.get("format").get("duration").asDouble(), 0.1);
        var tags = probed.get("format").has("tags") ? probed.get("format").get("tags") : stream.get("tags");
        var said = (coding == SoundCoding.OPUS ? stream.get("tags") : tags).toString();
        assertTrue(said.contains("Løft") && said.contains("Ærø Choir"), said);
        assertEquals(0.0, MediaSamples.seconds(made) - 7.0, 0.1);
    }

    @ParameterizedTest
    @CsvSource({"FLAC, made.flac", "WAV, made.wav"})
    void whatLosesNothingHasTheSameSamples(SoundCoding coding, String name) throws IOException {
        var song = song("song.wav", "-ac", "1");
        assertArrayEquals(samplesOf(song), samplesOf(converted(song, coding, name)));
    }

    @ParameterizedTest
    @CsvSource({
        "8000, MP3, made.mp3",
        "8000, M4A, made.m4a",
        "8000, OPUS, made.opus",
        "11025, MP3, made.mp3",
        "96000, M4A, made.m4a"
    })
    void aVoiceOfAnyRateComesOut(int rate, SoundCoding coding, String name) throws IOException {
        var made = converted(song("voice.wav", "-ac", "1", "-ar", String.valueOf(rate)), coding, name);
        assertEquals(7.0, MediaSamples.seconds(made), 0.3, "whole frames");
        assertEquals(1, probe(made).get("streams").get(0).get("channels").asInt());
    }

    @Test
    void soundOfMoreThanTwoChannelsBecomesStereo() throws IOException {
        var made = converted(song("wide.wav", "-ac", "6"), SoundCoding.MP3, "made.mp3");
        assertEquals(2, probe(made).get("streams").get(0).get("channels").asInt());
    }

    @Test
    void whatIsNoSoundIsTold() throws IOException {
        var file = Files.writeString(folder.resolve("a.mp3"), "no sound at all ".repeat(1_000));
        assertThrows(UnplayableException.class, () -> converted(file, SoundCoding.MP3, "made.mp3"));
        var song = Files.readAllBytes(song("song.flac", "-ac", "2"));
        var cut = Files.write(folder.resolve("cut.flac"), Arrays.copyOf(song, song.length / 2));
        var made = converted(cut, SoundCoding.WAV, "made.wav");
        assertTrue(MediaSamples.seconds(made) < 6, "what is there is kept");
    }

    private static SoundCut cut(long from, long until, long in, long out, boolean even) {
        return new SoundCut(
                Duration.ofMillis(from), Duration.ofMillis(until), Duration.ofMillis(in), Duration.ofMillis(out), even);
    }

    @ParameterizedTest
    @CsvSource({"0, 7000", "1500, 4250", "3333, 3433", "6000, 60000"})
    void aPieceHasTheSamplesThatTheWholeHasThere(long from, long until) throws IOException {
        var song = song("song.flac", "-ac", "1", "-af", "tremolo=f=0.3:d=0.9");
        var whole = samplesOf(song);
        var piece =
                samplesOf(converted(song, SoundCoding.WAV, "piece.wav", Optional.of(cut(from, until, 0, 0, false))));
        int begin = 2 * Math.round(from * 44.1f);
        int end = Math.min(whole.length, begin + 2 * Math.round((until - from) * 44.1f));
        assertArrayEquals(Arrays.copyOfRange(whole, begin, end), piece);
    }

    @Test
    void aPieceOfAPackedSongIsAsLongAsItIsWished() throws IOException {
        var song = song("song.mp3", "-ac", "2");
        var piece = converted(song, SoundCoding.M4A, "piece.m4a", Optional.of(cut(2_000, 5_000, 100, 100, false)));
        assertEquals(3.0, MediaSamples.seconds(piece), 0.05);
    }

    @Test
    void itFadesInAndOut() throws IOException {
        var song = song("song.wav", "-ac", "1");
        var piece = samplesOf(
                converted(song, SoundCoding.WAV, "piece.wav", Optional.of(cut(1_000, 5_000, 1_000, 2_000, false))));
        var levels = ByteBuffer.wrap(piece).order(ByteOrder.LITTLE_ENDIAN).asShortBuffer();
        assertTrue(loudest(levels, 0.0, 0.05) < loudest(levels, 0.5, 0.6) / 4);
        assertEquals(0.5, loudest(levels, 0.49, 0.51) / (double) loudest(levels, 1.2, 1.8), 0.05, "half way in");
        assertEquals(0.5, loudest(levels, 2.99, 3.01) / (double) loudest(levels, 1.2, 1.8), 0.05, "half way out");
        assertTrue(loudest(levels, 3.97, 4.0) < 400);
        var last = samplesOf(
                converted(song, SoundCoding.WAV, "last.wav", Optional.of(cut(4_000, 60_000, 0, 1_000, false))));
        var ends = ByteBuffer.wrap(last).order(ByteOrder.LITTLE_ENDIAN).asShortBuffer();
        assertEquals(3.0, ends.limit() / 44_100.0, 0.01);
        assertTrue(loudest(ends, 2.97, 3.0) < 400, "it fades where the recording ends");
    }

    private static int loudest(ShortBuffer of, double from, double until) {
        int loudest = 0;
        for (int at = (int) (from * 44_100); at < Math.min(of.limit(), (int) (until * 44_100)); at++) {
            loudest = Math.max(loudest, Math.abs(of.get(at)));
        }
        return loudest;
    }

    @Test
    void anEvenPieceHasTheLoudnessOfTheNorm() throws IOException {
        var song = song("quiet.wav", "-ac", "2", "-af", "volume=0.1");
        var piece = converted(song, SoundCoding.WAV, "even.wav", Optional.of(cut(1_000, 6_000, 0, 0, true)));
        // As EBU R 128 measures it, by another program's meter.
        var told = new String(
                MediaSamples.run(
                        "ffmpeg",
                        "-v",
                        "quiet",
                        "-i",
                        piece.toString(),
                        "-af",
                        "ebur128=metadata=1,ametadata=print:key=lavfi.r128.I:file=-",
                        "-f",
                        "null",
                        "/dev/null"),
                StandardCharsets.US_ASCII);
        assertEquals(-16.0, Double.parseDouble(told.substring(told.lastIndexOf('=') + 1)), 1.0, told);
        assertEquals(5.0, MediaSamples.seconds(piece), 0.02);
    }

    @Test
    void aPieceBehindTheEndIsNone() throws IOException {
        var song = song("song.wav", "-ac", "1");
        assertThrows(
                UnplayableException.class,
                () -> converted(song, SoundCoding.WAV, "none.wav", Optional.of(cut(9_000, 9_500, 0, 0, false))));
    }

    @Test
    void aFullDiskIsNoFaultOfTheSound() throws IOException {
        var song = song("song.wav", "-ac", "2");
        int deaths = MediaWorkers.shared().deaths();
        var full = new OutputStream() {
            @Override
            public void write(int b) throws IOException {
                throw new IOException("no room");
            }
        };
        try (var source = MediaSamples.open(song)) {
            var told = assertThrows(
                    IOException.class,
                    () -> MediaWorkers.shared().convert(source, SoundCoding.WAV, 192, Optional.empty(), full));
            assertEquals("no room", told.getMessage());
        }
        assertEquals(deaths, MediaWorkers.shared().deaths());
        assertTrue(Files.size(converted(song, SoundCoding.MP3, "made.mp3")) > 10_000, "the next one is written");
    }
}
