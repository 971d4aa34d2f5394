package app.custodex.facts;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Json;
import app.custodex.base.ProblemException;
import app.custodex.facts.FileFacts.Sort;
import app.custodex.files.DocumentText;
import app.custodex.files.DocumentText.Paragraph;
import app.custodex.model.MediaFile.Fact;
import app.custodex.model.Moment;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.encryption.AccessPermission;
import org.apache.pdfbox.pdmodel.encryption.StandardProtectionPolicy;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts.FontName;
import org.apache.poi.xwpf.usermodel.XWPFDocument;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What files say of themselves, compared with what ffprobe and exiftool say; and files that are made to do harm. */
class FactsTest {
    @TempDir
    Path folder;

    private static final Workers WORKERS = new Workers(Duration.ofSeconds(30));

    private static String run(String... command) throws IOException {
        var process = new ProcessBuilder(command)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        try {
            var out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            assertTrue(process.waitFor(60, TimeUnit.SECONDS), command[0]);
            assertEquals(0, process.exitValue(), String.join(" ", command));
            return out;
        } catch (InterruptedException e) {
            throw new IOException(e);
        }
    }

    /** A file made by ffmpeg. */
    private Path made(String name, String... options) throws IOException {
        var file = folder.resolve(name);
        var command = new ArrayList<>(List.of("ffmpeg", "-v", "quiet", "-y"));
        command.addAll(List.of(options));
        command.add(file.toString());
        run(command.toArray(String[]::new));
        return file;
    }

    private FileFacts facts(Sort sort, Path file) throws IOException {
        try (var in = Files.newInputStream(file)) {
            return WORKERS.facts(sort, file.toString(), file.getFileName().toString(), in);
        }
    }

    private static JsonNode probe(Path file) throws IOException {
        return Json.LINE.readTree(run(
                "ffprobe", "-v", "quiet", "-print_format", "json", "-show_format", "-show_streams", file.toString()));
    }

    private static void assertLength(Path file, FileFacts facts) throws IOException {
        double seconds = probe(file).at("/format/duration").asDouble();
        assertEquals(seconds, facts.length().orElseThrow().toMillis() / 1000.0, 0.08, file.toString());
    }

    @ParameterizedTest
    @ValueSource(strings = {"a.mp3", "a.m4a", "a.flac", "a.ogg", "a.opus"})
    void soundsSayWhatFfprobeSays(String name) throws IOException {
        var file = made(
                name,
                "-f",
                "lavfi",
                "-i",
                "sine=frequency=440:duration=3.3",
                "-metadata",
                "title=Løft the anchor",
                "-metadata",
                "artist=Ærø choir",
                "-metadata",
                "album=Tour",
                "-metadata",
                "genre=Folk");
        var facts = facts(Sort.SOUND, file);
        assertLength(file, facts);
        assertEquals("Løft the anchor", facts.title());
        assertTrue(
                facts.facts().contains(new Fact("Artist", "Ærø choir")),
                facts.facts().toString());
        assertTrue(facts.facts().contains(new Fact("Album", "Tour")));
    }

    @Test
    void soundsWithoutTagsSayHowLongTheyAre() throws IOException {
        var wav = made("a.wav", "-f", "lavfi", "-i", "sine=frequency=440:duration=2.5", "-ar", "8000", "-ac", "1");
        assertLength(wav, facts(Sort.SOUND, wav));
        // RFC 4867 §5: frames of mode 7 have 31 bytes behind the first one, and last 20 ms.
        var amr = new ByteArrayOutputStream();
        amr.writeBytes("#!AMR\n".getBytes(StandardCharsets.US_ASCII));
        for (int i = 0; i < 125; i++) {
            amr.write(7 << 3 | 4);
            amr.writeBytes(new byte[31]);
        }
        var file = Files.write(folder.resolve("a.amr"), amr.toByteArray());
        assertEquals(
                Optional.of(Duration.ofMillis(2_500)), facts(Sort.SOUND, file).length());
    }

    @ParameterizedTest
    @ValueSource(strings = {"a.mp4", "a.mov"})
    void videosSayWhatFfprobeSays(String name) throws IOException {
        var file = video(name, "libx264");
        var facts = facts(Sort.IMAGE, file);
        assertLength(file, facts);
        var video = probe(file).at("/streams/0");
        for (var fact : List.of(
                new Fact(
                        "Size",
                        video.get("width").asInt() + " × " + video.get("height").asInt()),
                new Fact("Codec", "H.264"))) {
            assertTrue(facts.facts().contains(fact), facts.facts().toString());
        }
        assertEquals("h264", video.get("codec_name").asText());
        assertEquals(Optional.of(Moment.parse("2025-11-14T21:04:00Z")), facts.taken());
    }

