package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.Problem;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.reading.TwinsModel.Found;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.model.Contact;
import app.custodex.model.Thing;
import app.custodex.twins.TwinSet.Likeness;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** What is in a layer more than once, set by set, with its reason; contacts with how they would be one. */
final class TwinsView extends HBox {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    private static final double LIST_WIDTH = 360;
    private static final double ROW = 50;
    /** Of what can't be read: the first few say where to look. */
    private static final int NAMED = 3;

    private final Desk desk;
    private final TrayModel tray;
    private final TwinsModel model;
    private final Label state = Parts.sentence("", "lesser");
    private final Button stop = Parts.button("twins-stop", "Stop", "", this::stop);
    private final Map<Likeness, Button> kinds = new EnumMap<>(Likeness.class);
    private final ObservableList<Found> shown = FXCollections.observableArrayList();
    private final ListView<Found> list = new ListView<>(shown);
    private final Button pickOne =
            Parts.button("twins-pick", "Put the first of each set in the tray", "Ctrl+T", this::pickAllShown);
    private final VBox detail = new VBox(10);
    private final TwinCards cards;
    private final MergePane merge;
    private final List<Found> all = new ArrayList<>();
    private final List<Problem> problems = new ArrayList<>();
    private final UserText unread;
    private Optional<Likeness> only = Optional.empty();
    private Optional<OpenPhone> phone = Optional.empty();

