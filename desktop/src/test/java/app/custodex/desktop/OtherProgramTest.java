package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.BackupJob.Outcome;
import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.app.Mandate;
import app.custodex.backup.BackupRequest;
import app.custodex.drawer.PracticePhone;
import java.nio.file.Files;
import java.time.Clock;
import java.time.Duration;
import java.util.concurrent.TimeUnit;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** The window beside another program that works on the same home. */
class OtherProgramTest extends WindowTest {
    @SuppressWarnings("NullAway.Init") // set before each test
    private Custodex other;

    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    @BeforeEach
    void openOther() throws Exception {
        phone(0).makeReady();
        until("readiness", () -> workplace.desk().bays().getFirst().ready());
        other = Custodex.open(new Home(home), Clock.systemUTC());
        until("readiness there", () -> {
            other.bays().all().getFirst().ask();
            return other.bays().all().getFirst().status().isPresent();
        });
    }

    @AfterEach
    void closeOther() {
        other.close();
    }

    private static BackupRequest everything() {
        return BackupRequest.everything(Duration.ofSeconds(30), Custodex.TOOL);
    }

    private void copyInWindow() throws Exception {
        var bay = workplace.desk().bays().getFirst().bay();
        workplace
                .desk()
                .custodex()
                .backUp(bay, Mandate.ofShop(), everything(), false)
                .outcome()
                .get(60, TimeUnit.SECONDS);
    }

    @Test
    void aStrongroomIsNotMovedWhileTheOtherProgramCopies(FxRobot robot) throws Exception {
        copyInWindow();
        phone(0).slowDown(40_000);
        var request = everything().readingEverything(true);
        var copying = other.backUp(other.bays().all().getFirst(), Mandate.ofShop(), request, false);
        until("it copies", () -> copying.progress().doneItems() > 0);
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        click(robot, "#strongroom-place");
        write(robot, "#strongroom-folder", home.resolve("elsewhere").toString());
        click(robot, "#strongroom-move");
        until("the refusal", () -> shows(robot, "#message-bar"));
        assertFalse(Files.exists(home.resolve("elsewhere/strongroom.json")), "nothing was moved");
        assertTrue(Files.exists(home.resolve("strongroom/strongroom.json")));
        phone(0).slowDown(PracticePhone.FULL_SPEED);
        assertTrue(
                copying.outcome().get(60, TimeUnit.SECONDS) instanceof Outcome.Done done
                        && done.result().check().orElseThrow().sound(),
                "the copy went on");
    }

    @Test
    void theOtherProgramGoesOnWhereTheStrongroomWent(FxRobot robot) throws Exception {
        copyInWindow();
        var to = home.resolve("elsewhere");
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        click(robot, "#strongroom-place");
        write(robot, "#strongroom-folder", to.toString());
        click(robot, "#strongroom-move");
        until("it is there", () -> workplace.desk().custodex().strongroomPlace().equals(to));
        var first = other.bays().all().getFirst();
        var ended = other.backUp(first, Mandate.ofShop(), everything(), false)
                .outcome()
                .get(60, TimeUnit.SECONDS);
        assertTrue(ended instanceof Outcome.Done done && done.result().layer().number() == 2, ended.toString());
        assertFalse(Files.exists(home.resolve("strongroom/objects")), "none was made in its old place");
        assertEquals(to, other.strongroomPlace());
        assertEquals(1, other.strongroom().holdings().phones().size());
    }

    /** The list is drawn anew when it is asked for, with what the other program added. */
    @Test
    void aLayerThatTheOtherProgramMadeIsInTheList(FxRobot robot) throws Exception {
        other.backUp(other.bays().all().getFirst(), Mandate.ofShop(), everything(), false)
                .outcome()
                .get(60, TimeUnit.SECONDS);
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        WaitForAsyncUtils.asyncFx(() -> workplace.desk().refreshHoldings()).get();
        until("the layer", () -> workplace.desk().holdings().get().phones().size() == 1);
        until("it is shown", () -> shows(robot, "#layer-read"));
    }
}
