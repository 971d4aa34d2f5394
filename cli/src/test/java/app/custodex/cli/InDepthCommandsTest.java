package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Home;
import app.custodex.base.RealDisk;
import app.custodex.docket.Docket;
import app.custodex.docket.DocketBook;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.time.Clock;
import java.time.Instant;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** Choosing, sealing, other sources, the strongroom's place and automatic runs, from the command line. */
class InDepthCommandsTest extends CommandTest {
    @Test
    void kindsAndItemsAreSurveyedChosenAndCompared() throws IOException {
        var survey = done("survey", "ostrel", "--items", "--only", "contacts,photos");
        assertTrue(survey.out().contains("Contacts") && survey.out().contains("Photos"), survey.out());
        assertTrue(survey.out().contains("Bookmarks and web history. The phone gives it only"), survey.out());
        assertTrue(survey.out().contains("store/people/people.db"), survey.out());
        assertFalse(survey.out().contains("sound/music"), survey.out());

        var some = doneOwn("backup", "ostrel", "--quiet", "--only", "contacts");
        assertTrue(
                some.out().contains("Photos, Videos, ") && some.out().contains(". Not chosen this time."), some.out());
        var rest = doneOwn("backup", "ostrel", "--quiet", "--not", "videos", "--read-everything");
        assertTrue(rest.out().contains("Since the layer below"), rest.out());
        var changes = done("changes", "Fenna's phone");
        assertTrue(changes.out().contains("added"), changes.out());
        assertEquals(2, done("runs").out().lines().count());
        var nonsense = runOwn("backup", "ostrel", "--only", "everything");
        assertEquals(2, nonsense.code());
        assertTrue(nonsense.err().contains("contacts"), "names what there is: " + nonsense.err());
    }

    @Test
    void aSealedStackAsksForItsPassphraseAndForNothingLess() {
        secrets("lighthouse", "lighthouse");
        var weak = runOwn("backup", "ostrel", "--quiet", "--seal", "--secrets-stdin");
        assertEquals(1, weak.code());
        assertTrue(weak.err().contains("would fall in"), weak.err());
        secrets("herring ladder violet 9 quarry", "herring ladder violet 8 quarry");
        assertTrue(runOwn("backup", "ostrel", "--quiet", "--seal", "--secrets-stdin")
                .err()
                .contains("differ"));

        secrets("herring ladder violet 9 quarry", "herring ladder violet 9 quarry");
        var first = doneOwn("backup", "ostrel", "--quiet", "--seal", "--secrets-stdin");
        assertTrue(first.out().contains("(sealed)") && first.out().contains("sound"), first.out());
        assertTrue(done("layers").out().contains("sealed"));
        assertTrue(done("check").out().contains("sound"), "without the passphrase");

        var none = runOwn("contacts", "Fenna's phone", "--secrets-stdin");
        assertEquals(1, none.code());
        secrets("not this one");
        assertTrue(runOwn("contacts", "Fenna's phone", "--secrets-stdin").err().contains("This is not its passphrase"));
        secrets("herring ladder violet 9 quarry");
        assertEquals(
                PracticeHome.CONTACTS,
                doneOwn("contacts", "Fenna's phone", "--secrets-stdin")
                        .out()
                        .lines()
                        .count());
        secrets("herring ladder violet 9 quarry");
        assertTrue(done("check", "Fenna's phone", "--decrypt", "--secrets-stdin")
                .out()
                .contains("decrypted"));
    }

    @Test
    void aFolderAndALoftCopyAreBackedUpLikeAPhone() throws IOException {
        var card = folder.resolve("card");
        Files.createDirectories(card);
        Files.writeString(card.resolve("a.vcf"), "BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Ivo Kelp\r\nEND:VCARD\r\n");
        assertTrue(
                done("source", "add", card.toString(), "--name", "Card").out().contains("Card"));
        assertTrue(doneOwn("backup", "Card", "--quiet").out().contains("1 item, "));
        assertTrue(doneOwn("contacts", "Card").out().contains("Ivo Kelp"));

        var loft = drawer.loft();
        done("source", "add", "loft:" + loft.address(), "--name", "Loft");
        assertTrue(done("source", "list").out().contains("Loft"));
        secrets("000000");
        var wrong = runOwn("backup", "Loft", "--quiet", "--account", loft.account(), "--secrets-stdin");
        assertTrue(wrong.err().contains("did not accept this code"), wrong.err());
        done("source", "remove", "Card");
        assertFalse(done("source", "list").out().contains("Card"));
        assertEquals(1, run("source", "remove", "ostrel").code(), "a phone is not taken off, it is unplugged");
    }

    @Test
    void theStrongroomIsShownMovedFoundAndChanged() throws IOException {
        doneOwn("backup", "ostrel", "--quiet");
        var drive = folder.resolve("drive/shop");
        done("strongroom", "move", drive.toString());
        assertTrue(done("strongroom", "show").out().startsWith(drive.toString()));
        var found = new StringWriter();
        assertEquals(
                0, Main.run(new PrintWriter(found), new PrintWriter(found), "strongroom", "find", folder.toString()));
        assertEquals(drive.toString(), found.toString().strip());
        done("strongroom", "use", folder.resolve("another").toString());
        assertTrue(done("layers").out().isBlank() || !done("layers").out().contains("layer 1"));
    }

    @Test
    void aDocketThatAsksForItIsRunByItself() throws IOException {
        var home = new Home(folder.resolve("home"));
        var book = DocketBook.open(home.dockets(), new RealDisk(), Clock.systemUTC());
        var docket = book.open(
                new Docket.Form(
                        "Fenna Rook",
                        "",
                        "a copy each day",
                        Optional.of(new Docket.Consent(Instant.now(), "copy")),
                        Optional.empty()),
                drawer.phones().getFirst().address());
        assertFalse(done("watch", "--once").out().contains("backing up"));
        book.change(
                docket.number(),
                d -> d.withAutomatic(Optional.of(new Docket.Automatic(Optional.empty(), Instant.now()))));

        var watch = done("watch", "--once");

        assertTrue(
                watch.out().contains("Docket 0001: backing up") && watch.out().contains("ended"), watch.out());
        var runs = done("runs").out();
        assertTrue(runs.contains("Fenna's phone") && runs.contains("by itself"), runs);
    }
}
