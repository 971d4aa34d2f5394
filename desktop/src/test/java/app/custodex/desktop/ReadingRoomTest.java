package app.custodex.desktop;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Mandate;
import app.custodex.app.OpenPhone;
import app.custodex.catalogue.Catalogue.InTouch;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Comparison.Change;
import app.custodex.catalogue.Filter;
import app.custodex.desktop.ui.UserText;
import app.custodex.drawer.PracticePhone;
import app.custodex.model.Call;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** A layer is looked into by time, kinds, people and words, by mouse and keyboard; every count is the core's. */
class ReadingRoomTest extends WindowTest {
    @Start
    void start(Stage shown) throws Exception {
        open(shown);
    }

    private OpenPhone opened(FxRobot robot) throws IOException {
        readyPhone(robot);
        click(robot, "#backup-start");
        untilText(robot, "#backup-title", "Layer 1 is saved and checked");
        robot.push(KeyCode.CONTROL, KeyCode.R);
        until("the day book", () -> shows(robot, "#day-book") && things(robot) > 0);
        return layerOne();
    }

    private static int things(FxRobot robot) {
        return longList(robot, "#day-book").rows();
    }

    /** By the layouts of half a second. */
    private int layoutsAskedFor(FxRobot robot) {
        var asked = new AtomicInteger();
        var scene = workplace.scene();
        Runnable count = () -> asked.addAndGet(scene.getRoot().isNeedsLayout() ? 1 : 0);
        robot.interact(() -> scene.addPostLayoutPulseListener(count));
        robot.sleep(500);
        robot.interact(() -> scene.removePostLayoutPulseListener(count));
        return asked.get();
    }

    /** What the strip says of a kind; none before the strip was first drawn. */
    private static OptionalInt figure(FxRobot robot, String kind) {
        return robot.lookup("#see-" + kind + " .lesser").queryAllAs(Label.class).stream()
                .map(label -> label.getText().replace(",", ""))
                .filter(figure -> !figure.isEmpty()) // the first figures are not there yet
                .mapToInt(Integer::parseInt)
                .findFirst();
    }

    private void untilFigure(FxRobot robot, String kind, long count) {
        until(count + " " + kind, () -> figure(robot, kind).orElse(-1) == count);
    }

    /** What the chosen message of a conversation says. */
    private static String present(FxRobot robot) {
        return robot.lookup(".message-row:present .user-text").queryAllAs(UserText.class).stream()
                .skip(1) // who says it
                .map(UserText::getText)
                .findFirst()
                .orElse("");
    }

    private static Filter filter(
            Set<ThingKind> kinds, OptionalLong person, Optional<LocalDate> from, Optional<LocalDate> until) {
        return new Filter(kinds, person, Optional.empty(), from, until, false, Optional.empty());
    }

    private static int core(OpenPhone open, String typed, Filter filter) throws IOException {
        return open.catalogue().find(typed, filter, Order.AS_KEPT).length;
    }

    private static void eachCall(OpenPhone open, Optional<LocalDate> from, Optional<LocalDate> until, Consumer<Call> to)
            throws IOException {
        var calls = filter(Set.of(ThingKind.CALL), OptionalLong.empty(), from, until);
        open.catalogue().forEach(open.catalogue().find(calls, Order.AS_KEPT), entry -> to.accept((Call) entry.thing()));
    }

