package app.custodex.desktop;

import app.custodex.desktop.bench.BenchView;
import app.custodex.desktop.bench.SourcesView;
import app.custodex.desktop.reading.FindView;
import app.custodex.desktop.reading.ReadingRoom;
import app.custodex.desktop.strongroom.StrongroomView;
import app.custodex.desktop.ui.MessageBar;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyCodeCombination;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.VBox;

/** The window's content: top bar, bay strip, and the place where one is. */
final class Shell extends BorderPane {
    private final Desk desk;
    private final MessageBar messages;
    private final BenchView bench;
    private final ReadingRoom readingRoom;
    private final StrongroomView strongroom;
    private final SourcesView sources;
    private final FindView find;
    private final Runnable openDrawer;
    private boolean night;

    Shell(Desk desk, MessageBar messages, Runnable openDrawer, boolean hasDrawer) {
        this.desk = desk;
        this.messages = messages;
        this.openDrawer = openDrawer;
        bench = new BenchView(desk);
        readingRoom = new ReadingRoom(desk);
        strongroom = new StrongroomView(desk);
        sources = new SourcesView(desk);
        var findField = new TextField();
        find = new FindView(desk, findField);
        setId("shell");
        setTop(new VBox(new TopBar(desk, findField, openDrawer, hasDrawer, () -> night(!night)), new BayStrip(desk)));
        setBottom(messages);
        desk.place().addListener((o, was, is) -> show());
        show();
    }

    private void show() {
        setCenter(place());
    }

    private Node place() {
        return switch (desk.place().get()) {
            case BENCH -> bench;
            case SOURCES -> sources;
            case FIND -> find;
            case READING_ROOM -> readingRoom;
            case STRONGROOM -> strongroom;
        };
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

    /** Light paper, or the dark bench for the night. */
    void night(boolean on) {
        night = on;
        getStyleClass().remove("night");
        if (on) {
            getStyleClass().add("night");
        }
        Theme.apply(on);
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
        keys.put(KeyCombination.valueOf("Ctrl+1"), () -> desk.place().set(Desk.Place.BENCH));
        keys.put(KeyCombination.valueOf("Ctrl+2"), () -> desk.place().set(Desk.Place.STRONGROOM));
        keys.put(KeyCombination.valueOf("F6"), desk.curtain()::toggle);
        keys.put(KeyCombination.valueOf("F8"), () -> night(!night));
        keys.put(KeyCombination.valueOf("F9"), openDrawer);
        keys.put(KeyCombination.valueOf("Esc"), messages::hide);
        keys.put(KeyCombination.valueOf("Ctrl+B"), () -> desk.present().get().ifPresent(desk.backups()::start));
        keys.put(KeyCombination.valueOf("Ctrl+R"), () -> bench.readNewest(false));
        keys.put(KeyCombination.valueOf("Ctrl+E"), this::extract);
        keys.put(KeyCombination.valueOf("Ctrl+F"), readingRoom::focusFind);
        keys.put(KeyCombination.valueOf("Ctrl+K"), find::begin);
        keys.put(KeyCombination.valueOf("Ctrl+T"), readingRoom::pickAllShown);
    }

    private void extract() {
        if (desk.place().get() == Desk.Place.READING_ROOM) {
            readingRoom.openExtract();
        } else {
            bench.readNewest(true);
        }
    }
}
