package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import app.custodex.link.Family;
import app.custodex.tones.ToneUse;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import javafx.scene.control.ComboBox;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.input.DragEvent;
import javafx.scene.input.Dragboard;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.TransferMode;
import javafx.stage.Stage;
import javax.sound.sampled.AudioFileFormat;
import javax.sound.sampled.AudioFormat;
import javax.sound.sampled.AudioInputStream;
import javax.sound.sampled.AudioSystem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Files dropped on the tray: a tone cut out of one, and all of them written in another form. */
class ToneInWindowTest extends WindowTest {
    @TempDir
    Path out;

    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private static void fire(FxRobot robot, String id) {
        robot.interact(() -> robot.lookup(id).queryButton().fire());
    }

    private void untilSays(FxRobot robot, String id, String words) {
        until(words, () -> shows(robot, id) && text(robot, id).contains(words));
    }

    private static String field(FxRobot robot, String id) {
        return robot.lookup(id).queryAs(TextField.class).getText();
    }

    private Map<String, String> columnSets() {
        try {
            return workplace.desk().custodex().settings().columnSets();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void drop(FxRobot robot, Path... files) {
        var board = mock(Dragboard.class);
        when(board.hasFiles()).thenReturn(true);
        when(board.getFiles())
                .thenReturn(List.of(files).stream().map(Path::toFile).toList());
        robot.interact(() -> stage.getScene()
                .getRoot()
                .fireEvent(new DragEvent(
                        null,
                        stage.getScene().getRoot(),
                        DragEvent.DRAG_DROPPED,
                        board,
                        0,
                        0,
                        0,
                        0,
                        TransferMode.COPY,
                        null,
                        null,
                        null)));
    }

    private static Path wav(Path file, int seconds) throws IOException {
        var samples = new byte[2 * 44_100 * seconds];
        for (int i = 0; i < samples.length; i += 2) {
            int level = (int) (12_000 * Math.sin(i * 0.03));
            samples[i] = (byte) level;
            samples[i + 1] = (byte) (level >> 8);
        }
        var format = new AudioFormat(44_100, 16, 1, true, false);
        var sound = new AudioInputStream(new ByteArrayInputStream(samples), format, samples.length / 2);
        AudioSystem.write(sound, AudioFileFormat.Type.WAVE, file.toFile());
        return file;
    }

    @Test
    void aToneIsCutOutOfADroppedSong(FxRobot robot) throws Exception {
        drop(robot, wav(out.resolve("tide.wav"), 30));
        untilSays(robot, "#tray", "Sound 1");
        until("the whole of it", () -> text(robot, "#room-where").contains("nothing of it is kept"));
        robot.push(KeyCode.F6);
        var book = longList(robot, "#day-book");
        robot.interact(() -> book.choose(0));
        until("a song", () -> shows(robot, "#media-cut"));
        fire(robot, "#media-cut");
        untilSays(robot, "#tone-state", "0:20.00 long");
        assertEquals("tide", field(robot, "#tone-name"));
        ComboBox<ToneUse> use = robot.lookup("#tone-use").queryComboBox();
        ComboBox<Family> family = robot.lookup("#tone-family").queryComboBox();
        robot.interact(() -> {
            use.setValue(ToneUse.MESSAGE);
            family.setValue(Family.PELLOW);
        });
        untilSays(robot, "#tone-state", "takes 10 s at most");
        write(robot, "#tone-folder", out.resolve("to").toString());
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        until("that it is refused", () -> text(robot, "#message-what").contains("takes 10 s at most"));
        var wave = boundsOf(robot, "#tone-wave");
        robot.drag(wave.getMinX() + wave.getWidth() / 3, wave.getMinY() + 20, MouseButton.PRIMARY)
                .dropTo(wave.getMinX() + wave.getWidth() / 2, wave.getMinY() + 20);
        until(
                "a third to a half of it",
                () -> field(robot, "#tone-from").matches("0:(09.9|10.0).")
                        && field(robot, "#tone-until").matches("0:(14.9|15.0)."));
        robot.clickOn("#tone-until");
        robot.push(KeyCode.UP);
        assertTrue(field(robot, "#tone-until").matches("0:15[.][01]."), field(robot, "#tone-until"));
        fire(robot, "#tone-listen");
        until("it plays", () -> shows(robot, "#player"));
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        untilSays(robot, "#tone-state", "is written");
        assertTrue(Files.size(out.resolve("to/tide.mp3")) > 50_000);
        robot.push(KeyCode.ESCAPE);
        until("the list again", () -> shows(robot, "#day-book"));
        drop(robot, wav(out.resolve("ebb.wav"), 3));
        untilSays(robot, "#tray", "Sound 2");
    }

    @Test
    void whatWasWrittenGoesOnFromThere(FxRobot robot) throws Exception {
        drop(robot, wav(out.resolve("tide.wav"), 3));
        untilSays(robot, "#tray", "Sound 1");
        robot.push(KeyCode.F6);
        robot.push(KeyCode.CONTROL, KeyCode.E);
        until("its row", () -> shows(robot, "#extract-row-music"));
        write(robot, "#extract-folder", out.resolve("to").toString());
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        until("the files", () -> shows(robot, "#extract-done"));
        assertTrue(robot.lookup("#extract-print").query().isDisabled(), "a song is not printed");
        fire(robot, "#extract-mail");
        until("the draft", () -> Files.exists(out.resolve("to/From Files of this computer.eml")));
        assertTrue(Files.size(out.resolve("to/From Files of this computer.eml")) > 300_000);
    }

    @Test
    void columnsAreTickedKeptAndChosenAgain(FxRobot robot) throws Exception {
        readWholeLayer(robot);
        fire(robot, "#see-contacts");
        robot.push(KeyCode.CONTROL, KeyCode.E);
        until("contacts", () -> shows(robot, "#format-contacts"));
        ComboBox<?> formats = robot.lookup("#format-contacts").queryComboBox();
        robot.interact(() -> formats.getSelectionModel().select(5)); // CSV
        MenuButton columns = robot.lookup("#extract-contacts-columns").queryAs(MenuButton.class);
        assertEquals("all", columns.getText());
        robot.interact(columns::show);
        until("the boxes", () -> shows(robot, "#column-name"));
        click(robot, "#column-photo");
        click(robot, "#column-identifier");
        assertEquals("17 of 19", columns.getText());
        write(robot, "#columns-name", "For the car");
        click(robot, "#columns-keep");
        assertEquals("For the car", columns.getText());
        until("remembered", () -> columnSets().containsKey("For the car"));
        robot.interact(columns::show);
        click(robot, "#columns-all");
        assertEquals("all", columns.getText());
    }
}
