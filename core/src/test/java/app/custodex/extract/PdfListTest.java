package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Digests;
import app.custodex.catalogue.WrittenReader;
import app.custodex.model.Bookmark;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
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
    void anItemThatIsNotWhatWasSavedIsTold() throws IOException {
        var phone = new WrittenReader(folder);
        phone.write(
                "swapped",
                new Bookmark(id("swapped", "1"), "", "Tides", "https://example.net/", "", false, Optional.empty()));
        try (var other = phone.catalogue(Optional.empty(), 1)) {
            var result = Written.all(KindGroup.WEB, "pdf:evidence=yes", other, folder.resolve("other"));
            assertEquals(
                    "It is not what was saved: its digest is another one",
                    result.problems().getFirst().what());
        }
    }

    @Test
    void whatIsOnlyNamedIsCountedOnce() throws IOException {
        assertEquals(
                List.of("attachments that the phone no longer has: 1", "attachments, which are named only: 1"),
                write(KindGroup.MESSAGES, "pdf:pictures=no").leftOut());
    }

    @Test
    void aNoteStandsThereWithItsPicture() throws IOException {
        var result = write(KindGroup.NOTES, "pdf:evidence=yes");
        assertEquals(List.of(), result.leftOut());
        var text = squeezed(PdfReferees.text(result.files().getFirst()));
        for (var part : List.of(
                "Leak", "Two planks up", "1 of 1 · 2025-11-14 21:04:11 UTC+01:00 · in Boat/../..", "Source: notes#1")) {
            assertTrue(text.contains(squeezed(part)), () -> part + " in " + text);
        }
        assertTrue(text.contains(Digests.of("notes/leak.jpg".getBytes(StandardCharsets.UTF_8))));
        assertEquals(1, PdfReferees.pictures(result.files().getFirst()));
    }

    @Test
    void aContactSheetShowsWhatCanBeShownAndNamesTheRest() throws IOException {
        var result = write(KindGroup.PICTURES, "contact-sheet:columns=3");
        var sheet = result.files().getFirst();
        assertEquals(List.of(), PdfReferees.brokenArchiveRules(sheet));
        var text = PdfReferees.text(sheet);
        for (var name : List.of("a.jpg", "b.jpg", "c.jpg", "2025-11-14 21:04")) {
            assertTrue(text.contains(name), text);
        }
        assertEquals(1, PdfReferees.pictures(sheet));
        assertEquals(List.of("pictures that can't be shown, which are named only: 2"), result.leftOut());
    }
}
