package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.desktop.map.MapPane;
import app.custodex.desktop.ui.UserText;
import app.custodex.places.Cluster;
import java.util.List;
import javafx.scene.AccessibleAttribute;
import javafx.scene.control.ComboBox;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Where pictures and tracks were taken, on a map. */
class PlacesTest extends WindowTest {
    @Start
    void start(Stage shown) throws Exception {
        open(shown);
        workplace
                .drawer()
                .orElseThrow()
                .drawMap(workplace.desk().custodex().home().maps());
    }

    private static MapPane map(FxRobot robot) {
        return robot.lookup("#map").queryAs(MapPane.class);
    }

    private static List<Cluster> clusters(FxRobot robot) {
        return robot.lookup("#map").<MapPane>tryQuery().map(MapPane::clusters).orElse(List.of());
    }

    private static int onMap(FxRobot robot) {
        return clusters(robot).stream()
                .mapToInt(cluster -> cluster.members().length)
                .sum();
    }

    private static int inSheet(FxRobot robot) {
        return (int) robot.lookup("#places-sheet").query().queryAccessibleAttribute(AccessibleAttribute.ITEM_COUNT);
    }

    private static void clickAt(FxRobot robot, Cluster cluster) {
        var view = map(robot).seen();
        var corner = boundsOf(robot, "#map");
        robot.moveTo(corner.getMinX() + view.screenX(cluster.x()), corner.getMinY() + view.screenY(cluster.y()));
    }

    @Test
    void thePicturesOfAPlaceAreFoundOnTheMap(FxRobot robot) throws Exception {
        readyPhone(robot);
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        robot.push(KeyCode.CONTROL, KeyCode.R);
        until("the whole layer", () -> text(robot, "#room-where").contains("times in"));
        try (var layer = layerOne()) {
            int placed = layer.catalogue().places().size();
            assertTrue(placed > 10);
            robot.push(KeyCode.CONTROL, KeyCode.M);
            until("the map", () -> shows(robot, "#places") && onMap(robot) == placed);
            // Where a customer was is nobody's business while the curtain is down.
            assertFalse(map(robot).isVisible());
            robot.push(KeyCode.F6);
            until("the curtain", () -> map(robot).isVisible());
            until("names", () -> inSheet(robot) > 0);

            var one = clusters(robot).getFirst();
            assertTrue(clusters(robot).size() > 2, "an island has several places");
            clickAt(robot, one);
            robot.clickOn(MouseButton.PRIMARY);
            until(
                    "its name",
                    () -> robot.lookup("#places-where")
                            .queryAs(UserText.class)
                            .getText()
                            .startsWith("Near "));
            assertEquals(one.members().length, inSheet(robot));
            robot.push(KeyCode.CONTROL, KeyCode.T);
            until("the tray", () -> picked(robot) == one.members().length);

            // Nearer, it comes apart; what is chosen stays chosen.
            robot.doubleClickOn(MouseButton.PRIMARY);
            until("nearer", () -> onMap(robot) < placed);
            assertEquals(one.members().length, inSheet(robot));
            robot.push(KeyCode.HOME);
            until("all of it", () -> onMap(robot) == placed);
            robot.push(KeyCode.PAGE_DOWN);
            until(
                    "the next place",
                    () -> inSheet(robot) == clusters(robot).get(1).members().length);

            // A picture of it, large and back; then another kind, of which nothing has a place.
            robot.interact(() -> robot.lookup("#places-sheet").query().requestFocus());
            robot.push(KeyCode.HOME);
            robot.push(KeyCode.ENTER);
            until("large", () -> shows(robot, "#full-view"));
            robot.push(KeyCode.ESCAPE);
            until("the map again", () -> shows(robot, "#places"));
            click(robot, "#see-calls");
            until("no call has a place", () -> onMap(robot) == 0 && inSheet(robot) == 0);
            click(robot, "#see-calls");
            until("all again", () -> onMap(robot) == placed);
            robot.push(KeyCode.ESCAPE);
            until("the day book", () -> shows(robot, "#day-book-count"));

            click(robot, "#see-pictures");
            until("pictures", () -> shows(robot, "#contact-sheet"));
            ComboBox<Object> order = robot.lookup("#day-book-order").queryComboBox();
            robot.interact(() -> order.getItems().stream()
                    .filter(by -> order.getConverter().toString(by).equals("By place"))
                    .findFirst()
                    .ifPresent(order::setValue));
            until(
                    "under places",
                    () -> robot.lookup(".sheet-heading .user-text").queryAllAs(UserText.class).stream()
                            .anyMatch(name -> name.isVisible() && name.getText().startsWith("Near ")));
        }
    }
}
