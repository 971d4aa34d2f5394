package app.custodex.desktop;

import app.custodex.app.Settings;
import app.custodex.base.Problem;
import app.custodex.desktop.bench.BenchView;
import app.custodex.desktop.bench.SourcesView;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.desk.Desk.Place;
import app.custodex.desktop.drawer.PracticeWindow;
import app.custodex.desktop.guide.GuidePane;
import app.custodex.desktop.reading.FindView;
import app.custodex.desktop.reading.GoneView;
import app.custodex.desktop.reading.ReadingRoom;
import app.custodex.desktop.strongroom.StrongroomView;
import app.custodex.desktop.ui.FileDrop;
import app.custodex.desktop.ui.MessageBar;
import app.custodex.desktop.ui.Theme;
import app.custodex.docket.RouteStep;
import java.util.List;
import java.util.Optional;
import javafx.scene.Scene;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.transform.Scale;

/** The window's content: top bar, bay strip, and the place where one is; larger or smaller as one likes to read it. */
final class Shell extends Region {
    /** Percent. */
    private static final int SMALLEST = 80;

    private static final int LARGEST = 160;
    private static final int STEP = 10;
    private static final double GUIDE_WIDTH = 460;
    private static final double BELOW_TOP_BAR = 44;

    private final BorderPane pane = new BorderPane();
    private final Scale scale = new Scale(1, 1);
    private final Desk desk;
    private final MessageBar messages;
    private final BenchView bench;
    private final ReadingRoom readingRoom;
    private final FindView find;
    private final GoneView gone;
    private final GuidePane guide;
    private final List<Destination> destinations;
    private final Runnable openDrawer;
    private Settings.Look look = Settings.Look.FIRST;

    /** @param drawer the practice drawer, in a demo */
    Shell(Desk desk, MessageBar messages, Optional<PracticeWindow> drawer) {
        this.desk = desk;
        this.messages = messages;
        this.openDrawer = () -> drawer.ifPresent(PracticeWindow::toggle);
        bench = new BenchView(desk);
        readingRoom = new ReadingRoom(desk);
        var findField = new TextField();
        find = new FindView(desk, findField);
        gone = new GoneView(desk);
        guide = new GuidePane(desk, this::guidePage);
        destinations = List.of(
                Destination.of(Place.BENCH, bench, "place-bench", "Bench", "Ctrl+1"),
                Destination.within(Place.BENCH, Place.SOURCES, new SourcesView(desk)),
                Destination.within(Place.BENCH, Place.READING_ROOM, readingRoom),
                Destination.within(Place.BENCH, Place.GONE_SINCE, gone),
                Destination.of(Place.STRONGROOM, new StrongroomView(desk), "place-strongroom", "Strongroom", "Ctrl+2"),
                Destination.within(Place.FIND, Place.FIND, find));
        setId("shell");
        pane.setTop(new VBox(
                new TopBar(
                        desk,
                        destinations,
                        findField,
                        openDrawer,
                        drawer.isPresent(),
                        () -> night(!look.night()),
                        guide::toggle),
                new BayStrip(desk)));
        pane.setBottom(messages);
        drawer.ifPresent(practice -> pane.setRight(practice.sideNode()));
        pane.getTransforms().add(scale);
        guide.getTransforms().add(scale);
        getChildren().setAll(pane, guide);
        FileDrop.onto(this, desk::readLoose);
        desk.place().addListener((o, was, is) -> show());
        show();
    }

    private void show() {
        destinations.stream()
                .filter(destination -> destination.place() == desk.place().get())
                .forEach(destination -> pane.setCenter(destination.node()));
    }

    /** Whoever touches mouse or keyboard is at work; checks that run while nobody is wait. */
    private void noteTouches(Scene scene) {
        scene.addEventFilter(MouseEvent.ANY, event -> touched());
        scene.addEventFilter(KeyEvent.KEY_PRESSED, event -> touched());
    }

    private void touched() {
        desk.checks().touched();
        desk.curtain().touched();
    }

    @Override
    protected void layoutChildren() {
        double width = getWidth() / scale.getX();
        double height = getHeight() / scale.getY();
        pane.resizeRelocate(0, 0, width, height);
        double wide = Math.min(GUIDE_WIDTH, width);
        guide.resize(wide, height - BELOW_TOP_BAR);
        guide.relocate((width - wide) * scale.getX(), BELOW_TOP_BAR * scale.getY());
    }

