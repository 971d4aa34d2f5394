package app.custodex.link;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Folders and archives whose names, lengths and checksums are not what they should be. */
class HostileSourcesTest {
    @TempDir
    Path folder;

    /** Runs a shell, which can name files in bytes that Java can't. */
    private void shell(String script) throws IOException, InterruptedException {
        var process = new ProcessBuilder("bash", "-c", script)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        var said = new String(process.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1);
        assertEquals(0, process.waitFor(), said);
    }

    private static byte[] read(PhoneLink link, PhonePath path) throws IOException {
        try (var content = link.open(path, 0)) {
            return content.stream().readNBytes((int) content.size());
        }
    }

    /** Everything below a source, by path: a file's content, "folder", or the target of a link. */
    private static TreeMap<String, String> all(PhoneLink link) throws IOException {
        var found = new TreeMap<String, String>();
        collect(link, PhonePath.ROOT, found);
        return found;
    }

    private static void collect(PhoneLink link, PhonePath folder, TreeMap<String, String> found) throws IOException {
        for (var listed : link.list(folder)) {
            switch (listed) {
                case Listed.File file ->
                    found.put(file.path().text(), new String(read(link, file.path()), StandardCharsets.UTF_8));
                case Listed.Folder inner -> {
                    found.put(inner.path().text(), "folder");
                    collect(link, inner.path(), found);
                }
                case Listed.Link to -> found.put(to.path().text(), "-> " + to.target());
                case Listed.Refused refused ->
                    found.put(
                            refused.path().text() + " refused",
                            refused.problem().what());
                case Listed.Closed closed ->
                    found.put(closed.path().text() + " closed", closed.problem().what());
            }
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"plain", "Ω 海.txt", "back\\slash", "caf\\xE9", "\\x5Cx41", "a\\x", "\\xZZ\\x0G"})
    void aNameThatIsTextStaysWhatItIs(String name) {
        var bytes = name.getBytes(StandardCharsets.UTF_8);
        assertArrayEquals(bytes, RawName.bytes(RawName.shown(bytes)));
        assertArrayEquals(bytes, RawName.percentDecoded(RawName.encoded(RawName.shown(bytes))));
    }

    @Test
    void eachNameOfBytesHasOneTextAndEachTextGivesItsBytesBack() {
        var texts = new TreeSet<String>();
        int names = 0;
        for (int first = 1; first < 256; first++) {
            for (int second = 1; second < 256; second++) {
                var name = new byte[] {'a', (byte) first, (byte) second, '\\', 'x', 'E', '9'};
                var text = RawName.shown(name);
                assertArrayEquals(name, RawName.bytes(text), text);
                texts.add(text);
                names++;
            }
        }
        assertEquals(names, texts.size(), "no two names became one");
        assertEquals("caf\\xE9.jpg", RawName.shown(new byte[] {'c', 'a', 'f', (byte) 0xe9, '.', 'j', 'p', 'g'}));
    }

    @Test
    void inAFolderNamesThatAreNotTextAreFilesOfTheirOwn() throws Exception {
        shell("mkdir tree && cd tree && printf one > $'caf\\xe9' && printf two > $'caf\\xe8' && printf three > café"
                + " && mkdir $'d\\xff' && printf inside > $'d\\xff/f' && printf literal > 'caf\\xE9'"
                + " && ln -s $'to\\xe9' pointer");
        try (var link = new FolderLink("F", "Folder", folder.resolve("tree"), () -> folder.resolve("no"))) {
            var expected = new TreeMap<String, String>();
            expected.put("caf\\xE9", "one");
            expected.put("caf\\xE8", "two");
            expected.put("café", "three");
            expected.put("caf\\x5CxE9", "literal");
            expected.put("d\\xFF", "folder");
            expected.put("d\\xFF/f", "inside");
            expected.put("pointer", "-> to\\xE9");
            assertEquals(expected, all(link));
        }
    }

    /** Made by Debian's own tar, in each of its formats. */
    @ParameterizedTest
    @ValueSource(strings = {"gnu", "pax", "ustar"})
    void inATarArchiveNoNameIsLostWhateverItsBytes(String format) throws Exception {
        var deep = "very-long-folder-name/".repeat(format.equals("ustar") ? 4 : 9);
        shell("mkdir -p tree/" + deep + " && cd tree && printf one > $'caf\\xe9' && printf two > $'caf\\xe8'"
                + " && printf three > café && printf four > $'" + deep + "\\xe9-é' && LC_ALL=C tar --format=" + format
                + " -cf ../a.tar *");
        try (var link = new ArchiveLink("A", "Archive", folder.resolve("a.tar"))) {
            var files = all(link);
            files.values().removeIf("folder"::equals);
            var expected = new TreeMap<String, String>();
            expected.put("caf\\xE9", "one");
            expected.put("caf\\xE8", "two");
            expected.put("café", "three");
            expected.put(deep + "\\xE9-é", "four");
            assertEquals(expected, files);
        }
    }

