package app.custodex.link;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.ProblemException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import java.util.zip.GZIPOutputStream;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Folders and archives as they come: links, pipes, names that want out, and what goes away while it is looked at. */
class PlainSourcesTest {
    @TempDir
    Path folder;

    private FolderLink folderLink(Path root) {
        return new FolderLink("FOLDER-1", "Card", root, () -> folder.resolve("strongroom"));
    }

    private static List<String> names(List<Listed> listed) {
        return listed.stream().map(PlainSourcesTest::name).sorted().toList();
    }

    private static String name(Listed listed) {
        return switch (listed) {
            case Listed.File file -> "file " + file.path().text();
            case Listed.Folder sub -> "folder " + sub.path().text();
            case Listed.Link link -> "link " + link.path().text() + " to " + link.target();
            case Listed.Closed closed -> "closed " + closed.path().text();
            case Listed.Refused refused -> "refused";
        };
    }

    private static byte[] read(PhoneLink link, String path, long from) throws IOException {
        try (var content = link.open(new PhonePath(path), from)) {
            return content.stream().readAllBytes();
        }
    }

    @Test
    void aFolderListsWhatIsThereAndFollowsNothing() throws Exception {
        Files.createDirectories(folder.resolve("strongroom/objects"));
        Files.createDirectories(folder.resolve("sub"));
        Files.writeString(folder.resolve("note\nof two lines"), "x");
        Files.createSymbolicLink(folder.resolve("way out"), Path.of("/etc/passwd"));
        assertEquals(
                0,
                new ProcessBuilder("mkfifo", folder.resolve("pipe").toString())
                        .start()
                        .waitFor());
        try (var link = folderLink(folder)) {
            assertTrue(link.status().readiness().ready());
            assertEquals(
                    List.of(
                            "file note\nof two lines",
                            "folder sub",
                            "link way out to /etc/passwd",
                            "refused",
                            "refused"),
                    names(link.list(PhonePath.ROOT)),
                    "the pipe and the strongroom are not taken");
        }
    }

    @Test
    void aFolderThatWentAwayIsLostAndAFileThatWentAwayIsAnItem() throws Exception {
        var card = Files.createDirectories(folder.resolve("card"));
        Files.writeString(card.resolve("a"), "0123456789");
        try (var link = folderLink(card)) {
            assertArrayEquals("456789".getBytes(StandardCharsets.US_ASCII), read(link, "a", 4));
            assertThrows(LinkException.Item.class, () -> link.open(new PhonePath("b"), 0));
            Files.delete(card.resolve("a"));
            Files.delete(card);
            assertThrows(LinkException.Lost.class, () -> link.list(PhonePath.ROOT));
            assertFalse(link.status().readiness().ready());
            Files.createDirectories(card);
            assertTrue(link.status().readiness().ready(), "the drive is back");
        }
    }

    @Test
    void namesInAnArchiveThatWantOutAreRefusedAndTheRestIsTaken() throws Exception {
        var file = folder.resolve("hostile.zip");
        try (var zip = new ZipArchiveOutputStream(file)) {
            for (var name : List.of("../../evil", "/etc/absolute", "./good/a", "good/../../evil2", "good/b")) {
                zip.putArchiveEntry(new ZipArchiveEntry(name));
                zip.write(name.getBytes(StandardCharsets.UTF_8));
                zip.closeArchiveEntry();
            }
        }
        try (var link = new ArchiveLink("ARCHIVE-1", "Old", file)) {
            assertEquals(List.of("folder etc", "folder good", "refused", "refused"), names(link.list(PhonePath.ROOT)));
            assertEquals(List.of("file good/a", "file good/b"), names(link.list(new PhonePath("good"))));
            assertEquals("./good/a", new String(read(link, "good/a", 0), StandardCharsets.UTF_8));
            assertEquals("good/b".substring(3), new String(read(link, "good/b", 3), StandardCharsets.UTF_8));
        }
    }

