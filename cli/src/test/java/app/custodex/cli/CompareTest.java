package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Json;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.HashSet;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What became of the things between two states of a phone, what a phone says without a copy, and what several layers hold. */
class CompareTest extends CommandTest {
    private static final String PHONE = "Fenna's phone";

    @BeforeEach
    void copy() {
        doneOwn("backup", "ostrel", "--quiet");
    }

    /** Plain SQL on the phone's own store, as an app on it would do it. */
    private void onThePhone(String store, String... statements) throws IOException, SQLException {
        Path file;
        try (var files = Files.walk(home().practice())) {
            file = files.filter(f -> f.endsWith(store)).findFirst().orElseThrow();
        }
        try (var db = DriverManager.getConnection("jdbc:sqlite:" + file);
                var statement = db.createStatement()) {
            for (var sql : statements) {
                statement.executeUpdate(sql);
            }
        }
    }

    private void change() throws IOException, SQLException {
        onThePhone(
                "store/messages/messages.db",
                "DELETE FROM message WHERE id = 3",
                "UPDATE message SET text = 'Changed afterwards' WHERE id = 5");
        onThePhone("store/people/people.db", "UPDATE person SET family = 'Newname' WHERE id = 7");
        try (var files = Files.walk(home().practice())) {
            var picture = files.filter(f -> f.toString().matches(".*/roll/.*[.]jpg"))
                    .sorted()
                    .findFirst()
                    .orElseThrow();
            Files.copy(picture, picture.resolveSibling("added.jpg"));
        }
    }

    @Test
    void whatIsGoneNewAndChangedIsToldWithBothStates() throws IOException, SQLException {
        change();
        doneOwn("backup", "ostrel", "--quiet");
        var told = doneOwn("compare", PHONE).out();
        assertTrue(told.contains("Messages: 1 gone, 0 new, 1 changed"), told);
        assertTrue(told.contains("Contacts: 0 gone, 0 new, 1 changed"), told);
        assertTrue(told.contains("Pictures: 0 gone, 1 new, 0 changed"), told);
        assertTrue(told.lines().anyMatch(line -> line.startsWith("gone\tmessage") && line.endsWith("#3")), told);
        assertTrue(
                told.lines().anyMatch(line -> line.startsWith("  now\tmessage") && line.contains("Changed afterwards")),
                told);
        assertEquals(
                "Contacts: 0 gone, 0 new, 1 changed",
                doneOwn("compare", PHONE, "--kind", "contact")
                        .out()
                        .lines()
                        .toList()
                        .getLast());
        var json = Json.LINE.readTree(
                doneOwn("compare", PHONE, "--kind", "contact", "--json").out());
        assertEquals("changed", json.get("change").asText());
        assertFalse(json.get("before").toString().contains("Newname"));
        assertTrue(json.get("after").toString().contains("Newname"));
        assertCode(1, "There is no layer below", runOwn("compare", PHONE, "--layer", "1"));
        // The other way round: what is gone came, and what came is gone.
        var back = doneOwn("compare", PHONE, "--layer", "1", "--with", "2").out();
        assertTrue(back.contains("Messages: 0 gone, 1 new, 1 changed"), back);
    }

    @Test
    void aLayerIsComparedWithThePhoneAsItIsNow() throws IOException, SQLException {
        assertTrue(doneOwn("compare", PHONE, "--straight").out().contains("They are the same."));
        change();
        var told = doneOwn("compare", PHONE, "--straight").out();
        assertTrue(told.contains("Messages: 1 gone, 0 new, 1 changed"), told);
        assertTrue(told.contains("Pictures: 0 gone, 1 new, 0 changed"), told);
    }

