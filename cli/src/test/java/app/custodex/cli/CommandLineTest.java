package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Json;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import org.junit.jupiter.api.Test;

/** The commands as a person or a script gives them. */
class CommandLineTest extends CommandTest {
    @Test
    void fromThePhoneToTheFiles() throws IOException {
        var phones = run("phones");
        assertEquals(0, phones.code());
        assertTrue(phones.out().contains("Ostrel Q5") && phones.out().contains("ready"), phones.out());
        assertTrue(phones.out().contains("needs your hand: Enter the passcode"), phones.out());
        var json = Json.PAGE.readTree(run("phones", "--json").out());
        assertEquals(
                "OS-7F21-0048-9C3E", json.get(0).get("phone").get("identifier").asText());
        assertEquals(25, json.get(0).get("contents").get(0).get("items").asInt());

        var backup = runOwn("backup", "ostrel", "--quiet");
        assertEquals(0, backup.code(), backup.err());
        assertTrue(backup.out().contains("layer 1") && backup.out().contains("sound"), backup.out());
        var again =
                Json.PAGE.readTree(runOwn("backup", "1", "--quiet", "--json").out());
        assertEquals(2, again.get("layer").get("number").asInt());

        var layers = Json.PAGE.readTree(run("layers", "--json").out());
        assertEquals(2, layers.size());
        assertTrue(run("layers").out().contains("checked"));
        var check = run("check", "Fenna's phone", "--layer", "1");
        assertEquals(0, check.code());
        assertTrue(check.out().contains("sound"), check.out());

        drawer.phones().forEach(phone -> phone.unplug());
        var first = runOwn("contacts", "OSQ5-7F21-0048", "--layer", "1"); // printed while the layer is read
        assertEquals(25, first.out().lines().distinct().count());
        assertEquals(first, runOwn("contacts", "OSQ5-7F21-0048", "--layer", "1"));
        var contacts = runOwn("contacts", "OSQ5-7F21-0048", "--find", "halvard rook");
        assertTrue(contacts.out().startsWith("Halvard Rook\t+447700900"), contacts.out());
        assertEquals(
                25,
                runOwn("contacts", "ostrel q5", "--descending").out().lines().count());

        var into = folder.resolve("out");
        for (var format : new String[] {"vcard4", "vcard3", "csv", "page"}) {
            var extract = runOwn("extract", "Fenna's phone", "--to", into.toString(), "--as", "contacts=" + format);
            assertEquals(0, extract.code(), extract.err());
            assertTrue(extract.out().startsWith("25 items written"), extract.out());
        }
        var each = runOwn(
                "extract",
                "Fenna's phone",
                "--to",
                into.resolve("each").toString(),
                "--as",
                "contacts=vcard4:file-each",
                "--json");
        assertEquals(25, Json.PAGE.readTree(each.out()).get("files").size());
        try (var files = Files.list(into)) {
            assertEquals(
                    5,
                    files.filter(file -> !file.getFileName().toString().startsWith("Left out"))
                            .count());
        }
    }

    @Test
    void aPhoneThatIsNotReadyIsToldWithTheNextMovement() {
        var backup = runOwn("backup", "pellow", "--wait", "1");

        assertEquals(1, backup.code());
        assertTrue(backup.err().contains("Enter the passcode on the phone"), backup.err());
        assertFalse(backup.err().contains("Exception"), backup.err());
    }

    @Test
    void damageIsTheExitCodeThreeAndNamesTheItem() throws IOException {
        runOwn("backup", "ostrel", "--quiet", "--no-check");
        try (var files = Files.walk(home().strongroom().resolve("objects"))) {
            var pack =
                    files.filter(f -> f.toString().endsWith(".tar")).findFirst().orElseThrow();
            var bytes = Files.readAllBytes(pack);
            bytes[bytes.length / 2] ^= 1;
            Files.write(pack, bytes);
        }

        var check = run("check", "Fenna's phone");

        assertEquals(3, check.code());
        assertTrue(check.out().contains("hit: "), check.out());
        assertTrue(run("layers").out().contains("damaged"));
    }

    @Test
    void mistakesAreToldInOneSentenceWithWhatThereIs() {
        var none = runOwn("contacts", "nobody's phone");
        assertEquals(1, none.code());
        assertTrue(none.err().contains("There is no copy of such a phone"), none.err());
        assertEquals(2, runOwn("extract", "x").code(), "a folder is needed");
        assertEquals(2, runOwn("backup").code());
        runOwn("backup", "ostrel", "--quiet");
        var layer = run("check", "Fenna's phone", "--layer", "9");
        assertEquals(1, layer.code());
        assertTrue(layer.err().contains("It has layers 1 to 1"), layer.err());
    }

    @Test
    void helpNamesEveryCommand() {
        var out = new StringWriter();
        assertEquals(0, Main.run(new PrintWriter(out), new PrintWriter(out), "--help"));
        for (var command :
                new String[] {"phones", "backup", "layers", "check", "contacts", "extract", "formats", "practice"}) {
            assertTrue(out.toString().contains(command), command);
        }
    }
}
