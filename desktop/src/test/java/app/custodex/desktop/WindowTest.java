package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;

import app.custodex.app.Home;
import app.custodex.app.Mandate;
import app.custodex.app.OpenPhone;
import app.custodex.desktop.App.Prepared;
import app.custodex.desktop.App.Workplace;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.ui.LongList;
import app.custodex.desktop.ui.SteadyRobot;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.drawer.PracticeDrawer.Contents;
import app.custodex.drawer.PracticePhone;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.time.ZoneOffset;
import java.util.Locale;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.BooleanSupplier;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.util.WaitForAsyncUtils;

/** A real window with the demo's phones, and the hands of a technician. */
@ExtendWith(SteadyRobot.class)
@SuppressWarnings("NullAway.Init") // set when the window is shown
abstract class WindowTest {
    @TempDir
    static Path homes;

    static int homeNumber;

    Path home;
    Stage stage;
    /** By so much the window's clock is ahead. */
    volatile Duration later = Duration.ZERO;

    private final Clock clock = ((InstantSource) () -> Instant.now().plus(later)).withZone(ZoneOffset.UTC);
    Workplace workplace;

    /** To be called by each test class's own start method: the library looks for it there only. */
    void open(Stage shown) throws Exception {
        home = homes.resolve("home-" + ++homeNumber);
        stage = shown;
        // Another test may have left it smaller.
        stage.setWidth(1280);
        stage.setHeight(800);
        copyPhones();
        workplace = Workplace.show(stage, Prepared.open(new Home(home), Optional.of(Contents.sketched(1, 0)), clock));
    }

    /** Drawing the demo's phones takes seconds, so it is done once and each window gets a copy. */
    private void copyPhones() throws IOException {
        var drawn = homes.resolve("drawn");
        if (!Files.exists(drawn)) {
            var drawer = ServiceLoader.load(PracticeDrawer.Provider.class)
                    .findFirst()
                    .orElseThrow();
            drawer.open(drawn, Contents.sketched(1, 0)).close();
        }
        try (var files = Files.walk(drawn)) {
            for (var file : files.toList()) {
                var target =
                        home.resolve("practice").resolve(drawn.relativize(file).toString());
                if (Files.isDirectory(file)) {
                    Files.createDirectories(target);
                } else {
                    Files.copy(file, target, StandardCopyOption.COPY_ATTRIBUTES);
                }
            }
        }
    }

    @AfterEach
    void close() throws Exception {
        WaitForAsyncUtils.asyncFx(() -> {
                    workplace.close();
                    stage.hide();
                })
                .get(20, TimeUnit.SECONDS);
    }

    void until(String what, BooleanSupplier condition) {
        try {
            WaitForAsyncUtils.waitFor(
                    40,
                    TimeUnit.SECONDS,
                    () -> WaitForAsyncUtils.asyncFx(condition::getAsBoolean).get());
        } catch (TimeoutException e) {
            throw new AssertionError("waited in vain for " + what, e);
        }
    }

    static boolean shows(FxRobot robot, String id) {
        return robot.lookup(id).tryQuery().filter(Node::isVisible).isPresent();
    }

    void click(FxRobot robot, String id) {
        until(
                id,
                () -> robot.lookup(id)
                        .tryQuery()
                        .filter(n -> n.isVisible() && !n.isDisabled())
                        .isPresent());
        robot.clickOn(id);
    }

    void write(FxRobot robot, String id, String words) {
        click(robot, id);
        robot.push(KeyCode.CONTROL, KeyCode.A).write(words);
        assertEquals(words, robot.lookup(id).queryAs(TextInputControl.class).getText());
    }

    /** How many pictures the tray says are in it. */
    static int picked(FxRobot robot) {
        var digits = text(robot, "#tray").replaceAll(".*Pictures ([0-9]+).*", "$1");
        return digits.matches("[0-9]+") ? Integer.parseInt(digits) : 0;
    }

    static Bounds boundsOf(FxRobot robot, String id) {
        var node = robot.lookup(id).query();
        return node.localToScreen(node.getBoundsInLocal());
    }

    PracticePhone phone(int number) {
        return workplace.drawer().orElseThrow().phones().get(number);
    }

    void openDocket(FxRobot robot, String customer) {
        write(robot, "#docket-customer", customer);
        write(robot, "#docket-reason", "Moves to a new phone");
        write(robot, "#docket-promised-time", "16:00");
        click(robot, "#docket-consent");
        click(robot, "#docket-save");
        until(
                "the docket",
                () -> workplace.desk().bays().stream()
                        .anyMatch(b -> b.docket()
                                .get()
                                .filter(d -> d.customer().equals(customer))
                                .isPresent()));
    }

    /** The first phone, ready for its first backup, with Fenna Rook's docket. */
    BayModel readyPhone(FxRobot robot) {
        var bay = workplace.desk().bays().getFirst();
        phone(0).makeReady();
        until("readiness", bay::ready);
        openDocket(robot, "Fenna Rook");
        click(robot, "#go-back-up");
        until("the survey", () -> bay.survey().get().isPresent());
        return bay;
    }

    /** The first phone's first layer, whole in the reading room, with the curtain lifted. */
    void readWholeLayer(FxRobot robot) {
        readyPhone(robot);
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        robot.push(KeyCode.CONTROL, KeyCode.R);
        until("the whole layer", () -> text(robot, "#room-where").contains("times in"));
        robot.push(KeyCode.F6);
    }

    /** The first layer of the first phone, as the core opens it. */
    OpenPhone layerOne() throws IOException {
        var bay = workplace.desk().bays().getFirst();
        return workplace
                .desk()
                .custodex()
                .reading()
                .open(
                        Mandate.ofDocket(bay.docket().get().orElseThrow().number()),
                        bay.phone().orElseThrow().identifier(),
                        1,
                        Locale.UK);
    }

    /** Works the practice drawer's own window. */
    void tapAll(FxRobot robot, String family, String... taps) {
        robot.push(KeyCode.F9);
        click(robot, "#drawer-" + family);
        for (var tap : taps) {
            click(robot, "#tap-" + family + "-" + tap);
        }
        robot.push(KeyCode.F9);
    }

    /** Puts the window away and starts again on the same home, as after a night. */
    void restart() throws Exception {
        WaitForAsyncUtils.asyncFx(() -> workplace.close()).get(20, TimeUnit.SECONDS);
        workplace = WaitForAsyncUtils.asyncFx(
                        () -> Workplace.show(stage, Prepared.open(new Home(home), Optional.empty())))
                .get(20, TimeUnit.SECONDS);
    }

    static String text(FxRobot robot, String id) {
        return robot.lookup(id).queryAs(Labeled.class).getText();
    }

    static LongList longList(FxRobot robot, String id) {
        return robot.lookup(id).queryAs(LongList.class);
    }

    void untilText(FxRobot robot, String id, String words) {
        until(words, () -> shows(robot, id) && text(robot, id).equals(words));
    }
}
