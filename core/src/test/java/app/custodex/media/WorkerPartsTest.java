package app.custodex.media;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.media.Scaler.Size;
import app.custodex.media.Wire.Kind;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The small parts of a worker, each by itself. */
final class WorkerPartsTest {
    private static Wire hearing(byte[] said) {
        return new Wire(new ByteArrayInputStream(said), new ByteArrayOutputStream());
    }

    private static byte[] said(Kind kind, ByteBuffer... parts) throws IOException {
        var out = new ByteArrayOutputStream();
        new Wire(new ByteArrayInputStream(new byte[0]), out).send(kind, parts);
        return out.toByteArray();
    }

    @Test
    void whatIsSaidIsHeard() throws IOException {
        var direct = ByteBuffer.allocateDirect(3).put(new byte[] {7, 8, 9}).flip();
        var bytes = said(Kind.FRAME, ByteBuffer.wrap(new byte[] {1, 2}), direct);
        assertEquals(4 + 1 + 5, bytes.length);
        var wire = hearing(bytes);
        assertEquals(Kind.FRAME, wire.receive(5));
        var body = new byte[5];
        wire.body().get(body);
        assertArrayEquals(new byte[] {1, 2, 7, 8, 9}, body);
        var kept = wire.takeBody();
        assertThrows(EOFException.class, () -> wire.receive(5));
        assertEquals(5, kept.remaining());
    }

    @Test
    void whatIsTooLongOrUnknownIsNotTaken() throws IOException {
        var six = said(Kind.RESULT, ByteBuffer.allocate(6));
        assertThrows(Wire.Broken.class, () -> hearing(six).receive(5));
        var negative = said(Kind.RESULT);
        ByteBuffer.wrap(negative).putInt(-1);
        assertThrows(Wire.Broken.class, () -> hearing(negative).receive(5));
        var huge = said(Kind.RESULT);
        ByteBuffer.wrap(huge).putInt(Integer.MAX_VALUE);
        assertThrows(Wire.Broken.class, () -> hearing(huge).receive(1 << 20));
        var unknown = said(Kind.RESULT);
        unknown[4] = (byte) 200;
        assertThrows(Wire.Broken.class, () -> hearing(unknown).receive(5));
        var cut = said(Kind.RESULT, ByteBuffer.allocate(4));
        assertThrows(EOFException.class, () -> hearing(Arrays.copyOf(cut, 7)).receive(5));
    }

    /** EXIF 2.32, 4.6.4: where row 0 and column 0 of what is stored are seen. A picture of three by two, its pixels numbered. */
    @ParameterizedTest
    @CsvSource({
        "1, 1 2 3 4 5 6",
        "2, 3 2 1 6 5 4",
        "3, 6 5 4 3 2 1",
        "4, 4 5 6 1 2 3",
        "5, 1 4 2 5 3 6",
        "6, 4 1 5 2 6 3",
        "7, 6 3 5 2 4 1",
        "8, 3 6 2 5 1 4",
        "9, 1 2 3 4 5 6"
    })
    void picturesAreTurnedUpright(int orientation, String expected) {
        var turn = Turn.ofExif(orientation);
        var turned = turn.apply(new int[] {1, 2, 3, 4, 5, 6}, 3, 2);
        assertEquals(
                expected,
                String.join(" ", Arrays.stream(turned).mapToObj(String::valueOf).toList()));
        assertEquals(orientation >= 5 && orientation <= 8, turn.swapsSides());
    }

    @Test
    void aPictureFitsIntoItsBox() {
        assertEquals(new Size(320, 240), Size.fit(4032, 3024, 320, 320));
        assertEquals(new Size(240, 320), Size.fit(3024, 4032, 320, 320));
        assertEquals(new Size(100, 50), Size.fit(100, 50, 320, 320), "never larger than it is");
        assertEquals(new Size(320, 1), Size.fit(100_000, 3, 320, 320));
        assertEquals(0, Tiles.halvings(400, 300, 320));
        assertEquals(2, Tiles.halvings(1_300, 900, 320));
        assertEquals(3, Tiles.halvings(100_000, 900, 320));
    }

