package app.custodex.extract.pdf;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.extract.DiskFolder;
import app.custodex.extract.Origin;
import app.custodex.extract.PdfReferees;
import app.custodex.extract.WrittenFiles;
import app.custodex.extract.pictures.PictureCoder;
import app.custodex.media.Picture;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Pages, tables and the structure of documents, as Poppler and veraPDF see them. */
class PaperDocumentTest {
    private static final Instant AT = Instant.parse("2025-11-20T09:00:00Z");

    @TempDir
    private Path folder;

    private final Typefaces typefaces = new Typefaces();
    private final TextBreaker breaker = new TextBreaker(typefaces);

    @AfterEach
    void close() throws IOException {
        typefaces.close();
    }

    private interface Content {
        void writeTo(PaperDocument paper) throws IOException;
    }

    private Path written(boolean wide, Content content) throws IOException {
        var file = folder.resolve("made.pdf");
        try (var paper = new PaperDocument(breaker, "A title & <more>", wide);
                var out = Files.newOutputStream(file)) {
            content.writeTo(paper);
            paper.save(out, "a test", AT);
        }
        PdfReferees.checkForm(file);
        assertEquals(List.of(), PdfReferees.brokenArchiveRules(file));
        return file;
    }

    @Test
    void aTableGoesOverPagesWithItsHeadings() throws IOException {
        var file = written(true, paper -> {
            var widths = new double[] {100, 200, paper.width() - 300};
            paper.open("Table");
            paper.headings(List.of("First", "Second heading", "Third"), widths);
            for (int i = 0; i < 120; i++) {
                paper.row("TD", Ink.CELL, List.of("row " + i, "two\nlines", ""), widths);
            }
            paper.close("Table");
            paper.write("P", Ink.TEXT, "After the table.");
        });
        var pages = PdfReferees.text(file).split("\f");
        assertTrue(pages.length > 4, pages.length + " pages");
        for (int i = 0; i < pages.length; i++) {
            assertTrue(pages[i].contains("Second heading"), "on every page");
            assertTrue(pages[i].contains("Page " + (i + 1) + " of " + pages.length), pages[i]);
            assertTrue(pages[i].contains("A title & <more>"), pages[i]);
        }
        for (int i = 0; i < 120; i++) {
            var row = "row " + i + "\n";
            assertEquals(2, String.join("", pages).split(row, -1).length, "once: " + row);
        }
        var structure = PdfReferees.structure(file);
        assertEquals(3, structure.split("\\n *TH\\b", -1).length - 1, "headings that are repeated are told once");
        assertEquals(121, structure.split("\\n *TR\\b", -1).length - 1);
    }

    @Test
    void aCellThatIsHigherThanAPageGoesOn() throws IOException {
        var file = written(false, paper -> {
            paper.open("Table");
            paper.row("TD", Ink.CELL, List.of("left", "line\n".repeat(200) + "end of it"), new double[] {100, 300});
            paper.close("Table");
        });
        var text = PdfReferees.text(file);
        assertEquals(200, text.split("line\n", -1).length - 1);
        assertTrue(text.contains("end of it"));
        assertEquals(4, text.split("\f").length);
    }

    @Test
    void whatIsWrittenInFrontStandsInFrontAndIsReadFirst() throws IOException {
        var file = written(false, paper -> {
            paper.write("H1", Ink.TITLE, "The body");
            paper.front();
            paper.open("Sect");
            paper.write("H1", Ink.TITLE, "The cover");
            paper.close("Sect");
        });
        var text = PdfReferees.text(file);
        assertTrue(text.indexOf("The cover") < text.indexOf("The body"), text);
        assertTrue(text.contains("Page 1 of 2"));
        var structure = PdfReferees.structure(file);
        assertTrue(structure.indexOf("The cover") < structure.indexOf("The body"), structure);
    }

    @Test
    void picturesStandSideBySideAndSayWhatTheyShow() throws IOException {
        var file = written(false, paper -> {
            var grey = ByteBuffer.allocate(4 * 40 * 30);
            while (grey.hasRemaining()) {
                grey.putInt(0x808080ff);
            }
            var jpeg = PictureCoder.jpeg(new Picture(40, 30, false, false, 40, 30, grey.flip()), 80);
            var picture = paper.store(jpeg);
            var shown = new PaperDocument.Captioned(Optional.of(picture), "harbour.jpg\n2025-11-14");
            for (int i = 0; i < 12; i++) {
                paper.row(List.of(shown, new PaperDocument.Captioned(Optional.empty(), "gone.jpg")), 2, 150);
            }
            paper.show(picture, "The gate", 20, 100, 100);
        });
        var text = PdfReferees.text(file);
        assertEquals(12, text.split("harbour.jpg", -1).length - 1);
        assertEquals(12, text.split("gone.jpg", -1).length - 1);
        assertTrue(PdfReferees.structure(file).contains("Figure"));
        assertTrue(text.split("\f").length > 2, "they go on over the page");
    }

    @Test
    void aPartIsClosedAsItWasOpened() throws IOException {
        try (var paper = new PaperDocument(breaker, "Parts", false)) {
            paper.open("Table");
            assertThrows(IllegalStateException.class, () -> paper.close("Sect"));
        }
    }

    @Test
    void aDocumentThatIsFullIsFollowedByAnother() throws IOException {
        var origin = new Origin("", List.of(), "a test", AT);
        var files = new WrittenFiles();
        var ended = new int[1];
        var out = new DiskFolder(folder.resolve("out"), files);
        try (var volumes = new Volumes(out, "List\u0000", false, origin, breaker, paper -> ended[0]++)) {
            for (int i = 0; i < 25_000; i++) {
                if (volumes.begins()) {
                    volumes.current().write("P", Ink.TEXT, "begins at " + i);
                }
                volumes.added();
            }
            var written = volumes.end();
            assertEquals(2, written.size());
            assertEquals(2, ended[0]);
            assertEquals("List.pdf", written.getFirst().file().getFileName().toString());
            assertEquals(
                    "List, part 2.pdf", written.getLast().file().getFileName().toString());
            assertTrue(PdfReferees.text(written.getLast().file()).contains("begins at 20000"));
            assertEquals(written.getFirst().sha512(), files.all().getFirst().sha512());
        }
    }

    @Test
    void itsPagesCanBeLookedAt() throws IOException {
        var file = written(true, paper -> {
            paper.write("P", Ink.TEXT, "one");
            paper.need(10_000);
            paper.write("P", Ink.TEXT, "two");
        });
        var pages = PagePictures.of(Files.readAllBytes(file), 1, 1_200);
        assertEquals(1, pages.size());
        assertEquals(1_200, pages.getFirst().width(), 1);
        assertTrue(pages.getFirst().height() < 900, "its longer side lies below");
        var bytes = new byte[pages.getFirst().bgra().remaining()];
        pages.getFirst().bgra().get(bytes);
        int dark = 0;
        for (byte each : bytes) {
            dark += (each & 0xff) < 100 ? 1 : 0;
        }
        assertTrue(dark > 20, "something is drawn");
        assertThrows(IOException.class, () -> PagePictures.of(new byte[] {1, 2, 3}, 1, 420));
    }
}
