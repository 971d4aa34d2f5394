package app.custodex.extract.pictures;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import app.custodex.base.Json;
import app.custodex.extract.Material;
import app.custodex.extract.pictures.PictureFiles.Impossible;
import app.custodex.extract.pictures.PictureForm.Coding;
import app.custodex.extract.pictures.PictureForm.Facts;
import app.custodex.media.MediaSamples;
import app.custodex.media.MediaWorkers;
import com.fasterxml.jackson.databind.JsonNode;
import java.awt.color.ColorSpace;
import java.awt.color.ICC_Profile;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Pictures in other forms, looked at by exiftool, ffmpeg and heif-convert. */
class PictureFilesTest {
    private static final int FULL = Integer.MAX_VALUE;
    private static final String SECRET = "Behind the third gate";

    @TempDir
    private Path folder;

    private MediaSamples samples = new MediaSamples(Path.of(""));

    @BeforeEach
    void prepare() {
        samples = new MediaSamples(folder);
    }

    private PictureFiles.Made make(Path file, PictureForm form) throws IOException, Impossible {
        var material = mock(Material.class);
        when(material.open(anyString())).thenAnswer(asked -> Files.newInputStream(file));
        when(material.picture(anyString(), anyInt())).thenAnswer(asked -> {
            try (var source = MediaSamples.open(file)) {
                return Optional.of(MediaWorkers.shared().picture(source, asked.getArgument(1), false));
            } catch (app.custodex.media.UnplayableException e) {
                return Optional.empty();
            }
        });
        return new PictureFiles(material, form).make(file.toString());
    }

    private Path written(PictureFiles.Made made, String name) throws IOException {
        return Files.write(folder.resolve(name), made.content());
    }

    /** A picture with all that a camera, an album and a joker may write into it. */
    private Path told(String name) throws IOException {
        var file = samples.picture(name, 400, 304);
        var profile = Files.write(
                folder.resolve("srgb.icc"),
                ICC_Profile.getInstance(ColorSpace.CS_sRGB).getData());
        MediaSamples.run(
                "exiftool",
                "-q",
                "-overwrite_original",
                "-n",
                "-Make=Skerrow Practice Works",
                "-DateTimeOriginal=2025:11:14 20:04:11",
                "-FNumber=1.8",
                "-GPSLatitude=60.123456",
                "-GPSLatitudeRef=N",
                "-GPSLongitude=1.25",
                "-GPSLongitudeRef=W",
                "-UserComment=" + SECRET,
                "-XMP:Location=" + SECRET,
                "-XMP:GPSLatitude=60.123456",
                "-ICC_Profile<=" + profile,
                file.toString());
        return file;
    }

    private static JsonNode exif(Path file) throws IOException {
        return Json.LINE
                .readTree(MediaSamples.run("exiftool", "-json", "-n", "-a", "-G1", file.toString()))
                .get(0);
    }

    private static byte[] profile(Path file) throws IOException {
        return MediaSamples.run("exiftool", "-icc_profile", "-b", file.toString());
    }

    @ParameterizedTest
    @CsvSource({"a.heic, JPEG, 2.5", "a.heic, PNG, 2", "a.png, JPEG, 2.5", "a.png, PNG, 0", "a.jpg, PNG, 2"})
    void aPictureKeepsItsPixelsAndWhatTheCameraWrote(String name, Coding coding, double most) throws Exception {
        var file = told(name);
        var made = make(file, new PictureForm(coding, 92, FULL, Facts.ALL));
        assertEquals("", made.lost());
        var after = written(made, coding == Coding.JPEG ? "made.jpg" : "made.png");
        double difference = MediaSamples.difference(samples.reference(file), samples.reference(after));
        assertTrue(difference <= most, "differs by " + difference);
        if (!name.endsWith(".png")) { // whose facts stand in other chunks, which are left behind
            var facts = exif(after);
            assertEquals("Skerrow Practice Works", facts.get("IFD0:Make").asText());
            assertEquals(
                    "2025:11:14 20:04:11", facts.get("ExifIFD:DateTimeOriginal").asText());
            assertEquals(60.123456, facts.get("GPS:GPSLatitude").asDouble(), 1e-5);
            assertEquals("W", facts.get("GPS:GPSLongitudeRef").asText());
            assertArrayEquals(profile(file), profile(after), "the profile of its colours");
        }
    }