    /** RFC 9559 gives the names of the codecs. */
    @ParameterizedTest
    @CsvSource({"a.mkv,libx264,MPEG4/ISO/AVC,h264", "a.webm,libvpx-vp9,VP9,vp9"})
    void videosInMatroskaSayWhatFfprobeSays(String name, String encoder, String codec, String probed)
            throws IOException {
        var file = video(name, encoder);
        var facts = facts(Sort.IMAGE, file);
        assertLength(file, facts);
        var video = probe(file).at("/streams/0");
        assertEquals(probed, video.get("codec_name").asText());
        var size = video.get("width").asInt() + " × " + video.get("height").asInt();
        assertEquals(List.of(new Fact("Size", size), new Fact("Codec", codec)), facts.facts());
        assertEquals(Optional.of(Moment.parse("2025-11-14T21:04:00Z")), facts.taken());
    }

    /** One bit after the other, and every place to cut: each is read or told, and none takes longer than it should. */
    @Test
    void damagedMatroskaAndAacHarmNobody() throws IOException {
        var random = new Random(11);
        for (var file : List.of(
                video("b.webm", "libvpx-vp9"), made("b.aac", "-f", "lavfi", "-i", "sine=frequency=440:duration=1"))) {
            var whole = Files.readAllBytes(file);
            var sort = file.toString().endsWith("aac") ? Sort.SOUND : Sort.IMAGE;
            for (int round = 0; round < 150; round++) {
                var damaged = round % 3 == 0 ? Arrays.copyOf(whole, random.nextInt(2_000)) : whole.clone();
                if (round % 3 != 0) {
                    damaged[random.nextInt(Math.min(damaged.length, 600))] ^= (byte) (1 << random.nextInt(8));
                }
                try {
                    var facts = WORKERS.facts(
                            sort, file.toString(), file.getFileName().toString(), new ByteArrayInputStream(damaged));
                    assertTrue(facts.facts().size() <= 2, facts.facts().toString());
                } catch (ProblemException told) {
                    assertFalse(told.problem().what().isBlank());
                }
            }
        }
    }

    /** Every frame holds 1024 samples (ISO/IEC 14496-3); ffprobe counts them, since it only guesses the length of such a file. */
    @Test
    void soundsInAacWithoutAContainerSayHowLongTheyAre() throws IOException {
        var file = made("a.aac", "-f", "lavfi", "-i", "sine=frequency=440:duration=3.3");
        var stream = Json.LINE
                .readTree(run(
                        "ffprobe",
                        "-v",
                        "quiet",
                        "-print_format",
                        "json",
                        "-count_packets",
                        "-show_streams",
                        file.toString()))
                .at("/streams/0");
        double seconds = stream.get("nb_read_packets").asInt()
                * 1024.0
                / stream.get("sample_rate").asInt();
        assertEquals(seconds, facts(Sort.SOUND, file).length().orElseThrow().toMillis() / 1000.0, 0.001);
    }

    private Path video(String name, String encoder) throws IOException {
        return made(
                name,
                "-f",
                "lavfi",
                "-i",
                "testsrc=size=352x288:rate=25:duration=2.2",
                "-metadata",
                "creation_time=2025-11-14T21:04:00Z",
                "-c:v",
                encoder);
    }

    @Test
    void videosOfOldPhonesSayHowLongTheyAre() throws IOException {
        var file = video("a.3gp", "h263");
        assertLength(file, facts(Sort.IMAGE, file));
    }

    @ParameterizedTest
    @ValueSource(strings = {"a.jpg", "a.tiff", "a.png", "a.webp", "a.heic"})
    void picturesSayWhatExiftoolSays(String name) throws IOException {
        var file = name.endsWith(".heic") ? heic(name) : picture(name);
        run(
                "exiftool",
                "-q",
                "-overwrite_original",
                "-DateTimeOriginal=2025:06:21 23:59:01",
                "-OffsetTimeOriginal=+02:00",
                "-GPSLatitude=57.25",
                "-GPSLatitudeRef=S",
                "-GPSLongitude=10.5",
                "-GPSLongitudeRef=W",
                "-EXIF:Make=Ridge",
                "-EXIF:Model=Ridge 4",
                "-EXIF:ImageDescription=Løft at the slip",
                "-EXIF:Orientation#=6",
                file.toString());
        var said = Json.LINE
                .readTree(run("exiftool", "-json", "-n", "-c", "%.6f", file.toString()))
                .get(0);
        var facts = facts(Sort.IMAGE, file);
        assertEquals(Optional.of(Moment.parse("2025-06-21T21:59:01Z[+02:00]")), facts.taken());
        var place = facts.place().orElseThrow();
        assertEquals(said.get("GPSLatitude").asDouble(), place.latitude(), 1e-5);
        assertEquals(said.get("GPSLongitude").asDouble(), place.longitude(), 1e-5);
        for (var fact : List.of(
                new Fact(
                        "Size",
                        said.get("ImageWidth").asInt() + " × "
                                + said.get("ImageHeight").asInt()),
                new Fact("Camera", said.get("Model").asText()),
                new Fact("Orientation", said.get("Orientation").asText()),
                new Fact("Caption", said.get("ImageDescription").asText()))) {
            assertTrue(facts.facts().contains(fact), fact + " in " + facts.facts());
        }
    }

