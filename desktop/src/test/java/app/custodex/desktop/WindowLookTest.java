package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Settings.Look;
import app.custodex.desktop.desk.Desk;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Bounds;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import javafx.stage.Window;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** How the window looks, what it says of keys that can do nothing, and the drawer at its side. */
class WindowLookTest extends WindowTest {
    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private Look kept() {
        try {
            return workplace.desk().custodex().settings().look();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private boolean dark() {
        return workplace.scene().getRoot().getStyleClass().contains("night");
    }

    private static Bounds onScreen(FxRobot robot, String id) {
        var node = robot.lookup(id).query();
        return node.localToScreen(node.getBoundsInLocal());
    }

    @Test
    void sizeAndNightAreRememberedAndEverythingStaysInTheWindow(FxRobot robot) throws Exception {
        double before = onScreen(robot, "#place-strongroom").getHeight();
        for (int step = 0; step < 20; step++) {
            robot.push(KeyCode.CONTROL, KeyCode.EQUALS);
        }
        robot.push(KeyCode.F8);
        until("it is kept", () -> kept().equals(new Look(true, 160)));
        assertEquals(1.6, onScreen(robot, "#place-strongroom").getHeight() / before, 0.05);
        var root = workplace.scene().getRoot();
        var window = root.localToScreen(root.getBoundsInLocal());
        assertTrue(window.contains(onScreen(robot, "#place-strongroom")));
        robot.clickOn("#place-strongroom"); // a click reaches what is seen under it
        until("the strongroom", () -> workplace.desk().place().get() == Desk.Place.STRONGROOM);

        restart();
        until("the look of before", this::dark);
        until("its size", () -> onScreen(robot, "#place-strongroom").getHeight() > 1.5 * before);
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT0).push(KeyCode.F8);
        until("as it was made", () -> kept().equals(Look.FIRST));
        assertFalse(dark());
    }

    @Test
    void aKeyThatCanDoNothingSaysWhatIsMissing(FxRobot robot) {
        until("the phones", () -> workplace.desk().bays().size() == 2);
        robot.push(KeyCode.CONTROL, KeyCode.B);
        until("no docket", () -> shows(robot, "#message-bar"));
        assertTrue(text(robot, "#message-what").contains("no docket with the customer's consent"));
        robot.push(KeyCode.ESCAPE);
        openDocket(robot, "Fenna Rook");
        robot.push(KeyCode.CONTROL, KeyCode.B);
        until(
                "not ready",
                () -> shows(robot, "#message-bar")
                        && text(robot, "#message-what").contains("not ready"));
        robot.push(KeyCode.ESCAPE);

        // Of a phone that nobody was allowed to read yet there is nothing to lift the curtain for.
        robot.push(KeyCode.F6);
        until("no phone", () -> shows(robot, "#message-bar"));
        assertTrue(workplace.desk().veil().isDown());
    }

    private static List<String> nextHand(FxRobot robot) {
        return robot.lookup("#next-hand .label").queryAllAs(Label.class).stream()
                .map(Label::getText)
                .toList();
    }

    @Test
    void whatThePhoneNeedsStaysInSightWhileItIsTapped(FxRobot robot) {
        until("what it needs", () -> shows(robot, "#next-hand"));
        robot.push(KeyCode.F9);
        until("the drawer", () -> shows(robot, "#practice-side"));
        click(robot, "#drawer-ostrel");
        until("beside each other", () -> !onScreen(robot, "#readiness").intersects(onScreen(robot, "#practice-side")));
        var before = nextHand(robot);
        click(robot, "#tap-ostrel-unlock");
        until("the next thing", () -> !nextHand(robot).equals(before));

        click(robot, "#drawer-window");
        until("its own window", () -> title().isPresent() && !shows(robot, "#practice-side"));
        robot.push(KeyCode.F9);
        until("it is put away", () -> title().isEmpty());
    }

    /** Of another window than the program's. */
    private static Optional<String> title() {
        return Window.getWindows().stream()
                .filter(Stage.class::isInstance)
                .map(window -> ((Stage) window).getTitle())
                .filter("Practice drawer"::equals)
                .findFirst();
    }
}
