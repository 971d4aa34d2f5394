package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.OpenPhone;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.desktop.ui.UserText;
import app.custodex.model.MediaFile;
import app.custodex.model.ThingKind;
import app.custodex.twins.TwinSet;
import app.custodex.twins.TwinSet.Likeness;
import app.custodex.twins.Twins;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** What is in a layer more than once, and what would be lost with the phone. */
class TwinsInWindowTest extends WindowTest {
    @TempDir
    Path elsewhere;

    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private static List<TwinSet> contacts(OpenPhone layer) throws IOException {
        var found = new ArrayList<TwinSet>();
        layer.twins(
                new Twins.Listener() {
                    @Override
                    public void found(List<TwinSet> sets) {
                        found.addAll(sets);
                    }

                    @Override
                    public void problem(Problem problem) {
                        throw new AssertionError(problem.sentence());
                    }
                },
                new CancelToken());
        return found.stream()
                .filter(set -> set.likeness() == Likeness.ONE_PERSON)
                .toList();
    }

    private void openNewest(FxRobot robot) {
        readWholeLayer(robot);
        until("the curtain", () -> !workplace.desk().veil().isDown());
    }

    private static String kept(FxRobot robot) {
        return robot.lookup("#merge .check-box").queryAllAs(CheckBox.class).stream()
                .map(box -> box.isSelected() ? "x" : "-")
                .collect(Collectors.joining());
    }

    private static String label(FxRobot robot, String id) {
        return robot.lookup(id).<Labeled>tryQuery().map(Labeled::getText).orElse("");
    }

    @Test
    void contactsAreMergedValueByValueAndTakenOutAsOne(FxRobot robot) throws Exception {
        openNewest(robot);
        try (var layer = layerOne()) {
            var sets = contacts(layer);
            assertTrue(!sets.isEmpty(), "the island has contacts twice");
            var first = sets.getFirst();
            robot.push(KeyCode.CONTROL, KeyCode.D);
            until("the contacts", () -> label(robot, "#twins-0").endsWith("  " + sets.size()));
            click(robot, "#twins-0");
            until(
                    "the reason",
                    () -> robot.lookup("#twins-reason")
                            .<UserText>tryQuery()
                            .filter(reason -> reason.getText().startsWith("The same "))
                            .isPresent());
            var proposed = kept(robot);
            // Leave the second of the phone's values out, and take that back; then choose it again.
            int at = proposed.indexOf("x", 1);
            click(robot, "#merge-value-" + at);
            until("one less", () -> !kept(robot).equals(proposed));
            robot.push(KeyCode.CONTROL, KeyCode.Z);
            until("as it was proposed", () -> kept(robot).equals(proposed));
            click(robot, "#merge-value-" + at);
            click(robot, "#merge-put");
            until(
                    "both in the tray",
                    () -> text(robot, "#tray")
                            .contains("Contacts " + first.numbers().size()));
            untilText(robot, "#merge-state", "Settled: they are written as one contact.");
            until("kept", () -> merges(layer) == 1);

            robot.push(KeyCode.CONTROL, KeyCode.E);
            int apart = first.numbers().size();
            untilText(robot, "#extract-merged", "Merged as settled under Twins: 1 instead of " + apart);
            write(robot, "#extract-folder", elsewhere.toString());
            click(robot, "#extract-start");
            until("the file", () -> shows(robot, "#extract-done"));
            var file = files().getFirst();
            assertEquals(1, Files.readString(file).split("BEGIN:VCARD", -1).length - 1);
            click(robot, "#extract-merged");
            until("the preview", () -> !shows(robot, "#extract-done"));
            click(robot, "#extract-start");
            until("the other file", () -> shows(robot, "#extract-done"));
            var each = Files.readString(files().stream()
                    .filter(other -> other.getFileName().toString().contains("(2)"))
                    .findFirst()
                    .orElseThrow());
            assertEquals(apart, each.split("BEGIN:VCARD", -1).length - 1);
        }
    }

    private List<Path> files() throws IOException {
        try (var files = Files.walk(elsewhere)) {
            return files.filter(Files::isRegularFile).toList();
        }
    }

    private int merges(OpenPhone layer) {
        try {
            return workplace.desk().custodex().trays().merges(layer).size();
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void whatWouldBeLostWithThePhoneIsPutInTheTray(FxRobot robot) throws Exception {
        openNewest(robot);
        try (var layer = layerOne()) {
            // The customer still has one picture, under another name.
            var numbers = layer.catalogue().find(Filter.EVERYTHING.of(ThingKind.PICTURE), Order.OLDEST_FIRST);
            int all = layer.catalogue()
                    .find("", Filter.EVERYTHING.of(ThingKind.PICTURE, ThingKind.VIDEO), Order.AS_KEPT)
                    .length;
            var entry = layer.catalogue().read(numbers).stream()
                    .filter(each -> ((MediaFile) each.thing()).bytes() > 0)
                    .findFirst()
                    .orElseThrow();
            layer.outgoing().takeOut(entry.thing().id(), elsewhere.resolve("mine.jpg"));
            robot.push(KeyCode.CONTROL, KeyCode.O);
            write(robot, "#only-here-path", elsewhere.toString());
            robot.push(KeyCode.ENTER);
            until("the answer", () -> text(robot, "#only-here-state").equals("Compared with 1 file there."));
            until("some are there", () -> !label(robot, "#only-here-kept").endsWith(" 0"));
            robot.push(KeyCode.CONTROL, KeyCode.T);
            until("the others in the tray", () -> picked(robot) > 0 && picked(robot) < all);
            click(robot, "#only-here-kept");
            until(
                    "its reason",
                    () -> robot.lookup("#only-here-list .user-text").queryAllAs(UserText.class).stream()
                            .anyMatch(words -> words.getText().startsWith("the same content is in ")));
            write(robot, "#only-here-path", elsewhere.resolve("nowhere").toString());
            robot.push(KeyCode.ENTER);
            until("why not", () -> robot.lookup("#message-what").tryQuery().isPresent());
        }
    }
}