    @Test
    void aPhoneIsReadStraightAndNothingOfItStays() throws IOException {
        var before = files();
        var found = doneOwn("find", "1", "--straight", "kettle");
        assertTrue(found.out().contains("Bring the kettle"), found.all());
        assertTrue(found.err().contains("The phone gives it only for a sealed backup"), found.err());
        var picture = doneOwn("list", "1", "--straight", "--kind", "picture")
                .out()
                .lines()
                .findFirst()
                .orElseThrow();
        var file = folder.resolve("one.jpg");
        doneOwn(
                "show",
                "1",
                picture.substring(picture.lastIndexOf('\t') + 1),
                "--straight",
                "--file-to",
                file.toString());
        assertTrue(Files.size(file) > 500);
        var since = files();
        since.removeIf(each -> each.getFileName().toString().startsWith("handed-out.jsonl")); // that it was taken out
        assertEquals(before, since);
        assertCode(1, "No docket says whose it is", run("list", "1", "--straight"));
        assertCode(1, "has no layers", runOwn("list", "1", "--straight", "--layer", "1"));
        drawer.phones().getFirst().unplug();
        assertCode(1, "No such phone is plugged in", runOwn("list", "1", "--straight"));
    }

    private HashSet<Path> files() throws IOException {
        try (var files = Files.walk(home().root())) {
            return new HashSet<>(files.filter(f ->
                            !f.startsWith(home().practice()) && !f.toString().contains(".log"))
                    .toList());
        }
    }

    @Test
    void whatIsInSeveralLayersIsFoundOnceAndWhatIsSealedIsNamed() throws IOException, SQLException {
        change();
        doneOwn("backup", "ostrel", "--quiet");
        var old = doneOwn("find", PHONE, "--all-layers", "--kind", "message", "kettle")
                .out();
        assertEquals(
                doneOwn("find", PHONE, "--kind", "message", "kettle")
                        .out()
                        .lines()
                        .count(),
                old.lines().count());
        var changed = doneOwn("find", PHONE, "--all-layers", "--kind", "contact", "Newname")
                .out();
        assertEquals(1, changed.lines().count());
        assertTrue(changed.startsWith(PHONE + "\t2\tcontact"), changed);

        drawer.phones().get(1).makeReady();
        secrets("a-long-enough passphrase 81", "a-long-enough passphrase 81");
        doneOwn("backup", "pellow", "--quiet", "--seal", "--secrets-stdin");
        var everywhere = runOwn("find", "all", "kettle");
        assertCode(3, "Jorun's Ridge: It is sealed and not open; it was not searched", everywhere);
        assertTrue(everywhere.out().contains(PHONE + "\t2\t"), everywhere.out());
        assertCode(3, "No docket says whose it is", run("find", "all", "kettle"));
    }

    @Test
    void aLayerWithoutContactsNamesTheOneThatHasThem() {
        doneOwn("backup", "ostrel", "--quiet", "--only", "notes");
        assertCode(1, "Layer 1 has them: open it with --layer 1", runOwn("contacts", PHONE));
        var to = folder.resolve("out").toString();
        assertCode(1, "There are no contacts in it", runOwn("extract", PHONE, "--to", to, "--as", "contacts=csv"));
        assertCode(
                1, "There is nothing to write", runOwn("extract", PHONE, "--layer", "1", "--to", to, "--find", "zzz"));
        assertTrue(!Files.exists(folder.resolve("out")));
    }

    @Test
    void optionsThatMeanNothingAreRefusedAndNotPassedOver() {
        for (var option : new String[] {"--straight", "--burrow-key", "--layer=1"}) {
            assertCode(1, "It means nothing here", runOwn("find", "all", option, "kettle"));
            assertCode(1, "It means nothing here", runOwn("find", PHONE, "--all-layers", option, "kettle"));
        }
        assertCode(1, "It means nothing here", runOwn("changes", PHONE, "--straight"));
        assertCode(0, "0 found", runOwn("find", "all", "--person", "Nobody Atall", "kettle"));
    }

    @Test
    void theCustomersKeyIsAskedForWhereverAPhoneIsOpened() {
        secrets("no key at all");
        // The app wrote no copy on this phone, so there is nothing to open; the rest is read.
        assertTrue(doneOwn("list", "1", "--straight", "--burrow-key", "--secrets-stdin")
                .out()
                .contains("25\tContacts"));
        secrets("no key at all");
        assertTrue(
                doneOwn("list", PHONE, "--burrow-key", "--secrets-stdin").out().contains("25\tContacts"));
    }
}
