package app.custodex.desktop.bench;

import app.custodex.backup.Selection;
import app.custodex.backup.Survey;
import app.custodex.backup.Survey.Found;
import app.custodex.desktop.desk.BayModel;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import javafx.collections.FXCollections;
import javafx.geometry.Pos;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** Single items of one kind, looked at on the phone and chosen. */
final class ItemChoice extends VBox {
    private final Desk desk;
    private final BayModel bay;
    private final Kind kind;
    private final List<Found> all;
    private final Set<PhonePath> chosen = new HashSet<>();
    private final ListView<Found> list = new ListView<>();
    private final Label count = Parts.text("", "lesser");
    private final ItemPreview preview;

    ItemChoice(Desk desk, BayModel bay, Survey survey, Kind kind, Runnable back) {
        super(8);
        this.desk = desk;
        this.bay = bay;
        this.kind = kind;
        this.all = survey.of(kind);
        this.preview = new ItemPreview(desk, bay);
        setId("item-choice");
        setMinWidth(0);
        var selection = bay.selection().get();
        all.stream()
                .map(found -> found.file().path())
                .filter(path -> selection.takes(kind, path))
                .forEach(chosen::add);
        var find = new TextField();
        find.setId("items-find");
        find.setPromptText("Find by name or folder…");
        find.textProperty().addListener((o, was, is) -> show(is));
        HBox.setHgrow(find, Priority.ALWAYS);
        var top = new HBox(
                8,
                Parts.text(kind.label(), "heading"),
                find,
                Parts.button("items-all", "All shown", "", () -> pickShown(true)),
                Parts.button("items-none", "None shown", "", () -> pickShown(false)),
                Parts.button("items-done", "Done", "", back, "main"));
        top.setAlignment(Pos.CENTER_LEFT);
        list.setId("items");
        list.setFixedCellSize(30);
        list.setPrefHeight(250);
        list.getStyleClass().add("pane-border");
        list.setPlaceholder(Parts.text("No item has this in its name.", "lesser"));
        list.setCellFactory(view -> new Cell());
        list.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> preview.show(is));
        list.setOnKeyPressed(event -> {
            var at = list.getSelectionModel().getSelectedItem();
            if (event.getCode() == KeyCode.SPACE && at != null) {
                pick(at, !chosen.contains(at.file().path()));
                event.consume();
            }
        });
        getChildren().addAll(top, count, list, preview);
        show("");
        list.getSelectionModel().selectFirst();
        told();
    }

    private void show(String words) {
        var wanted = words.strip().toLowerCase(Locale.ROOT);
        list.setItems(FXCollections.observableList(all.stream()
                .filter(found ->
                        found.file().path().text().toLowerCase(Locale.ROOT).contains(wanted))
                .toList()));
    }

    private void pickShown(boolean on) {
        for (var found : list.getItems()) {
            if (on) {
                chosen.add(found.file().path());
            } else {
                chosen.remove(found.file().path());
            }
        }
        settle();
    }

    private void pick(Found found, boolean on) {
        if (on) {
            chosen.add(found.file().path());
        } else {
            chosen.remove(found.file().path());
        }
        settle();
    }

    private void settle() {
        Selection before = bay.selection().get();
        bay.selection()
                .set(
                        chosen.size() == all.size()
                                ? before.with(kind, true)
                                : chosen.isEmpty() ? before.with(kind, false) : before.withOnly(kind, chosen));
        list.refresh();
        told();
    }

    private void told() {
        count.setText(desk.words().count(chosen.size()) + " of "
                + desk.words().count(all.size(), "item is taken", "items are taken"));
    }

    private final class Cell extends ListCell<Found> {
        @Override
        protected void updateItem(@Nullable Found found, boolean empty) {
            super.updateItem(found, empty);
            if (empty || found == null) {
                setGraphic(null);
                return;
            }
            var box = new CheckBox();
            box.setSelected(chosen.contains(found.file().path()));
            box.setFocusTraversable(false);
            box.setOnAction(event -> pick(found, box.isSelected()));
            var name = desk.veil().line(found.file().path().text());
            HBox.setHgrow(name, Priority.ALWAYS);
            var size = Parts.text(desk.words().bytes(found.file().size()), "lesser");
            size.setMinWidth(70);
            size.setAlignment(Pos.CENTER_RIGHT);
            var stored = Parts.text(found.stored() ? "stored" : "new", "lesser");
            stored.setMinWidth(46);
            var row = new HBox(8, box, name, size, stored);
            row.setAlignment(Pos.CENTER_LEFT);
            row.setMinWidth(0);
            row.prefWidthProperty().bind(list.widthProperty().subtract(40));
            setGraphic(row);
        }
    }
}
