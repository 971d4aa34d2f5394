package app.custodex.desktop.reading;

import app.custodex.base.ProblemException;
import app.custodex.desktop.ui.InWords;
import app.custodex.desktop.ui.Parts;
import app.custodex.extract.Choice;
import app.custodex.extract.Choice.Value;
import app.custodex.extract.Chosen;
import app.custodex.extract.Format;
import app.custodex.extract.formats.Formats;
import app.custodex.model.KindGroup;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** One group of things, and how it is to be written: its format, and the choices that this leaves. */
final class ExtractRow extends VBox {
    private static final double NAME_WIDTH = 150;
    /** Stands for a group that is not written; no format has this name. */
    private static final String LEFT_OUT = "-";

    private final KindGroup group;
    private final ColumnSets columnSets;
    private final Runnable changed;
    private final ComboBox<Optional<Format>> format = new ComboBox<>();
    private final VBox choices = new VBox(6);
    private final Label leavesOut = Parts.sentence("", "lesser");
    private final Map<String, String> values = new HashMap<>();

    /**
     * @param count in words
     * @param before how it was written last, as {@link #typed} gives it; empty when it never was
     * @param columnSets columns that are used again
     * @param changed is told whenever something else was chosen
     */
    ExtractRow(KindGroup group, String count, String before, ColumnSets columnSets, Runnable changed) {
        super(6);
        this.group = group;
        this.columnSets = columnSets;
        this.changed = changed;
        setId("extract-row-" + group.code());
        setStyle("-fx-padding: 8 12 8 12;");
        format.setId("format-" + group.code());
        format.setMaxWidth(Double.MAX_VALUE);
        format.setConverter(new InWords<>(value -> value.map(Format::label).orElse("Leave it out")));
        Formats.of(group).forEach(each -> format.getItems().add(Optional.of(each)));
        format.getItems().add(Optional.empty());
        var name = new VBox(2, Parts.text(group.label(), "strong"), Parts.text(count, "lesser"));
        name.setMinWidth(NAME_WIDTH);
        var head = new HBox(10, name, format);
        head.setAlignment(Pos.CENTER_LEFT);
        choices.setStyle("-fx-padding: 0 0 0 " + (NAME_WIDTH + 10) + ";");
        getChildren().addAll(head, choices);
        restore(before);
        format.valueProperty().addListener((o, was, is) -> {
            values.clear();
            showChoices();
            changed.run();
        });
        showChoices();
    }

    private void restore(String before) {
        var parts = List.of(before.split(":"));
        var known = Formats.of(group, parts.getFirst());
        format.setValue(
                known.isPresent() || parts.getFirst().equals(LEFT_OUT)
                        ? known
                        : format.getItems().getFirst());
        known.ifPresent(of -> {
            try {
                values.putAll(
                        Chosen.of(of, group, parts.subList(1, parts.size())).values());
            } catch (ProblemException noLongerThere) {
                // An older form of the program had this choice; what is usual now will do.
            }
        });
    }

    private void showChoices() {
        choices.getChildren().clear();
        format.getValue().ifPresent(of -> {
            leavesOut.setText(of.leavesOut().isEmpty() ? "" : of.leavesOut() + ".");
            if (!of.leavesOut().isEmpty()) {
                choices.getChildren().add(leavesOut);
            }
            of.choices(group).forEach(choice -> choices.getChildren().add(node(choice)));
        });
        boolean any = !choices.getChildren().isEmpty();
        choices.setVisible(any);
        choices.setManaged(any);
    }

    private Node node(Choice choice) {
        var now = new Chosen(values).of(choice);
        var id = "extract-" + group.code() + "-" + choice.code();
        if (choice.isYesOrNo()) {
            var box = new CheckBox(choice.label());
            box.setId(id);
            box.setWrapText(true);
            box.setSelected(now.equals("yes"));
            box.setOnAction(event -> choose(choice, box.isSelected() ? "yes" : "no"));
            return box;
        }
        if (choice.several()) {
            var menu = new ColumnMenu(choice, now, columnSets, value -> choose(choice, value));
            menu.setId(id);
            return Parts.row(Parts.text(choice.label(), "lesser"), menu);
        }
        if (choice.isWords()) {
            var field = new TextField(now);
            field.setId(id);
            field.setAccessibleText(choice.label());
            // What stands in it counts at once, since nothing may be written that somebody has just typed here to be
            // blacked out.
            field.textProperty().addListener((o, was, is) -> values.put(choice.code(), is));
            var seen = new String[] {now};
            Runnable look = () -> {
                if (!field.getText().equals(seen[0])) { // a result that stands there must not go for nothing
                    seen[0] = field.getText();
                    changed.run();
                }
            };
            field.setOnAction(event -> look.run());
            field.focusedProperty().addListener((o, was, is) -> look.run());
            return new VBox(2, Parts.text(choice.label(), "lesser"), field);
        }
        var combo = new ComboBox<Value>();
        combo.setId(id);
        combo.getItems().setAll(choice.values());
        combo.setConverter(new InWords<>(value -> value.label()));
        choice.values().stream()
                .filter(value -> value.code().equals(now))
                .findFirst()
                .ifPresent(combo::setValue);
        combo.setOnAction(event -> choose(choice, combo.getValue().code()));
        return Parts.row(Parts.text(choice.label(), "lesser"), combo);
    }

    private void choose(Choice choice, String value) {
        values.put(choice.code(), value);
        changed.run();
    }

    KindGroup group() {
        return group;
    }

    /** Empty when it is to be left out. */
    Optional<Format> format() {
        return format.getValue();
    }

    Chosen chosen() {
        return new Chosen(values);
    }

    /** How it is to be written, in one piece, for the next time. */
    String typed() {
        return format().map(of -> of.code() + chosen().typed(of, group)).orElse(LEFT_OUT);
    }

    /** Shows something else about this group below its choices. */
    void add(Node node) {
        getChildren().add(node);
    }
}
