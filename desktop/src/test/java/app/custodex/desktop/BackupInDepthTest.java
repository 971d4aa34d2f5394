package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.backup.Selection;
import app.custodex.desktop.desk.BackupDesk;
import app.custodex.desktop.desk.KeptLayer;
import app.custodex.drawer.PracticePhone;
import app.custodex.link.Kind;
import app.custodex.strongroom.StoredPhone.Seal;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** Choosing, sealing, other sources, mending, and what runs by itself, in the real window. */
class BackupInDepthTest extends WindowTest {
    private static final String WORDS = "herring ladder violet 9 quarry";

    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    @Test
    void kindsAndSingleItemsAreChosenAndTheResultSaysWhatIsNotInIt(FxRobot robot) throws Exception {
        var bay = readyPhone(robot);
        var all = text(robot, "#backup-need");
        assertTrue(robot.lookup("#kind-web").query().isDisabled(), "it leaves the phone only sealed");
        click(robot, "#kind-videos");
        click(robot, "#items-photos");
        click(robot, "#items-none");
        ListView<?> items = robot.lookup("#items").queryListView();
        write(robot, "#items-find", "2025-03/");
        until("the found ones", () -> items.getItems().size() == 3);
        robot.clickOn("#items").push(KeyCode.SPACE);
        click(robot, "#items-done");
        assertFalse(text(robot, "#backup-need").equals(all), "it needs less now");
        assertFalse(bay.selection().get().whole(Kind.PHOTOS));

        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        var layer = BackupDesk.result(bay).orElseThrow().layer();
        assertEquals(
                1,
                layer.kinds().stream()
                        .filter(k -> k.kind() == Kind.PHOTOS)
                        .findFirst()
                        .orElseThrow()
                        .items());
        assertTrue(layer.kinds().stream().noneMatch(k -> k.kind() == Kind.VIDEOS));
        assertTrue(shows(robot, "#backup-left-out"));

        // The next one takes the rest, and says item by item what came.
        WaitForAsyncUtils.asyncFx(() -> bay.selection().set(Selection.EVERYTHING))
                .get();
        click(robot, "#backup-again");
        until("the survey", () -> bay.survey().get().isPresent());
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 2 is saved and checked");
        click(robot, "#changes-show");
        ListView<?> changes = robot.lookup("#changes").queryListView();
        until("the changes", () -> changes.getItems().size() > 30);
    }

    @Test
    void aStackIsSealedAndOpensWithItsPassphraseOnly(FxRobot robot) throws Exception {
        var bay = readyPhone(robot);
        click(robot, "#seal-open-form");
        write(robot, "#seal-passphrase", "lighthouse");
        assertTrue(text(robot, "#seal-strength").contains("Too weak"), text(robot, "#seal-strength"));
        write(robot, "#seal-again", "lighthouse");
        assertTrue(robot.lookup("#seal-start").query().isDisabled());
        write(robot, "#seal-passphrase", WORDS);
        assertTrue(text(robot, "#seal-strength").contains("differ"));
        write(robot, "#seal-again", WORDS);
        click(robot, "#seal-start");
        until("the seal", () -> bay.seal().get() == Seal.OPENED);
        until(
                "web history",
                () -> shows(robot, "#kind-web")
                        && !robot.lookup("#kind-web").query().isDisabled());
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");

        restart();
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        ListView<?> layers = robot.lookup("#stored-layers").queryListView();
        until("the layer", () -> layers.getItems().size() == 1);
        assertTrue(robot.lookup("#layer-read").query().isDisabled());
        click(robot, "#check-all");
        untilText(robot, "#check-progress", "the whole strongroom: sound");
        write(robot, "#unlock-passphrase", "not this one");
        click(robot, "#unlock");
        until("the message", () -> shows(robot, "#message-bar"));
        assertTrue(text(robot, "#message-what").contains("This is not its passphrase"));
        click(robot, "#message-close");
        write(robot, "#unlock-passphrase", WORDS);
        robot.push(KeyCode.ENTER);
        click(robot, "#layer-read");
        click(robot, "#see-contacts");
        untilText(robot, "#contacts-count", "412 contacts");
    }

