package app.custodex.desktop.reading;

import app.custodex.app.LiveSearch.Answer;
import app.custodex.app.LiveSearch.Hit;
import app.custodex.app.LiveSearch.InLayer;
import app.custodex.app.LiveSearch.Place;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.reading.FindModel.Scope;
import app.custodex.desktop.reading.FindModel.Wanted;
import app.custodex.desktop.ui.Parts;
import app.custodex.model.KindGroup;
import app.custodex.search.Marks;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import javafx.collections.FXCollections;
import javafx.css.PseudoClass;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** What was found in the layers of the strongroom, while one types: where, what, and each thing in full. */
public final class FindView extends BorderPane {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    private static final double ROW = 76;

    private final Desk desk;
    private final FindModel model;
    private final TextField field;
    private final Label told = Parts.text("", "lesser");
    private final HBox scopes = new HBox(6);
    private final HBox chips = new HBox(6);
    private final FlowPane kinds = new FlowPane(6, 6);
    private final VBox where = new VBox(4);
    private final ListView<Hit> list = new ListView<>();
    private final Label nothing = Parts.sentence("", "lesser");
    private final ThingDetail detail;
    private final Map<Place, InLayer> layers = new HashMap<>();
    private final TextField from = Parts.day("find-from", "From day");
    private final TextField until = Parts.day("find-until", "To day");
    private final TextField with = new TextField();
    private Marks marks = Marks.of("");
    private Desk.Place before = Desk.Place.BENCH;

    /** @param field in which one types, on every screen */
    public FindView(Desk desk, TextField field) {
        this.desk = desk;
        this.field = field;
        model = new FindModel(desk);
        detail = new ThingDetail(desk, Optional.empty(), talk -> openThere(), Optional.empty(), Optional.empty());
        setId("find");
        setTop(head());
        setCenter(middle());
        field.textProperty().addListener((o, was, is) -> typed(is));
        field.setOnKeyPressed(event -> {
            switch (event.getCode()) {
                case DOWN -> focusList();
                case ENTER -> openThere();
                case ESCAPE -> leave();
                default -> {
                    return;
                }
            }
            event.consume();
        });
        model.wanted().addListener((o, was, is) -> showWanted(is));
        model.answer().addListener((o, was, is) -> show(is));
        desk.place().addListener((o, was, is) -> {
            if (was == Desk.Place.FIND) {
                model.leave();
            }
        });
        desk.veil().down().addListener((o, was, is) -> list.refresh());
        showWanted(Wanted.NOTHING);
        show(Optional.empty());
    }

    private VBox head() {
        told.setId("find-told");
        told.setMinWidth(0);
        scopes.setAlignment(Pos.CENTER_LEFT);
        from.setOnAction(event -> typeDays());
        until.setOnAction(event -> typeDays());
        with.setId("find-with");
        with.setPromptText("Name or number");
        with.setAccessibleText("With whom, a name or number");
        with.setPrefColumnCount(9);
        with.setOnAction(event -> model.want(model.wanted().get().with(with.getText())));
        var days = new HBox(
                6,
                Parts.text("With", "lesser"),
                with,
                Parts.text("From", "lesser"),
                from,
                Parts.text("to", "lesser"),
                until);
        days.setAlignment(Pos.CENTER_LEFT);
        days.setMinWidth(USE_PREF_SIZE);
        var title = new HBox(12, Parts.text("Find", "title"), scopes, told, Parts.gap(), days);
        title.setAlignment(Pos.CENTER_LEFT);
        chips.setAlignment(Pos.CENTER_LEFT);
        kinds.setPrefWrapLength(900); // else its height is reckoned for less room than it gets
        chips.setMinWidth(USE_PREF_SIZE);
        HBox.setHgrow(kinds, Priority.ALWAYS);
        var second = new HBox(12, kinds, chips);
        second.setMinHeight(32);
        second.setAlignment(Pos.CENTER_LEFT);
        var head = new VBox(8, title, second);
        head.setStyle("-fx-padding: 10 18 10 18;");
        return head;
    }