    @ParameterizedTest
    @CsvSource({"a.heic, JPEG", "a.jpg, AS_THEY_ARE", "a.jpg, JPEG", "a.heic, AS_THEY_ARE", "a.jpg, PNG"})
    void aPlaceThatIsTakenOutIsNowhere(String name, Coding coding) throws Exception {
        var file = told(name);
        Files.write(
                file,
                "GPSLatitude behind the end".getBytes(StandardCharsets.UTF_8),
                java.nio.file.StandardOpenOption.APPEND);
        for (var facts : new Facts[] {Facts.NO_PLACE, Facts.NONE}) {
            var made = make(file, new PictureForm(coding, 92, FULL, facts));
            var after = written(made, coding == Coding.PNG ? "made.png" : "made.jpg");
            var said = exif(after);
            said.fieldNames().forEachRemaining(field -> assertFalse(field.contains("GPS"), field));
            var raw = new String(made.content(), StandardCharsets.ISO_8859_1);
            assertFalse(raw.contains(SECRET));
            assertFalse(raw.contains("behind the end"));
            assertEquals(facts == Facts.NO_PLACE, said.has("IFD0:Make"), said.toString());
            if (!name.endsWith(".heic") || coding != Coding.PNG) {
                assertArrayEquals(profile(file), profile(after));
            }
        }
    }

    @ParameterizedTest
    @CsvSource({"AS_THEY_ARE, 6", "JPEG, 6", "PNG, 6", "JPEG, 3"})
    void whatIsUpStaysUp(Coding coding, int orientation) throws Exception {
        var file = told("a.jpg");
        MediaSamples.run("exiftool", "-q", "-overwrite_original", "-n", "-Orientation=" + orientation, file.toString());
        var made = make(file, new PictureForm(coding, 100, FULL, Facts.NONE));
        var after = written(made, coding == Coding.PNG ? "made.png" : "made.jpg");
        // ffmpeg turns what says that it lies; so both have their pixels in the same order.
        double difference = MediaSamples.difference(samples.reference(file), samples.reference(after));
        assertTrue(difference < 2, "differs by " + difference);
    }

    @Test
    void aSmallerPictureHasItsLongerSideAsWished() throws Exception {
        var after = written(make(told("a.jpg"), new PictureForm(Coding.JPEG, 80, 200, Facts.ALL)), "small.jpg");
        var said = exif(after);
        assertEquals(200, said.get("File:ImageWidth").asInt());
        assertEquals(152, said.get("File:ImageHeight").asInt());
        var same = make(told("b.jpg"), new PictureForm(Coding.JPEG, 80, 4_000, Facts.ALL));
        assertArrayEquals(Files.readAllBytes(folder.resolve("b.jpg")), same.content(), "it is small enough as it is");
    }

    @Test
    void whatIsCutIsNoPictureInAnotherForm() throws IOException {
        var file = told("a.jpg");
        var whole = Files.readAllBytes(file);
        Files.write(file, Arrays.copyOf(whole, whole.length / 2));
        for (var coding : Coding.values()) {
            assertThrows(Impossible.class, () -> make(file, new PictureForm(coding, 92, FULL, Facts.NO_PLACE)));
        }
        Files.write(file, "no picture".getBytes(StandardCharsets.UTF_8));
        assertThrows(Impossible.class, () -> make(file, new PictureForm(Coding.JPEG, 92, FULL, Facts.ALL)));
    }

    /** Whatever stands in a file, taking it apart ends in facts or in the one way that is meant. */
    @Test
    void damagedFactsHarmNothing() throws IOException {
        var random = new Random(7);
        for (var name : new String[] {"a.heic", "a.jpg"}) {
            var whole = Files.readAllBytes(told(name));
            for (int i = 0; i < 600; i++) {
                var bad = whole.clone();
                for (int k = 0; k < 1 + random.nextInt(8); k++) {
                    bad[random.nextInt(Math.min(bad.length, 3_000))] = (byte) random.nextInt(256);
                }
                var cut = random.nextBoolean() ? bad : Arrays.copyOf(bad, random.nextInt(bad.length));
                try {
                    var facts = name.endsWith("heic")
                            ? HeifFacts.in(cut)
                            : JpegFile.read(cut).facts();
                    facts.keeping(Facts.NO_PLACE, true);
                } catch (IOException | CameraFacts.Unreadable meant) {
                    // one that is damaged is told as damaged
                }
            }
        }
    }
}