    /** The page of the guide for what one looks at. */
    private String guidePage() {
        return switch (desk.place().get()) {
            case BENCH ->
                desk.present()
                        .get()
                        .map(bay -> bay.step().get() == RouteStep.CHECK_IN ? "check-in" : "back-up")
                        .orElse("start");
            case SOURCES -> "sources";
            case READING_ROOM -> readingRoom.guidePage();
            case GONE_SINCE -> "gone-since";
            case FIND -> "find";
            case STRONGROOM -> "strongroom";
        };
    }

    /** Light paper, or the dark bench for the night. */
    void night(boolean on) {
        look(new Settings.Look(on, look.percent()));
    }

    /** Larger or smaller by some steps; none for as it was made. */
    private void zoom(int steps) {
        int percent = steps == 0 ? Settings.Look.FIRST.percent() : look.percent() + steps * STEP;
        look(new Settings.Look(look.night(), Math.clamp(percent, SMALLEST, LARGEST)));
    }

    private void look(Settings.Look newLook) {
        show(newLook);
        desk.work()
                .start(
                        "Settings",
                        () -> {
                            desk.custodex().look(newLook);
                            return newLook;
                        },
                        kept -> {});
    }

    /** Shows the window as it was left. */
    void show(Settings.Look newLook) {
        if (newLook.night() != look.night()) {
            getStyleClass().remove("night");
            if (newLook.night()) {
                getStyleClass().add("night");
            }
            Theme.apply(newLook.night());
        }
        look = newLook;
        double factor = Math.clamp(newLook.percent(), SMALLEST, LARGEST) / 100.0;
        scale.setX(factor);
        scale.setY(factor);
        requestLayout();
    }

    /** Shortcuts that hold everywhere. */
    void addShortcuts(Scene scene) {
        noteTouches(scene);
        var keys = scene.getAccelerators();
        for (int i = 0; i < 9; i++) {
            int place = i;
            keys.put(
                    new KeyCodeCombination(KeyCode.getKeyCode(Integer.toString(i + 1)), KeyCombination.ALT_DOWN),
                    () -> desk.bays().stream().skip(place).findFirst().ifPresent(desk::show));
        }
        for (var destination : destinations) {
            destination
                    .way()
                    .ifPresent(way -> keys.put(way.keys(), () -> desk.place().set(destination.place())));
        }
        keys.put(KeyCombination.valueOf("F1"), guide::toggle);
        keys.put(KeyCombination.valueOf("F6"), desk.curtain()::toggle);
        keys.put(KeyCombination.valueOf("F8"), () -> night(!look.night()));
        for (var larger : List.of("Ctrl+Plus", "Ctrl+Equals", "Ctrl+Add")) {
            keys.put(KeyCombination.valueOf(larger), () -> zoom(1));
        }
        for (var smaller : List.of("Ctrl+Minus", "Ctrl+Subtract")) {
            keys.put(KeyCombination.valueOf(smaller), () -> zoom(-1));
        }
        keys.put(KeyCombination.valueOf("Ctrl+0"), () -> zoom(0));
        keys.put(KeyCombination.valueOf("F9"), openDrawer);
        keys.put(KeyCombination.valueOf("Esc"), messages::hide);
        keys.put(KeyCombination.valueOf("Ctrl+B"), () -> desk.present().get().ifPresent(desk.backups()::start));
        keys.put(KeyCombination.valueOf("Ctrl+R"), () -> bench.readNewest(false));
        keys.put(KeyCombination.valueOf("Ctrl+E"), this::extract);
        keys.put(KeyCombination.valueOf("Ctrl+F"), readingRoom::focusFind);
        keys.put(KeyCombination.valueOf("Ctrl+K"), find::begin);
        keys.put(KeyCombination.valueOf("Ctrl+T"), () -> {
            readingRoom.pickAllShown();
            gone.pickAllShown();
        });
        keys.put(KeyCombination.valueOf("Ctrl+P"), this::print);
        keys.put(KeyCombination.valueOf("Ctrl+G"), readingRoom::openGoneSince);
        keys.put(KeyCombination.valueOf("Ctrl+L"), readingRoom::openFiles);
        keys.put(KeyCombination.valueOf("Ctrl+M"), readingRoom::openPlaces);
        keys.put(KeyCombination.valueOf("Ctrl+D"), readingRoom::openTwins);
        keys.put(KeyCombination.valueOf("Ctrl+O"), readingRoom::openOnlyHere);
    }

    private void print() {
        if (desk.place().get() == Place.READING_ROOM) {
            readingRoom.print();
        } else {
            desk.work()
                    .tell(Problem.note(
                            "Printing", "There is no list to print here", "Open a layer in the reading room: Ctrl+R"));
        }
    }

    private void extract() {
        if (desk.place().get() == Place.READING_ROOM) {
            readingRoom.openExtract();
        } else {
            bench.readNewest(true);
        }
    }
}
