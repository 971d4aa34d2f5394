package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Mandate;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.ui.UserText;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** What became of the notes on a card between two copies of it, and since the last one. */
@SuppressWarnings("NullAway.Init") // set by the first steps of each test
class GoneSinceTest extends WindowTest {
    private BayModel bay;
    private Card card;

    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private static Thing note(String key, String title, String text) {
        var at = Optional.of(Moment.at(Instant.parse("2025-11-03T20:00:00Z").plusSeconds(key.hashCode() * 60L)));
        return new Note(new ThingId("notes", key), "", "Island", title, text, at, List.of());
    }

    private void copy(FxRobot robot, int layer) {
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT1);
        robot.interact(() -> workplace.desk().show(bay));
        until("the card", bay::ready);
        robot.push(KeyCode.CONTROL, KeyCode.B);
        until("layer " + layer, () -> bay.layers().get().size() == layer);
    }

    /** Two layers: of three notes one is gone, one changed, one stayed, and one came. */
    private void copies(FxRobot robot) throws Exception {
        card = new Card(home.resolve("card"));
        card.write(
                1,
                List.of(
                        note("1", "Boat price", "3,900 and the oars stay"),
                        note("2", "Storm list", "Lamp\nRope, doubled\nDog"),
                        note("3", "Choir", "Altos at seven")));
        click(robot, "#add-source");
        write(robot, "#source-place", card.folder().toString());
        write(robot, "#source-name", "Card of Ivo");
        click(robot, "#source-add");
        until("its bay", () -> workplace.desk().bays().size() == 3);
        bay = workplace.desk().bays().getLast();
        openDocket(robot, "Ivo Kelp");
        copy(robot, 1);
        card.write(
                2,
                List.of(
                        note("2", "Storm list", "Lamp\nRope, tripled\nDog\nSecond kettle"),
                        note("3", "Choir", "Altos at seven"),
                        note("4", "Ferry", "Five past nine")));
        copy(robot, 2);
        robot.push(KeyCode.CONTROL, KeyCode.R);
        until("the day book", () -> shows(robot, "#day-book"));
        robot.push(KeyCode.F6);
        until("the curtain", () -> !workplace.desk().veil().isDown());
        robot.push(KeyCode.CONTROL, KeyCode.G);
        untilCounts(robot, 1, 1, 2); // the file that they stand in changed too
    }

    private void untilCounts(FxRobot robot, int gone, int added, int changed) {
        untilText(robot, "#show-gone", "gone  " + gone);
        untilText(robot, "#show-new", "new  " + added);
        untilText(robot, "#show-changed", "changed  " + changed);
    }

    private static int rows(FxRobot robot) {
        return longList(robot, "#gone-list").rows();
    }

    private static String marked(FxRobot robot, String side) {
        return robot.lookup("#gone-detail " + side + " .found").queryAllAs(Label.class).stream()
                .map(Label::getText)
                .collect(Collectors.joining("|"));
    }

    private static List<String> said(FxRobot robot) {
        return robot.lookup("#gone-detail .user-text").queryAllAs(UserText.class).stream()
                .map(UserText::getText)
                .collect(Collectors.toCollection(ArrayList::new));
    }

    @Test
    void whatIsGoneIsSeenAndPutIntoTheTrayOfItsLayer(FxRobot robot) throws Exception {
        copies(robot);
        until("gone and changed", () -> rows(robot) == 3);
        for (int row = 0; row < 3; row++) {
            int chosen = row;
            robot.interact(() -> longList(robot, "#gone-list").choose(chosen));
            until("what it says", () -> !said(robot).isEmpty());
            var title = said(robot).getFirst();
            if (title.equals("Storm list")) {
                assertEquals("doubled", marked(robot, ".went"));
                assertEquals("tripled|Second kettle", marked(robot, ".came"));
            } else if (!title.equals("things.jsonl")) {
                assertEquals("Boat price", title);
                assertTrue(
                        said(robot).stream().anyMatch(text -> text.contains("the oars stay")),
                        said(robot).toString());
                assertEquals("", marked(robot, ".went"));
            }
        }
        robot.push(KeyCode.CONTROL, KeyCode.T);
        until("it is told", () -> shows(robot, "#message-bar"));
        assertTrue(text(robot, "#message-what").contains("1 thing is in the tray of layer 1"));
        var custodex = workplace.desk().custodex();
        var phone = bay.phone().orElseThrow();
        try (var first = custodex.reading().open(Mandate.ofShop(), phone.identifier(), 1, Locale.getDefault())) {
            var picked = custodex.trays().load(first);
            assertEquals(1, picked.cardinality());
            var thing = first.catalogue().read(picked.nextSetBit(0)).getFirst().thing();
            assertEquals("Boat price", thing.title());
        }
    }

    @Test
    void theNewestLayerIsComparedWithWhatIsThereNow(FxRobot robot) throws Exception {
        copies(robot);
        // Down, it shows counts and nothing that was written.
        robot.push(KeyCode.F6);
        until("the curtain", () -> workplace.desk().veil().isDown());
        robot.interact(() -> longList(robot, "#gone-list").choose(0));
        until("what it says", () -> !said(robot).isEmpty());
        assertTrue(
                robot.lookup("#gone-detail .user-text").queryAllAs(UserText.class).stream()
                        .noneMatch(text -> text.getAccessibleText().contains("oars")
                                || text.getAccessibleText().contains("Rope")),
                "nothing private");

        card.write(3, List.of(note("3", "Choir", "Altos at seven"), note("4", "Ferry", "Five past nine")));
        click(robot, "#newer-now");
        untilCounts(robot, 2, 1, 1);
        click(robot, "#older-2");
        untilCounts(robot, 1, 0, 1);

        // The reading room has that layer open: what is put into its tray is there too.
        robot.push(KeyCode.CONTROL, KeyCode.T);
        until("it is told", () -> shows(robot, "#message-bar"));
        robot.push(KeyCode.ESCAPE);
        click(robot, "#gone-back");
        untilText(robot, "#tray", "Notes 1");
    }
}
