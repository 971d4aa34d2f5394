package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Files;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.slf4j.LoggerFactory;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** The guide opens where one is, is searched, and gives the keys of the screen; a report of a problem names nobody. */
class GuideTest extends WindowTest {
    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private static boolean saysKey(FxRobot robot, String key) {
        return robot.lookup("#guide .key").queryAllAs(Label.class).stream()
                .anyMatch(label -> label.getText().equals(key));
    }

    @Test
    void theGuideOpensAtThePlaceWhereOneIs(FxRobot robot) {
        assertFalse(shows(robot, "#guide"));
        robot.push(KeyCode.F1);
        untilText(robot, "#guide-title", "Check in");
        assertTrue(saysKey(robot, "Ctrl+S"));
        robot.push(KeyCode.F1);
        until("it is put away", () -> !shows(robot, "#guide"));

        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        click(robot, "#open-guide");
        untilText(robot, "#guide-title", "Strongroom");
        robot.push(KeyCode.ESCAPE);
        until("it is put away", () -> !shows(robot, "#guide"));

        robot.push(KeyCode.CONTROL, KeyCode.DIGIT1);
        readyPhone(robot);
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        robot.push(KeyCode.CONTROL, KeyCode.R);
        until("the day book", () -> shows(robot, "#day-book"));
        robot.push(KeyCode.F1);
        untilText(robot, "#guide-title", "Reading room");
        assertTrue(saysKey(robot, "Ctrl+G"));
        robot.write("rubber band");
        until(
                "the pages that say it and no others",
                () -> shows(robot, "#guide-page-pictures") && !shows(robot, "#guide-page-check-in"));
        click(robot, "#guide-page-pictures");
        untilText(robot, "#guide-title", "Pictures, sound and video");
    }

    @Test
    void aReportOfAProblemNamesNobody(FxRobot robot) throws Exception {
        readyPhone(robot); // Fenna Rook's
        LoggerFactory.getLogger(GuideTest.class)
                .warn("Fenna's secret.txt", new IllegalStateException("Fenna's own words"));
        robot.push(KeyCode.F1);
        click(robot, "#report-open");
        until("the report", () -> shows(robot, "#report-text"));
        var text = robot.lookup("#report-text").queryAs(TextArea.class).getText();
        assertTrue(text.contains("IllegalStateException"), text);
        assertTrue(text.contains("GuideTest"), text);
        assertTrue(text.contains("Bays 2"), text);
        for (var name : new String[] {"Fenna", "secret", "Rook", home.toString()}) {
            assertFalse(text.contains(name), name + " in " + text);
        }
        var file = home.resolve("report.txt");
        write(robot, "#report-file", file.toString());
        click(robot, "#report-save");
        untilText(robot, "#report-saved", "Saved as " + file + ".");
        assertEquals(text, Files.readString(file));

        // What is there already stays.
        click(robot, "#report-save");
        until("the refusal", () -> shows(robot, "#message-what"));
        assertEquals(text, Files.readString(file));
    }
}