    @Test
    void aFolderIsASourceLikeAPhoneAndIsTakenOffAgain(FxRobot robot) throws Exception {
        var card = home.resolve("card");
        Files.createDirectories(card);
        Files.writeString(card.resolve("note.txt"), "hello");
        click(robot, "#add-source");
        write(robot, "#source-place", card.toString());
        write(robot, "#source-name", "Card of Ivo");
        click(robot, "#source-add");
        until("the bay", () -> workplace.desk().bays().size() == 3);
        var bay = workplace.desk().bays().get(2);
        until("readiness", bay::ready);
        openDocket(robot, "Ivo Kelp");
        click(robot, "#go-back-up");
        until("the survey", () -> bay.survey().get().isPresent());
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        until("its layer's check", () -> bay.layers().get().stream().anyMatch(KeptLayer::sound));
        click(robot, "#add-source");
        click(robot, "#remove-bay-3");
        until("it is off", () -> workplace.desk().bays().size() == 2);
        write(robot, "#source-place", "http://example.org/files");
        click(robot, "#source-add");
        until("the message", () -> shows(robot, "#message-bar"));
        assertTrue(text(robot, "#message-advice").contains("https"));
    }

    @Test
    void aCopyIsFetchedFromARemoteAccount(FxRobot robot) {
        var loft = workplace.drawer().orElseThrow().loft();
        click(robot, "#add-source");
        write(robot, "#source-place", "loft:" + loft.address());
        click(robot, "#source-add");
        write(robot, "#loft-account", loft.account());
        click(robot, "#loft-sign-in");
        until("the message", () -> loft.message().isPresent());
        write(robot, "#loft-code", "12345");
        click(robot, "#loft-enter-code");
        until("the refusal", () -> shows(robot, "#message-bar"));
        click(robot, "#message-close");
        write(robot, "#loft-code", loft.message().orElseThrow());
        click(robot, "#loft-enter-code");
        click(robot, "#copy-phone-2024");
        var bay = workplace.desk().bays().get(2);
        until("readiness", bay::ready);
        openDocket(robot, "Jorun Tasch");
        click(robot, "#go-back-up");
        until("the survey", () -> bay.survey().get().isPresent());
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        assertEquals("Jorun's old phone", bay.phone().orElseThrow().name());
    }

    @Test
    void aMakersBackupOnThisComputerOpensWithItsPassphrase(FxRobot robot) throws IOException {
        workplace.drawer().orElseThrow().leaveMakersBackups();
        click(robot, "#add-source");
        click(robot, "#put-maker-backup-1");
        write(robot, "#crate-passphrase", "a guess");
        click(robot, "#crate-unlock");
        until("the refusal", () -> shows(robot, "#message-bar"));
        assertTrue(text(robot, "#message-what").contains("does not open"));
        click(robot, "#message-close");
        write(robot, "#crate-passphrase", "bread for thirty on Fridays");
        click(robot, "#crate-unlock");
        var bay = workplace.desk().bays().get(2);
        until("readiness", bay::ready);
        assertEquals("Noor's Ridge", bay.phone().orElseThrow().name());
    }

    @Test
    void damageIsNamedAndMendedFromThePhone(FxRobot robot) throws Exception {
        var bay = readyPhone(robot);
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        Path pack;
        try (var files = Files.walk(home.resolve("strongroom/objects"))) {
            pack = files.filter(f -> f.toString().endsWith(".tar")).findFirst().orElseThrow();
        }
        var bytes = Files.readAllBytes(pack);
        bytes[bytes.length / 2] ^= 1;
        Files.write(pack, bytes);
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        click(robot, "#layer-check");
        untilText(robot, "#check-progress", "layer 1 of Fenna's phone: 1 layer is damaged");
        until("the items", () -> shows(robot, "#damaged-items"));
        assertEquals(
                1, robot.lookup("#damaged-items").queryListView().getItems().size());

        robot.push(KeyCode.CONTROL, KeyCode.DIGIT1);
        click(robot, "#backup-again");
        robot.push(KeyCode.CONTROL, KeyCode.B);
        untilText(robot, "#backup-title", "Layer 2 is saved and checked");
        until(
                "both sound",
                () -> bay.layers().get().size() == 2
                        && bay.layers().get().stream().allMatch(KeptLayer::sound));
    }

