package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.model.Album;
import app.custodex.model.Attachment;
import app.custodex.model.MediaFile;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

final class FoldsTest {
    @TempDir
    private Path folder;

    private static Thing file(String item, ThingKind kind) {
        return new MediaFile(
                new ThingId(item, ""),
                kind,
                "",
                item,
                Optional.empty(),
                1,
                Optional.empty(),
                Optional.empty(),
                List.of(),
                "");
    }

    private static Thing album(String key, Album.Use use, String... items) {
        var pictures = Arrays.stream(items)
                .map(item -> new Attachment(item, "", "image/jpeg"))
                .toList();
        return new Album(new ThingId("albums", key), "", "", use, pictures);
    }

    private static int number(Catalogue catalogue, String item) throws IOException {
        return (int) catalogue.find(new ThingId(item, "")).orElseThrow().number();
    }

    @Test
    void aBurstStandsBehindItsFirstAndAClipBehindItsPicture() throws Exception {
        var phone = new WrittenReader(folder);
        for (var name : List.of("a", "b", "c", "d", "e", "f")) {
            phone.write(name, file(name, ThingKind.PICTURE));
        }
        phone.write("clip", file("clip", ThingKind.VIDEO));
        phone.write(
                "albums",
                album("1", Album.Use.BURST, "a", "b", "gone", "", "c"),
                album("2", Album.Use.CLIP, "d", "clip"),
                album("3", Album.Use.ALBUM, "e", "f"),
                album("4", Album.Use.BURST, "f"));
        try (var draft = phone.draft(Optional.empty(), 1);
                var catalogue = draft.handOver()) {
            var folds = catalogue.folds();
            var burst = folds.behind(number(catalogue, "a")).orElseThrow();
            assertTrue(burst.burst());
            assertEquals(List.of(number(catalogue, "b"), number(catalogue, "c")), burst.numbers());
            var clip = folds.behind(number(catalogue, "d")).orElseThrow();
            assertFalse(clip.burst());
            assertEquals(List.of(number(catalogue, "clip")), clip.numbers());
            assertEquals(3, folds.folded().cardinality());
            for (var alone : List.of("e", "f", "b")) {
                assertEquals(Optional.empty(), folds.behind(number(catalogue, alone)), alone);
            }
        }
    }

    /** What a stranger's phone says may go round in a circle; every picture can still be reached. */
    @Test
    void nothingVanishesInACircle() throws Exception {
        var phone = new WrittenReader(folder);
        for (var name : List.of("a", "b", "c")) {
            phone.write(name, file(name, ThingKind.PICTURE));
        }
        phone.write(
                "albums",
                album("1", Album.Use.BURST, "a", "b"),
                album("2", Album.Use.BURST, "b", "c"),
                album("3", Album.Use.BURST, "c", "a"),
                album("4", Album.Use.CLIP, "a", "c"));
        try (var draft = phone.draft(Optional.empty(), 1);
                var catalogue = draft.handOver()) {
            var folds = catalogue.folds();
            for (var name : List.of("a", "b", "c")) {
                int number = number(catalogue, name);
                boolean behindAnother = folds.others().values().stream()
                        .anyMatch(fold -> fold.numbers().contains(number));
                assertEquals(folds.folded().get(number), behindAnother, name);
            }
            for (int leader : folds.others().keySet()) {
                assertFalse(folds.folded().get(leader), "whoever leads is shown");
            }
        }
    }
}
