package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Digests;
import app.custodex.base.ProblemException;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** Transcripts on paper, read by others than those who wrote them. */
class PdfTranscriptTest extends ExtractionCase {
    private Path transcript(ExtractResult result, String in) {
        return result.files().stream()
                .filter(file -> file.toString().endsWith(".pdf"))
                .filter(file -> file.getFileName().toString().contains(in))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aTranscriptForEvidenceIsWholeAndFitForTheArchive() throws IOException {
        var result = write(KindGroup.MESSAGES, "pdf:evidence=yes");
        assertEquals(List.of(), result.problems());
        var file = transcript(result, "script");
        PdfReferees.checkForm(file);
        assertEquals(List.of(), PdfReferees.brokenArchiveRules(file));
        var text = PdfReferees.text(file);
        for (var part : List.of(
                "Docket\n\n0012",
                "all 5 that the phone holds of it",
                "in Europe/Oslo, each with its distance from UTC",
                "Friday, 2025-11-14",
                "of 5 · 21:04:11 UTC+01:00 · received from +447700900112",
                "5 of 5 · 21:05:50",
                "=cmd|' /C calc'!A0\nline two 海 👨‍👩‍👧",
                "Source: talk#m2",
                "Attachment: gone.jpg\nThe phone no longer has it.",
                "attachments that the phone no longer has: 1")) {
            assertTrue(text.contains(part), () -> part + " in\n" + text.substring(0, 6000));
        }
        assertTrue(squeezed(text).contains("SHA-512:" + Digests.of("parts/wall & \"gate\" #1?.jpg".getBytes("UTF-8"))));
        assertTrue(squeezed(text).contains(squeezed(SCRIPT)), "as it was written");
        int xs = (int) squeezed(text).chars().filter(c -> c == 'x').count();
        assertTrue(xs >= 1_000_000, "the whole of a long message: " + xs);
        var pages = Pattern.compile("Page (\\d+) of (\\d+)").matcher(text);
        int count = 0;
        while (pages.find()) {
            assertEquals(++count, Integer.parseInt(pages.group(1)));
        }
        assertTrue(text.contains("Page " + count + " of " + count), "every page is numbered");
        // What lies beside names the digests of the file and of what it was read from.
        var beside = result.files().stream()
                .filter(each -> each.toString().endsWith(".sha512"))
                .filter(each -> each.toString().contains("script"))
                .findFirst()
                .orElseThrow();
        var digests = Files.readString(beside);
        assertTrue(digests.startsWith(Digests.of(Files.readAllBytes(file)) + "  " + file.getFileName()), digests);
        assertTrue(digests.contains("# source " + Digests.of("talk".getBytes("UTF-8")) + "  talk"), digests);
    }

    private static String squeezed(String text) {
        return text.replaceAll("Page \\d+ of \\d+|\\s", "");
    }

    @Test
    void everyScriptCanBeReadAndSearched() throws IOException {
        var texts = List.of(
                "Grüße, ærø",
                "Ελληνικά",
                "Русский",
                "שלום עולם",
                "مرحبا بالعالم",
                "नमस्ते दुनिया",
                "বাংলা ভাষা",
                "தமிழ் மொழி",
                "สวัสดีชาวโลก",
                "海风吹来",
                "ひらがな",
                "한국어",
                "ქართული",
                "Հայերեն",
                "አማርኛ",
                "ગુજરાતી",
                "ಕನ್ನಡ",
                "മലയാളം",
                "తెలుగు",
                "සිංහල",
                "ខ្មែរ",
                "ລາວ",
                "မြန်မာ",
                "བོད་",
                "ਪੰਜਾਬੀ",
                "ଓଡ଼ିଆ",
                "∑ → ♞ ⠿",
                "😀",
                "👩🏽‍🚀",
                "🇳🇴",
                "1️⃣",
                "❤️",
                "ᚠ");
        var breaker = new app.custodex.extract.pdf.TextBreaker(new app.custodex.extract.pdf.Typefaces());
        var file = folder.resolve("scripts.pdf");
        try (var paper = new app.custodex.extract.pdf.PaperDocument(breaker, "Scripts", false);
                var out = Files.newOutputStream(file)) {
            for (var text : texts) {
                paper.write("P", app.custodex.extract.pdf.Ink.TEXT, text);
            }
            paper.save(out, "a test", STORM);
        }
        assertEquals(List.of(), PdfReferees.brokenArchiveRules(file));
        var read = PdfReferees.text(file);
        for (var text : texts) {
            if (!text.equals("ᚠ")) {
                assertTrue(squeezed(read).contains(squeezed(text)), () -> text + " in\n" + read);
            }
        }
        assertTrue(read.contains("[U+16A0]"), "what no font has is given by its number");
    }

    @Test
    void whatIsBlackedOutIsNowhereInTheFile() throws IOException {
        var result = write(KindGroup.MESSAGES, "pdf:evidence=yes:file-each=no:black-out=halvard rook, quiet");
        var file = transcript(result, "Messages");
        assertEquals(List.of(), PdfReferees.brokenArchiveRules(file));
        var text = PdfReferees.text(file);
        var lower = squeezed(text).toLowerCase(java.util.Locale.ROOT);
        for (var gone : List.of("halvard", "rook", "7700900112", "windisover", "مرحبا", "quiet", "gate")) {
            assertFalse(lower.contains(gone), gone + " in\n" + text);
        }
        assertTrue(text.contains(Redaction.BLACK));
        assertTrue(text.contains("line two"), "what the owner said is still there");
        assertTrue(Pattern.compile("Blacked out\\s+\\d+ places").matcher(text).find(), text);
        var raw = Files.readString(file, java.nio.charset.StandardCharsets.ISO_8859_1);
        assertFalse(raw.contains("Halvard"));
        assertThrows(ProblemException.class, () -> write(KindGroup.MESSAGES, "pdf:black-out=!!!"));
    }

    @Test
    void aPlainTranscriptNamesWhatItCannotShow() throws IOException {
        var result = write(KindGroup.MESSAGES, "pdf:pictures=no");
        assertEquals(
                3,
                result.files().stream()
                        .filter(file -> file.toString().endsWith(".pdf"))
                        .count());
        assertTrue(result.leftOut().contains("attachments, which are named only: 1"), result.leftOut()::toString);
        var text = PdfReferees.text(transcript(result, "script"));
        assertFalse(text.contains("SHA-512"));
        assertTrue(text.contains("Halvard Rook (+447700900112)"), text.substring(0, 500));
        assertEquals(List.of(), PdfReferees.brokenArchiveRules(transcript(result, "script")));
    }
}
