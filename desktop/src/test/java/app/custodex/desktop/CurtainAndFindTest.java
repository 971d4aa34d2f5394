package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Curtain;
import app.custodex.app.LiveSearch.Hit;
import app.custodex.app.OpenPhone;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.desktop.ui.UserText;
import app.custodex.desktop.ui.Veil;
import app.custodex.model.Contact;
import app.custodex.model.Message;
import app.custodex.model.ThingKind;
import app.custodex.strongroom.StoredPhone.Seal;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextInputControl;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.text.Text;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** What is private can't be seen on any screen until the curtain is lifted; and what is found is what the core finds. */
class CurtainAndFindTest extends WindowTest {
    private static final String PASSPHRASE = "herring ladder violet 9 quarry";

    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private void sealedLayer(FxRobot robot) {
        var bay = readyPhone(robot);
        click(robot, "#seal-open-form");
        write(robot, "#seal-passphrase", PASSPHRASE);
        write(robot, "#seal-again", PASSPHRASE);
        click(robot, "#seal-start");
        until("the seal", () -> bay.seal().get() == Seal.OPENED && shows(robot, "#kind-web"));
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
    }

    /** Names, numbers and texts that nobody else should read. */
    private static Set<String> secrets(OpenPhone open) throws IOException {
        var secrets = new HashSet<String>();
        for (var contact : open.contacts().ascending()) {
            secrets.add(contact.title());
            contact.phones().forEach(phone -> secrets.add(phone.written()));
            contact.mails().forEach(mail -> secrets.add(mail.value()));
        }
        var messages = open.catalogue().find(Filter.EVERYTHING.of(ThingKind.MESSAGE), Order.NEWEST_FIRST);
        open.catalogue().forEach(messages, entry -> secrets.add(((Message) entry.thing()).text()));
        secrets.removeIf(secret -> secret.strip().length() < 8);
        return secrets;
    }

    private static void texts(Node node, List<String> all) {
        if (!node.isVisible()) {
            return;
        }
        if (node instanceof Labeled labeled) {
            all.add(labeled.getText());
        }
        if (node instanceof Text text) {
            all.add(text.getText());
        }
        if (node instanceof TextInputControl field) {
            all.add(field.getText());
        }
        all.add(node.getAccessibleText());
        if (node instanceof Parent parent) {
            parent.getChildrenUnmodifiable().forEach(child -> texts(child, all));
        }
    }

    private void nothingPrivateIsOn(String screen, Set<String> secrets) throws Exception {
        WaitForAsyncUtils.waitForFxEvents();
        var all = new ArrayList<String>();
        WaitForAsyncUtils.asyncFx(() -> texts(workplace.scene().getRoot(), all)).get();
        all.removeIf(text -> text == null);
        assertTrue(all.size() > 30, "there is a screen: " + all);
        for (var text : all) {
            for (var secret : secrets) {
                assertFalse(text.contains(secret), screen + " shows " + text);
            }
        }
        var pictures = WaitForAsyncUtils.asyncFx(() -> workplace.scene().getRoot().lookupAll(".image-view").stream()
                        .filter(ImageView.class::isInstance)
                        .anyMatch(Node::isVisible))
                .get();
        assertFalse(pictures, screen + " shows a picture");
    }

    @Test
    void withTheCurtainDownNoScreenShowsWhatIsPrivate(FxRobot robot) throws Exception {
        sealedLayer(robot);
        Set<String> secrets;
        String word;
        try (var open = layerOne()) {
            secrets = secrets(open);
            word = open.contacts().ascending().stream()
                    .map(Contact::title)
                    .filter(title -> title.matches("[A-Z][a-z]{3,} [A-Z][a-z]{3,}"))
                    .findFirst()
                    .orElseThrow()
                    .split(" ")[1];
        }
        assertTrue(secrets.size() > 1_000, secrets.size() + " secrets");
        nothingPrivateIsOn("the bench", secrets);
        robot.push(KeyCode.CONTROL, KeyCode.R);
        until(
                "the day book",
                () -> shows(robot, "#day-book") && longList(robot, "#day-book").rows() > 0);
        for (var kind : List.of("messages", "calls", "pictures", "events", "notes", "web", "apps", "contacts")) {
            click(robot, "#see-" + kind);
            if (kind.equals("pictures")) {
                until("the sheet", () -> shows(robot, "#contact-sheet"));
                nothingPrivateIsOn("the contact sheet", secrets);
                click(robot, "#sheet-rows");
            }
            if (kind.equals("contacts")) {
                until(kind, () -> shows(robot, "#contacts") && things(robot, "#contacts") > 3);
                robot.interact(() -> robot.lookup("#contacts")
                        .queryListView()
                        .getSelectionModel()
                        .select(3));
            } else {
                until(kind, () -> shows(robot, "#day-book"));
                robot.interact(() -> longList(robot, "#day-book").choose(1));
            }
            Thread.sleep(300); // pages and pictures are read beside
            nothingPrivateIsOn("the reading room, " + kind, secrets);
            if (kind.equals("events") || kind.equals("notes")) {
                noMenuShows(robot, secrets);
            }
        }
        robot.push(KeyCode.CONTROL, KeyCode.L);
        until("the files", () -> shows(robot, "#files-tree"));
        write(robot, "#files-find", ".db");
        until("databases", () -> shows(robot, "#files-found") && things(robot, "#files-found") > 0);
        robot.interact(() ->
                robot.lookup("#files-found").queryListView().getSelectionModel().select(0));
        Thread.sleep(300); // what stands in it is read beside
        nothingPrivateIsOn("the files", secrets);
        robot.push(KeyCode.ESCAPE);
        robot.push(KeyCode.CONTROL, KeyCode.E);
        until("the extraction", () -> shows(robot, "#extract"));
        nothingPrivateIsOn("the extraction", secrets);
        robot.push(KeyCode.ESCAPE);
        click(robot, "#see-messages");
        until("the messages", () -> shows(robot, "#day-book"));
        robot.interact(() -> longList(robot, "#day-book").choose(0));
        click(robot, "#thing-conversation");
        until("the conversation", () -> shows(robot, "#conversation"));
        nothingPrivateIsOn("a conversation", secrets);
        robot.push(KeyCode.CONTROL, KeyCode.P);
        until("why nothing is printed", () -> shows(robot, "#message-bar"));
        assertTrue(text(robot, "#message-what").contains("curtain is down"), text(robot, "#message-what"));
        robot.push(KeyCode.ESCAPE);
        robot.push(KeyCode.CONTROL, KeyCode.K);
        robot.write(word.toLowerCase(Locale.ROOT));
        until("what was found", () -> shows(robot, "#find-list") && things(robot, "#find-list") > 0);
        nothingPrivateIsOn("find", secrets);
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        nothingPrivateIsOn("the strongroom", secrets);

        // And with the curtain lifted the same screens do: the check can fail.
        robot.push(KeyCode.CONTROL, KeyCode.K);
        until("what was found again", () -> things(robot, "#find-list") > 0);
        robot.push(KeyCode.F6);
        until("the curtain", () -> !workplace.desk().veil().isDown());
        until("names", () -> {
            var all = new ArrayList<String>();
            texts(workplace.scene().getRoot(), all);
            return all.stream().anyMatch(text -> text != null && text.contains(word));
        });
    }