    @Test
    void inAZipArchiveOldCodePagesAreDecodedAndUtf8IsKnown() throws Exception {
        var zip = folder.resolve("old.zip");
        try (var out = new ZipOutputStream(Files.newOutputStream(zip), Charset.forName("IBM437"))) {
            for (var name : List.of("café", "cafè")) {
                out.putNextEntry(new ZipEntry(name));
                out.write(name.getBytes(StandardCharsets.UTF_8));
                out.closeEntry();
            }
        }
        try (var link = new ArchiveLink("Z", "Zip", zip)) {
            assertEquals(new TreeSet<>(List.of("café", "cafè")), all(link).keySet());
        }
        shell("mkdir z && cd z && printf one > $'\\xe6\\xb5\\xb7' && printf two > $'caf\\xe9' && zip -q ../new.zip *");
        try (var link = new ArchiveLink("Z", "Zip", folder.resolve("new.zip"))) {
            var files = all(link);
            assertEquals(2, files.size(), files.toString());
            assertEquals("one", files.getOrDefault("海", ""));
        }
    }

    @Test
    void twoEntriesOfOneNameAreTwoItemsAndThatIsSaid() throws Exception {
        shell(
                "python3 - <<'E'\nimport zipfile,warnings\nwarnings.simplefilter('ignore')\n"
                        + "z=zipfile.ZipFile('twice.zip','w')\nz.writestr('a','first')\nz.writestr('a','second')\nz.close()\nE");
        try (var link = new ArchiveLink("Z", "Zip", folder.resolve("twice.zip"))) {
            var files = all(link);
            assertEquals("second", files.getOrDefault("a", ""));
            assertEquals("first", files.getOrDefault("a (2)", ""));
            assertTrue(files.getOrDefault("a refused", "").contains("more than once"));
        }
    }

    @Test
    void sparseMembersHardLinksAndDevicesOfATarArchiveAreWhatTheyAre() throws Exception {
        shell(
                "mkdir t && cd t && truncate -s 1000000 sparse && printf end >> sparse && printf same > one && ln one two"
                        + " && mkfifo pipe && mknod device c 1 3 && for f in gnu pax; do tar --format=$f -Scf ../$f.tar *; done");
        for (var format : List.of("gnu", "pax")) {
            try (var link = new ArchiveLink("A", "Archive", folder.resolve(format + ".tar"))) {
                assertArrayEquals(
                        Files.readAllBytes(folder.resolve("t/sparse")), read(link, new PhonePath("sparse")), format);
                assertEquals("same", new String(read(link, new PhonePath("two")), StandardCharsets.US_ASCII));
                var all = all(link);
                assertTrue(all.getOrDefault("pipe refused", "").contains("named pipe"), all.toString());
                assertTrue(all.getOrDefault("device refused", "").contains("device"), all.toString());
            }
        }
        try (var link = new FolderLink("F", "Folder", folder.resolve("t"), () -> folder.resolve("no"))) {
            var all = all(link);
            assertTrue(all.getOrDefault("pipe refused", "").contains("named pipe"), all.toString());
            assertTrue(all.getOrDefault("device refused", "").contains("character device"), all.toString());
        }
    }

    @Test
    void aTarArchiveThatEndsWithoutItsEndMarkWasCut() throws Exception {
        shell("printf one > a && printf two > b && tar -cf whole.tar a b");
        var whole = Files.readAllBytes(folder.resolve("whole.tar"));
        Files.write(folder.resolve("cut.tar"), Arrays.copyOf(whole, 2 * (512 + 512)));
        try (var link = new ArchiveLink("A", "Archive", folder.resolve("whole.tar"))) {
            assertEquals(List.of("a", "b"), List.copyOf(all(link).keySet()));
        }
        try (var link = new ArchiveLink("A", "Archive", folder.resolve("cut.tar"))) {
            assertTrue(all(link).toString().contains("cut off"), all(link).toString());
        }
    }