    @TempDir
    private Path folder;

    @Test
    void theThumbnailOfAJpegIsFoundAndDamageHidesIt() throws IOException {
        var samples = new MediaSamples(folder);
        var file = samples.picture("camera.jpg", 800, 600);
        var small = samples.picture("small.jpg", 160, 120);
        MediaSamples.run(
                "exiftool",
                "-q",
                "-overwrite_original",
                "-ThumbnailImage<=" + small,
                "-n",
                "-Orientation=6",
                file.toString());
        var bytes = Files.readAllBytes(file);
        var head = Arrays.copyOf(bytes, Math.min(bytes.length, ExifThumbnail.HEAD));
        var found = ExifThumbnail.in(ByteBuffer.wrap(head)).orElseThrow();
        assertEquals(Files.size(small), found.length());
        assertEquals(6, found.orientation());
        assertArrayEquals(
                Files.readAllBytes(small), Arrays.copyOfRange(bytes, found.at(), found.at() + found.length()));

        // Whatever is damaged, it is inside of what was given, or nowhere.
        var random = new Random(6);
        for (int i = 0; i < 3_000; i++) {
            var damaged = Arrays.copyOf(head, i % 3 == 0 ? random.nextInt(head.length) : head.length);
            for (int n = 0; n < 12 && damaged.length > 0; n++) {
                damaged[random.nextInt(Math.min(300, damaged.length))] = (byte) random.nextInt();
            }
            ExifThumbnail.in(ByteBuffer.wrap(damaged))
                    .ifPresent(any ->
                            assertTrue(any.at() > 0 && any.length() > 0 && any.at() + any.length() <= damaged.length));
        }
        assertEquals(Optional.empty(), ExifThumbnail.in(ByteBuffer.allocate(0)));
        assertEquals(
                Optional.empty(),
                ExifThumbnail.in(ByteBuffer.wrap(Files.readAllBytes(samples.picture("plain.jpg", 64, 64)))));
    }

    private static byte[] loudness(PeakMeter meter, int parts) {
        var result = meter.result(parts);
        result.getDouble();
        result.get();
        var loudness = new byte[parts];
        result.get(loudness);
        return loudness;
    }

    @Test
    void peaksAreWhereItIsLoud() {
        var meter = new PeakMeter();
        var sound = new float[4_000]; // four seconds; loud in the third
        Arrays.fill(sound, 2_000, 3_000, 0.6f);
        // In pieces of any length, as they come.
        for (int at = 0; at < sound.length; ) {
            int n = Math.min(sound.length - at, 1 + at % 77);
            meter.take(Arrays.copyOfRange(sound, at, at + n), n, 1_000);
            at += n;
        }
        var result = meter.result(4);
        assertEquals(4.0, result.getDouble(), 1e-9);
        assertEquals(1, result.get(), "all of it");
        assertEquals(0, result.get());
        assertEquals(0, result.get());
        assertEquals((int) (0.6f * 256), result.get() & 0xff);
        assertEquals(0, result.get());
    }

    @Test
    void whatIsPassedOverIsSilentAndKeepsItsPlace() {
        var meter = new PeakMeter();
        var tone = new float[1_000];
        Arrays.fill(tone, 0.5f);
        meter.take(tone, 1_000, 1_000);
        meter.pass(2);
        meter.take(tone, 1_000, 1_000);
        assertArrayEquals(new byte[] {(byte) 128, 0, 0, (byte) 128}, loudness(meter, 4));
        assertEquals(0, meter.result(4).get(Double.BYTES), "not all of it");
    }

    @Test
    void aShortSoundFillsAllParts() {
        var meter = new PeakMeter();
        var tone = new float[30]; // three steps of ten milliseconds
        Arrays.fill(tone, 1.5f); // what is too loud is as loud as can be
        meter.take(tone, 30, 1_000);
        for (byte part : loudness(meter, 50)) {
            assertEquals(255, part & 0xff);
        }
        assertArrayEquals(new byte[10], loudness(new PeakMeter(), 10), "none at all");
    }
}
