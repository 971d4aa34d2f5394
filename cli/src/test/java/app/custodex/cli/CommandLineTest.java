package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Home;
import app.custodex.app.Sources;
import app.custodex.base.Json;
import app.custodex.drawer.PracticeDrawer;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The commands as a person or a script gives them. */
class CommandLineTest {
    @TempDir
    Path folder;

    private PracticeDrawer drawer;

    @BeforeEach
    void plugIn() throws IOException {
        var home = new Home(folder);
        drawer = PracticeHome.drawer(home);
        for (var phone : drawer.phones()) {
            phone.plugIn();
            Sources.of(home).rememberPhone(phone.family().code(), phone.address());
        }
        drawer.phones().getFirst().makeReady();
    }

    @AfterEach
    void close() {
        drawer.close();
    }

    private record Answer(int code, String out, String err) {}

    private Answer run(String command, String... more) {
        var arguments = new ArrayList<String>();
        arguments.add(command);
        arguments.add("--home");
        arguments.add(folder.toString());
        arguments.addAll(List.of(more));
        if (List.of("backup", "contacts", "extract").contains(command) && !arguments.contains("--help")) {
            arguments.add("--no-customer");
        }
        var out = new StringWriter();
        var err = new StringWriter();
        int code = Main.run(new PrintWriter(out), new PrintWriter(err), arguments.toArray(String[]::new));
        return new Answer(code, out.toString(), err.toString());
    }

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

        var backup = run("backup", "ostrel", "--quiet");
        assertEquals(0, backup.code(), backup.err());
        assertTrue(backup.out().contains("layer 1") && backup.out().contains("sound"), backup.out());
        var again = Json.PAGE.readTree(run("backup", "1", "--quiet", "--json").out());
        assertEquals(2, again.get("layer").get("number").asInt());

        var layers = Json.PAGE.readTree(run("layers", "--json").out());
        assertEquals(2, layers.size());
        assertTrue(run("layers").out().contains("checked"));
        var check = run("check", "Fenna's phone", "--layer", "1");
        assertEquals(0, check.code());
        assertTrue(check.out().contains("sound"), check.out());

        drawer.phones().forEach(phone -> phone.unplug());
        var contacts = run("contacts", "OSQ5-7F21-0048", "--find", "halvard rook");
        assertTrue(contacts.out().startsWith("Halvard Rook\t+447700900"), contacts.out());
        assertEquals(
                25, run("contacts", "ostrel q5", "--descending").out().lines().count());

        var into = folder.resolve("out");
        for (var format : new String[] {"vcard4", "vcard3", "csv", "html"}) {
            var extract = run("extract", "Fenna's phone", "--to", into.toString(), "--format", format);
            assertEquals(0, extract.code(), extract.err());
            assertTrue(extract.out().startsWith("25 contacts"), extract.out());
        }
        var each = run("extract", "Fenna's phone", "--to", into.resolve("each").toString(), "--file-each", "--json");
        assertEquals(25, Json.PAGE.readTree(each.out()).get("files").size());
        try (var files = Files.list(into)) {
            assertEquals(5, files.count());
        }
    }

    @Test
    void aPhoneThatIsNotReadyIsToldWithTheNextMovement() {
        var backup = run("backup", "pellow", "--wait", "1");

        assertEquals(1, backup.code());
        assertTrue(backup.err().contains("Enter the passcode on the phone"), backup.err());
        assertFalse(backup.err().contains("Exception"), backup.err());
    }

    @Test
    void damageIsTheExitCodeThreeAndNamesTheItem() throws IOException {
        run("backup", "ostrel", "--quiet", "--no-check");
        try (var files = Files.walk(folder.resolve("strongroom/objects"))) {
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
        var none = run("contacts", "nobody's phone");
        assertEquals(1, none.code());
        assertTrue(none.err().contains("There is no copy of such a phone"), none.err());
        assertEquals(2, run("extract", "x").code(), "a folder is needed");
        assertEquals(2, run("backup").code());
        run("backup", "ostrel", "--quiet");
        var layer = run("check", "Fenna's phone", "--layer", "9");
        assertEquals(1, layer.code());
        assertTrue(layer.err().contains("It has layers 1 to 1"), layer.err());
    }

    @Test
    void helpNamesEveryCommand() {
        var out = new StringWriter();
        assertEquals(0, Main.run(new PrintWriter(out), new PrintWriter(out), "--help"));
        for (var command : new String[] {"phones", "backup", "layers", "check", "contacts", "extract", "practice"}) {
            assertTrue(out.toString().contains(command), command);
        }
    }
}