    @Test
    void timeKindsPeopleAndWordsGoTogether(FxRobot robot) throws Exception {
        try (var open = opened(robot)) {
            var counts = open.catalogue().counts();
            assertEquals(counts.values().stream().mapToLong(n -> n).sum(), things(robot));
            untilFigure(robot, "calls", counts.getOrDefault(ThingKind.CALL, 0L));

            // A month, typed.
            write(robot, "#range-from", "2025-11-01");
            write(robot, "#range-until", "2025-11-30");
            robot.push(KeyCode.ENTER);
            var from = Optional.of(LocalDate.of(2025, 11, 1));
            var until = Optional.of(LocalDate.of(2025, 11, 30));
            var dated = EnumSet.complementOf(EnumSet.of(ThingKind.CONTACT));
            int month = core(open, "", filter(dated, OptionalLong.empty(), from, until));
            until("the month", () -> things(robot) == month);
            assertTrue(
                    month > 0 && month < things(robot) + counts.getOrDefault(ThingKind.MESSAGE, 0L), month + " things");

            // A kind beside; the others keep their figures.
            click(robot, "#see-calls");
            int calls = core(open, "", filter(Set.of(ThingKind.CALL), OptionalLong.empty(), from, until));
            until("the calls", () -> things(robot) == calls);
            untilFigure(robot, "calls", calls);
            robot.press(KeyCode.CONTROL).clickOn("#see-messages").release(KeyCode.CONTROL);
            int both = core(
                    open,
                    "",
                    filter(
                            Set.of(ThingKind.CALL, ThingKind.MESSAGE, ThingKind.MAIL),
                            OptionalLong.empty(),
                            from,
                            until));
            until("calls and messages", () -> things(robot) == both);
            click(robot, "#see-calls");
            until("calls alone", () -> things(robot) == calls);

            // Only those that were missed; the other kinds have all of theirs.
            int messages = figure(robot, "messages").orElse(0);
            var missed = new AtomicLong();
            eachCall(open, from, until, call -> missed.addAndGet(call.outcome() == Call.Outcome.MISSED ? 1 : 0));
            assertTrue(missed.get() > 0 && missed.get() < calls, missed + " of " + calls);
            click(robot, "#room-only");
            click(robot, "#only-missed");
            until("missed calls", () -> things(robot) == missed.get());
            untilFigure(robot, "calls", missed.get());
            untilFigure(robot, "messages", messages);
            click(robot, "#chip-only");
            until("all calls", () -> things(robot) == calls);

            // By person, with how long all of them were.
            click(robot, "#day-book-order");
            robot.push(KeyCode.DOWN).push(KeyCode.DOWN).push(KeyCode.ENTER);
            var length = new AtomicLong();
            eachCall(open, from, until, call -> length.addAndGet(call.length().toSeconds()));
            long seconds = length.get();
            untilText(
                    robot,
                    "#day-book-count",
                    "%d things, %d:%02d in all"
                            .formatted(calls, seconds / 60, seconds % 60)); // of a month, under an hour
            click(robot, "#see-calls");
            click(robot, "#range-whole");
            until(
                    "everything",
                    () -> things(robot)
                            == counts.values().stream().mapToLong(n -> n).sum());

            // A person, and words in what they are in.
            ListView<InTouch> people = robot.lookup("#people").queryListView();
            var halvard = people.getItems().stream()
                    .filter(who -> who.person().name().equals("Halvard Rook"))
                    .findFirst()
                    .orElseThrow();
            WaitForAsyncUtils.asyncFx(() -> people.getSelectionModel().select(halvard))
                    .get();
            var his = OptionalLong.of(halvard.person().id());
            int all = core(open, "", filter(Set.of(), his, Optional.empty(), Optional.empty()));
            until("what he is in", () -> things(robot) == all);
            robot.push(KeyCode.CONTROL, KeyCode.F).write("boat");
            int boats = core(open, "boat", filter(Set.of(), his, Optional.empty(), Optional.empty()));
            until("his boats", () -> things(robot) == boats);
            assertTrue(boats > 0 && boats < all, boats + " of " + all);
            robot.push(KeyCode.ESCAPE);
            click(robot, "#chip-person");
            until(
                    "everybody",
                    () -> things(robot)
                            == counts.values().stream().mapToLong(n -> n).sum());
        }
    }