    private HBox middle() {
        where.setStyle("-fx-padding: 12;");
        var scroll = new ScrollPane(where);
        scroll.setFitToWidth(true);
        scroll.setFocusTraversable(false);
        var left = new StackPane(scroll);
        left.getStyleClass().add("pane-border");
        left.setMinWidth(248);
        left.setMaxWidth(248);
        list.setId("find-list");
        list.setFixedCellSize(ROW);
        list.setCellFactory(view -> new HitCell(desk, () -> marks, layers));
        list.setPlaceholder(nothing);
        list.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> choose(is));
        list.setOnMouseClicked(event -> {
            if (event.getClickCount() == 2) {
                openThere();
            }
        });
        list.setOnKeyPressed(event -> {
            if (event.getCode() == KeyCode.ENTER) {
                openThere();
                event.consume();
            } else if (event.getCode() == KeyCode.ESCAPE) {
                field.requestFocus();
                event.consume();
            }
        });
        HBox.setHgrow(list, Priority.ALWAYS);
        list.getStyleClass().add("pane-border");
        VBox.setVgrow(detail, Priority.ALWAYS);
        var open = Parts.button("find-open", "Open there", "Enter", this::openThere);
        open.visibleProperty().bind(detail.visibleProperty());
        open.managedProperty().bind(detail.visibleProperty());
        var bar = new HBox(open);
        bar.setAlignment(Pos.CENTER_RIGHT);
        bar.setStyle("-fx-padding: 8 12 0 12;");
        var right = new VBox(bar, detail);
        right.setMinWidth(390);
        right.setMaxWidth(390);
        right.getStyleClass().add("pane-border");
        var all = new HBox(12, left, list, right);
        BorderPane.setMargin(all, new Insets(0, 18, 12, 18));
        return all;
    }

    /** From any screen. */
    public void begin() {
        field.requestFocus();
        field.selectAll();
        if (!field.getText().isBlank()) {
            enter();
        }
    }

    private void enter() {
        if (desk.place().get() != Desk.Place.FIND) {
            before = desk.place().get();
            desk.place().set(Desk.Place.FIND);
            model.want(model.wanted().get()); // scopes and what is there may be others by now
        }
    }

    private void leave() {
        if (desk.place().get() != Desk.Place.FIND) {
            return;
        }
        if (field.getText().isEmpty()) {
            desk.place().set(before);
        } else {
            field.clear();
        }
    }

    private void typed(String text) {
        if (!text.isBlank()) {
            enter();
        }
        model.want(model.wanted().get().typed(text));
    }

    private void focusList() {
        list.requestFocus();
        if (list.getSelectionModel().isEmpty()) {
            list.getSelectionModel().selectFirst();
        }
    }

    private void typeDays() {
        try {
            model.want(model.wanted().get().days(day(from), day(until)));
        } catch (DateTimeException noDay) {
            told.setText("Write each date as year, month and day, such as 2026-01-31.");
        }
    }

    private static Optional<LocalDate> day(TextField typed) {
        return typed.getText().isBlank()
                ? Optional.empty()
                : Optional.of(LocalDate.parse(typed.getText().strip()));
    }

    private void showWanted(Wanted wanted) {
        marks = Marks.of(wanted.typed());
        scopes.getChildren().clear();
        for (var scope : Scope.values()) {
            boolean possible = switch (scope) {
                case EVERYTHING -> true;
                case PHONE -> model.phoneAtHand().isPresent();
                case LAYER -> model.layerAtHand().isPresent();
            };
            if (possible) {
                var button = Parts.button(
                        "find-" + scope.name().toLowerCase(Locale.ROOT),
                        scope.label(),
                        "",
                        () -> model.want(model.wanted().get().scope(scope)),
                        "row-button",
                        "scope");
                button.pseudoClassStateChanged(PRESENT, wanted.scope() == scope);
                scopes.getChildren().add(button);
            }
        }
        chips.getChildren().clear();
        if (wanted.attached()) {
            chip("chip-attached", "has an attachment", wanted.attached(false));
        } else {
            chips.getChildren()
                    .add(Parts.button(
                            "find-attached",
                            "Only with an attachment",
                            "",
                            () -> model.want(model.wanted().get().attached(true)),
                            "row-button"));
        }
        if (wanted.with().isEmpty()) {
            with.clear();
        } else {
            chip("chip-with", "with " + wanted.with(), wanted.with(""));
        }
        if (wanted.from().isPresent() || wanted.until().isPresent()) {
            var days = wanted.from().map(day -> "from " + day + " ").orElse("")
                    + wanted.until().map(day -> "to " + day).orElse("");
            chip("chip-days", days.strip(), wanted.days(Optional.empty(), Optional.empty()));
        } else {
            from.clear();
            until.clear();
        }
        wanted.in().ifPresent(place -> chip("chip-layer", "only layer " + place.layer(), wanted.in(Optional.empty())));
    }

    private void chip(String id, String words, Wanted without) {
        var button = Parts.button(id, words + "  ×", "", () -> model.want(without), "row-button", "scope");
        button.pseudoClassStateChanged(PRESENT, true);
        button.setAccessibleText("No longer: " + words);
        chips.getChildren().add(button);
    }

    private void show(Optional<Answer> answer) {
        layers.clear();
        answer.ifPresent(found -> found.layers().forEach(layer -> layers.put(layer.place(), layer)));
        var hits = answer.map(Answer::hits).orElse(List.of());
        list.setItems(FXCollections.observableList(hits));
        list.refresh();
        if (!hits.isEmpty()) {
            list.getSelectionModel().selectFirst();
        }
        nothing.setText(nothing(answer));
        told.setText(answer.map(this::told).orElse(""));
        showKinds(answer);
        showWhere(answer);
    }

    private String nothing(Optional<Answer> answer) {
        if (answer.isEmpty()) {
            return model.wanted().get().isNothing() ? "Type a name, a number, or words that were said." : "Looking…";
        }
        return answer.get().finished()
                ? model.wanted().get().with().isEmpty()
                        ? "Nothing has all of these words."
                        : "Nothing like this was found of anybody of this name or number."
                : "Nothing yet; more layers are being opened…";
    }

    private String told(Answer answer) {
        var words = desk.words();
        var things = words.count(answer.hits().size(), "thing", "things");
        return (answer.complete() ? things : "the newest " + things + " of more")
                + " in " + words.count(answer.layers().size(), "layer", "layers")
                + (answer.finished() ? "" : " so far");
    }

    private void showKinds(Optional<Answer> answer) {
        kinds.getChildren().clear();
        var counts = new EnumMap<KindGroup, Integer>(KindGroup.class);
        answer.ifPresent(
                found -> found.kinds().forEach((kind, count) -> counts.merge(KindGroup.of(kind), count, Integer::sum)));
        var chosen = model.wanted().get().groups();
        counts.forEach((group, count) -> {
            var button = Parts.button(
                    "found-" + group.code(),
                    group.label() + "  " + desk.words().count(count)
                            + (answer.filter(found -> !found.complete()).isPresent() ? "+" : ""),
                    "",
                    () -> toggle(group),
                    "kind-tab",
                    "tint-line-" + group.code());
            button.pseudoClassStateChanged(PRESENT, chosen.contains(group));
            kinds.getChildren().add(button);
        });
    }

    private void toggle(KindGroup group) {
        var chosen = new HashSet<>(model.wanted().get().groups());
        if (!chosen.remove(group)) {
            chosen.add(group);
        }
        model.want(model.wanted().get().groups(chosen));
    }

    private void showWhere(Optional<Answer> answer) {
        where.getChildren().setAll(Parts.text("Where it was found", "lesser"));
        if (answer.isEmpty()) {
            return;
        }
        var phones = answer.get().layers().stream()
                .collect(
                        Collectors.groupingBy(layer -> layer.place().phone(), LinkedHashMap::new, Collectors.toList()));
        int most = answer.get().layers().stream().mapToInt(InLayer::found).max().orElse(0);
        phones.values().forEach(in -> {
            var name = Parts.text(in.getFirst().open().phone().name(), "strong");
            name.setStyle("-fx-padding: 8 0 0 0;");
            where.getChildren().add(name);
            in.forEach(layer -> where.getChildren().add(layer(layer, most)));
        });
        for (var problem : answer.get().notSearched()) {
            var sentence = Parts.sentence(problem.sentence(), "lesser");
            sentence.setStyle("-fx-padding: 8 0 0 0;");
            where.getChildren().add(sentence);
        }
    }

    private Node layer(InLayer layer, int most) {
        var words = layer.place().layer() + " · "
                + layer.open()
                        .layer()
                        .map(record -> desk.words().moment(record.begun(), desk.now()))
                        .orElse("");
        var figure = Parts.text(desk.words().count(layer.found()), "lesser");
        figure.setMinWidth(USE_PREF_SIZE);
        var row = new HBox(8, Parts.text(words), Parts.gap(), figure);
        row.setAlignment(Pos.CENTER_LEFT);
        var button = new Button();
        button.setId("found-in-" + layer.place().layer());
        button.getStyleClass().add("found-in");
        button.setMaxWidth(Double.MAX_VALUE);
        row.prefWidthProperty().bind(button.widthProperty().subtract(20));
        button.setGraphic(row);
        button.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
        long share = most == 0 ? 0 : Math.round(100.0 * layer.found() / most);
        button.setStyle(
                "-fx-background-color: linear-gradient(to right, -petrol-soft " + share + "%, -card " + share + "%);");
        button.setAccessibleText(words + ", " + figure.getText() + " found");
        button.setOnAction(event -> model.want(model.wanted().get().in(Optional.of(layer.place()))));
        return button;
    }

    private void choose(@Nullable Hit hit) {
        var in = Optional.ofNullable(hit)
                .flatMap(found -> Optional.ofNullable(layers.get(found.in().getFirst())));
        desk.foundIn().set(in.map(layer -> layer.open().phone()));
        if (hit == null || in.isEmpty()) {
            detail.enter(Optional.empty());
            return;
        }
        detail.enter(in.map(InLayer::open));
        detail.show(Optional.of(hit.entry()));
    }

    /** Opens the layer at the thing that is chosen. */
    private void openThere() {
        var hit = Optional.ofNullable(list.getSelectionModel().getSelectedItem());
        if (desk.place().get() != Desk.Place.FIND || hit.isEmpty()) {
            return;
        }
        var place = hit.get().in().getFirst();
        Optional.ofNullable(layers.get(place))
                .ifPresent(layer -> desk.read(
                        layer.open().phone(),
                        place.layer(),
                        hit.get().entry().thing().id()));
    }
}
