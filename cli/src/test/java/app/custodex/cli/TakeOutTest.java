package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javax.sound.sampled.AudioFileFormat;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Databases, tones, mail drafts and loose files, from the command line. */
class TakeOutTest extends CommandTest {
    private static final String PHONE = "Fenna's phone";
    private static final String DATABASE = "store/messages/messages.db";

    @TempDir
    Path out;

    private String path(String name) {
        return out.resolve(name).toString();
    }

    @Test
    void aDatabaseComesOutWholeMergedAndAsATable() throws IOException {
        doneOwn("backup", "ostrel", "--quiet");
        assertTrue(doneOwn("database", PHONE, DATABASE).out().lines().anyMatch("message"::equals));
        var whole = doneOwn("database", PHONE, DATABASE, "--as-it-is", path("whole.db"));
        assertTrue(whole.out().lines().count() >= 1, whole.out());
        doneOwn("database", PHONE, DATABASE, "--merged", path("merged.db"));
        assertTrue(Files.size(out.resolve("merged.db")) > 10_000);
        assertCode(1, "is there already", runOwn("database", PHONE, DATABASE, "--merged", path("merged.db")));
        var rows = doneOwn("database", PHONE, DATABASE, "--table", "message", "--csv", path("all.csv"));
        var count = doneOwn(
                "database", PHONE, DATABASE, "--ask", "SELECT count(*) AS n FROM message", "--csv", path("n.csv"));
        assertTrue(count.out().contains("1 row written"), count.out());
        var counted = Files.readAllLines(out.resolve("n.csv")).get(1);
        assertEquals(counted + " rows written", rows.out().strip());
        assertCode(1, "needs --table or --ask", runOwn("database", PHONE, DATABASE, "--table", "message"));
        assertCode(
                1,
                "does not answer",
                runOwn("database", PHONE, DATABASE, "--ask", "DROP TABLE message", "--csv", path("d.csv")));
        assertFalse(Files.exists(out.resolve("d.csv")));
    }

    /** One bit of a picture turned in the strongroom: it is told, whichever way the picture leaves. */
    @Test
    void anItemThatIsNotWhatWasSavedIsTold() throws IOException {
        doneOwn("backup", "ostrel", "--quiet");
        var pictures = "pictures=originals:folders=phone";
        doneOwn("extract", PHONE, "--to", path("first"), "--as", pictures);
        Path picture;
        try (var files = Files.walk(out.resolve("first"))) {
            picture = files.filter(file -> file.toString().endsWith(".jpg"))
                    .sorted()
                    .findFirst()
                    .orElseThrow();
        }
        var item = out.resolve("first/Pictures of " + PHONE).relativize(picture).toString();
        turnOneBitOf(Files.readAllBytes(picture));
        var changed = item + ": It is not what was saved";
        assertCode(3, changed, runOwn("extract", PHONE, "--to", path("second"), "--as", pictures));
        assertCode(1, changed, runOwn("show", PHONE, item, "--file-to", path("alone.jpg")));
        assertFalse(Files.exists(out.resolve("alone.jpg")));
    }

    private void turnOneBitOf(byte[] content) throws IOException {
        try (var files = Files.walk(home().strongroom())) {
            for (var file : files.filter(Files::isRegularFile).toList()) {
                var bytes = Files.readAllBytes(file);
                int at = new String(bytes, StandardCharsets.ISO_8859_1)
                        .indexOf(new String(content, StandardCharsets.ISO_8859_1));
                if (at >= 0) {
                    bytes[at + content.length / 2] ^= 1;
                    Files.write(file, bytes);
                    return;
                }
            }
        }
        throw new AssertionError("the picture lies in no file of the strongroom");
    }

    @Test
    void looseFilesAreConvertedAndCutWithoutAPhone() throws IOException {
        var song = out.resolve("tide.wav");
        wav(song, 30);
        var listed = done("list", song.toString(), "--loose");
        assertTrue(listed.out().contains("Tracks"), listed.out());
        var extracted = done(
                "extract",
                song.toString(),
                "--loose",
                "--to",
                path("to"),
                "--as",
                "music=originals:sound=mp3:folders=flat",
                "--mail-draft",
                "Your song");
        assertTrue(extracted.out().contains("tide.mp3"), extracted.out());
        assertTrue(Files.size(out.resolve("to/Your song.eml"))
                > Files.size(out.resolve("to/Sound of Files of this computer/tide.mp3")));
        var tone = List.of(
                "tone",
                song.toString(),
                "tide.wav",
                "--loose",
                "--from",
                "0:02",
                "--family",
                "pellow",
                "--to",
                path("to"));
        assertCode(1, "shorter by 1 s", runWith(tone, "--until", "0:13", "--for", "message"));
        assertCode(1, "ends before it begins", runWith(tone, "--until", "1"));
        assertCode(1, "none of this name", runWith(tone, "--until", "5", "--for", "doorbell"));
        assertCode(
                0,
                "Ebb.mp3",
                runWith(tone, "--until", "0:12", "--for", "message", "--fade-out", "2", "--title", "Ebb"));
        assertCode(1, "is not there", run("list", path("nothing"), "--loose"));
        var strongroom = home().strongroom().toString();
        assertCode(1, "kept here for customers", run("list", strongroom, "--loose"));
        Files.createDirectories(home().reading());
        assertCode(1, "holds what is kept here", run("list", home().root().toString(), "--loose"));
        var hidden = Files.createSymbolicLink(out.resolve("a link"), home().strongroom());
        assertCode(1, "kept here for customers", run("list", hidden.toString(), "--loose"));
        assertCode(1, "means nothing here", run("list", song.toString(), "--loose", "--straight"));
    }

    @Test
    void aHostileContactStaysOnItsLineAndSaysNothingToTheTerminal() throws IOException {
        var card = Files.writeString(out.resolve("people.vcf"), """
                BEGIN:VCARD\r
                VERSION:4.0\r
                FN:Ivo\u001b[2J\u009bK Kelp\u202e\u2028line\\nmore\r
                TEL:01632\u001b]0;960001\r
                END:VCARD\r
                """);
        assertEquals(
                "Ivo [2J K Kelp  line more\t01632 ]0;960001",
                done("contacts", card.toString(), "--loose").out().stripTrailing());
    }

    private static void wav(Path file, int seconds) throws IOException {
        var samples = new byte[2 * 44_100 * seconds];
        for (int i = 0; i < samples.length; i += 2) {
            int level = (int) (12_000 * Math.sin(i * 0.03));
            samples[i] = (byte) level;
            samples[i + 1] = (byte) (level >> 8);
        }
        var format = new AudioFormat(44_100, 16, 1, true, false);
        var sound = new AudioInputStream(new ByteArrayInputStream(samples), format, samples.length / 2);
        AudioSystem.write(sound, AudioFileFormat.Type.WAVE, file.toFile());
    }

    private Answer runWith(List<String> first, String... more) {
        var words = new ArrayList<>(first);
        words.addAll(List.of(more));
        return run(words.toArray(String[]::new));
    }
}