    /** @param closed is told that it is to be put away */
    TwinsView(Desk desk, TrayModel tray, Runnable closed) {
        this.desk = desk;
        this.tray = tray;
        model = new TwinsModel(desk, new TwinsModel.Listener() {
            @Override
            public void found(List<Found> more) {
                all.addAll(more);
                fill();
            }

            @Override
            public void problem(Problem problem) {
                problems.add(problem);
            }

            @Override
            public void looked(int pictures) {
                state.setText("Comparing pictures: " + desk.words().count(pictures) + " looked at…");
            }

            @Override
            public void ended(boolean stopped) {
                end(stopped);
            }
        });
        cards = new TwinCards(desk, tray);
        merge = new MergePane(desk, tray);
        setId("twins");
        getStyleClass().add("pane-border");
        list.setId("twins-list");
        list.setFixedCellSize(ROW);
        list.setCellFactory(view -> new Cell());
        list.setPlaceholder(Parts.sentence("Nothing is here twice.", "lesser"));
        list.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> show(Optional.ofNullable(is)));
        state.setId("twins-state");
        unread = desk.veil().paragraph("", "lesser");
        unread.setId("twins-unread");
        getChildren().addAll(left(closed), right());
        addEventHandler(KeyEvent.KEY_PRESSED, event -> {
            if (event.getCode() == KeyCode.ESCAPE) {
                closed.run();
                event.consume();
            }
        });
        desk.veil().down().addListener((o, was, is) -> list.refresh());
    }

    private VBox left(Runnable closed) {
        var words = new HBox(8, state, Parts.gap(), stop, Parts.button("twins-close", "Close", "Esc", closed));
        words.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(state, Priority.ALWAYS);
        state.setMinWidth(0);
        var choice = new VBox(4);
        for (var likeness : Likeness.values()) {
            var button = Parts.button(
                    "twins-" + likeness.ordinal(), likeness.label(), "", () -> choose(likeness), "row-button", "scope");
            button.setMaxWidth(Double.MAX_VALUE);
            kinds.put(likeness, button);
            choice.getChildren().add(button);
        }
        var head = new VBox(8, words, unread, choice);
        head.setStyle("-fx-padding: 8 10 8 12;");
        var foot = new HBox(pickOne);
        foot.setStyle("-fx-padding: 8 10 8 12;");
        VBox.setVgrow(list, Priority.ALWAYS);
        var left = new VBox(head, Parts.rule(), list, Parts.rule(), foot);
        left.getStyleClass().add("split-left");
        left.setMinWidth(LIST_WIDTH);
        left.setMaxWidth(LIST_WIDTH);
        return left;
    }

    private ScrollPane right() {
        detail.setId("twins-detail");
        detail.setStyle("-fx-padding: 14 18 18 18;");
        var scroll = new ScrollPane(detail);
        scroll.setFitToWidth(true);
        scroll.setFocusTraversable(false);
        HBox.setHgrow(scroll, Priority.ALWAYS);
        return scroll;
    }

    /** Looks for the twins of a layer; what was found in it before is still there. */
    void open(OpenPhone of) {
        if (!phone.equals(Optional.of(of))) {
            leave();
            phone = Optional.of(of);
            cards.of(phone);
            state.setText("Comparing contacts and files…");
            stop.setVisible(true);
            model.start(of);
            fill();
        }
        list.requestFocus();
    }

    private void stop() {
        model.stop();
        end(true);
    }

    private void end(boolean stopped) {
        stop.setVisible(false);
        state.setText(
                stopped
                        ? "Stopped; there may be more."
                        : problems.isEmpty() ? "All of it was compared." : "All that can be read was compared.");
        unread.setText(notCompared());
        tellUnread(!problems.isEmpty());
    }

    private void tellUnread(boolean any) {
        unread.setVisible(any);
        unread.setManaged(any);
    }

    private String notCompared() {
        if (problems.isEmpty()) {
            return "";
        }
        return desk.words().count(problems.size(), "file", "files") + " can't be read: "
                + problems.stream().limit(NAMED).map(Problem::subject).collect(Collectors.joining(", "))
                + (problems.size() > NAMED ? " and others." : ".");
    }

    private void choose(Likeness likeness) {
        only = only.equals(Optional.of(likeness)) ? Optional.empty() : Optional.of(likeness);
        fill();
    }

    private void fill() {
        var before = Optional.ofNullable(list.getSelectionModel().getSelectedItem());
        kinds.forEach((likeness, button) -> {
            long count = all.stream()
                    .filter(found -> found.set().likeness() == likeness)
                    .count();
            button.setText(likeness.label() + "  " + desk.words().count(count));
            button.pseudoClassStateChanged(PRESENT, only.equals(Optional.of(likeness)));
        });
        shown.setAll(all.stream()
                .filter(found -> only.isEmpty() || found.set().likeness() == only.get())
                .toList());
        before.filter(shown::contains).ifPresent(list.getSelectionModel()::select);
        if (list.getSelectionModel().isEmpty() && !shown.isEmpty()) {
            list.getSelectionModel().select(0);
        }
        pickOne.setDisable(shown.isEmpty());
    }

    private void show(Optional<Found> found) {
        detail.getChildren().clear();
        found.ifPresent(of -> {
            var reason = desk.veil().paragraph(sentence(of.set().reason()), "lesser");
            reason.setId("twins-reason");
            detail.getChildren().addAll(title(of), reason);
            if (of.set().likeness() == Likeness.ONE_PERSON) {
                var contacts = of.things().stream().map(Contact.class::cast).toList();
                merge.show(contacts, of.set().numbers());
                detail.getChildren().add(merge);
            } else {
                cards.show(of);
                detail.getChildren().add(cards);
            }
        });
    }

    private static String sentence(String reason) {
        return reason.isEmpty() ? "" : Character.toUpperCase(reason.charAt(0)) + reason.substring(1) + ".";
    }

    private UserText title(Found of) {
        return desk.veil().paragraph(names(of), "heading");
    }

    private static String names(Found of) {
        return of.things().stream().map(Thing::title).distinct().collect(Collectors.joining(", "));
    }

    /** Puts the first of every set that is listed into the tray: of each, one is enough. */
    void pickAllShown() {
        var numbers = new BitSet();
        shown.forEach(found -> numbers.set(found.set().numbers().getFirst()));
        if (numbers.isEmpty()) {
            desk.work().tell(Problem.note("Tray", "There is no set here", "Choose other ones at the left"));
        } else {
            tray.put(numbers);
        }
    }

    /** Forgets the layer that is no longer open. */
    void leave() {
        model.stop();
        phone = Optional.empty();
        all.clear();
        problems.clear();
        tellUnread(false);
        only = Optional.empty();
        cards.of(Optional.empty());
        fill();
        state.setText("");
        stop.setVisible(false);
    }

    private final class Cell extends ListCell<Found> {
        private final UserText names = desk.veil().line("");
        private final Label what = Parts.text("", "lesser");
        private final VBox line = new VBox(2, names, what);

        Cell() {
            setPrefWidth(0);
            line.setAlignment(Pos.CENTER_LEFT);
        }

        @Override
        protected void updateItem(@Nullable Found found, boolean empty) {
            super.updateItem(found, empty);
            if (empty || found == null) {
                setGraphic(null);
                return;
            }
            names.setText(names(found));
            what.setText(desk.words().count(found.things().size()) + " · "
                    + found.set().likeness().label());
            setGraphic(line);
        }
    }
}