    @Test
    void aTarKeepsItsLinksAsLinksAndAFolderWinsOverAFileOfItsName() throws Exception {
        var file = folder.resolve("old.tar");
        try (var tar = new TarArchiveOutputStream(Files.newOutputStream(file))) {
            var link = new TarArchiveEntry("pointer", TarConstants.LF_SYMLINK);
            link.setLinkName("../secret");
            tar.putArchiveEntry(link);
            tar.closeArchiveEntry();
            put(tar, "double", "as a file");
            put(tar, "double/inside", "as a folder");
        }
        try (var link = new ArchiveLink("ARCHIVE-2", "Old", file)) {
            var root = link.list(PhonePath.ROOT);
            assertEquals(
                    List.of("file double (2)", "folder double", "link pointer to ../secret", "refused"), names(root));
            assertInstanceOf(
                    Listed.File.class, link.list(new PhonePath("double")).getFirst());
            assertEquals("folder", new String(read(link, "double/inside", 5), StandardCharsets.UTF_8));
            assertEquals("as a file", new String(read(link, "double (2)", 0), StandardCharsets.UTF_8));
            assertThrows(LinkException.Item.class, () -> link.open(new PhonePath("pointer"), 0));
        }
    }

    private static void put(TarArchiveOutputStream tar, String name, String text) throws IOException {
        var bytes = text.getBytes(StandardCharsets.UTF_8);
        var entry = new TarArchiveEntry(name);
        entry.setSize(bytes.length);
        tar.putArchiveEntry(entry);
        tar.write(bytes);
        tar.closeArchiveEntry();
    }

    @Test
    void aTornTarGivesWhatLiesBeforeTheTear() throws Exception {
        var whole = folder.resolve("whole.tar");
        try (var tar = new TarArchiveOutputStream(Files.newOutputStream(whole))) {
            put(tar, "first", "1".repeat(3_000));
            put(tar, "second", "2".repeat(3_000));
            put(tar, "third", "3".repeat(3_000));
        }
        var torn = folder.resolve("torn.tar");
        Files.write(torn, Arrays.copyOf(Files.readAllBytes(whole), 512 + 3_072 + 512 + 1_000));

        ArchiveLink.require(torn);
        try (var link = new ArchiveLink("ARCHIVE-3", "Old", torn)) {
            assertEquals(List.of("file first", "file second", "refused"), names(link.list(PhonePath.ROOT)));
            assertEquals("1".repeat(3_000), new String(read(link, "first", 0), StandardCharsets.US_ASCII));
            assertThrows(LinkException.Item.class, () -> read(link, "second", 0));
        }
    }

    @Test
    void whatIsNoArchiveOrPackedAsAWholeIsRefusedBeforeItGetsABay() throws Exception {
        var text = Files.writeString(folder.resolve("text.tar"), "no archive ".repeat(200));
        var empty = Files.createFile(folder.resolve("empty.zip"));
        var packed = folder.resolve("card.tar.gz");
        try (var tar = new TarArchiveOutputStream(new GZIPOutputStream(Files.newOutputStream(packed)))) {
            put(tar, "first", "1");
        }
        var pipe = folder.resolve("pipe");
        assertEquals(0, new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor());
        for (var file : List.of(text, empty, pipe)) {
            var problem = assertThrows(ProblemException.class, () -> ArchiveLink.require(file), file.toString());
            assertEquals("It is not a ZIP or TAR archive", problem.problem().what());
        }
        var problem = assertThrows(ProblemException.class, () -> ArchiveLink.require(packed));
        assertTrue(
                problem.problem().what().contains("packed with gz"),
                problem.problem().what());
    }

    @Test
    void everyStepOfEverySourceSaysWhatToDo() {
        for (var family : Family.values()) {
            var steps = family.steps();
            assertFalse(steps.isEmpty(), family.label());
            assertEquals(
                    steps.size(), steps.stream().collect(Collectors.toSet()).size());
            assertTrue(steps.stream()
                    .noneMatch(
                            step -> step.instruction().isBlank() || step.brief().isBlank()));
        }
    }
}
