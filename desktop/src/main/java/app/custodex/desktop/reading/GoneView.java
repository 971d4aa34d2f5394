package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.base.Problem;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Comparison.Change;
import app.custodex.catalogue.Comparison.Difference;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.desk.Desk.Compared;
import app.custodex.desktop.desk.Desk.Place;
import app.custodex.desktop.desk.KeptLayer;
import app.custodex.desktop.ui.LongList;
import app.custodex.desktop.ui.Parts;
import app.custodex.desktop.ui.UserText;
import app.custodex.model.Thing;
import app.custodex.search.Marks.Mark;
import app.custodex.search.WordChanges;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/** What is gone, changed or new between two states of a phone; what changed stands side by side, with its words marked. */
public final class GoneView extends BorderPane {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    private static final double ROW = 46;
    private static final double SIDE = 248;
    private static final double DETAIL = 440;

    private final Desk desk;
    private final GoneModel model;
    private final Label what = Parts.text("", "lesser");
    private final VBox states = new VBox(6);
    private final Map<Change, Button> shown = new EnumMap<>(Change.class);
    private final Set<Change> wanted = EnumSet.of(Change.GONE, Change.CHANGED);
    private final Label empty = Parts.sentence("", "lesser");
    private final LongList list = new LongList(ROW, Row::new, empty);
    private final VBox detail = new VBox(10);
    private final Button putAll = Parts.button("gone-tray", "", "Ctrl+T", this::putAllInTray);
    private List<Difference> rows = List.of();
    private Optional<Pages> before = Optional.empty();
    private Optional<Pages> after = Optional.empty();
    private int[] beforeNumbers = new int[0];
    private int[] afterNumbers = new int[0];
    private List<KeptLayer> layers = List.of();

    public GoneView(Desk desk) {
        this.desk = desk;
        this.model = new GoneModel(desk);
        setId("gone-since");
        what.setMinWidth(0);
        var title = new HBox(12, Parts.text("Gone since", "title"), what, Parts.gap(), backToRoom());
        title.setAlignment(Pos.CENTER_LEFT);
        title.setStyle("-fx-padding: 10 18 10 18;");
        setTop(title);
        setCenter(middle());
        var bar = new HBox(14, Parts.text("Tray", "strong"), putAll);
        bar.setAlignment(Pos.CENTER_LEFT);
        bar.getStyleClass().add("tray");
        setBottom(bar);
        desk.compared().addListener((o, was, is) -> is.ifPresentOrElse(this::compare, this::leave));
        desk.place().addListener((o, was, is) -> {
            if (was == Place.GONE_SINCE) {
                model.leave();
            } else if (is == Place.GONE_SINCE) {
                desk.compared().get().ifPresent(this::compare);
            }
        });
        model.open().addListener((o, was, is) -> show(is));
        desk.veil().down().addListener((o, was, is) -> list.refresh());
        show(Optional.empty());
    }

    private Button backToRoom() {
        return Parts.button(
                "gone-back", "Back to the reading room", "", () -> desk.place().set(Place.READING_ROOM));
    }

