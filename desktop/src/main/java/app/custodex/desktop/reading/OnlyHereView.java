package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.LongList;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.twins.OnlyHere;
import app.custodex.twins.OnlyHere.Verdict;
import java.io.File;
import java.io.IOException;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import javafx.util.Duration;

/** What would be lost with the phone, given a folder or a playlist of what its owner still has. */
final class OnlyHereView extends VBox {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    private static final double ROW = 52;

    private final Desk desk;
    private final TrayModel tray;
    private final TextField elsewhere = new TextField();
    private final Button look = Parts.button("only-here-look", "Compare", "Enter", this::look, "main");
    private final Button stop = Parts.button("only-here-stop", "Stop", "", this::stop);
    private final Button lost = Parts.button("only-here-lost", "", "", () -> choose(false), "row-button", "scope");
    private final Button kept = Parts.button("only-here-kept", "", "", () -> choose(true), "row-button", "scope");
    private final Button pick = Parts.button("only-here-pick", "Put in the tray", "Ctrl+T", this::pickAllShown);
    private final Label state = Parts.sentence("", "lesser");
    private final Label troubles = Parts.sentence("", "lesser");
    private final Label none = Parts.sentence("", "lesser");
    private final LongList list = new LongList(ROW, Row::new, none);
    private final Timeline ticker = new Timeline(new KeyFrame(Duration.millis(200), event -> tick()));
    private final AtomicInteger done = new AtomicInteger();
    private Optional<OpenPhone> phone = Optional.empty();
    private Optional<CancelToken> running = Optional.empty();
    private Optional<OnlyHere.Result> result = Optional.empty();
    private List<Verdict> rows = List.of();
    private int[] numbers = new int[0];
    private Optional<Pages> pages = Optional.empty();
    private boolean showingKept;

