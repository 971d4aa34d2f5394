package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Home;
import app.custodex.base.RealDisk;
import app.custodex.docket.HandOutBook;
import app.custodex.extract.Delivery.Form;
import app.custodex.extract.Format;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.VBox;
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

    private void leaveOutAllBut(FxRobot robot, String... groups) {
        for (var group : List.of(
                "messages",
                "calls",
                "pictures",
                "contacts",
                "music",
                "apps",
                "other",
                "notes",
                "events",
                "books",
                "web")) {
            boolean there = robot.lookup("#format-" + group).tryQuery().isPresent();
            if (there && !List.of(groups).contains(group)) {
                choose(robot, group, "");
            }
        }
    }

    /** A transcript for evidence without somebody, looked at before it is written, in a package that the customer's passphrase opens. */
    @Test
    void aTranscriptWithoutSomebodyGoesIntoASealedPackage(FxRobot robot) throws Exception {
        readWholeLayer(robot);
        robot.push(KeyCode.CONTROL, KeyCode.E);
        robot.push(KeyCode.CONTROL, KeyCode.E); // once more, while it is being opened
        until("its groups", () -> shows(robot, "#extract-row-messages"));
        until("that nothing is under way", () -> text(robot, "#extract-title").startsWith("Extract "));
        assertEquals(1, robot.lookup("#extract-row-messages").queryAll().size(), "each group stands there once");
        choose(robot, "messages", "pdf");
        leaveOutAllBut(robot, "messages");
        ScrollPane pages = robot.lookup("#extract-preview-pages").queryAs(ScrollPane.class);
        until("the pages", () -> !((VBox) pages.getContent()).getChildren().isEmpty());
        robot.interact(() -> robot.lookup("#extract-messages-evidence")
                .queryAs(CheckBox.class)
                .fire());
        write(robot, "#extract-messages-black-out", "Ivo Kelp");
        write(robot, "#extract-folder", out.toString());
        until("how much room there is", () -> text(robot, "#extract-room").contains("free there"));
        ComboBox<Form> form = robot.lookup("#extract-form").queryComboBox();
        robot.interact(() -> form.setValue(Form.SEALED));
        write(robot, "#extract-passphrase", "lantern orbit meadow cinder");
        write(robot, "#extract-passphrase-again", "lantern orbit meadow");
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        until("that they differ", () -> text(robot, "#message-what").contains("The two passphrases differ"));
        try (var there = Files.list(out)) {
            assertEquals(0, there.count());
        }
        write(robot, "#extract-passphrase", "lantern orbit meadow cinder");
        write(robot, "#extract-passphrase-again", "lantern orbit meadow cinder");
        robot.push(KeyCode.CONTROL, KeyCode.ENTER);
        until("the package", () -> shows(robot, "#extract-done"));
        assertEquals(1, files(".zip.age").size());
        try (var there = Files.list(out)) {
            assertEquals(1, there.count(), "nothing lies beside it");
        }
        assertEquals(
                "", robot.lookup("#extract-passphrase").queryAs(TextField.class).getText());
        var noted =
                new HandOutBook(new Home(home).handOuts(), new RealDisk()).all().getFirst();
        assertEquals(
                files(".zip.age").getFirst().toString(),
                noted.files().getFirst().path());
        var settings = Files.readString(new Home(home).settings());
        assertTrue(settings.contains("pdf:evidence=yes"), settings);
        assertFalse(settings.contains("Kelp"), "what is blacked out is nobody's business");
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
        leaveOutAllBut(robot, "messages", "calls");
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