    @Test
    void aDocketThatAsksForItIsBackedUpWheneverThePhoneIsPluggedIn(FxRobot robot) throws Exception {
        var bay = workplace.desk().bays().getFirst();
        phone(0).makeReady();
        until("readiness", bay::ready);
        ComboBox<String> when = robot.lookup("#docket-automatic").queryComboBox();
        WaitForAsyncUtils.asyncFx(() -> when.getSelectionModel().select(1)).get();
        openDocket(robot, "Fenna Rook");
        phone(0).unplug();
        until("it is away", () -> bay.status().get().isEmpty());
        assertTrue(bay.progress().get().isEmpty() && bay.layers().get().isEmpty(), "it was in before");
        phone(0).plugIn();
        until("the layer", () -> bay.layers().get().size() == 1);
        phone(0).unplug();
        until(
                "it is away",
                () -> bay.status().get().isEmpty() && bay.progress().get().isEmpty());
        phone(0).plugIn();
        until("another layer", () -> bay.layers().get().size() == 2);
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        click(robot, "#strongroom-runs");
        ListView<?> runs = robot.lookup("#runs").queryListView();
        assertTrue(runs.getItems().size() >= 2, runs.getItems().toString());
    }

    @Test
    void twoPhonesAreCopiedAtOnceAndTheStrongroomCanBeMovedAfterwards(FxRobot robot) throws Exception {
        var desk = workplace.desk();
        for (int i = 0; i < 2; i++) {
            int number = i;
            phone(i).makeReady();
            until("readiness", () -> desk.bays().get(number).ready());
            robot.push(KeyCode.ALT, i == 0 ? KeyCode.DIGIT1 : KeyCode.DIGIT2);
            openDocket(robot, "Customer " + i);
            phone(i).slowDown(40_000);
            robot.push(KeyCode.CONTROL, KeyCode.B);
        }
        until(
                "both copies",
                () -> desk.bays().stream()
                        .allMatch(bay -> bay.progress()
                                .get()
                                .filter(p -> p.doneItems() > 0)
                                .isPresent()));
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        click(robot, "#strongroom-place");
        var target = home.resolve("drive/shop");
        write(robot, "#strongroom-folder", target.toString());
        click(robot, "#strongroom-move");
        until("the refusal", () -> shows(robot, "#message-bar"));
        click(robot, "#message-close");
        for (int i = 0; i < 2; i++) {
            phone(i).slowDown(PracticePhone.FULL_SPEED);
        }
        until(
                "both layers",
                () -> desk.bays().stream()
                        .allMatch(bay -> bay.layers().get().size() == 1
                                && bay.progress().get().isEmpty()));
        click(robot, "#strongroom-move");
        untilText(robot, "#strongroom-progress", "It was moved and is used there.");
        assertEquals(
                target.toString(),
                robot.lookup("#strongroom-root").queryAs(Label.class).getText());
        assertFalse(robot.lookup("#strongroom-move").queryAs(Button.class).isDisabled());
    }

    @Test
    void aLayerWithoutContactsOffersTheOneThatHasThem(FxRobot robot) throws Exception {
        var bay = readyPhone(robot);
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        click(robot, "#backup-again");
        until("the survey", () -> bay.survey().get().isPresent());
        WaitForAsyncUtils.asyncFx(() -> bay.selection().set(Selection.EVERYTHING.with(Kind.CONTACTS, false)))
                .get();
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 2 is saved and checked");
        robot.push(KeyCode.CONTROL, KeyCode.R);
        click(robot, "#see-contacts");
        click(robot, "#layer-with-contacts");
        untilText(robot, "#contacts-count", "412 contacts");
    }
}
