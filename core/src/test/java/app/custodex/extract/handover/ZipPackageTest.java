package app.custodex.extract.handover;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;

import app.custodex.base.Digests;
import app.custodex.extract.Material;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A package in one file, read by the platform's own reader, which had no part in writing it. */
class ZipPackageTest {
    @TempDir
    private Path folder;

    private final IndexedFiles files = new IndexedFiles(mock(Material.class));

    private ZipPackage open() throws IOException {
        return ZipPackage.open(folder, "../Fenna's: phone", Optional.empty(), files);
    }

    private List<String> names(Path zip) throws IOException {
        try (var read = new ZipFile(zip.toFile())) {
            var names = new ArrayList<String>();
            read.entries().asIterator().forEachRemaining(entry -> names.add(entry.getName()));
            return names;
        }
    }

    @Test
    void namesAreSafeAndKeepApartWhateverTheirCase() throws IOException {
        try (var zip = open()) {
            var root = zip.root();
            for (var name : List.of("../up.txt", "a/b.txt", "A_B.txt", "CON.txt", "CON.txt", "con.TXT")) {
                root.original(name, new ByteArrayInputStream(new byte[] {1}), Instant.parse("2025-11-14T20:04:00Z"));
            }
            root.folder("Album").text("x", ".txt", text -> text.write("one"));
            root.folder("album").text("x", ".txt", text -> text.write("two"));
            root.sharedFolder("Shared").text("x", ".txt", text -> text.write("1"));
            root.sharedFolder("Shared").text("X", ".txt", text -> text.write("2"));
            zip.finish();
            var file = zip.onDisk().getFirst();
            assertEquals(folder.resolve("Fenna's phone.zip"), file.file());
            assertEquals(Digests.of(Files.readAllBytes(file.file())), file.sha512());
            var names = names(file.file());
            assertEquals(10, names.size());
            assertEquals(
                    10,
                    names.stream()
                            .map(name -> name.toLowerCase(java.util.Locale.ROOT))
                            .distinct()
                            .count(),
                    names.toString());
            for (var name : names) {
                assertTrue(name.startsWith("Fenna's phone/"), name);
                assertFalse(name.contains("..") || name.contains("\\") || name.contains("//"), name);
            }
        }
    }

    @Test
    void aFileThatCantBeFinishedIsNotInItAtAll() throws IOException {
        try (var zip = open()) {
            var root = zip.root();
            root.text("before", ".txt", text -> text.write("whole"));
            var torn = assertThrows(
                    IOException.class,
                    () -> root.file("torn", ".bin", out -> {
                        out.write(new byte[100_000]);
                        throw new IOException("it can't be read");
                    }));
            assertEquals("it can't be read", torn.getMessage());
            root.text("after", ".txt", text -> text.write("whole too"));
            zip.finish();
            assertEquals(
                    List.of("Fenna's phone/before.txt", "Fenna's phone/after.txt"),
                    names(zip.onDisk().getFirst().file()));
            assertEquals(2, files.all().size());
            assertEquals(
                    List.of(true, false, true),
                    files.places().stream().map(Optional::isPresent).toList());
        }
    }

    /** A page is complete after the pictures that it shows, which are written while it is. */
    @Test
    void filesInsideOneAnotherComeOutWhole() throws IOException {
        try (var zip = open()) {
            var root = zip.root();
            root.text("page", ".html", text -> {
                text.write("before, ");
                root.folder("pictures").file("a", ".jpg", out -> out.write(new byte[] {7, 7}));
                text.write("after");
            });
            zip.finish();
            try (var read = new ZipFile(zip.onDisk().getFirst().file().toFile())) {
                var page = read.getInputStream(read.getEntry("Fenna's phone/page.html"))
                        .readAllBytes();
                assertEquals("before, after", new String(page, StandardCharsets.UTF_8));
                assertEquals(2, read.getEntry("Fenna's phone/pictures/a.jpg").getSize());
            }
            assertEquals(2, files.places().size());
        }
    }

    @Test
    void whatIsNotFinishedLeavesNothing() throws IOException {
        try (var zip = open()) {
            zip.root().text("a", ".txt", text -> text.write("a"));
            assertEquals(List.of(), zip.onDisk());
        }
        try (var there = Files.list(folder)) {
            assertEquals(0, there.count());
        }
    }

    @Test
    void nothingThatIsThereIsOverwritten() throws IOException {
        Files.writeString(folder.resolve("Fenna's phone.zip"), "another one");
        try (var zip = open()) {
            zip.root().text("a", ".txt", text -> text.write("a"));
            zip.finish();
            assertEquals(
                    folder.resolve("Fenna's phone (2).zip"),
                    zip.onDisk().getFirst().file());
        }
        assertEquals("another one", Files.readString(folder.resolve("Fenna's phone.zip")));
    }
}
