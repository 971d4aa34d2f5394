package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.docket.Docket;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.Optional;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** What is promised on a docket, and what the bench shows while no phone is in. */
class DocketsInWindowTest extends WindowTest {
    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private Optional<Docket> docket(int bay) {
        return workplace.desk().bays().get(bay).docket().get();
    }

    private static String typed(FxRobot robot, String id) {
        return robot.lookup(id).queryAs(TextField.class).getText();
    }

    private LocalDate today() {
        return LocalDate.ofInstant(
                workplace.desk().now(), workplace.desk().words().zone());
    }

    @Test
    void aPromiseIsMadeAtAClickAndADayAloneIsAskedAbout(FxRobot robot) {
        until("the phones", () -> workplace.desk().bays().size() == 2);
        click(robot, "#promise-tomorrow");
        assertEquals(today().plusDays(1).toString(), typed(robot, "#docket-promised-day"));
        assertEquals("10:00", typed(robot, "#docket-promised-time"));
        write(robot, "#docket-customer", "Fenna Rook");
        write(robot, "#docket-reason", "Moves to a new phone");
        click(robot, "#docket-promised-time");
        robot.push(KeyCode.CONTROL, KeyCode.A).push(KeyCode.DELETE);
        click(robot, "#docket-save");
        until("the question", () -> text(robot, "#docket-missing").contains("promised time"));
        assertTrue(docket(0).isEmpty(), "a day that was promised is not dropped");
        click(robot, "#promise-noon");
        click(robot, "#docket-save");
        until("the docket", () -> docket(0).isPresent());
        var promised = docket(0).orElseThrow().promised().orElseThrow();
        assertEquals(LocalTime.NOON, promised.toLocalTime());
        assertTrue(promised.isAfter(LocalDateTime.ofInstant(
                        workplace.desk().now(), workplace.desk().words().zone())
                .minusMinutes(1)));
    }

    @Test
    void whileNoPhoneIsInTheBenchListsTheDocketsByWhatWasPromised(FxRobot robot) {
        openDocket(robot, "Fenna Rook");
        robot.push(KeyCode.ALT, KeyCode.DIGIT2);
        until(
                "the other bay",
                () -> workplace
                        .desk()
                        .present()
                        .get()
                        .equals(Optional.of(workplace.desk().bays().get(1))));
        write(robot, "#docket-customer", "Jorun Tasch");
        write(robot, "#docket-reason", "Screen is cracked");
        click(robot, "#docket-save"); // nothing promised, no consent
        until("the second docket", () -> docket(1).isPresent());
        robot.interact(() -> List.copyOf(workplace.desk().bays()).forEach(workplace.desk()::removeSource));
        until("the list", () -> shows(robot, "#docket-list"));
        until("both", () -> robot.lookup("#dockets").queryListView().getItems().size() == 2);
        var customers = robot.lookup("#dockets").<Docket>queryListView().getItems().stream()
                .map(Docket::customer)
                .toList();
        assertEquals(List.of("Fenna Rook", "Jorun Tasch"), customers, "what was promised comes first");
    }
}
