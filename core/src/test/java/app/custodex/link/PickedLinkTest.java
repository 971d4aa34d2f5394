package app.custodex.link;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files and folders that somebody picked on this computer. */
class PickedLinkTest {
    @TempDir
    private Path folder;

    private Path outside = Path.of("");

    @BeforeEach
    void write() throws IOException {
        outside = Files.createDirectory(folder.resolve("outside"));
        Files.writeString(outside.resolve("song.mp3"), "one");
        Files.createDirectories(folder.resolve("album/disc 1"));
        Files.writeString(folder.resolve("album/disc 1/song.mp3"), "two");
        Files.writeString(folder.resolve("album/song.mp3"), "three");
        Files.createSymbolicLink(folder.resolve("album/way out"), outside);
        Files.writeString(folder.resolve("not picked.txt"), "secret");
    }

    private PickedLink picked(Path... paths) throws IOException {
        return new PickedLink("loose", "Loose", List.of(paths), () -> folder.resolve("strongroom"));
    }

    private static List<String> names(PickedLink link, String of) throws LinkException {
        return link.list(new PhonePath(of)).stream()
                .map(listed -> listed.path().text())
                .toList();
    }

    private static String read(PickedLink link, String path) throws IOException {
        try (var content = link.open(new PhonePath(path), 0)) {
            return new String(content.stream().readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void eachLiesAtTheTopUnderItsOwnName() throws IOException {
        try (var link =
                picked(outside.resolve("song.mp3"), folder.resolve("album/song.mp3"), folder.resolve("album"))) {
            assertTrue(link.status().readiness().ready());
            assertEquals(List.of("album", "song (2).mp3", "song.mp3"), names(link, ""));
            assertEquals("one", read(link, "song.mp3"));
            assertEquals("three", read(link, "song (2).mp3"));
            assertEquals(List.of("album/disc 1", "album/song.mp3", "album/way out"), names(link, "album"));
            assertEquals("two", read(link, "album/disc 1/song.mp3"));
            assertInstanceOf(
                    Listed.Link.class, link.list(new PhonePath("album")).getLast(), "which is not followed");
        }
    }

    @Test
    void whatWasNotPickedIsNotRead() throws IOException {
        try (var link = picked(folder.resolve("album/song.mp3"))) {
            assertEquals(List.of("song.mp3"), names(link, ""));
            assertThrows(LinkException.class, () -> link.open(new PhonePath("not picked.txt"), 0));
            assertThrows(LinkException.class, () -> link.list(new PhonePath("album")));
            Files.delete(folder.resolve("album/song.mp3"));
            assertInstanceOf(Listed.Refused.class, link.list(PhonePath.ROOT).getFirst());
        }
        assertThrows(NoSuchFileException.class, () -> picked(folder.resolve("nothing")));
    }

    @Test
    void theStrongroomIsLeftOut() throws IOException {
        Files.createDirectory(folder.resolve("strongroom"));
        try (var link = picked(folder.resolve("strongroom"))) {
            assertInstanceOf(Listed.Refused.class, link.list(PhonePath.ROOT).getFirst());
        }
    }
}
