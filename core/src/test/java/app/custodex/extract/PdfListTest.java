package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Digests;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Tables on paper, read by others than those who wrote them. */
class PdfListTest extends ExtractionCase {
    private static String squeezed(String text) {
        return text.replaceAll("\\s", "");
    }

    @ParameterizedTest
    @EnumSource(names = {"CALLS", "VOICEMAIL", "EVENTS", "NOTES", "WEB", "PICTURES", "MUSIC", "OTHER"})
    void everyListForEvidenceIsFitForTheArchive(KindGroup group) throws IOException {
        var result = write(group, "pdf:evidence=yes");
        assertTrue(
                result.problems().stream().allMatch(problem -> problem.subject().contains("unreadable")),
                () -> result.problems().toString());
        assertEquals(List.of(), PdfReferees.brokenArchiveRules(result.files().getFirst()));
        var text = PdfReferees.text(result.files().getFirst());
        for (var part : List.of("Where it comes from", "Docket", "1 of " + result.things())) {
            assertTrue(text.contains(part), () -> part + " in\n" + text);
        }
    }

    @Test
    void aCallIsToldWithAllThatIsKnownOfIt() throws IOException {
        var evidence = write(KindGroup.CALLS, "pdf:evidence=yes");
        var text = squeezed(PdfReferees.text(evidence.files().getFirst()));
        for (var part : List.of(
                "2025-11-14 21:04:11 UTC+01:00",
                "Halvard Rook",
                "+447700900112",
                "missed",
                "1:02:05",
                "calls#1",
                "Page 2 of 2")) {
            assertTrue(text.contains(squeezed(part)), () -> part + " in " + text);
        }
        var digest = Digests.of("calls".getBytes(StandardCharsets.UTF_8));
        assertTrue(text.contains(digest), "of the file that it was read from");
        assertEquals(2, evidence.files().size(), "the digests lie beside it");
        var plain = PdfReferees.text(write(KindGroup.CALLS, "pdf").files().getFirst());
        assertFalse(plain.contains("calls#1"), plain);
        assertTrue(plain.contains("1 in all. Times in Europe/Oslo."), plain);
    }

    @Test
    void whatIsOnlyNamedIsCountedOnce() throws IOException {
        assertEquals(
                List.of("attachments, which are named only: 1"),
                write(KindGroup.NOTES, "pdf").leftOut());
    }
}
