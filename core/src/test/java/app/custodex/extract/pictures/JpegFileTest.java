package app.custodex.extract.pictures;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.extract.pictures.PictureForm.Coding;
import app.custodex.extract.pictures.PictureForm.Facts;
import app.custodex.media.MediaSamples;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The parts of JPEG files (ITU-T T.81, annex B), made by other programs and by hand. */
class JpegFileTest {
    @TempDir
    private Path folder;

    private byte[] made() throws IOException {
        return Files.readAllBytes(new MediaSamples(folder).picture("plain.jpg", 640, 480));
    }

    /** What ffmpeg decodes of it. */
    private byte[] pixels(byte[] jpeg) throws IOException {
        var file = Files.write(folder.resolve("decoded.jpg"), jpeg);
        return MediaSamples.run(
                "ffmpeg", "-v", "error", "-i", file.toString(), "-f", "rawvideo", "-pix_fmt", "rgb24", "-");
    }

    @Test
    void thePixelsStayAsTheyAreWhateverElseIsTakenOut() throws IOException {
        var file = made();
        var stripped = JpegFile.read(file).with(CameraFacts.NONE);
        assertArrayEquals(pixels(file), pixels(stripped));
        assertArrayEquals(JpegFile.read(file).pixels(), JpegFile.read(stripped).pixels());
    }

    /** Restart marks stand among the pixels, and are no end of them. */
    @Test
    void restartMarksAreNoEnd() throws IOException {
        var plain = JpegFile.read(made());
        var pixels = plain.pixels();
        var with = new ByteArrayOutputStream();
        with.write(pixels, 0, pixels.length - 2);
        for (int mark = 0xd0; mark <= 0xd7; mark++) {
            with.write(0xff);
            with.write(mark);
            with.write(0xff);
            with.write(0); // a byte of pixels that looks like a mark
        }
        with.write(0xff);
        with.write(0xd9);
        var whole = new JpegFile(plain.segments(), with.toByteArray()).with(CameraFacts.NONE);
        assertArrayEquals(with.toByteArray(), JpegFile.read(whole).pixels());
    }

    @Test
    void whatStandsBehindTheEndIsNoPartOfThePicture() throws IOException {
        var file = made();
        var more = Arrays.copyOf(file, file.length * 2);
        System.arraycopy(file, 0, more, file.length, file.length);
        assertArrayEquals(JpegFile.read(file).pixels(), JpegFile.read(more).pixels(), "another picture follows it");
    }

    /** A profile of more than 64 kB stands in several parts, each with its number (ISO 15076-1, annex B.4). */
    @Test
    void aLargeProfileComesBackInOne() throws IOException {
        var profile = new byte[200_000];
        new Random(3).nextBytes(profile);
        var file = JpegFile.read(made()).with(new CameraFacts(Optional.empty(), Optional.of(profile)));
        assertArrayEquals(profile, JpegFile.read(file).facts().profile().orElseThrow());
        var exiftool = Files.write(folder.resolve("profile.jpg"), file);
        assertArrayEquals(profile, MediaSamples.run("exiftool", "-icc_profile", "-b", exiftool.toString()));
    }

    @Test
    void factsThatAreTooLargeForAPartAreLeftOut() throws IOException {
        var facts = new CameraFacts(Optional.of(new byte[70_000]), Optional.empty());
        var file = JpegFile.read(made()).with(facts);
        assertEquals(Optional.empty(), JpegFile.read(file).facts().exif());
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 3, 20, 200, 2_000})
    void whatIsCutIsNoJpeg(int length) throws IOException {
        var cut = Arrays.copyOf(made(), length);
        assertThrows(IOException.class, () -> JpegFile.read(cut));
    }

    @Test
    void whatIsSomethingElseIsNoJpeg() throws IOException {
        assertThrows(IOException.class, () -> JpegFile.read("GIF89a, really".getBytes(StandardCharsets.UTF_8)));
        var bad = made();
        bad[2] = 0;
        assertThrows(IOException.class, () -> JpegFile.read(bad));
        var shortPart = made();
        shortPart[4] = 0;
        shortPart[5] = 1; // the length counts itself, so it is two at least
        assertThrows(IOException.class, () -> JpegFile.read(shortPart));
    }

    @ParameterizedTest
    @CsvSource({
        "AS_THEY_ARE, ALL, heic, .heic",
        "AS_THEY_ARE, NO_PLACE, heic, .jpg",
        "AS_THEY_ARE, NO_PLACE, JPG, .JPG",
        "JPEG, ALL, jpeg, .jpeg",
        "JPEG, ALL, webp, .jpg",
        "PNG, ALL, jpg, .png",
        "PNG, NONE, png, .png"
    })
    void filesEndAsWhatTheyAre(Coding coding, Facts facts, String own, String ending) {
        var form = new PictureForm(coding, 92, Integer.MAX_VALUE, facts);
        assertEquals(ending, form.ending(own));
        assertEquals(coding == Coding.AS_THEY_ARE && facts == Facts.ALL, form.keepsFiles());
    }

    @Test
    void factsThatSayNothingStayNothing() throws CameraFacts.Unreadable {
        assertEquals(CameraFacts.NONE, CameraFacts.NONE.keeping(Facts.NO_PLACE, true));
        var rubbish = new CameraFacts(Optional.of("no TIFF at all".getBytes(StandardCharsets.UTF_8)), Optional.empty());
        assertThrows(CameraFacts.Unreadable.class, () -> rubbish.keeping(Facts.NO_PLACE, false));
        assertEquals(rubbish, rubbish.keeping(Facts.ALL, false), "what is kept need not be understood");
        assertFalse(HeifFacts.in(new byte[0]).exif().isPresent());
        assertTrue(HeifFacts.in(new byte[100]).profile().isEmpty());
    }
}
