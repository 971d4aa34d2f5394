package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.ProblemException;
import app.custodex.extract.formats.Formats;
import app.custodex.model.KindGroup;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What formats say of themselves, and the folder into which they write. */
class FormatsTest {
    /** As it stands on the command line, between "=" and ":". */
    private static final Pattern CODE = Pattern.compile("[a-z0-9]+(-[a-z0-9]+)*");

    @TempDir
    Path folder;

    @Test
    void everyFormatCanBeNamedAndEveryGroupHasSome() {
        for (var group : KindGroup.values()) {
            var formats = Formats.of(group);
            assertEquals(group == KindGroup.CONVERSATIONS, formats.isEmpty(), "they are written as their messages");
            assertEquals(
                    formats.size(),
                    formats.stream().map(Format::code).distinct().count(),
                    group.code());
            for (var format : formats) {
                assertTrue(CODE.matcher(format.code()).matches(), format.code());
                assertFalse(format.label().isBlank());
                assertFalse(format.leavesOut().endsWith("."), "the window ends it: " + format.leavesOut());
                assertEquals(format, Formats.of(group, format.code()).orElseThrow());
                for (var choice : format.choices(group)) {
                    assertTrue(CODE.matcher(choice.code()).matches(), choice.code());
                    assertTrue(choice.isWords() || choice.values().size() > 1, choice.code());
                    for (var value : choice.values()) {
                        assertTrue(CODE.matcher(value.code()).matches(), value.code());
                    }
                }
            }
            assertTrue(Formats.of(group, "no such format").isEmpty());
        }
    }

    @Test
    void whatWasChosenIsRememberedAsItIsTyped() throws ProblemException {
        var csv = Formats.of(KindGroup.CALLS, "csv").orElseThrow();
        var chosen = Chosen.of(csv, KindGroup.CALLS, List.of("faithful", "byte-order-mark=no"));
        assertEquals(":byte-order-mark=no:faithful=yes", chosen.typed(csv, KindGroup.CALLS));
        var again = Chosen.of(csv, KindGroup.CALLS, List.of("byte-order-mark=no", "faithful=yes"));
        assertEquals(chosen, again);
        assertTrue(chosen.is(csv.choices(KindGroup.CALLS).getLast()));
        assertFalse(chosen.is(csv.choices(KindGroup.CALLS).get(2)));
        assertEquals("", Chosen.USUAL.typed(csv, KindGroup.CALLS));
        assertEquals(new Chosen(Map.of()), Chosen.of(csv, KindGroup.CALLS, List.of()));
    }

    @Test
    void whatIsToBeBlackedOutIsNeverRemembered() throws ProblemException {
        var pdf = Formats.of(KindGroup.MESSAGES, "pdf").orElseThrow();
        var chosen = Chosen.of(pdf, KindGroup.MESSAGES, List.of("evidence", "black-out=Halvard, 07700 900112"));
        assertEquals(
                "Halvard, 07700 900112",
                chosen.of(pdf.choices(KindGroup.MESSAGES).getLast()));
        assertEquals(":evidence=yes", chosen.typed(pdf, KindGroup.MESSAGES));
    }

    @Test
    void namesInAFolderAreSafeAndKeepApart() throws IOException {
        var files = new WrittenFiles();
        var out = new DiskFolder(folder.resolve("out"), files);
        var at = Instant.parse("2025-11-14T20:04:00Z");
        for (var name : List.of("../up.jpg", "a/b.jpg", "CON.txt", ".hidden", "x.", "no ending", "a.toolonganending")) {
            var written = out.original(name, new ByteArrayInputStream(new byte[] {1}), at)
                    .file();
            assertEquals(folder.resolve("out"), written.getParent(), name);
            assertEquals(at, Files.getLastModifiedTime(written).toInstant());
        }
        assertEquals(7, files.all().stream().distinct().count());
        var first = out.folder("Messages");
        var second = out.folder("Messages");
        first.text("a", ".txt", text -> text.write("half \ud83d a sign"));
        second.text("a", ".txt", text -> text.write("b"));
        assertEquals("half ? a sign", Files.readString(folder.resolve("out/Messages/a.txt"), StandardCharsets.UTF_8));
        assertEquals("b", Files.readString(folder.resolve("out/Messages (2)/a.txt")));
        var shared = out.sharedFolder("Album");
        out.sharedFolder("Album").text("two", ".txt", text -> text.write("2"));
        var one = shared.text("one", ".txt", text -> text.write("1"));
        assertEquals("Album/one.txt", out.relative(one));
    }

    @Test
    void aFileThatCantBeFinishedLeavesNothing() throws IOException {
        var files = new WrittenFiles();
        var out = new DiskFolder(folder.resolve("out"), files);
        try {
            out.file("a", ".bin", to -> {
                to.write(new byte[100_000]);
                throw new IOException("the disk is full");
            });
            throw new AssertionError("it was finished");
        } catch (IOException full) {
            assertEquals("the disk is full", full.getMessage());
        }
        assertEquals(List.of(), files.all());
        try (var left = Files.list(folder.resolve("out"))) {
            assertEquals(0, left.count());
        }
    }

    @Test
    void zonesAreWrittenAsPeopleReadThem() {
        assertEquals("UTC+01:00", ZoneText.of(ZoneId.of("Etc/GMT-1")));
        assertEquals("UTC", ZoneText.of(ZoneId.of("UTC")));
        assertEquals("Europe/Oslo", ZoneText.of(ZoneId.of("Europe/Oslo")));
    }
}