    @Test
    void aDragBrushesAStretchAndTheConversationOfAMessageIsShown(FxRobot robot) throws Exception {
        try (var open = opened(robot)) {
            long all = open.catalogue().counts().values().stream()
                    .mapToLong(n -> n)
                    .sum();
            var river = robot.lookup("#time-river").query();
            var bounds = river.localToScreen(river.getBoundsInLocal());
            robot.moveTo(bounds.getMinX() + bounds.getWidth() / 2, bounds.getMinY() + 30)
                    .press(MouseButton.PRIMARY)
                    .moveBy(60, 0)
                    .moveBy(60, 0)
                    .release(MouseButton.PRIMARY);
            until("a stretch", () -> things(robot) < all);
            var from = LocalDate.parse(
                    robot.lookup("#range-from").queryAs(TextField.class).getText());
            var until = LocalDate.parse(
                    robot.lookup("#range-until").queryAs(TextField.class).getText());
            var dated = EnumSet.complementOf(EnumSet.of(ThingKind.CONTACT));
            assertEquals(
                    core(open, "", filter(dated, OptionalLong.empty(), Optional.of(from), Optional.of(until))),
                    things(robot),
                    from + " to " + until);
            int brushed = things(robot);
            robot.push(KeyCode.RIGHT);
            until(
                    "the next stretch",
                    () -> !robot.lookup("#range-from")
                            .queryAs(TextField.class)
                            .getText()
                            .equals(from.toString()));
            robot.push(KeyCode.LEFT);
            until("and back", () -> things(robot) == brushed);
            robot.doubleClickOn("#time-river");
            until("all again", () -> things(robot) == all);

            // What a message says, and what it is part of.
            robot.push(KeyCode.CONTROL, KeyCode.F).write("Thinking of selling the small boat");
            until("the message", () -> things(robot) == 1);
            robot.push(KeyCode.DOWN);
            until(
                    "its text",
                    () -> robot.lookup("#thing-detail .user-text").queryAllAs(UserText.class).stream()
                            .anyMatch(text -> text.getText().startsWith("Thinking of selling the small boat")));
            // What is laid out asks for no further layout.
            WaitForAsyncUtils.waitFor(20, TimeUnit.SECONDS, () -> layoutsAskedFor(robot) < 10);
            var number = open.catalogue().find("Thinking of selling the small boat", Filter.EVERYTHING, Order.AS_KEPT);
            var message = open.catalogue().read(number).getFirst().thing();
            int talk = open.catalogue().within(message.within().orElseThrow()).length;
            robot.push(KeyCode.CONTROL, KeyCode.F).push(KeyCode.ESCAPE);
            until("all once more", () -> things(robot) == all);
            until("it is still chosen", () -> longList(robot, "#day-book").present() > 0);
            robot.write("Thinking of selling the small boat").push(KeyCode.DOWN);
            click(robot, "#thing-conversation");
            until("the chip", () -> shows(robot, "#chip-conversation"));
            robot.push(KeyCode.CONTROL, KeyCode.F).push(KeyCode.ESCAPE);
            untilFigure(robot, "messages", talk);
            assertTrue(talk > 10, talk + " messages");
            until("it begins at the message", () -> present(robot).startsWith("Thinking of selling the small boat"));
            robot.clickOn("#conversation").push(KeyCode.HOME);
            var first = open.catalogue().within(message.within().orElseThrow())[0];
            var said = open.catalogue().read(first).getFirst().thing().title();
            until("its beginning", () -> present(robot).startsWith(said));
            robot.push(KeyCode.END).push(KeyCode.UP).push(KeyCode.PAGE_UP).push(KeyCode.PAGE_DOWN);
            until("another one", () -> !present(robot).startsWith(said));
            robot.clickOn(robot.lookup(".month").nth(0).<Node>query());
            until("where the first month begins", () -> present(robot).startsWith(said));
            click(robot, "#chip-conversation");
            until("the day book again", () -> shows(robot, "#day-book") && things(robot) == all);
        }
    }