    /** To what a list can be narrowed: calendars and folders are words of the owner. */
    private void noMenuShows(FxRobot robot, Set<String> secrets) throws Exception {
        click(robot, "#room-only");
        var all = new ArrayList<String>();
        robot.interact(() -> robot.lookup("#room-only").queryAs(MenuButton.class).getItems().stream()
                .map(MenuItem::getGraphic)
                .filter(Objects::nonNull)
                .forEach(graphic -> texts(graphic, all)));
        assertTrue(all.stream().anyMatch(Veil.SAID::equals), all.toString());
        assertTrue(all.stream().noneMatch(text -> text != null && secrets.contains(text)), all.toString());
        robot.push(KeyCode.ESCAPE);
    }

    private static int things(FxRobot robot, String list) {
        return robot.lookup(list).queryListView().getItems().size();
    }

    private static Hit chosen(FxRobot robot) {
        ListView<Hit> list = robot.lookup("#find-list").queryListView();
        return list.getSelectionModel().getSelectedItem();
    }

    @Test
    void aWordIsFoundItsPlaceOpenedAndTheCurtainFallsByItself(FxRobot robot) throws Exception {
        sealedLayer(robot);
        int expected;
        try (var open = layerOne()) {
            expected = open.catalogue().find("kettle", Filter.EVERYTHING, Order.AS_KEPT).length;
        }
        robot.push(KeyCode.CONTROL, KeyCode.K);
        robot.write("kettle");
        until("what was found", () -> shows(robot, "#find-list") && things(robot, "#find-list") == expected);
        robot.push(KeyCode.F6);
        until("the curtain", () -> !workplace.desk().veil().isDown());
        assertEquals("Curtain lifted for 0001", text(robot, "#curtain"));
        assertEquals(1, workplace.desk().custodex().curtain().liftings().size());
        until(
                "a mark",
                () -> robot.lookup("#find-list .found").queryAllAs(Label.class).stream()
                        .anyMatch(label -> label.getText().equalsIgnoreCase("kettle")));

        // Only messages, then into the conversation at that message.
        click(robot, "#found-messages");
        until(
                "the messages",
                () -> robot.lookup("#find-list").<Hit>queryListView().getItems().stream()
                        .allMatch(hit -> hit.entry().thing() instanceof Message));
        int ofAll = things(robot, "#find-list");
        click(robot, "#find-with");
        robot.write("nobody at all");
        robot.push(KeyCode.ENTER);
        until("nothing of nobody", () -> things(robot, "#find-list") == 0);
        click(robot, "#chip-with");
        until("all of it again", () -> things(robot, "#find-list") == ofAll);
        click(robot, "#find-everywhere");
        robot.push(KeyCode.DOWN);
        var hit = (Message) chosen(robot).entry().thing();
        robot.push(KeyCode.ENTER);
        until(
                "the message in its conversation",
                () -> robot.lookup(".message-row:present .user-text").queryAllAs(UserText.class).stream()
                        .anyMatch(words -> words.getText().equals(hit.text())));

        // Nobody touches anything.
        later = Curtain.UNTOUCHED;
        until("the curtain has fallen", () -> workplace.desk().veil().isDown());
        untilText(robot, "#curtain", "Curtain down");
        robot.push(KeyCode.F6);
        until("the curtain", () -> !workplace.desk().veil().isDown());
        robot.push(KeyCode.ALT, KeyCode.DIGIT2);
        until(
                "it falls when another bay is chosen",
                () -> workplace.desk().veil().isDown());
    }
}