    private HBox middle() {
        states.setStyle("-fx-padding: 12;");
        var left = bordered(new ScrollPane(states), SIDE);
        list.setId("gone-list");
        list.setAccessibleText("Differences");
        list.whenChosen(this::showDetail);
        list.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.T && !event.isShortcutDown()) {
                putChosenInTray();
                event.consume();
            }
        });
        list.getStyleClass().add("pane-border");
        HBox.setHgrow(list, Priority.ALWAYS);
        detail.setId("gone-detail");
        detail.setStyle("-fx-padding: 12 16 16 16;");
        var middle = new HBox(12, left, list, bordered(new ScrollPane(detail), DETAIL));
        middle.setStyle("-fx-padding: 0 18 12 18;");
        return middle;
    }

    private static StackPane bordered(ScrollPane scroll, double width) {
        scroll.setFitToWidth(true);
        scroll.setFocusTraversable(false);
        scroll.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
        var pane = new StackPane(scroll);
        pane.getStyleClass().add("pane-border");
        pane.setMinWidth(width);
        pane.setMaxWidth(width);
        return pane;
    }

    private void compare(Compared of) {
        if (desk.place().get() != Place.GONE_SINCE) {
            return;
        }
        var name = of.phone().name();
        what.setText(name + " · comparing…");
        empty.setText("Comparing…");
        desk.holdings()
                .get()
                .phone(of.phone().identifier())
                .ifPresent(stored -> desk.work().start(name, () -> desk.layersOf(stored), found -> {
                    if (desk.compared().get().equals(Optional.of(of))) {
                        layers = found;
                        showStates(of);
                    }
                }));
        model.compare(of, () -> {
            what.setText(name + " · could not be compared; the line below says why");
            empty.setText("They could not be compared.");
        });
    }

    /** Its stack was sealed again, say. */
    private void leave() {
        model.leave();
        what.setText("nothing is compared");
        empty.setText("Open a layer in the reading room, and compare it from there.");
    }

    private static String state(int number) {
        return number == 0 ? "the phone now" : "layer " + number;
    }

    private void show(Optional<GoneModel.Open> open) {
        open.ifPresent(in -> what.setText(in.of().phone().name() + " · what changed from "
                + state(in.of().older()) + " to " + state(in.of().newer())));
        int gone = open.map(in -> in.count(Change.GONE)).orElse(0);
        putAll.setText(
                gone == 0
                        ? "Nothing is gone"
                        : "Put in what is gone (" + desk.words().count(gone) + ")");
        putAll.setDisable(gone == 0);
        fill();
        open.ifPresent(in -> showStates(in.of()));
    }

    /** Which two states are compared, and which differences are shown. */
    private void showStates(Compared of) {
        states.getChildren().setAll(Parts.text("Older", "lesser"));
        for (var layer : layers.reversed()) {
            int number = layer.record().number();
            boolean possible = of.newer() == 0 || number < of.newer();
            states.getChildren()
                    .add(choice(
                            "older-" + number,
                            layer,
                            of.older() == number,
                            possible,
                            new Compared(of.phone(), number, of.newer())));
        }
        states.getChildren().add(Parts.text("Newer", "lesser"));
        var now = Parts.button(
                "newer-now",
                "The phone as it is now",
                "",
                () -> desk.compared().set(Optional.of(new Compared(of.phone(), of.older(), 0))),
                "row-button",
                "scope");
        now.setDisable(model.bay(of).isEmpty());
        now.pseudoClassStateChanged(PRESENT, of.newer() == 0);
        states.getChildren().add(now);
        for (var layer : layers.reversed()) {
            int number = layer.record().number();
            states.getChildren()
                    .add(choice(
                            "newer-" + number,
                            layer,
                            of.newer() == number,
                            number > of.older(),
                            new Compared(of.phone(), of.older(), number)));
        }
        states.getChildren().add(Parts.text("Show", "lesser"));
        for (var change : Change.values()) {
            var button = shown.computeIfAbsent(change, this::toggle);
            int count = model.open().get().map(in -> in.count(change)).orElse(0);
            button.setText(words(change) + "  " + desk.words().count(count));
            states.getChildren().add(button);
        }
    }

    private Button choice(String id, KeptLayer layer, boolean chosen, boolean possible, Compared then) {
        var button = Parts.button(
                id,
                layer.record().number() + " · "
                        + desk.words().moment(layer.record().begun(), desk.now()),
                "",
                () -> desk.compared().set(Optional.of(then)),
                "row-button",
                "scope");
        button.setDisable(!possible);
        button.pseudoClassStateChanged(PRESENT, chosen);
        return button;
    }

    private Button toggle(Change change) {
        var button = Parts.button("show-" + words(change), words(change), "", () -> {}, "row-button", "scope");
        button.pseudoClassStateChanged(PRESENT, wanted.contains(change));
        button.setOnAction(event -> {
            if (!wanted.remove(change)) {
                wanted.add(change);
            }
            button.pseudoClassStateChanged(PRESENT, wanted.contains(change));
            fill();
        });
        return button;
    }

    private static String words(Change change) {
        return switch (change) {
            case GONE -> "gone";
            case CHANGED -> "changed";
            case NEW -> "new";
        };
    }

    private void fill() {
        var open = model.open().get();
        rows = open.map(in -> in.differences().stream()
                        .filter(difference -> wanted.contains(difference.change()))
                        .toList())
                .orElse(List.of());
        beforeNumbers = numbers(rows.stream().map(Difference::before).toList());
        afterNumbers = numbers(rows.stream().map(Difference::after).toList());
        before = open.map(in -> new Pages(in.older().catalogue(), desk.work(), this::arrived));
        after = open.map(in -> new Pages(in.newer().catalogue(), desk.work(), this::arrived));
        open.ifPresent(in -> empty.setText(
                in.differences().isEmpty() ? "They are the same." : "Nothing of what is chosen at the left."));
        list.setRows(rows.size());
        showDetail();
    }

    /** 0 stands for none: numbers count from 1. */
    private static int[] numbers(List<OptionalLong> of) {
        return of.stream().mapToInt(number -> (int) number.orElse(0)).toArray();
    }

    private void arrived() {
        list.refresh();
        showDetail();
    }

    private Optional<Entry> before(int row) {
        return beforeNumbers[row] == 0 ? Optional.empty() : before.flatMap(pages -> pages.get(row, beforeNumbers));
    }

    private Optional<Entry> after(int row) {
        return afterNumbers[row] == 0 ? Optional.empty() : after.flatMap(pages -> pages.get(row, afterNumbers));
    }

    private void putAllInTray() {
        model.open().get().ifPresent(in -> model.putInTray(in.gone()));
    }

    /** Puts everything that is gone into the tray, when this is what one looks at. */
    public void pickAllShown() {
        if (desk.place().get() == Place.GONE_SINCE && !putAll.isDisabled()) {
            putAllInTray();
        }
    }

    private void putChosenInTray() {
        int row = list.present();
        if (row < 0) {
            return;
        }
        if (beforeNumbers[row] == 0) {
            desk.work()
                    .tell(Problem.note(
                            "Tray", "It is new, so the older layer has nothing of it", "Pick it in the newer one"));
            return;
        }
        var numbers = new BitSet();
        numbers.set(beforeNumbers[row]);
        model.putInTray(numbers);
    }

    private void showDetail() {
        detail.getChildren().clear();
        int row = list.present();
        var open = model.open().get();
        if (row < 0 || row >= rows.size() || open.isEmpty()) {
            return;
        }
        var was = before(row).map(Entry::thing);
        var is = after(row).map(Entry::thing);
        var either = is.or(() -> was);
        if (either.isEmpty()) {
            return; // it is being read
        }
        var words = new ThingWords(
                (was.isPresent() ? open.get().older() : open.get().newer()).names());
        var change = rows.get(row).change();
        detail.getChildren().add(desk.veil().paragraph(words.what(either.get()), "heading"));
        detail.getChildren().add(Parts.text(either.get().kind().label() + " · " + words(change), "lesser"));
        if (change != Change.NEW) {
            detail.getChildren()
                    .add(Parts.button("gone-pick", "Put the old one in the tray", "T", this::putChosenInTray));
        }
        var texts = WordChanges.between(
                was.map(this::text).orElse(""), is.map(this::text).orElse(""));
        var in = open.get().of();
        was.ifPresent(thing -> detail.getChildren()
                .add(side(state(in.older()), text(thing), is.isPresent() ? texts.before() : List.of(), "went")));
        is.ifPresent(thing -> detail.getChildren()
                .add(side(state(in.newer()), text(thing), was.isPresent() ? texts.after() : List.of(), "came")));
        if (was.isPresent()
                && is.isPresent()
                && texts.before().isEmpty()
                && texts.after().isEmpty()) {
            detail.getChildren()
                    .add(Parts.sentence(
                            "It says the same in both; what changed lies in its file or its facts.", "lesser"));
        }
        detail.getChildren()
                .add(desk.veil().paragraph("Read from " + either.get().id().item(), "lesser"));
    }

    /** Everything that a thing says, one part a line. */
    private String text(Thing thing) {
        var lines = new ArrayList<String>();
        thing.moment().ifPresent(moment -> lines.add(desk.words().when(moment, zone())));
        thing.texts(lines::add);
        return String.join(
                "\n", lines.stream().filter(line -> !line.isBlank()).distinct().toList());
    }

    private ZoneId zone() {
        return model.open().get().orElseThrow().older().phone().timeZone();
    }

    private Node side(String name, String text, List<Mark> marks, String styleClass) {
        var words = desk.veil().paragraph("", styleClass);
        words.setText(text, inLines(text, marks));
        var side = new VBox(6, Parts.text(name, "lesser"), words);
        side.getStyleClass().add("inset");
        return side;
    }

    /** A mark that goes over the end of a line is one in each line: only words are marked. */
    private static List<Mark> inLines(String text, List<Mark> marks) {
        var inLines = new ArrayList<Mark>();
        for (var mark : marks) {
            int from = mark.from();
            for (int i = from; i <= mark.until(); i++) {
                if (i == mark.until() || text.charAt(i) == '\n') {
                    if (i > from) {
                        inLines.add(new Mark(from, i));
                    }
                    from = i + 1;
                }
            }
        }
        return inLines;
    }

    private final class Row extends LongList.Row {
        private final Label change = Parts.text("", "lesser");
        private final UserText title = desk.veil().line("", "strong");
        private final UserText more = desk.veil().line("", "lesser");
        private final Label kind = Parts.text("", "lesser");
        private final HBox line;

        Row() {
            change.setMinWidth(64);
            change.setMaxWidth(64);
            kind.setMinWidth(USE_PREF_SIZE);
            var lines = new VBox(2, title, more);
            lines.setMinWidth(0);
            lines.setAlignment(Pos.CENTER_LEFT);
            HBox.setHgrow(lines, Priority.ALWAYS);
            line = new HBox(10, change, lines, kind);
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
            var of = rows.get(row);
            change.setText(words(of.change()));
            kind.setText(of.kind().code());
            var open = model.open().get();
            var thing = (of.change() == Change.NEW ? after(row) : before(row)).map(Entry::thing);
            if (open.isEmpty() || thing.isEmpty()) {
                title.setOpenText("…");
                more.setOpenText("");
            } else {
                var in = of.change() == Change.NEW
                        ? open.get().newer()
                        : open.get().older();
                var words = new ThingWords(in.names());
                title.setText(words.what(thing.get()));
                var when = thing.get()
                        .moment()
                        .map(moment -> desk.words().when(moment, in.phone().timeZone()))
                        .orElse("");
                var who = words.who(thing.get());
                more.setText(when + (when.isEmpty() || who.isEmpty() ? "" : " · ") + who);
            }
            setAccessibleText(change.getText() + ", " + kind.getText() + ", " + title.getAccessibleText());
        }
    }

    /** Compares a layer with the one below it; the phone itself with its newest layer. */
    static void compareWithBelow(Desk desk, OpenPhone of) {
        var phone = of.phone();
        int newer = of.layer().map(layer -> layer.number()).orElse(0);
        var newest = desk.holdings()
                .get()
                .phone(phone.identifier())
                .map(stored -> stored.newest().number())
                .orElse(0);
        int older = newer == 0 ? newest : newer - 1;
        if (older < 1) {
            desk.work()
                    .tell(Problem.note(
                            phone.name(),
                            "There is nothing older to compare it with",
                            "What is copied from now on can be compared with this layer"));
        } else {
            desk.compare(new Desk.Compared(phone, older, newer));
        }
    }
}
