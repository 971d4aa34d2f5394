package app.custodex.desktop.reading;

import app.custodex.desktop.ui.Parts;
import app.custodex.extract.Choice;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/** Chooses any number of several, such as columns; what is chosen can be kept under a name and chosen again by it. */
final class ColumnMenu extends MenuButton {
    private final Choice choice;
    private final ColumnSets sets;
    private final Consumer<String> chosen;
    private List<String> now;

    /**
     * @param now what is chosen
     * @param chosen is told when that changes
     */
    ColumnMenu(Choice choice, String now, ColumnSets sets, Consumer<String> chosen) {
        this.choice = choice;
        this.sets = sets;
        this.chosen = chosen;
        this.now = Choice.split(now);
        setAccessibleText(choice.label());
        getItems().setAll(new MenuItem("")); // a menu without entries is not opened, and its entries are made then
        setOnShowing(event -> fill());
        name();
    }

    private void name() {
        setText(
                now.isEmpty()
                        ? "all"
                        : sets.all().entrySet().stream()
                                .filter(set -> set.getValue().equals(Choice.join(now)))
                                .map(Map.Entry::getKey)
                                .findFirst()
                                .orElse(now.size() + " of " + choice.values().size()));
    }

    private void fill() {
        getItems().clear();
        var boxes = new GridPane();
        boxes.setHgap(18);
        boxes.setVgap(8);
        int half = (choice.values().size() + 1) / 2;
        for (var value : choice.values()) {
            var box = new CheckBox(value.label());
            box.setId("column-" + value.code());
            box.setSelected(now.isEmpty() || now.contains(value.code()));
            box.setOnAction(event -> tick(value, box.isSelected()));
            int at = boxes.getChildren().size();
            boxes.add(box, at / half, at % half);
        }
        getItems().addAll(item(boxes), new SeparatorMenuItem());
        var all = new MenuItem("All");
        all.setId("columns-all");
        all.setOnAction(event -> choose(List.of()));
        getItems().add(all);
        new TreeMap<>(sets.all()).forEach((name, columns) -> {
            var forget = Parts.button(
                    "",
                    "Forget",
                    "",
                    () -> {
                        sets.forget(name);
                        fill();
                    },
                    "row-button");
            var use = Parts.button(
                    "columns-" + name,
                    name,
                    "",
                    () -> {
                        choose(Choice.split(columns));
                        hide();
                    },
                    "row-button");
            getItems().add(item(new HBox(8, use, Parts.gap(), forget)));
        });
        getItems().addAll(new SeparatorMenuItem(), item(keep()));
    }

    private static CustomMenuItem item(Node node) {
        return new CustomMenuItem(node, false);
    }

    private Node keep() {
        var field = new TextField();
        field.setId("columns-name");
        field.setPromptText("A name for these columns");
        HBox.setHgrow(field, Priority.ALWAYS);
        Runnable keep = () -> {
            var name = field.getText().strip();
            if (!name.isEmpty() && !now.isEmpty()) {
                sets.keep(name, Choice.join(now));
                name();
                hide();
            }
        };
        field.setOnAction(event -> keep.run());
        var row = new HBox(8, field, Parts.button("columns-keep", "Keep", "", keep, "row-button"));
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    /** The order is that in which they are shown; with none left all are meant. */
    private void tick(Choice.Value value, boolean wanted) {
        var ticked = new ArrayList<String>();
        for (var each : choice.values()) {
            boolean was = now.isEmpty() || now.contains(each.code());
            if (each.equals(value) ? wanted : was) {
                ticked.add(each.code());
            }
        }
        choose(ticked.size() == choice.values().size() ? List.of() : ticked);
        if (ticked.isEmpty()) {
            fill();
        }
    }

    private void choose(List<String> these) {
        now = List.copyOf(these);
        name();
        chosen.accept(Choice.join(now));
    }
}