    @Test
    void aPersonsMonthIsPutIntoTheTrayAndIsThereAfterARestart(FxRobot robot) throws Exception {
        int month;
        try (var open = opened(robot)) {
            write(robot, "#range-from", "2025-11-01");
            write(robot, "#range-until", "2025-11-30");
            robot.push(KeyCode.ENTER);
            ListView<InTouch> people = robot.lookup("#people").queryListView();
            var halvard = people.getItems().stream()
                    .filter(who -> who.person().name().equals("Halvard Rook"))
                    .findFirst()
                    .orElseThrow();
            WaitForAsyncUtils.asyncFx(() -> people.getSelectionModel().select(halvard))
                    .get();
            month = core(
                    open,
                    "",
                    filter(
                            Set.of(),
                            OptionalLong.of(halvard.person().id()),
                            Optional.of(LocalDate.of(2025, 11, 1)),
                            Optional.of(LocalDate.of(2025, 11, 30))));
        }
        assertTrue(month > 1, month + " things");
        until("his month", () -> things(robot) == month);
        robot.push(KeyCode.CONTROL, KeyCode.T);
        until("the tray", () -> !text(robot, "#tray").contains("nothing"));
        var tray = text(robot, "#tray");
        click(robot, "#tray-look");
        until("what is in the tray", () -> shows(robot, "#chip-tray") && things(robot) == month);

        // One is taken out by its key, another layer's state does not matter, and all is there after a night.
        robot.clickOn("#day-book").push(KeyCode.HOME).push(KeyCode.T);
        until("one less", () -> things(robot) == month - 1);
        assertNotEquals(tray, text(robot, "#tray"));
        // It is written beside the window.
        WaitForAsyncUtils.waitFor(40, TimeUnit.SECONDS, () -> {
            try (var open = layerOne()) {
                return workplace.desk().custodex().trays().load(open).cardinality() == month - 1;
            }
        });
        restart();
        until(
                "the phone",
                () -> workplace.desk().bays().getFirst().phone().isPresent()
                        && !workplace.desk().bays().getFirst().layers().get().isEmpty());
        robot.push(KeyCode.CONTROL, KeyCode.R);
        until("the day book", () -> shows(robot, "#day-book") && things(robot) > month);
        click(robot, "#tray-look");
        until("the tray of before", () -> things(robot) == month - 1);
        click(robot, "#tray-clear");
        until("nothing is left", () -> things(robot) == 0);
        untilText(robot, "#tray", "nothing is in it yet; files of this computer can be dropped here");
    }

    @Test
    void severalLayersAreOpenInTheOrderInWhichTheyWereOpened(FxRobot robot) throws Exception {
        int first;
        try (var open = opened(robot)) {
            first = core(open, "", Filter.EVERYTHING);
        }
        until("all of it", () -> things(robot) == first);
        assertFalse(shows(robot, "#open-layers"));
        phone(0).takePhotos(3);
        robot.interact(
                () -> workplace.desk().backups().start(workplace.desk().bays().getFirst()));
        until(
                "the second layer",
                () -> workplace.desk().bays().getFirst().layers().get().size() == 2);
        robot.push(KeyCode.CONTROL, KeyCode.DIGIT1).push(KeyCode.CONTROL, KeyCode.R);
        until("three more", () -> things(robot) == first + 3);
        compareThem(robot);
        until("both", () -> robot.lookup("#open-layer").queryAll().size() == 2);
        robot.clickOn(robot.lookup("#open-layer").nth(0).<Node>query());
        until("the first again", () -> things(robot) == first);

        // What pictures and files hang on, and nothing else.
        int attached;
        try (var open = layerOne()) {
            attached = core(
                    open,
                    "",
                    new Filter(
                            Set.of(),
                            OptionalLong.empty(),
                            Optional.empty(),
                            Optional.empty(),
                            Optional.empty(),
                            true,
                            Optional.empty()));
        }
        click(robot, "#room-attached");
        until("those with attachments", () -> things(robot) == attached);
        assertTrue(attached > 5 && attached < first, attached + " of " + first);

        robot.clickOn(robot.lookup("#close-layer").nth(0).<Node>query());
        until("the second is left", () -> !shows(robot, "#open-layers") && things(robot) == first + 3);
    }

