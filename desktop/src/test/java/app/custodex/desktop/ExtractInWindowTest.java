package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.extract.Format;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextArea;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** From a range in the reading room through the preview to the files. */
class ExtractInWindowTest extends WindowTest {
    @TempDir
    Path out;

    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private void choose(FxRobot robot, String group, String code) {
        ComboBox<Optional<Format>> formats = robot.lookup("#format-" + group).queryComboBox();
        robot.interact(() -> formats.getItems().stream()
                .filter(format -> format.map(Format::code).orElse("").equals(code))
                .findFirst()
                .ifPresent(formats::setValue));
    }

    private static String preview(FxRobot robot) {
        return robot.lookup("#extract-preview-text").queryAs(TextArea.class).getText();
    }

    private List<Path> files(String ending) throws IOException {
        try (var files = Files.walk(out)) {
            return files.filter(file -> file.toString().endsWith(ending))
                    .sorted()
                    .toList();
        }
    }

    @Test
    void whatARangeShowsComesOutAsItWasPreviewed(FxRobot robot) throws Exception {
        readyPhone(robot);
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        robot.push(KeyCode.CONTROL, KeyCode.R);
        until("the whole layer", () -> text(robot, "#room-where").contains("times in"));
        write(robot, "#range-from", "2025-10-01");
        write(robot, "#range-until", "2025-11-14");
        robot.push(KeyCode.ENTER);
        until("fewer things", () -> !text(robot, "#day-book-count").isBlank());

        robot.push(KeyCode.CONTROL, KeyCode.E);
        until("its groups", () -> shows(robot, "#extract-row-messages"));
        assertEquals("", preview(robot), "the curtain is down");
        robot.push(KeyCode.F6);
        until("the preview", () -> preview(robot).contains("\n2025-1"));
        assertFalse(Files.exists(out.resolve("Messages of Fenna's phone")), "nothing is on the disk yet");
        choose(robot, "messages", "text");
        until("the text", () -> preview(robot).contains("Times in "));
        choose(robot, "messages", "page");
        choose(robot, "calls", "csv");
        for (var group : List.of("pictures", "contacts", "music", "apps", "other", "notes", "events", "books", "web")) {
            if (robot.lookup("#format-" + group).tryQuery().isPresent()) {
                choose(robot, group, "");
            }
        }
        write(robot, "#extract-folder", out.toString());
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        until("the files", () -> shows(robot, "#extract-done"));

        int messages = 0;
        for (var page : files(".html")) {
            var read = Jsoup.parse(Files.readString(page));
            read.select("h2")
                    .eachText()
                    .forEach(day -> assertTrue(
                            day.compareTo("2025-10-01") >= 0 && day.compareTo("2025-11-14") <= 0, page + " " + day));
            messages += read.select("article").size();
            read.select("img")
                    .forEach(image -> assertTrue(
                            Files.exists(page.resolveSibling(URI.create("file:/" + image.attr("src"))
                                    .getPath()
                                    .substring(1))),
                            image.attr("src")));
        }
        assertTrue(messages > 3, messages + " messages");
        assertEquals(1, files(".csv").size());
        assertTrue(files(".vcf").isEmpty(), "they were to be left out");

        // The formats are remembered, and what is there stays.
        robot.push(KeyCode.ESCAPE);
        until("the list", () -> shows(robot, "#day-book"));
        robot.push(KeyCode.CONTROL, KeyCode.E);
        until("its groups", () -> shows(robot, "#extract-row-calls"));
        ComboBox<Optional<Format>> calls = robot.lookup("#format-calls").queryComboBox();
        assertEquals("csv", calls.getValue().map(Format::code).orElse(""));
        click(robot, "#extract-start");
        until("the other files", () -> shows(robot, "#extract-done"));
        assertEquals(2, files(".csv").size());
    }
}
