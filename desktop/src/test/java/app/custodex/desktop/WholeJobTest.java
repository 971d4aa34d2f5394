package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.drawer.PracticePhone;
import app.custodex.model.Contact;
import java.nio.file.Files;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Works the real window with mouse and keyboard, as a technician would. */
class WholeJobTest extends WindowTest {
    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    @Test
    void fromTheDocketToTheExtractedVcard(FxRobot robot) throws Exception {
        var bay = workplace.desk().bays().getFirst();
        until("the phone", () -> bay.status().get().isPresent());
        openDocket(robot, "Fenna Rook");
        assertTrue(shows(robot, "#next-hand"));
        tapAll(robot, "ostrel", "unlock", "accept");
        until("readiness", bay::ready);
        assertEquals("OS-7F21-0048-9C3E", bay.phone().orElseThrow().identifier());

        click(robot, "#go-back-up");
        click(robot, "#backup-start");
        until(
                "the result",
                () -> robot.lookup("#backup-title")
                        .queryAs(Label.class)
                        .getText()
                        .equals("Layer 1 is saved and checked"));
        until(
                "the layer on the docket",
                () -> bay.docket().get().orElseThrow().layers().contains(1));

        // The phone may go; its layer is read all the same.
        phone(0).unplug();
        robot.push(KeyCode.CONTROL, KeyCode.R);
        click(robot, "#see-contacts");
        until(
                "all contacts",
                () -> shows(robot, "#contacts-count")
                        && robot.lookup("#contacts-count")
                                .queryAs(Label.class)
                                .getText()
                                .equals("412 contacts"));
        write(robot, "#contacts-find", "grandad");
        ListView<Contact> list = robot.lookup("#contacts").queryListView();
        until("the one", () -> list.getItems().size() == 1);
        assertEquals("Halvard Rook", list.getItems().getFirst().title());
        robot.push(KeyCode.DOWN);
        until(
                "his photo",
                () -> robot.lookup("#contact-photo").queryAs(ImageView.class).getImage() != null);
        robot.push(KeyCode.T);
        until(
                "the tray",
                () -> robot.lookup("#tray").queryAs(Label.class).getText().equals("Contacts 1"));

        robot.push(KeyCode.CONTROL, KeyCode.E);
        var target = home.resolve("for the customer");
        write(robot, "#extract-folder", target.toString());
        click(robot, "#extract-start");
        until("the files", () -> shows(robot, "#extract-files"));
        var card = Files.readString(target.resolve("Contacts of Fenna's phone.vcf"));
        assertTrue(card.startsWith("BEGIN:VCARD\r\nVERSION:4.0\r\n"), card);
        assertTrue(card.contains("FN:Halvard Rook\r\n") && card.contains("PHOTO:data:image/jpeg;base64,"), card);
        assertEquals(1, card.lines().filter(l -> l.equals("END:VCARD")).count());
    }

    @Test
    void aPulledCableWaitsForTheHandAndGoesOnByItself(FxRobot robot) throws Exception {
        var bay = workplace.desk().bays().get(1);
        until("the phone", () -> bay.status().get().isPresent());
        robot.push(KeyCode.ALT, KeyCode.DIGIT2);
        openDocket(robot, "Jorun Tasch");
        tapAll(robot, "pellow", "unlock", "maker-menu", "cable-access", "cable-mode", "accept");
        until("readiness", bay::ready);
        phone(1).slowDown(150_000);
        robot.push(KeyCode.CONTROL, KeyCode.B);
        until(
                "the copy",
                () -> bay.progress().get().filter(p -> p.doneItems() > 0).isPresent());

        phone(1).unplug();
        until("the wait", () -> shows(robot, "#backup-waiting"));
        phone(1).slowDown(PracticePhone.FULL_SPEED);
        phone(1).plugIn();
        tapAll(robot, "pellow", "cable-mode");

        until(
                "the result",
                () -> robot.lookup("#backup-title")
                        .queryAs(Label.class)
                        .getText()
                        .equals("Layer 1 is saved and checked"));
        assertFalse(shows(robot, "#message-bar"));
    }

