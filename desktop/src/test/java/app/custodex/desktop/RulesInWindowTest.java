package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.app.Mandate;
import app.custodex.app.Settings.CheckSchedule;
import app.custodex.backup.BackupRequest;
import app.custodex.base.RealDisk;
import app.custodex.desktop.App.Prepared;
import app.custodex.desktop.App.Workplace;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.docket.DocketBook;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.Label;
import javafx.scene.control.RadioButton;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** What the core refuses is refused in the window too, and said where the hand is. */
class RulesInWindowTest extends WindowTest {
    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private BayModel ready() {
        var bay = workplace.desk().bays().getFirst();
        phone(0).makeReady();
        until("readiness", bay::ready);
        return bay;
    }

    /** A layer without a docket, as the command line makes one when it is told that there is no customer. */
    private void copyWithoutDocket(BayModel bay) throws Exception {
        workplace
                .desk()
                .custodex()
                .backUp(bay.bay(), Mandate.ofShop(), BackupRequest.everything(Duration.ZERO, Custodex.TOOL), false)
                .outcome()
                .get(60, TimeUnit.SECONDS);
        WaitForAsyncUtils.asyncFx(() -> workplace.desk().refreshHoldings()).get();
        until("the layer", () -> workplace.desk().holdings().get().phones().size() == 1);
    }

    private Path storedFile(String name) throws IOException {
        try (var files = Files.walk(home.resolve("strongroom/objects"))) {
            return files.filter(file -> file.endsWith(name)).findFirst().orElseThrow();
        }
    }

    @Test
    void aPhoneWithoutADocketIsReadOnlyOnceItIsSaidThatThereIsNoCustomer(FxRobot robot) throws Exception {
        copyWithoutDocket(ready());
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        click(robot, "#layer-read");
        until("the question", () -> shows(robot, "#layer-own"));
        assertEquals(Desk.Place.STRONGROOM, workplace.desk().place().get(), "nothing was opened");
        click(robot, "#layer-own");
        until("the layer", () -> shows(robot, "#day-book"));
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        click(robot, "#layer-read");
        until("the layer again", () -> workplace.desk().place().get() == Desk.Place.READING_ROOM);
    }

    @Test
    void aDocketOfTheShopsOwnNeedsNoConsent(FxRobot robot) {
        var bay = ready();
        write(robot, "#docket-customer", "the shop");
        write(robot, "#docket-reason", "a phone to practise on");
        click(robot, "#docket-own");
        assertTrue(robot.lookup("#docket-consent").query().isDisabled());
        click(robot, "#docket-save");
        until(
                "the docket",
                () -> bay.docket()
                        .get()
                        .filter(d -> d.own() && d.consent().isEmpty())
                        .isPresent());
        until("it may be backed up", () -> workplace.desk().backups().canStart(bay));
    }

    @Test
    void aConsentThatAnotherProgramWithdrawsIsGoneHereToo(FxRobot robot) throws Exception {
        var bay = ready();
        openDocket(robot, "Fenna Rook");
        until("it may be backed up", () -> workplace.desk().backups().canStart(bay));
        var book = DocketBook.open(home.resolve("dockets"), new RealDisk(), Clock.systemUTC());
        book.change(bay.docket().get().orElseThrow().number(), d -> d.withConsent(Optional.empty()));
        until("it is seen", () -> !workplace.desk().backups().canStart(bay));
        robot.push(KeyCode.CONTROL, KeyCode.B);
        assertTrue(bay.progress().get().isEmpty());
        assertTrue(book.find(1).orElseThrow().consent().isEmpty(), "and it does not come back");
    }

    @Test
    void damagedFilesOfTheStrongroomAreNamedAndMended(FxRobot robot) throws Exception {
        copyWithoutDocket(ready());
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        assertFalse(shows(robot, "#strongroom-trouble"), "all is well");
        Files.delete(storedFile("0=ocfl_object_1.1"));
        Files.writeString(storedFile("layer.json"), "{ torn");
        WaitForAsyncUtils.asyncFx(() -> workplace.desk().refreshHoldings()).get();
        until("the trouble", () -> shows(robot, "#strongroom-trouble"));
        var words = robot.lookup("#strongroom-trouble").lookup(".label").queryAllAs(Label.class).stream()
                .map(Label::getText)
                .toList()
                .toString();
        assertTrue(words.contains("Fenna's phone: It is gone from the disk (objects/"), words);
        assertTrue(words.contains("record of a layer is damaged"), words);
        assertEquals(1, workplace.desk().holdings().get().phones().size(), "the phone is still there");

        click(robot, "#strongroom-mend");
        until(
                "all is well again",
                () -> workplace.desk().holdings().get().problems().isEmpty());
        click(robot, "#check-all");
        until("the verdict", () -> text(robot, "#check-progress").endsWith("sound"));
    }

