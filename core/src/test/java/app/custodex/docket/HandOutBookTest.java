package app.custodex.docket;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.RealDisk;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The list of what was written outside of the strongroom. */
class HandOutBookTest {
    private static final Instant AT = Instant.parse("2026-01-20T09:00:00Z");

    @TempDir
    private Path folder;

    private HandOutBook book() {
        return new HandOutBook(folder.resolve("handed-out.jsonl"), new RealDisk());
    }

    private static List<HandOut.File> files(int count) {
        return IntStream.range(0, count)
                .mapToObj(i -> new HandOut.File("/out/" + i, i, "ab".repeat(64)))
                .toList();
    }

    @Test
    void everyFileIsFoundAgainWhoeverWroteIt() throws IOException {
        var one = book();
        one.end(one.begin(Optional.of(3), "PB-1", AT, Path.of("/out")), files(2_500));
        var other = book(); // another program
        other.end(other.begin(Optional.of(4), "PB-1", AT.plusSeconds(5), Path.of("/out")), List.of());
        assertEquals(2_500, one.of(3).getFirst().files().size());
        assertEquals(files(2_500), one.of(3).getFirst().files(), "in their order");
        assertTrue(one.of(3).getFirst().complete());
        assertEquals(
                List.of(4, 3),
                one.all().stream().map(each -> each.docket().orElseThrow()).toList(),
                "the newest first");
        assertTrue(one.of(4).getFirst().complete());
    }

    @Test
    void whatWasKilledIsNotForgotten() throws IOException {
        book().begin(Optional.empty(), "PB-2", AT, Path.of("relative/out"));
        var left = book().all().getFirst();
        assertFalse(left.complete());
        assertTrue(Path.of(left.folder()).isAbsolute());
        assertEquals(List.of(), left.files());
    }

    @Test
    void aTornLineCostsItselfAndIsTold() throws IOException {
        var book = book();
        book.end(book.begin(Optional.of(3), "PB-1", AT, Path.of("/out")), files(1));
        Files.writeString(folder.resolve("handed-out.jsonl"), "{\"docket\":3,\"pho\n", StandardOpenOption.APPEND);
        assertEquals(1, book.of(3).getFirst().files().size());
        assertEquals(1, book.problems().size());
    }
}
