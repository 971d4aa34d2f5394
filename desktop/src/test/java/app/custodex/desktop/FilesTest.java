package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.files.DocumentText.Paragraph;
import app.custodex.files.FolderTree;
import app.custodex.files.FolderTree.Node;
import app.custodex.files.RawContent;
import java.nio.charset.StandardCharsets;
import javafx.scene.control.ComboBox;
import javafx.scene.control.ListView;
import javafx.scene.control.TableView;
import javafx.scene.control.TreeView;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** The files of a layer are gone through, found, and looked into; a database is asked. */
class FilesTest extends WindowTest {
    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private static ListView<?> found(FxRobot robot) {
        return robot.lookup("#files-found").queryListView();
    }

    private void find(FxRobot robot, String words, int files) {
        write(robot, "#files-find", words);
        until(
                files + " files",
                () -> shows(robot, "#files-found") && found(robot).getItems().size() == files);
        robot.interact(() -> found(robot).getSelectionModel().clearAndSelect(0));
    }

    private static TableView<?> rows(FxRobot robot) {
        return robot.lookup("#database-rows").queryTableView();
    }

    @Test
    void filesAreFoundAndADatabaseIsAsked(FxRobot robot) throws Exception {
        readyPhone(robot);
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        robot.push(KeyCode.CONTROL, KeyCode.R);
        until(
                "the whole layer",
                () -> shows(robot, "#files-open")
                        && !robot.lookup("#files-open").query().isDisabled());
        robot.push(KeyCode.F6);
        until("the curtain", () -> !workplace.desk().veil().isDown());
        robot.push(KeyCode.CONTROL, KeyCode.L);
        until(
                "the files",
                () -> shows(robot, "#files-tree")
                        && robot.lookup("#files-tree").queryAs(TreeView.class).getRoot() != null);
        try (var layer = layerOne()) {
            var items = layer.items();
            var all = FolderTree.of(items);
            assertTrue(text(robot, "#files-count").startsWith(all.items() + " files"), text(robot, "#files-count"));
            assertEquals(
                    all.children().size(),
                    robot.lookup("#files-tree")
                            .queryAs(TreeView.class)
                            .getRoot()
                            .getChildren()
                            .size());

            // A database opens at its first table; the answers are those of the core.
            var database = FolderTree.find(items, "calls.db").getFirst().path();
            find(robot, "calls calls.db", 1);
            until(
                    "its tables",
                    () -> shows(robot, "#database-tables")
                            && !rows(robot).getItems().isEmpty());
            assertEquals(
                    layer.tables(database),
                    robot.lookup("#database-tables").queryAs(ComboBox.class).getItems());
            var sql = "SELECT count(*) AS calls FROM call WHERE seconds > 60";
            var expected = layer.ask(database, sql, 10);
            write(robot, "#database-question", sql);
            robot.push(KeyCode.ENTER);
            until("one row", () -> text(robot, "#database-count").equals("1 row"));
            assertEquals(expected.rows(), rows(robot).getItems());
            assertEquals("calls", rows(robot).getColumns().getFirst().getText());

            // What would change it does not, and says why; what is asked next is answered.
            write(robot, "#database-question", "DELETE FROM call");
            robot.push(KeyCode.ENTER);
            until("a refusal", () -> text(robot, "#database-count").startsWith("No answer"));
            until("why", () -> shows(robot, "#message-what"));
            write(robot, "#database-question", "SELECT * FROM call");
            robot.push(KeyCode.ENTER);
            int calls = layer.ask(database, "SELECT * FROM call", 1_000).rows().size();
            until("all calls", () -> rows(robot).getItems().size() == calls);

            // Any file as bytes; a picture as what it is.
            click(robot, "#look-bytes");
            until("bytes", () -> shows(robot, "#file-bytes"));
            assertTrue(String.valueOf(robot.lookup("#file-bytes")
                            .queryListView()
                            .getItems()
                            .getFirst())
                    .startsWith("00000000  53 51 4c 69 74 65"));
            var pictures = FolderTree.find(items, "roll .jpg");
            find(robot, "roll .jpg", pictures.size());
            until("a picture", () -> shows(robot, "#media-preview"));
            assertFalse(robot.lookup("#look-text").tryQuery().isPresent());

            // A text in its encoding, hidden behind the curtain.
            var texts = FolderTree.find(items, ".txt");
            find(robot, ".txt", texts.size());
            until("a text", () -> shows(robot, "#file-text"));
            var content = layer.beginning(texts.getFirst().path().text(), 1 << 20);
            assertEquals(
                    RawContent.lines(new String(content, StandardCharsets.UTF_8)),
                    robot.lookup("#file-text").queryListView().getItems());
            assertEquals("In UTF-8.", text(robot, "#file-about"));
            robot.push(KeyCode.F6);
            until(
                    "nothing private",
                    () -> !robot.lookup("#file-text").query().getParent().isVisible());
            robot.push(KeyCode.F6);

            // The data of apps under their names.
            var apps = FolderTree.byApp(layer.appFolders(), items);
            assertFalse(apps.children().isEmpty());
            click(robot, "#files-by-app");
            until("as many files", () -> text(robot, "#files-count").startsWith(apps.items() + " file"));
            assertEquals(
                    apps.children().stream().map(Node::name).toList(),
                    ((TreeView<?>) robot.lookup("#files-tree").query())
                            .getRoot().getChildren().stream()
                                    .map(item -> ((Node) item.getValue()).name())
                                    .toList());
            robot.push(KeyCode.ESCAPE);
            until("the reading room", () -> shows(robot, "#day-book"));
        }
    }

    @Test
    void aBookIsReadChapterByChapter(FxRobot robot) throws Exception {
        readyPhone(robot);
        click(robot, "#read-straight");
        until("the whole phone", () -> text(robot, "#room-where").contains("times in"));
        robot.push(KeyCode.F6);
        until("the curtain", () -> !workplace.desk().veil().isDown());
        robot.push(KeyCode.CONTROL, KeyCode.L);
        until("the files", () -> text(robot, "#files-count").contains(" files"));
        find(robot, "lights.epub", 1);
        until("its chapters", () -> shows(robot, "#document-pages"));
        ListView<Paragraph> pages = robot.lookup("#document-pages").queryListView();
        assertEquals(3, pages.getItems().getLast().page());
        assertTrue(
                pages.getItems().getFirst().text().startsWith("The first light"),
                pages.getItems().toString());
    }
}
