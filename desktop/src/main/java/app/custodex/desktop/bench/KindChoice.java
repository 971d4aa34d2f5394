package app.custodex.desktop.bench;

import app.custodex.backup.Selection;
import app.custodex.backup.Survey.Amount;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.link.Kind;
import app.custodex.link.KindCount;
import app.custodex.strongroom.LeftOut.Why;
import app.custodex.strongroom.StoredPhone.Seal;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Every kind with how much of it there is and how much is new, to be taken or left. */
final class KindChoice extends VBox {
    private static final double ITEMS = 58;
    private static final double SIZE = 74;
    private static final double ACTION = 106;

    private final Desk desk;
    private final BayModel bay;
    private final Consumer<Kind> chooseItems;
    private List<Object> shown = List.of();

    KindChoice(Desk desk, BayModel bay, Consumer<Kind> chooseItems) {
        this.desk = desk;
        this.bay = bay;
        this.chooseItems = chooseItems;
        setId("kinds");
        setMinWidth(0);
    }

    void refresh() {
        var selection = bay.selection().get();
        var survey = bay.survey().get();
        var counts = bay.status().get().map(s -> s.contents()).orElse(List.of());
        List<Object> now = List.of(
                selection,
                survey.map(System::identityHashCode),
                counts,
                bay.seal().get());
        if (now.equals(shown)) {
            return;
        }
        shown = now;
        getChildren().setAll(head());
        var all = survey.map(s -> s.amounts(Selection.EVERYTHING)).orElse(Map.of());
        var taken = survey.map(s -> s.amounts(selection)).orElse(Map.of());
        var withheld = new EnumMap<Kind, Why>(Kind.class);
        survey.ifPresent(s -> s.left().forEach(left -> withheld.put(left.kind(), left.why())));
        if (survey.isEmpty()) {
            counts.stream().filter(KindCount::shared).forEach(count -> withheld.put(count.kind(), Why.SHARED));
            counts.forEach(count -> count.withheld()
                    .filter(why -> !count.given(bay.seal().get() != Seal.NONE))
                    .ifPresent(why -> withheld.put(count.kind(), why(count))));
        }
        var nothing = EnumSet.noneOf(Kind.class);
        for (var kind : Kind.values()) {
            var why = Optional.ofNullable(withheld.get(kind));
            if (why.equals(Optional.of(Why.NOTHING_THERE))
                    || why.isEmpty() && survey.isEmpty() && said(counts, kind).files() == 0 && !counts.isEmpty()) {
                nothing.add(kind);
            } else {
                var amount = Optional.ofNullable(all.get(kind)).orElseGet(() -> told(said(counts, kind)));
                getChildren().add(row(kind, amount, Optional.ofNullable(taken.get(kind)), why, survey.isPresent()));
            }
        }
        if (!nothing.isEmpty() && bay.isPhone()) { // nobody expects all kinds in a folder
            var names = String.join(", ", nothing.stream().map(Kind::label).toList());
            var line = Parts.sentence("Nothing there: " + names, "lesser");
            line.setStyle("-fx-padding: 6 8 0 8;");
            getChildren().add(line);
        }
    }

    private static Why why(KindCount count) {
        return switch (count.withheld().orElseThrow()) {
            case SEALED_ONLY -> Why.SEALED_ONLY;
            case OUT_OF_REACH -> Why.OUT_OF_REACH;
            case NOT_WRITTEN -> Why.NOT_WRITTEN;
        };
    }

    private static KindCount said(List<KindCount> counts, Kind kind) {
        return counts.stream().filter(count -> count.kind() == kind).findFirst().orElse(new KindCount(kind, 0, 0, 0));
    }

    private static Amount told(KindCount count) {
        return new Amount(count.files(), count.bytes(), 0, 0);
    }

    private Node head() {
        var everything = new CheckBox("Everything");
        everything.setId("kinds-everything");
        everything.setSelected(bay.selection().get().everything());
        everything.setIndeterminate(
                !everything.isSelected() && !bay.selection().get().kinds().isEmpty());
        everything.setOnAction(event -> bay.selection()
                .set(everything.isSelected() ? Selection.EVERYTHING : Selection.of(EnumSet.noneOf(Kind.class))));
        var line = line(
                name(everything),
                figure("Files", ITEMS, "table-head"),
                figure("Size", SIZE, "table-head"),
                figure("New", SIZE, "table-head"),
                action(new Region()));
        line.getStyleClass().add("table-head-row");
        return line;
    }

    private Node row(Kind kind, Amount all, Optional<Amount> taken, Optional<Why> why, boolean surveyed) {
        var words = desk.words();
        var selection = bay.selection().get();
        var box = new CheckBox(kind.label());
        box.setId("kind-" + kind.code());
        boolean withheld = why.isPresent();
        box.setDisable(withheld);
        box.setSelected(!withheld && selection.whole(kind));
        box.setIndeterminate(!withheld && selection.kinds().contains(kind) && !selection.whole(kind));
        box.setOnAction(event -> bay.selection().set(selection.with(kind, box.isSelected())));
        box.setMinWidth(0);
        if (withheld) {
            var reason = Parts.sentence(why.get().words(), "lesser");
            reason.setStyle("-fx-padding: 0 0 2 27;");
            var line = line(
                    name(box),
                    figure(all.items() == 0 ? "" : words.count(all.items()), ITEMS, "table-figure"),
                    figure(all.bytes() == 0 ? "" : words.bytes(all.bytes()), SIZE, "table-figure"),
                    figure("", SIZE, "table-figure"),
                    action(new Region()));
            var both = new VBox(line, reason);
            both.getStyleClass().add("table-row");
            return both;
        }
        var some =
                Parts.button("items-" + kind.code(), "Choose items…", "", () -> chooseItems.accept(kind), "row-button");
        some.setVisible(surveyed);
        // Before the phone trusts this bench it says nothing of what is on it.
        boolean known = surveyed
                || bay.status().get().filter(s -> !s.contents().isEmpty()).isPresent();
        var one = taken.filter(t -> t.items() < all.items());
        var line = line(
                name(box),
                figure(
                        known
                                ? one.map(t -> words.count(t.items()) + " of ").orElse("") + words.count(all.items())
                                : "…",
                        ITEMS,
                        "table-figure"),
                figure(known ? words.bytes(one.map(Amount::bytes).orElse(all.bytes())) : "…", SIZE, "table-figure"),
                figure(fresh(taken, surveyed), SIZE, "table-figure"),
                action(some));
        line.getStyleClass().add("table-row");
        return line;
    }

    private String fresh(Optional<Amount> taken, boolean surveyed) {
        if (!surveyed) {
            return "…";
        }
        return taken.filter(t -> t.newItems() > 0)
                .map(t -> desk.words().bytes(t.newBytes()))
                .orElse("–");
    }

    private static HBox line(Node... cells) {
        var line = new HBox(8, cells);
        line.setAlignment(Pos.CENTER_LEFT);
        return line;
    }

    private static Node name(CheckBox box) {
        box.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(box, Priority.ALWAYS);
        return box;
    }

    private static Node figure(String words, double width, String styleClass) {
        Label label = Parts.text(words, styleClass);
        label.setAlignment(Pos.CENTER_RIGHT);
        label.setMinWidth(width);
        return label;
    }

    private static Node action(Node node) {
        var box = new HBox(node);
        box.setAlignment(Pos.CENTER_RIGHT);
        box.setMinWidth(ACTION);
        return box;
    }
}