    /** @param closed is told that it is to be put away */
    OnlyHereView(Desk desk, TrayModel tray, Runnable closed) {
        this.desk = desk;
        this.tray = tray;
        setId("only-here");
        getStyleClass().add("pane-border");
        elsewhere.setId("only-here-path");
        elsewhere.setPromptText("A folder or a playlist of what the customer still has");
        elsewhere.setOnAction(event -> look());
        HBox.setHgrow(elsewhere, Priority.ALWAYS);
        stop.setVisible(false);
        stop.managedProperty().bind(stop.visibleProperty());
        ticker.setCycleCount(Animation.INDEFINITE);
        state.setId("only-here-state");
        troubles.setId("only-here-troubles");
        troubles.managedProperty().bind(troubles.textProperty().isNotEmpty());
        list.setId("only-here-list");
        list.setAccessibleText("Only on this phone");
        list.addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.T && !event.isShortcutDown()) {
                pickSelected();
                event.consume();
            }
        });
        VBox.setVgrow(list, Priority.ALWAYS);
        var where = new HBox(
                8,
                elsewhere,
                Parts.button("only-here-folder", "Folder…", "", this::chooseFolder),
                Parts.button("only-here-playlist", "Playlist…", "", this::choosePlaylist),
                look,
                stop,
                Parts.button("only-here-close", "Close", "Esc", closed));
        where.setAlignment(Pos.CENTER_LEFT);
        var choice = new HBox(8, lost, kept, Parts.gap(), pick);
        choice.setAlignment(Pos.CENTER_LEFT);
        var head = new VBox(
                8,
                where,
                Parts.sentence(
                        "Files are known again by their content, songs also by artist, title and a length within two seconds; never by a name alone.",
                        "lesser"),
                state,
                troubles,
                choice);
        head.setStyle("-fx-padding: 10 12 10 12;");
        getChildren().addAll(head, Parts.rule(), list);
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                closed.run();
                event.consume();
            }
        });
        desk.veil().down().addListener((o, was, is) -> list.refresh());
        tray.picked().addListener((o, was, is) -> list.refresh());
        fill();
    }

    void open(OpenPhone of) {
        if (!phone.equals(Optional.of(of))) {
            leave();
            phone = Optional.of(of);
        }
        elsewhere.requestFocus();
    }

    /** Forgets the layer that is no longer open. */
    void leave() {
        stop();
        phone = Optional.empty();
        result = Optional.empty();
        state.setText("");
        troubles.setText("");
        fill();
    }

    private void chooseFolder() {
        var chooser = new DirectoryChooser();
        chooser.setTitle("What the customer still has");
        take(Optional.ofNullable(chooser.showDialog(getScene().getWindow())));
    }

    private void choosePlaylist() {
        var chooser = new FileChooser();
        chooser.setTitle("A playlist of what the customer still has");
        chooser.getExtensionFilters()
                .setAll(new FileChooser.ExtensionFilter("Playlists (M3U, XSPF)", "*.m3u", "*.m3u8", "*.xspf"));
        take(Optional.ofNullable(chooser.showOpenDialog(getScene().getWindow())));
    }

    private void take(Optional<File> chosen) {
        chosen.ifPresent(file -> {
            elsewhere.setText(file.getPath());
            look();
        });
    }

    private void look() {
        if (phone.isEmpty() || running.isPresent() || elsewhere.getText().isBlank()) {
            return;
        }
        Path path;
        try {
            path = Path.of(elsewhere.getText().strip()).toAbsolutePath();
        } catch (InvalidPathException e) {
            desk.work()
                    .tell(Problem.failure(
                            elsewhere.getText(),
                            "This is no name of a folder or file",
                            "Choose a folder or a playlist"));
            return;
        }
        var of = phone.get();
        var cancel = new CancelToken();
        running = Optional.of(cancel);
        result = Optional.empty();
        troubles.setText("");
        fill();
        done.set(0);
        look.setDisable(true);
        stop.setVisible(true);
        ticker.play();
        desk.work()
                .start(
                        path.toString(),
                        () -> compare(of, path, cancel),
                        found -> {
                            if (running.equals(Optional.of(cancel))) {
                                result = found;
                                say(found);
                                fill();
                            }
                        },
                        () -> {
                            if (running.equals(Optional.of(cancel))) {
                                end();
                            }
                        });
    }

    /** Empty when it was stopped. */
    private Optional<OnlyHere.Result> compare(OpenPhone of, Path path, CancelToken cancel) throws IOException {
        try {
            return Optional.of(of.onlyHere(path, done::set, cancel));
        } catch (CancellationException stopped) {
            return Optional.empty();
        } catch (IOException closed) {
            if (cancel.isCancelled()) {
                return Optional.empty(); // the layer was closed meanwhile
            }
            throw closed;
        }
    }

    private void tick() {
        int now = done.get();
        state.setText(
                now == 0
                        ? "Looking through what is there…"
                        : "Comparing: " + desk.words().count(now) + " of the phone…");
    }

    private void stop() {
        if (running.isPresent()) {
            running.get().cancel();
            end();
            state.setText("Stopped.");
        }
    }

    private void end() {
        running = Optional.empty();
        ticker.stop();
        look.setDisable(false);
        stop.setVisible(false);
        if (result.isEmpty()) {
            state.setText("Nothing was compared.");
        }
    }

    private void say(Optional<OnlyHere.Result> found) {
        found.ifPresent(of -> {
            state.setText("Compared with " + desk.words().count(of.files(), "file", "files") + " there.");
            troubles.setText(
                    of.problems().isEmpty()
                            ? ""
                            : desk.words().count(of.problems().size(), "item", "items")
                                    + " there could not be read and count as not there; the first is "
                                    + of.problems().getFirst().subject() + ". "
                                    + of.problems().getFirst().advice() + ".");
        });
    }

    private void choose(boolean newKept) {
        showingKept = newKept;
        fill();
    }

    private void fill() {
        var all = result.map(OnlyHere.Result::verdicts).orElse(List.of());
        long there = all.stream().filter(Verdict::elsewhere).count();
        lost.setText("only on this phone  " + desk.words().count(all.size() - there));
        kept.setText("also elsewhere  " + desk.words().count(there));
        lost.pseudoClassStateChanged(PRESENT, !showingKept);
        kept.pseudoClassStateChanged(PRESENT, showingKept);
        rows = all.stream().filter(each -> each.elsewhere() == showingKept).toList();
        numbers = rows.stream().mapToInt(Verdict::number).toArray();
        pages = phone.map(open -> new Pages(open.catalogue(), desk.work(), list::refresh));
        none.setText(result.isEmpty() ? "Choose a folder or a playlist to compare with." : "None.");
        list.setRows(rows.size());
        pick.setDisable(rows.isEmpty());
    }

    private void pickSelected() {
        var chosen = new BitSet();
        list.selected().stream().forEach(row -> chosen.set(numbers[row]));
        tray.toggle(chosen);
    }

    /** Puts everything that is listed into the tray. */
    void pickAllShown() {
        var all = new BitSet();
        rows.forEach(each -> all.set(each.number()));
        if (!all.isEmpty()) {
            tray.put(all);
        }
    }

    private final class Row extends LongList.Row {
        private final UserText title = desk.veil().line("");
        private final UserText reason = desk.veil().line("", "lesser");
        private final Label what = Parts.text("", "lesser");
        private final HBox line;

        Row() {
            what.setMinWidth(USE_PREF_SIZE);
            var words = new VBox(2, title, reason);
            words.setAlignment(Pos.CENTER_LEFT);
            words.setMinWidth(0);
            HBox.setHgrow(words, Priority.ALWAYS);
            line = new HBox(10, words, what);
            line.setAlignment(Pos.CENTER_LEFT);
            line.setMinWidth(0);
            getChildren().add(line);
        }

        @Override
        protected void layoutChildren() {
            fill(line);
        }

        @Override
        protected void show(int row) {
            var entry = pages.flatMap(all -> all.get(row, numbers)).map(Entry::thing);
            title.setText(entry.map(thing -> thing.title()).orElse(""));
            reason.setText(rows.get(row).reason());
            what.setText(entry.map(thing ->
                                    thing.kind().label() + " · " + desk.words().bytes(thing.bytes()))
                            .orElse("")
                    + (tray.has(numbers[row]) ? " · in the tray" : ""));
            setAccessibleText(title.getAccessibleText() + ", " + reason.getAccessibleText() + ", " + what.getText());
        }
    }
}