    @Test
    void aCheckOfEverythingFindsWhatDoesNotBelong(FxRobot robot) throws Exception {
        copyWithoutDocket(ready());
        Files.writeString(home.resolve("strongroom/seals-of-mine.txt"), "where does this come from?");
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        click(robot, "#check-all");
        until(
                "the verdict",
                () -> text(robot, "#check-progress").contains("strongroom's own files is not as it should be"));
    }

    @Test
    void aStrongroomThatIsAwayIsToldAndUsedAgainWhenItIsBack(FxRobot robot) throws Exception {
        copyWithoutDocket(ready());
        WaitForAsyncUtils.asyncFx(() -> workplace.close()).get(20, TimeUnit.SECONDS);
        Files.move(home.resolve("strongroom"), home.resolve("unplugged"));
        var where = new Home(home);
        var problem = WaitForAsyncUtils.asyncFx(() -> {
                    try {
                        return FrontDoor.problem(
                                new IllegalStateException(
                                        Prepared.open(where, Optional.empty()).toString()),
                                where);
                    } catch (IOException e) {
                        return FrontDoor.problem(e, where);
                    }
                })
                .get();
        assertTrue(problem.what().contains("not there"), problem.sentence());
        var opened = new Prepared[1];
        WaitForAsyncUtils.asyncFx(() -> App.showFrontDoor(
                        stage,
                        where,
                        problem,
                        () -> Prepared.open(where, Optional.empty()),
                        prepared -> opened[0] = prepared))
                .get();
        click(robot, "#door-again");
        until("still away", () -> !robot.lookup("#door-again").query().isDisabled());
        assertTrue(opened[0] == null && !Files.exists(home.resolve("strongroom")), "none was made in its place");
        Files.move(home.resolve("unplugged"), home.resolve("strongroom"));
        click(robot, "#door-again");
        until("it is open", () -> opened[0] != null);
        workplace = WaitForAsyncUtils.asyncFx(() -> Workplace.show(stage, opened[0]))
                .get(20, TimeUnit.SECONDS);
        until("its layers", () -> workplace.desk().holdings().get().phones().size() == 1);
    }

    @Test
    void atTheDoorAnotherStrongroomCanBeChosen(FxRobot robot) throws Exception {
        copyWithoutDocket(ready());
        WaitForAsyncUtils.asyncFx(() -> workplace.close()).get(20, TimeUnit.SECONDS);
        Files.move(home.resolve("strongroom"), home.resolve("unplugged"));
        var where = new Home(home);
        var opened = new Prepared[1];
        var problem = FrontDoor.problem(new IOException("away"), where);
        WaitForAsyncUtils.asyncFx(() -> App.showFrontDoor(
                        stage,
                        where,
                        problem,
                        () -> Prepared.open(where, Optional.empty()),
                        prepared -> opened[0] = prepared))
                .get();
        write(robot, "#door-folder", home.resolve("unplugged").toString());
        click(robot, "#door-use");
        until("it is open", () -> opened[0] != null);
        workplace = WaitForAsyncUtils.asyncFx(() -> Workplace.show(stage, opened[0]))
                .get(20, TimeUnit.SECONDS);
        until("its layers", () -> workplace.desk().holdings().get().phones().size() == 1);
        assertEquals(home.resolve("unplugged"), workplace.desk().custodex().strongroomPlace());
    }

    @Test
    void whatIsSettledInAnotherProgramIsShown(FxRobot robot) throws Exception {
        try (var other = Custodex.open(new Home(home), Clock.systemUTC())) {
            other.checkSchedule(CheckSchedule.AT_NIGHT);
        }
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT2);
        click(robot, "#strongroom-place");
        until(
                "the schedule",
                () -> robot.lookup("#schedule-at-night")
                        .queryAs(RadioButton.class)
                        .isSelected());
    }

    @Test
    void aFoldersDocketSaysInWhichCountryItsNumbersAreDialled(FxRobot robot) throws Exception {
        var folder = Files.createTempDirectory("card");
        Files.writeString(folder.resolve("a.vcf"), "BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Ivo\r\nEND:VCARD\r\n");
        workplace.desk().custodex().bays().add(folder.toString(), "Card");
        until("the bay", () -> workplace.desk().bays().size() == 3);
        var bay = workplace.desk().bays().getLast();
        assertFalse(shows(robot, "#docket-country"), "a phone says itself where it is at home");
        WaitForAsyncUtils.asyncFx(() -> workplace.desk().show(bay)).get(20, TimeUnit.SECONDS);
        write(robot, "#docket-customer", "Ivo Kelp");
        write(robot, "#docket-reason", "Wants his contacts");
        write(robot, "#docket-country", "zz");
        click(robot, "#docket-save");
        untilText(robot, "#docket-missing", "Write the country as two letters, such as GB, or leave it empty.");
        assertTrue(bay.docket().get().isEmpty());
        write(robot, "#docket-country", "gb");
        click(robot, "#docket-save");
        until(
                "the docket",
                () -> bay.docket()
                        .get()
                        .filter(docket -> docket.country().equals("GB"))
                        .isPresent());
    }
}
