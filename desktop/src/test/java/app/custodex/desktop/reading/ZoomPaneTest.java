package app.custodex.desktop.reading;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.desktop.ui.SteadyRobot;
import java.util.concurrent.atomic.AtomicInteger;
import javafx.event.Event;
import javafx.geometry.Point2D;
import javafx.scene.Scene;
import javafx.scene.image.ImageView;
import javafx.scene.image.WritableImage;
import javafx.scene.input.ScrollEvent;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

@ExtendWith(SteadyRobot.class)
@SuppressWarnings("NullAway.Init") // set when the window is shown
final class ZoomPaneTest {
    private static final int WIDTH = 800;
    private static final int HEIGHT = 600;

    private final AtomicInteger closer = new AtomicInteger();
    private ZoomPane zoom;

    @Start
    void start(Stage stage) {
        zoom = new ZoomPane(closer::incrementAndGet);
        stage.setScene(new Scene(zoom, WIDTH, HEIGHT));
        stage.sizeToScene(); // another test may have left it larger
        stage.show();
    }

    /** A picture of 4000 by 2000 pixels, of which there are a quarter. */
    private void show(FxRobot robot) {
        robot.interact(() -> zoom.show(new WritableImage(1000, 500), 4000, 2000, true));
        lay(robot);
    }

    private void lay(FxRobot robot) {
        robot.interact(zoom::layout);
    }

    private ImageView view() {
        return (ImageView) zoom.getChildren().getFirst();
    }

    /** Where in the picture a point of the pane is, 0 to 1. */
    private Point2D at(double x, double y) {
        var view = view();
        return new Point2D((x - view.getLayoutX()) / view.getFitWidth(), (y - view.getLayoutY()) / view.getFitHeight());
    }

    private void wheel(FxRobot robot, double x, double y, double by) {
        robot.interact(() -> Event.fireEvent(
                zoom,
                new ScrollEvent(
                        ScrollEvent.SCROLL,
                        x,
                        y,
                        x,
                        y,
                        false,
                        false,
                        false,
                        false,
                        false,
                        false,
                        0,
                        by,
                        0,
                        by,
                        ScrollEvent.HorizontalTextScrollUnits.NONE,
                        0,
                        ScrollEvent.VerticalTextScrollUnits.NONE,
                        0,
                        0,
                        null)));
        lay(robot);
    }

    @Test
    void aPictureFitsAndIsInTheMiddle(FxRobot robot) {
        show(robot);
        assertEquals(zoom.getWidth(), view().getFitWidth(), 0.5);
        assertEquals(zoom.getWidth() / 2, view().getFitHeight(), 0.5);
        assertEquals(zoom.getHeight() / 2, view().getLayoutY() + view().getFitHeight() / 2, 0.5);
        assertEquals(0, closer.get(), "there are pixels enough");
        assertTrue(view().isSmooth());
    }

    @Test
    void whatIsUnderTheMouseStaysThere(FxRobot robot) {
        show(robot);
        double x = 500;
        double y = zoom.getHeight() / 2 + 40;
        wheel(robot, x, y, 40); // from here on it is larger than the pane, so that it can move
        for (int i = 0; i < 6; i++) {
            var before = at(x, y);
            wheel(robot, x, y, 40);
            assertEquals(before.getX(), at(x, y).getX(), 0.01);
        }
        assertTrue(closer.get() > 0, "more pixels are wanted");
    }

    @Test
    void pixelsAreSquaresFromTwiceTheirSizeOnAndTheEdgeStaysInSight(FxRobot robot) {
        show(robot);
        robot.interact(zoom::pixelByPixel);
        lay(robot);
        assertEquals(4000, view().getFitWidth());
        assertTrue(view().isSmooth());
        for (int i = 0; i < 40; i++) {
            wheel(robot, 5, 5, 40);
        }
        assertFalse(view().isSmooth());
        assertEquals(32 * 4000, view().getFitWidth(), 1, "there is an end to it");
        for (int i = 0; i < 80; i++) {
            wheel(robot, 5, 5, -40);
        }
        assertEquals(zoom.getWidth(), view().getFitWidth(), 0.5, "never smaller than it fits");
        assertTrue(view().getLayoutX() > -1 && view().getLayoutX() < 1);
    }

    @Test
    void itTurnsByQuartersAndFitsAgain(FxRobot robot) {
        show(robot);
        robot.interact(zoom::turn);
        lay(robot);
        assertEquals(90, view().getRotate());
        assertEquals(zoom.getHeight(), view().getFitWidth(), 0.5, "it stands on its side");
        for (int i = 0; i < 3; i++) {
            robot.interact(zoom::turn);
        }
        lay(robot);
        assertEquals(0, view().getRotate());
        assertEquals(zoom.getWidth(), view().getFitWidth(), 0.5);
    }
}