    /** What became of the first layer in the second: as many as the core says, each with what it says. */
    private void compareThem(FxRobot robot) throws Exception {
        var counts = new EnumMap<Change, Integer>(Change.class);
        var reading = workplace.desk().custodex().reading();
        var phone = workplace.desk().bays().getFirst().phone().orElseThrow().identifier();
        try (var older = reading.open(Mandate.ofShop(), phone, 1, Locale.getDefault());
                var newer = reading.open(Mandate.ofShop(), phone, 2, Locale.getDefault())) {
            newer.since(older, Set.of())
                    .differences()
                    .forEach(difference -> counts.merge(difference.change(), 1, Integer::sum));
        }
        assertTrue(counts.getOrDefault(Change.NEW, 0) >= 3, counts.toString());
        robot.push(KeyCode.CONTROL, KeyCode.G);
        untilText(robot, "#show-new", "new  " + counts.get(Change.NEW));
        untilText(robot, "#show-changed", "changed  " + counts.getOrDefault(Change.CHANGED, 0));
        untilText(robot, "#show-gone", "gone  " + counts.getOrDefault(Change.GONE, 0));
        assertEquals(
                counts.getOrDefault(Change.GONE, 0) == 0,
                robot.lookup("#gone-tray").queryButton().isDisabled());
        click(robot, "#show-new");
        int all = counts.values().stream().mapToInt(count -> count).sum();
        until("all differences", () -> longList(robot, "#gone-list").rows() == all);
        robot.interact(() -> longList(robot, "#gone-list").choose(all - 1));
        until(
                "what it is",
                () -> robot.lookup("#gone-detail .user-text").tryQuery().isPresent());
        click(robot, "#gone-back");
        until("the reading room", () -> shows(robot, "#day-book"));
    }

    @Test
    void aPhoneIsLookedIntoWithoutACopyOfIt(FxRobot robot) throws Exception {
        readyPhone(robot);
        var before = kept();
        click(robot, "#read-straight");
        until("the day book", () -> shows(robot, "#day-book") && things(robot) > 0);
        until(
                "the figures of the phone",
                () -> figure(robot, "messages").orElse(0) > 1_000
                        && figure(robot, "pictures").orElse(0) > 10);
        click(robot, "#see-contacts");
        untilText(robot, "#contacts-count", "412 contacts");
        assertEquals(0, workplace.desk().holdings().get().phones().size());
        assertEquals(before, kept());
    }

    @Test
    void whatIsReadForTheFirstTimeIsSeenAsItComes(FxRobot robot) throws Exception {
        readyPhone(robot);
        phone(0).slowDown(400_000);
        click(robot, "#read-straight");
        until("the contacts", () -> figure(robot, "contacts").orElse(0) == 412);
        assertTrue(text(robot, "#room-where").contains("for the first time"), text(robot, "#room-where"));
        click(robot, "#see-contacts");
        untilText(robot, "#contacts-count", "412 contacts");
        assertTrue(robot.lookup("#tray-all").queryButton().isDisabled(), "nothing is picked from a part of it");
        robot.push(KeyCode.CONTROL, KeyCode.E);
        until("why not", () -> robot.lookup("#message-what").tryQuery().isPresent());

        phone(0).slowDown(PracticePhone.FULL_SPEED);
        until(
                "all of it",
                () -> figure(robot, "messages").orElse(0) > 1_000
                        && !text(robot, "#room-where").contains("for the first time"));
        // What was chosen stays.
        untilText(robot, "#contacts-count", "412 contacts");
        assertTrue(!robot.lookup("#tray-all").queryButton().isDisabled());
    }

    @Test
    void aPhoneThatGoesAwayWhileItIsReadIsNotShownInPart(FxRobot robot) throws Exception {
        readyPhone(robot);
        phone(0).slowDown(400_000);
        click(robot, "#read-straight");
        until("the contacts", () -> figure(robot, "contacts").orElse(0) == 412);
        phone(0).unplug();
        until("that it failed", () -> text(robot, "#room-where").contains("could not be opened"));
        assertTrue(shows(robot, "#message-bar"), "why");
        assertEquals(0, things(robot));
        assertTrue(figure(robot, "contacts").isEmpty(), "none of its figures");
        assertTrue(robot.lookup("#tray-all").queryButton().isDisabled());
        assertTrue(robot.lookup("#gone-since-open").queryButton().isDisabled());
    }

    /** All files of the home but the practice phones' own. */
    private Set<Path> kept() throws IOException {
        try (var files = Files.walk(home)) {
            return files.filter(file -> Files.isRegularFile(file) && !file.startsWith(home.resolve("practice")))
                    .collect(Collectors.toSet());
        }
    }
}