    @Test
    void contentOfAZipArchiveIsComparedWithItsChecksumAndLength() throws Exception {
        var bytes = new byte[50_000];
        Arrays.fill(bytes, (byte) 7);
        var zip = new ByteArrayOutputStream();
        try (var out = new ZipOutputStream(zip)) {
            var entry = new ZipEntry("stored");
            var crc = new CRC32();
            crc.update(bytes);
            entry.setMethod(ZipEntry.STORED);
            entry.setSize(bytes.length);
            entry.setCrc(crc.getValue());
            out.putNextEntry(entry);
            out.write(bytes);
            out.closeEntry();
            out.putNextEntry(new ZipEntry("good"));
            out.write(1);
            out.closeEntry();
        }
        var hit = zip.toByteArray();
        hit[20_000] ^= 1;
        Files.write(folder.resolve("hit.zip"), hit);
        try (var link = new ArchiveLink("Z", "Zip", folder.resolve("hit.zip"))) {
            var wrong = assertThrows(LinkException.Item.class, () -> read(link, new PhonePath("stored")));
            assertTrue(wrong.problem().what().contains("not what the archive promises"), wrong.getMessage());
            assertArrayEquals(new byte[] {1}, read(link, new PhonePath("good")));
        }
    }

    @Test
    void aFileThatIsWrittenToWhileItIsReadIsNoItem() throws Exception {
        var file = folder.resolve("tree/log");
        Files.createDirectories(file.getParent());
        Files.write(file, new byte[100_000]);
        try (var link = new FolderLink("F", "Folder", folder.resolve("tree"), () -> folder.resolve("no"));
                var content = link.open(new PhonePath("log"), 0)) {
            content.stream().readNBytes(10);
            Files.write(file, new byte[150_000]);
            Files.setLastModifiedTime(file, FileTime.from(Instant.parse("2030-01-01T00:00:00Z")));
            var changed = assertThrows(
                    LinkException.Item.class, () -> content.stream().readNBytes((int) content.size()));
            assertTrue(changed.problem().what().contains("written to while"), changed.getMessage());
        }
    }

    @Test
    void aNameThatGoesOnForEverAndAnArchiveThatUnpacksForEverAreRefusedAtOnce() throws Exception {
        shell("python3 - <<'E'\nimport zipfile\nz=zipfile.ZipFile('deep.zip','w',zipfile.ZIP_DEFLATED)\n"
                + "z.writestr('a/'*30000+'x','x')\nz.writestr('ok','ok')\nz.close()\n"
                + "b=zipfile.ZipFile('bomb.zip','w',zipfile.ZIP_DEFLATED)\nwith b.open('zeros','w',force_zip64=True) as f:\n"
                + "  for i in range(1200): f.write(bytes(1<<20))\nb.close()\nE");
        assertTimeoutPreemptively(Duration.ofSeconds(20), () -> {
            try (var link = new ArchiveLink("Z", "Zip", folder.resolve("deep.zip"))) {
                var all = all(link);
                assertEquals("ok", all.getOrDefault("ok", ""));
                assertTrue(all.toString().contains("60001 characters"), "it is told");
            }
            try (var link = new ArchiveLink("Z", "Zip", folder.resolve("bomb.zip"))) {
                var bomb = assertThrows(LinkException.Item.class, () -> link.list(PhonePath.ROOT));
                assertTrue(bomb.problem().what().contains("200 times its size"), bomb.getMessage());
                assertTrue(bomb.problem().advice().contains("go beyond the limits"));
                link.limit(Limits.NONE);
                assertEquals(1, link.list(PhonePath.ROOT).size(), "who knows better may");
            }
        });
    }

    @Test
    void messagesHoldNothingThatATerminalObeys() {
        var hostile = "\u001b[31mred\u0007\r\nnext\u202eright\u009b0m\ud800";
        var problem = app.custodex.base.Problem.failure(hostile, "what " + hostile, hostile);
        for (var text : List.of(problem.subject(), problem.what(), problem.advice(), problem.sentence())) {
            assertFalse(
                    text.chars()
                            .anyMatch(c -> Character.isISOControl(c) || c == 0x202e || Character.isSurrogate((char) c)),
                    text);
        }
        assertEquals("Ω 海 😀", app.custodex.base.VisibleText.oneLine("Ω 海 😀"));
    }

    /** Whether it is a link or its real path. */
    @Test
    void theStrongroomIsNoSourceByWhateverWayItIsReached() throws Exception {
        var strongroom = Files.createDirectories(folder.resolve("strongroom/objects"));
        Files.createSymbolicLink(folder.resolve("innocent"), strongroom);
        for (var way : List.of(strongroom, folder.resolve("innocent"), strongroom.getParent())) {
            var link = new FolderLink("F", "Folder", way, strongroom::getParent);
            assertFalse(link.status().readiness().ready(), way.toString());
        }
    }

    @Test
    void pathsThatAreNoneAreShownAsWhatTheyAre() {
        var shown = new ArrayList<String>();
        Stream.of("../../etc", "/abs", "", "a//b/./c", "nul\0")
                .forEach(text -> shown.add(PhonePath.nearest(text).text()));
        assertEquals(List.of("\\x2E\\x2E/\\x2E\\x2E/etc", "abs", "\\x2F", "a/b/c", "nul\\x00"), shown);
    }
}
