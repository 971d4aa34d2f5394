package app.custodex.desktop.ui;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.stream.IntStream;
import javafx.scene.AccessibleAttribute;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** A list of a million rows, of which ten are in sight. */
@ExtendWith(SteadyRobot.class)
@SuppressWarnings("NullAway.Init")
class LongListTest {
    private static final int ROWS = 1_000_000;

    private final List<Integer> chosen = new ArrayList<>();
    private LongList list;

    private static final class Numbered extends LongList.Row {
        private final Label label = new Label();

        Numbered() {
            getChildren().add(label);
        }

        @Override
        protected void layoutChildren() {
            fill(label);
        }

        @Override
        protected void show(int row) {
            label.setText("row " + row);
        }
    }

    @Start
    void start(Stage stage) {
        list = new LongList(30, Numbered::new, new Label("nothing"));
        list.whenChosen(() -> chosen.add(list.present()));
        list.setMinSize(300, 300); // whatever the window was before
        list.setMaxSize(300, 300);
        stage.setScene(new Scene(new StackPane(list), 300, 300));
        stage.show();
        list.setRows(ROWS);
    }

    private List<String> inSight() {
        return list.inSight().stream()
                .filter(row -> row.getBoundsInParent().intersects(0, 1, 300, 298))
                .sorted((one, other) -> Double.compare(one.getLayoutY(), other.getLayoutY()))
                .map(row -> ((Numbered) row).label.getText())
                .toList();
    }

    private static List<String> rows(int from, int until) {
        return IntStream.range(from, until).mapToObj(row -> "row " + row).toList();
    }

    private static BitSet set(int from, int until) {
        var set = new BitSet();
        set.set(from, until);
        return set;
    }

    @Test
    void onlyWhatIsInSightIsThere(FxRobot robot) {
        assertEquals(rows(0, 10), inSight());
        robot.moveTo(list).scroll(3);
        assertTrue(list.inSight().size() <= 12, list.inSight().size() + " rows");
        robot.interact(() -> list.choose(654_321));
        robot.interact(list::layout);
        assertEquals(rows(654_317, 654_327), inSight());
        assertEquals(654_321, list.present());
        assertEquals(ROWS, list.queryAccessibleAttribute(AccessibleAttribute.ITEM_COUNT));
        robot.interact(() -> list.setRows(3));
        robot.interact(list::layout);
        assertEquals(rows(0, 3), inSight());
        assertEquals(List.of(654_321, -1), chosen, "another list begins without a choice");
        assertTrue(list.selected().isEmpty());
    }

    @Test
    void keysAndMouseSelect(FxRobot robot) {
        robot.clickOn(robot.offset(list, -100, -130));
        assertEquals(set(0, 1), list.selected());
        robot.press(KeyCode.SHIFT);
        robot.push(KeyCode.DOWN);
        robot.push(KeyCode.DOWN);
        robot.release(KeyCode.SHIFT);
        assertEquals(set(0, 3), list.selected());
        robot.push(KeyCode.END);
        robot.interact(list::layout);
        assertEquals(rows(ROWS - 10, ROWS), inSight());
        assertEquals(set(ROWS - 1, ROWS), list.selected());
        robot.push(KeyCode.HOME);
        robot.push(KeyCode.PAGE_DOWN);
        assertEquals(9, list.present());
        robot.push(KeyCode.CONTROL, KeyCode.A);
        assertEquals(ROWS, list.selected().cardinality());
        robot.push(KeyCode.UP);
        int first = list.present();
        robot.press(KeyCode.CONTROL);
        robot.clickOn(robot.offset(list, -100, 0), MouseButton.PRIMARY);
        assertEquals(2, list.selected().cardinality());
        assertTrue(list.present() != first);
        robot.clickOn(robot.offset(list, -100, 0), MouseButton.PRIMARY);
        robot.release(KeyCode.CONTROL);
        assertEquals(set(first, first + 1), list.selected());
        assertEquals(first, list.present(), "what is no longer selected is no longer shown");
    }

    @Test
    void anEmptyListSaysSo(FxRobot robot) {
        robot.interact(() -> list.setRows(0));
        robot.interact(list::layout);
        assertEquals(List.of(), inSight());
        assertTrue(robot.lookup("nothing").query().isVisible());
        robot.push(KeyCode.DOWN, KeyCode.END);
        assertEquals(-1, list.present());
    }
}
