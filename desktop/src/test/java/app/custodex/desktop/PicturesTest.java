package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.OpenPhone;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import javafx.scene.AccessibleAttribute;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Pictures, videos and recordings are looked at, listened to and picked, by mouse and keyboard. */
class PicturesTest extends WindowTest {
    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private void openNewest(FxRobot robot) {
        robot.push(KeyCode.CONTROL, KeyCode.R);
        until("the day book", () -> shows(robot, "#day-book"));
        until("the whole layer", () -> text(robot, "#room-where").contains("times in"));
        robot.push(KeyCode.F6);
        until("the curtain", () -> !workplace.desk().veil().isDown());
    }

    private static int pictures(FxRobot robot) {
        return (int) robot.lookup("#contact-sheet").query().queryAccessibleAttribute(AccessibleAttribute.ITEM_COUNT);
    }

    private static String spoken(FxRobot robot) {
        return (String) robot.lookup("#contact-sheet").query().queryAccessibleAttribute(AccessibleAttribute.TEXT);
    }

    private static int selected(FxRobot robot) {
        var many = spoken(robot).replaceAll(".* ([0-9]+) are selected.*", "$1");
        return many.matches("[0-9]+") ? Integer.parseInt(many) : 0;
    }

    private static int inTray(OpenPhone layer, WindowTest of) throws IOException {
        return of.workplace.desk().custodex().trays().load(layer).cardinality();
    }

    @Test
    void picturesAreChosenWithARubberBandAndAVoicemailIsHeard(FxRobot robot) throws Exception {
        readyPhone(robot);
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        openNewest(robot);
        try (var layer = layerOne()) {
            click(robot, "#see-pictures");
            until("the sheet", () -> shows(robot, "#contact-sheet"));
            var filter = Filter.EVERYTHING.of(ThingKind.PICTURE, ThingKind.VIDEO);
            int all = layer.catalogue().find("", filter, Order.AS_KEPT).length;
            int folded = layer.catalogue().folds().folded().cardinality();
            assertTrue(folded > 0);
            until("bursts and clips as one", () -> pictures(robot) == all - folded);
            // Who picks a burst picks all of it.
            robot.interact(() -> robot.lookup("#contact-sheet").query().requestFocus());
            robot.push(KeyCode.CONTROL, KeyCode.A);
            robot.push(KeyCode.T);
            until("all of them", () -> picked(robot) == all);
            robot.push(KeyCode.T);
            until("none of them", () -> picked(robot) == 0);
            click(robot, "#sheet-fold");
            until("each of them", () -> pictures(robot) == all);

            // As small as they get, so that many are in sight; then from one corner to the other.
            click(robot, "#sheet-smaller");
            click(robot, "#sheet-smaller");
            var sheet = boundsOf(robot, "#contact-sheet");
            robot.moveTo(sheet.getMinX() + 4, sheet.getMinY() + 40).press(MouseButton.PRIMARY);
            robot.moveTo(sheet.getMaxX() - 200, sheet.getMinY() + 200);
            // Held below the sheet it goes on by itself.
            robot.moveTo(sheet.getMaxX() - 40, sheet.getMaxY() + 20);
            until("forty", () -> selected(robot) >= 40);
            robot.release(MouseButton.PRIMARY);
            int forty = selected(robot);
            robot.push(KeyCode.T);
            until("as many in the tray", () -> picked(robot) == forty);
            until("kept", () -> {
                try {
                    return inTray(layer, this) == forty;
                } catch (IOException e) {
                    throw new AssertionError(e);
                }
            });
            robot.push(KeyCode.T);
            until("none", () -> picked(robot) == 0);

            // By the keyboard: the first one, then on to the third.
            robot.push(KeyCode.HOME);
            until("the first", () -> spoken(robot).startsWith("Picture 1 of "));
            robot.push(KeyCode.SHIFT, KeyCode.RIGHT);
            robot.push(KeyCode.SHIFT, KeyCode.RIGHT);
            robot.push(KeyCode.T);
            until("three", () -> picked(robot) == 3);

            click(robot, "#see-voicemail");
            until("voicemail", () -> shows(robot, "#day-book"));
            robot.interact(() -> {
                longList(robot, "#day-book").requestFocus();
                longList(robot, "#day-book").choose(0);
            });
            until("the player", () -> shows(robot, "#player"));
            until("its length", () -> text(robot, "#player-time").contains(" / 0:0"));
            robot.push(KeyCode.SPACE);
            until("a second of it", () -> text(robot, "#player-time").startsWith("0:01"));
            assertEquals("Pause", text(robot, "#player-play"));
            robot.push(KeyCode.SPACE);
            until("a pause", () -> text(robot, "#player-play").equals("Play"));
            robot.push(KeyCode.SPACE);
            until("it plays", () -> text(robot, "#player-play").equals("Pause"));
            robot.push(KeyCode.F6); // nobody hears what is behind the curtain
            until("silence", () -> text(robot, "#player-play").equals("Play"));
            robot.push(KeyCode.SPACE);
            until("why", () -> text(robot, "#player-note").contains("The curtain is down"));
        }
    }

