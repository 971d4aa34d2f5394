package app.custodex.desktop.media;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.desktop.ui.SteadyRobot;
import app.custodex.desktop.ui.Work;
import app.custodex.media.MediaSource;
import app.custodex.media.StreamSource;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.scene.image.Image;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

@ExtendWith(SteadyRobot.class)
final class ThumbnailsTest {
    /** Items in the order in which they were opened. */
    private final List<String> opened = new CopyOnWriteArrayList<>();
    /** Nothing is opened before it is down. */
    private final CountDownLatch open = new CountDownLatch(1);

    private final Thumbnails thumbnails = new Thumbnails(
            new Work(problem -> {
                throw new AssertionError(problem);
            }),
            () -> {});

    @Start
    void start(Stage stage) {
        // the toolkit is all that is needed
    }

    private static byte[] picture() throws IOException {
        var out = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(640, 480, BufferedImage.TYPE_INT_RGB), "png", out);
        return out.toByteArray();
    }

    private MediaSource source(String item) throws IOException {
        opened.add(item);
        try {
            open.await();
        } catch (InterruptedException e) {
            throw new IOException(e);
        }
        if (item.equals("gone")) {
            throw new IOException("it is gone");
        }
        var bytes = item.equals("words") ? "no picture".getBytes(StandardCharsets.UTF_8) : picture();
        return new StreamSource(bytes.length, () -> new ByteArrayInputStream(bytes));
    }

    private void ask(FxRobot robot, Set<String> inSight, String... items) {
        robot.interact(() -> {
            for (var item : items) {
                thumbnails.get(item);
            }
            thumbnails.inSight(inSight);
        });
    }

    private static void until(BooleanSupplier condition) throws Exception {
        WaitForAsyncUtils.waitFor(
                30,
                TimeUnit.SECONDS,
                () -> WaitForAsyncUtils.asyncFx(condition::getAsBoolean).get());
    }

    @Test
    void theNewestComesFirstAndWhatIsOutOfSightNotAtAll(FxRobot robot) throws Exception {
        robot.interact(() -> thumbnails.of(Optional.of(this::source)));
        ask(robot, Set.of("a", "b", "c", "d"), "a", "b", "c", "d");
        until(() -> opened.size() == 2);
        assertTrue(opened.containsAll(List.of("c", "d")), "two at once, the newest: " + opened);
        // Somebody scrolled on: a is out of sight, b still in it, e new.
        ask(robot, Set.of("b", "e"), "e");
        open.countDown();
        until(() -> thumbnails.get("b").isPresent() && thumbnails.get("e").isPresent());
        assertFalse(opened.contains("a"), opened.toString());
        var image = WaitForAsyncUtils.asyncFx(() -> thumbnails.get("e").map(Image::getWidth))
                .get();
        assertEquals(Optional.of(320.0), image);
        assertEquals(4, opened.size(), "what is there is not asked for again: " + opened);
    }

    @Test
    void whatCannotBeShownSaysSoAndIsNotTriedAgain(FxRobot robot) throws Exception {
        open.countDown();
        robot.interact(() -> thumbnails.of(Optional.of(this::source)));
        ask(robot, Set.of("words", "gone"), "words", "gone");
        until(() -> thumbnails.isUnreadable("words") && thumbnails.isUnreadable("gone"));
        ask(robot, Set.of("words", "gone"), "words", "gone");
        assertEquals(2, opened.size());
    }

    @Test
    void anotherLayerBeginsWithNothing(FxRobot robot) throws Exception {
        open.countDown();
        robot.interact(() -> thumbnails.of(Optional.of(this::source)));
        ask(robot, Set.of("a"), "a");
        until(() -> thumbnails.get("a").isPresent());
        robot.interact(() -> thumbnails.of(Optional.empty()));
        ask(robot, Set.of("a"), "a");
        assertEquals(
                Optional.empty(),
                WaitForAsyncUtils.asyncFx(() -> thumbnails.get("a")).get());
        assertEquals(1, opened.size());
    }
}
