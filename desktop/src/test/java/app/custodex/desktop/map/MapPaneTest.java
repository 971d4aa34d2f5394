package app.custodex.desktop.map;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.desktop.ui.SteadyRobot;
import app.custodex.model.MediaFile.Place;
import app.custodex.places.Mercator;
import app.custodex.places.Outline;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import javafx.geometry.VerticalDirection;
import javafx.scene.AccessibleAttribute;
import javafx.scene.Scene;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** The map under mouse and keyboard. */
@ExtendWith(SteadyRobot.class)
class MapPaneTest {
    private static final int WIDTH = 640;
    private static final int HEIGHT = 480;

    private final BitSet chosen = new BitSet();
    private int moves;
    private Optional<MapPane> made = Optional.empty();

    private MapPane map() {
        return made.orElseThrow();
    }

    @Start
    void start(Stage stage) {
        var map = new MapPane(new MapPane.Listener() {
            @Override
            public void chosen(BitSet points) {
                chosen.clear();
                chosen.or(points);
            }

            @Override
            public void moved() {
                moves++;
            }
        });
        made = Optional.of(map);
        stage.setScene(new Scene(new StackPane(map), WIDTH, HEIGHT));
        stage.sizeToScene(); // another test may have left it larger
        stage.show();
    }

    /** Ten in one town, five in another, two hundred kilometres apart. */
    private void showTwoTowns(FxRobot robot) {
        var x = IntStream.range(0, 15)
                .mapToDouble(i -> Mercator.x((i < 10 ? 10 : 12) + i * 0.0003))
                .toArray();
        var y = IntStream.range(0, 15)
                .mapToDouble(i -> Mercator.y(60 + i * 0.0003))
                .toArray();
        var way = Outline.through(List.of(new Place(60, 10), new Place(60.5, 11), new Place(60, 12)));
        robot.interact(() -> {
            map().show(x, y, List.of(way));
            map().fit();
            map().requestFocus();
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    private void pointAt(FxRobot robot, int cluster) {
        var of = map().clusters().get(cluster);
        var corner = map().localToScreen(map().getBoundsInLocal());
        robot.moveTo(
                corner.getMinX() + map().seen().screenX(of.x()),
                corner.getMinY() + map().seen().screenY(of.y()));
    }

    @Test
    void circlesAreChosenAndComeApart(FxRobot robot) {
        showTwoTowns(robot);
        assertEquals(2, map().clusters().size());
        assertEquals(15, map().inSight().cardinality());
        pointAt(robot, 0);
        robot.clickOn(MouseButton.PRIMARY);
        assertEquals(10, chosen.cardinality());
        assertEquals("Map, 15 in 2 places, 10 are chosen", map().queryAccessibleAttribute(AccessibleAttribute.TEXT));
        double before = map().seen().scale();
        robot.doubleClickOn(MouseButton.PRIMARY);
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(map().seen().scale() > 4 * before, "nearer");
        assertEquals(10, map().inSight().cardinality());
        robot.push(KeyCode.HOME);
        assertEquals(2, map().clusters().size());
        robot.clickOn(robot.offset(map(), -map().getWidth() / 2 + 8, -map().getHeight() / 2 + 8));
        assertEquals(0, chosen.cardinality(), "a click beside them chooses nothing");
    }

    @Test
    void theKeysMoveItAndGoFromPlaceToPlace(FxRobot robot) {
        showTwoTowns(robot);
        var first = map().seen();
        robot.push(KeyCode.PAGE_DOWN);
        assertEquals(10, chosen.cardinality());
        robot.push(KeyCode.PAGE_DOWN);
        assertEquals(5, chosen.cardinality());
        robot.push(KeyCode.PAGE_UP);
        assertEquals(10, chosen.cardinality());
        robot.push(KeyCode.RIGHT);
        robot.push(KeyCode.DOWN);
        assertTrue(map().seen().x() > first.x() && map().seen().y() > first.y());
        robot.push(KeyCode.LEFT);
        robot.push(KeyCode.UP);
        assertEquals(first.x(), map().seen().x(), 1e-12);
        robot.push(KeyCode.EQUALS);
        robot.push(KeyCode.EQUALS);
        assertEquals(first.scale() * 1.25 * 1.25, map().seen().scale(), first.scale() / 1000);
        robot.push(KeyCode.MINUS);
        robot.push(KeyCode.DIGIT0);
        assertEquals(first.scale(), map().seen().scale(), first.scale() / 1000);
        robot.push(KeyCode.ENTER);
        assertTrue(map().seen().scale() > first.scale(), "nearer to what is chosen");
        assertTrue(moves >= 8);
    }

    @Test
    void theMouseMovesAndEnlargesIt(FxRobot robot) {
        showTwoTowns(robot);
        var first = map().seen();
        robot.moveTo(map())
                .press(MouseButton.PRIMARY)
                .moveBy(-60, 0)
                .moveBy(-60, 30)
                .release(MouseButton.PRIMARY);
        WaitForAsyncUtils.waitForFxEvents();
        assertEquals(first.x() + 120 / first.scale(), map().seen().x(), 3 / first.scale());
        assertEquals(first.y() - 30 / first.scale(), map().seen().y(), 3 / first.scale());
        assertEquals(0, chosen.cardinality(), "a drag is no click");
        robot.scroll(1, VerticalDirection.UP);
        WaitForAsyncUtils.waitForFxEvents();
        assertTrue(map().seen().scale() != first.scale());
    }

    @Test
    void withoutAnythingItShowsTheWorld(FxRobot robot) {
        robot.interact(() -> {
            map().show(new double[0], new double[0], List.of());
            map().fit();
            map().requestFocus();
        });
        robot.push(KeyCode.PAGE_DOWN);
        robot.push(KeyCode.ENTER);
        assertEquals(0, map().clusters().size());
        assertEquals(Math.max(map().getWidth(), map().getHeight()), map().seen().scale(), 1);
    }
}