    private Path picture(String name) throws IOException {
        return made(name, "-f", "lavfi", "-i", "testsrc=size=128x96:duration=1", "-frames:v", "1", "-update", "1");
    }

    private Path heic(String name) throws IOException {
        var file = folder.resolve(name);
        run("heif-enc", "-o", file.toString(), picture("source.png").toString());
        return file;
    }

    private static byte[] zip(String... namesAndTexts) throws IOException {
        var bytes = new ByteArrayOutputStream();
        try (var zip = new ZipOutputStream(bytes)) {
            for (int i = 0; i < namesAndTexts.length; i += 2) {
                var text = namesAndTexts[i + 1].getBytes(StandardCharsets.UTF_8);
                var entry = new ZipEntry(namesAndTexts[i]);
                if (i == 0) {
                    var crc = new java.util.zip.CRC32();
                    crc.update(text);
                    entry.setMethod(ZipEntry.STORED); // as EPUB and OpenDocument ask of the first
                    entry.setSize(text.length);
                    entry.setCrc(crc.getValue());
                }
                zip.putNextEntry(entry);
                zip.write(text);
            }
        }
        return bytes.toByteArray();
    }

    private FileFacts document(String name, byte[] bytes) throws IOException {
        return WORKERS.facts(Sort.DOCUMENT, name, name, new ByteArrayInputStream(bytes));
    }

    @Test
    void theTextOfDocumentsIsRead() throws IOException {
        var pdf = new ByteArrayOutputStream();
        try (var document = new PDDocument()) {
            document.getDocumentInformation().setTitle("Deed of the boat");
            var page = new PDPage();
            document.addPage(page);
            var second = new PDPage();
            document.addPage(second);
            try (var content = new PDPageContentStream(document, second)) {
                content.beginText();
                content.setFont(new PDType1Font(FontName.HELVETICA), 12);
                content.showText("The nets do not");
                content.endText();
            }
            try (var content = new PDPageContentStream(document, page)) {
                content.beginText();
                content.setFont(new PDType1Font(FontName.HELVETICA), 12);
                content.showText("The oars stay with the boat");
                content.endText();
            }
            document.save(pdf);
        }
        var facts = document("deed.pdf", pdf.toByteArray());
        assertEquals("Deed of the boat", facts.title());
        assertEquals(
                List.of(
                        new Paragraph(1, true, "The oars stay with the boat"),
                        new Paragraph(2, true, "The nets do not")),
                DocumentText.paragraphs(facts.text()));
        assertTrue(facts.facts().contains(new Fact("Pages", "2")));

        var office = new ByteArrayOutputStream();
        try (var document = new XWPFDocument()) {
            document.createParagraph().createRun().setText("Rehearsal at the light");
            document.write(office);
        }
        assertEquals(
                "Rehearsal at the light",
                document("a.docx", office.toByteArray()).text());

        var open = zip(
                "mimetype",
                "application/vnd.oasis.opendocument.text",
                "content.xml",
                "<office:document-content xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
                        + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\"><office:body><office:text>"
                        + "<text:p>Nets to mend</text:p></office:text></office:body></office:document-content>");
        assertEquals("Nets to mend", document("a.odt", open).text());

        var book = zip(
                "mimetype",
                "application/epub+zip",
                "META-INF/container.xml",
                "<container version=\"1.0\" xmlns=\"urn:oasis:names:tc:opendocument:xmlns:container\"><rootfiles>"
                        + "<rootfile full-path=\"b.opf\" media-type=\"application/oebps-package+xml\"/></rootfiles></container>",
                "b.opf",
                "<package xmlns=\"http://www.idpf.org/2007/opf\" version=\"3.0\"><metadata"
                        + " xmlns:dc=\"http://purl.org/dc/elements/1.1/\"><dc:title>Tides</dc:title></metadata><manifest>"
                        + "<item id=\"c\" href=\"c.xhtml\" media-type=\"application/xhtml+xml\"/></manifest>"
                        + "<spine><itemref idref=\"c\"/></spine></package>",
                "c.xhtml",
                "<html xmlns=\"http://www.w3.org/1999/xhtml\"><body><p>Low water at six</p></body></html>");
        assertEquals("Tides", document("a.epub", book).title());
        assertTrue(document("a.epub", book).text().contains("Low water at six"));
        assertEquals(
                "plain, with å",
                document("a.txt", "plain, with å".getBytes(StandardCharsets.UTF_8))
                        .text());
        assertEquals(
                "bold",
                document("a.html", "<html><body><b>bold</b></body></html>".getBytes(StandardCharsets.UTF_8))
                        .text());
        assertEquals(FileFacts.NONE, document("a.bin", new byte[] {0, 1, 2, 3}));
    }