    @Test
    void nothingIsCopiedWithoutConsent(FxRobot robot) {
        var bay = workplace.desk().bays().getFirst();
        phone(0).makeReady();
        until("readiness", bay::ready);
        click(robot, "#docket-save");
        assertTrue(
                robot.lookup("#docket-missing").queryAs(Label.class).getText().contains("customer's name"));
        write(robot, "#docket-customer", "Ivo Kelp");
        write(robot, "#docket-reason", "a copy");
        assertFalse(robot.lookup("#docket-consent").queryAs(CheckBox.class).isSelected());
        robot.push(KeyCode.CONTROL, KeyCode.S);
        until("the docket", () -> bay.docket().get().isPresent());

        robot.push(KeyCode.CONTROL, KeyCode.B);
        assertTrue(bay.progress().get().isEmpty() && bay.outcome().get().isEmpty());
        click(robot, "#route-back-up");
        assertTrue(robot.lookup("#backup-start").query().isDisabled());
    }

    @Test
    void aStoppedCopyGoesOnAndAnEarlierLayerIsThereAfterARestart(FxRobot robot) throws Exception {
        var bay = workplace.desk().bays().getFirst();
        phone(0).makeReady();
        until("readiness", bay::ready);
        openDocket(robot, "Skerrow Choir");
        phone(0).slowDown(120_000);
        click(robot, "#go-back-up");
        click(robot, "#backup-start");
        until(
                "the copy",
                () -> bay.progress().get().filter(p -> p.doneItems() > 0).isPresent());
        click(robot, "#backup-stop");
        until("the stop", () -> bay.progress().get().isEmpty());
        assertTrue(bay.layers().get().isEmpty(), "no half layer");
        phone(0).slowDown(PracticePhone.FULL_SPEED);
        click(robot, "#backup-start");
        until(
                "the result",
                () -> robot.lookup("#backup-title")
                        .queryAs(Label.class)
                        .getText()
                        .equals("Layer 1 is saved and checked"));

        // A second program on the same home: what another start would show.
        restart();
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        ListView<?> layers = robot.lookup("#stored-layers").queryListView();
        until("the layer", () -> layers.getItems().size() == 1);
        click(robot, "#layer-check");
        until(
                "the check",
                () -> robot.lookup("#check-progress")
                        .queryAs(Label.class)
                        .getText()
                        .equals("layer 1 of Fenna's phone: sound"));
        click(robot, "#layer-read");
        click(robot, "#see-contacts");
        until(
                "its contacts",
                () -> shows(robot, "#contacts-count")
                        && robot.lookup("#contacts-count")
                                .queryAs(Label.class)
                                .getText()
                                .equals("412 contacts"));
        ListView<Contact> list = robot.lookup("#contacts").queryListView();
        var first = list.getItems().getFirst();
        click(robot, "#contacts-order");
        until(
                "Z to A",
                () -> !list.getItems().isEmpty() && list.getItems().getLast().equals(first));
        assertNotEquals(first, list.getItems().getFirst());
    }

    @Test
    void troubleIsToldInTheWindowAndNothingElseStops(FxRobot robot) throws Exception {
        var bay = workplace.desk().bays().getFirst();
        phone(0).makeReady();
        until("readiness", bay::ready);
        openDocket(robot, "Fenna Rook");
        click(robot, "#go-back-up");
        click(robot, "#backup-start");
        until(
                "the result",
                () -> !bay.layers().get().isEmpty() && bay.progress().get().isEmpty());
        robot.push(KeyCode.CONTROL, KeyCode.E);
        var taken = Files.writeString(home.resolve("a file"), "no folder");
        write(robot, "#extract-folder", taken.toString());
        click(robot, "#extract-start");
        until("the message", () -> shows(robot, "#message-bar"));
        assertTrue(robot.lookup("#message-what").queryAs(Label.class).getText().startsWith(taken.toString()));
        assertTrue(
                robot.lookup("#message-advice").queryAs(Label.class).getText().contains("Choose another folder"));
        click(robot, "#message-close");
        assertFalse(shows(robot, "#message-bar"));
        robot.push(KeyCode.F8);
        assertTrue(workplace.scene().getRoot().getStyleClass().contains("night"));
    }
}