    private static void ffmpeg(Path file, String... options) throws Exception {
        var command = new ArrayList<>(List.of("ffmpeg", "-v", "quiet", "-y"));
        command.addAll(List.of(options));
        command.add(file.toString());
        assertEquals(0, new ProcessBuilder(command).start().waitFor(), String.join(" ", command));
        Files.setLastModifiedTime(file, FileTime.from(Instant.parse("2025-11-01T08:00:00Z")));
    }

    /** A card with two pictures, one that is damaged, and a video with sound. */
    private void openCard(FxRobot robot) throws Exception {
        var card = Files.createDirectories(home.resolve("card"));
        ffmpeg(card.resolve("1 harbour.jpg"), "-f", "lavfi", "-i", "testsrc2=size=1200x900", "-frames:v", "1");
        ffmpeg(card.resolve("2 lamp.png"), "-f", "lavfi", "-i", "testsrc=size=300x400", "-frames:v", "1");
        ffmpeg(
                card.resolve("3 storm.mp4"),
                "-f",
                "lavfi",
                "-i",
                "testsrc2=size=320x240:rate=25:duration=4",
                "-f",
                "lavfi",
                "-i",
                "sine=duration=4",
                "-pix_fmt",
                "yuv420p");
        var png = Files.readAllBytes(card.resolve("2 lamp.png"));
        var broken = Files.write(card.resolve("4 broken.png"), Arrays.copyOf(png, png.length / 3));
        Files.setLastModifiedTime(broken, FileTime.from(Instant.parse("2025-10-01T08:00:00Z")));
        click(robot, "#add-source");
        write(robot, "#source-place", card.toString());
        write(robot, "#source-name", "Card of Ivo");
        click(robot, "#source-add");
        until("its bay", () -> workplace.desk().bays().size() == 3);
        var bay = workplace.desk().bays().getLast();
        openDocket(robot, "Ivo Kelp");
        until("the card", bay::ready);
        robot.push(KeyCode.CONTROL, KeyCode.B);
        until("the layer", () -> bay.layers().get().size() == 1);
        openNewest(robot);
    }

    private static Optional<ImageView> film(FxRobot robot) {
        return robot.lookup("#full-picture > .image-view").tryQueryAs(ImageView.class);
    }

    @Test
    void picturesAreLookedAtCloselyAndVideosPlay(FxRobot robot) throws Exception {
        openCard(robot);
        click(robot, "#see-pictures");
        until("the sheet", () -> shows(robot, "#contact-sheet") && pictures(robot) == 4);
        robot.interact(() -> robot.lookup("#contact-sheet").query().requestFocus());
        robot.push(KeyCode.END);
        until("the last", () -> spoken(robot).startsWith("Picture 4 of 4, 4 broken.png"));
        robot.push(KeyCode.ENTER);
        until("why it is not there", () -> text(robot, "#full-trouble").contains("It is damaged"));

        // From one to the next: the harbour, closely.
        var seen = new BitSet();
        for (int i = 0; i < 3; i++) {
            robot.push(KeyCode.LEFT);
            int number = 3 - i;
            until("picture " + number, () -> text(robot, "#full-number").startsWith(number + " of 4"));
            until("its facts", () -> text(robot, "#full-facts").contains(" × "));
            var name = robot.lookup("#full-name").query().getAccessibleText();
            seen.set(name.charAt(0) - '0');
            assertEquals("", text(robot, "#full-trouble"));
            if (name.startsWith("1")) {
                assertTrue(text(robot, "#full-facts").contains("1200 × 900"), text(robot, "#full-facts"));
                robot.push(KeyCode.DIGIT1);
                until("pixel by pixel", () -> film(robot).orElseThrow().getFitWidth() == 1200);
                robot.push(KeyCode.R);
                until("on its side", () -> film(robot).orElseThrow().getRotate() == 90);
                robot.push(KeyCode.DIGIT0);
            }
            if (name.startsWith("3")) {
                playFilm(robot);
            }
        }
        assertEquals(3, seen.cardinality(), seen.toString());
        robot.push(KeyCode.ESCAPE);
        until("the sheet again", () -> shows(robot, "#contact-sheet"));
        until("where one was", () -> spoken(robot).startsWith("Picture 1 of 4"));
        click(robot, "#sheet-rows");
        until("the rows", () -> shows(robot, "#day-book"));
        assertFalse(shows(robot, "#contact-sheet"));
    }

    private void playFilm(FxRobot robot) {
        until(
                "the player",
                () -> shows(robot, "#player") && text(robot, "#player-time").contains(" / 0:04"));
        var still = film(robot).orElseThrow().getImage();
        // Into its middle, before it was ever played: the picture of that place shows, and it plays from there.
        robot.clickOn("#player-wave");
        until("the place", () -> text(robot, "#player-time").startsWith("0:02"));
        until("its picture", () -> film(robot).orElseThrow().getImage() != still);
        robot.push(KeyCode.SPACE);
        until("a second more", () -> text(robot, "#player-time").startsWith("0:03"));
        robot.push(KeyCode.PERIOD); // one picture further, and it stands
        until("it stands", () -> text(robot, "#player-play").equals("Play"));
    }
}