    /** Whatever is in a file, the worker answers or ends; the next file is read. */
    @Test
    void damagedAndHostileFilesHarmNothingElse() throws IOException {
        var good = made("good.mp3", "-f", "lavfi", "-i", "sine=duration=1", "-metadata", "title=Good");
        var sample = Files.readAllBytes(good);
        var random = new Random(5);
        for (int i = 0; i < 40; i++) {
            var bytes = sample.clone();
            for (int hit = 0; hit < 20; hit++) {
                bytes[random.nextInt(Math.min(bytes.length, 2_000))] = (byte) random.nextInt();
            }
            for (var sort : Sort.values()) {
                try {
                    WORKERS.facts(sort, "x", "x.mp3", new ByteArrayInputStream(bytes));
                } catch (ProblemException told) {
                    assertTrue(!told.problem().advice().isEmpty());
                }
            }
        }
        // Much in a small file.
        var bomb = zip("mimetype", "application/epub+zip", "c.xhtml", "<p>" + " ".repeat(64 << 20));
        try {
            document("bomb.epub", bomb);
        } catch (ProblemException told) {
            assertTrue(!told.problem().advice().isEmpty());
        }
        assertEquals("Good", facts(Sort.SOUND, good).title());
    }

    @Test
    void aWorkerThatEndsIsToldAndReplaced() throws IOException {
        var good = made("good.flac", "-f", "lavfi", "-i", "sine=duration=20", "-metadata", "title=Good");
        facts(Sort.SOUND, good);
        var killing = new InputStream() {
            @Override
            public int read() {
                ProcessHandle.current()
                        .children()
                        .filter(child -> child.info().commandLine().orElse("").contains("WorkerMain")
                                || child.info().command().orElse("").endsWith("java"))
                        .forEach(ProcessHandle::destroyForcibly);
                return -1;
            }
        };
        var told = assertThrows(ProblemException.class, () -> WORKERS.facts(Sort.SOUND, "x.flac", "x.flac", killing));
        assertEquals("x.flac", told.problem().subject());
        assertEquals("Good", facts(Sort.SOUND, good).title());
    }

    @Test
    void aFileThatBreaksOffWhileItIsReadIsNotCalledDamaged() throws IOException {
        var broken = new InputStream() {
            @Override
            public int read() throws IOException {
                throw new IOException("cable");
            }
        };
        var e = assertThrows(IOException.class, () -> WORKERS.facts(Sort.SOUND, "x.mp3", "x.mp3", broken));
        assertEquals("cable", e.getMessage());
    }

    @Test
    void whatIsLockedOrTooLargeIsNotCalledDamaged() throws IOException {
        var pdf = new ByteArrayOutputStream();
        try (var document = new PDDocument()) {
            document.addPage(new PDPage());
            document.protect(new StandardProtectionPolicy("owner", "user", new AccessPermission()));
            document.save(pdf);
        }
        var locked = assertThrows(ProblemException.class, () -> document("deed.pdf", pdf.toByteArray()));
        assertTrue(
                locked.problem().what().contains("locked with a password"),
                locked.problem().sentence());
        var large = assertThrows(ProblemException.class, () -> document("a.txt", new byte[(64 << 20) + 1]));
        assertTrue(
                large.problem().what().contains("larger than 64 MB"),
                large.problem().sentence());
    }

    /** Only what the worker takes counts, not what a phone takes to give the file. */
    @Test
    void aFileThatComesSlowlyIsReadAllTheSame() throws IOException {
        var impatient = new Workers(Duration.ofSeconds(5));
        var sample = Files.readAllBytes(
                made("slow.flac", "-f", "lavfi", "-i", "sine=duration=1", "-metadata", "title=Slow"));
        try {
            impatient.facts(Sort.SOUND, "w.flac", "w.flac", new ByteArrayInputStream(sample)); // started and warm
            var slow = new ByteArrayInputStream(sample) {
                @Override
                public synchronized int read(byte[] buffer, int offset, int length) {
                    try {
                        Thread.sleep(pos == 0 ? 6_000 : 0);
                    } catch (InterruptedException e) {
                        Thread.currentThread().interrupt();
                    }
                    return super.read(buffer, offset, length);
                }
            };
            assertEquals(
                    "Slow",
                    impatient.facts(Sort.SOUND, "s.flac", "s.flac", slow).title());
        } finally {
            impatient.close();
        }
    }
}
