package app.custodex.desktop.ui;

import javafx.geometry.HPos;
import javafx.geometry.Pos;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Control;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.SVGPath;
import javafx.scene.text.Text;

/** Makes the small parts that views are built of. */
public final class Parts {
    private Parts() {}

    /** The shapes that go with the colours: a state is never told by colour alone. */
    public enum Mark {
        DONE("mark-done", "M6 0 A6 6 0 1 1 5.99 0 Z"),
        PARTLY("mark-partly", "M6 0.7 A5.3 5.3 0 1 1 5.99 0.7 Z M6 2 L6 10 A4 4 0 0 1 6 2 Z"),
        NEVER("mark-never", "M6 0 A6 6 0 1 1 5.99 0 Z M6 1.6 A4.4 4.4 0 1 0 6.01 1.6 Z"),
        HAND("mark-hand", "M6 0 L12 11 L0 11 Z"),
        TROUBLE("mark-trouble", "M6 0 L12 6 L6 12 L0 6 Z");

        private final String styleClass;
        private final String path;

        Mark(String styleClass, String path) {
            this.styleClass = styleClass;
            this.path = path;
        }
    }

    public static Node mark(Mark mark) {
        var shape = new SVGPath();
        shape.setContent(mark.path);
        shape.getStyleClass().addAll("mark", mark.styleClass);
        shape.setScaleX(0.85);
        shape.setScaleY(0.85);
        return shape;
    }

    /** A mark with words of the same colour. */
    public static HBox state(Mark mark, String words) {
        var label = text(words, "state-words", mark.styleClass + "-words");
        label.setWrapText(true);
        label.setMinHeight(Region.USE_PREF_SIZE);
        var box = new HBox(6, mark(mark), label);
        box.setAlignment(Pos.CENTER_LEFT);
        box.setMinWidth(0);
        return box;
    }

    public static Label text(String words, String... styleClasses) {
        var label = new Label(words);
        label.getStyleClass().addAll(styleClasses);
        return label;
    }

    /** Words that are always as wide as they are, where rows run by: a label measures them several times. They stand around their y. */
    public static Text run(String... styleClasses) {
        var run = new Text();
        run.getStyleClass().add("text-run");
        run.getStyleClass().addAll(styleClasses);
        run.setTextOrigin(VPos.CENTER);
        run.setManaged(false);
        return run;
    }

    /** A sentence that wraps. */
    public static Label sentence(String words, String... styleClasses) {
        var label = text(words, styleClasses);
        label.setWrapText(true);
        label.setMinHeight(Region.USE_PREF_SIZE);
        label.setMinWidth(0);
        return label;
    }

    /** A button that shows its shortcut. */
    public static Button button(String id, String words, String shortcut, Runnable action, String... styleClasses) {
        var button = new Button(words);
        button.setId(id);
        button.getStyleClass().addAll(styleClasses);
        if (!shortcut.isEmpty()) {
            button.setGraphic(key(shortcut));
            button.setContentDisplay(javafx.scene.control.ContentDisplay.RIGHT);
            button.setGraphicTextGap(8);
        }
        button.setMinWidth(Region.USE_PREF_SIZE);
        button.setOnAction(event -> action.run());
        return button;
    }

    /** A key's name as it is printed beside what it does. */
    public static Label key(String shortcut) {
        return text(shortcut, "key");
    }

    /** Fields and buttons beside each other, on one middle line. */
    public static HBox row(Node... parts) {
        var row = new HBox(8, parts);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    public static Region gap() {
        var gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        VBox.setVgrow(gap, Priority.ALWAYS);
        return gap;
    }

    /** A field for a day, written as ISO 8601 writes it. */
    public static TextField day(String id, String name) {
        var field = new TextField();
        field.setId(id);
        field.setPromptText("2026-01-31");
        field.setAccessibleText(name);
        field.setPrefColumnCount(8);
        return field;
    }

    /** Two columns: what it is, and what it says. */
    public static GridPane facts(double labelWidth) {
        var grid = new GridPane(12, 7);
        grid.getStyleClass().add("facts");
        var label = new ColumnConstraints(labelWidth);
        label.setHalignment(HPos.LEFT);
        var value = new ColumnConstraints();
        value.setHgrow(Priority.ALWAYS);
        value.setMinWidth(0);
        grid.getColumnConstraints().addAll(label, value);
        return grid;
    }

    public static void fact(GridPane grid, String label, Node value) {
        int row = grid.getRowCount();
        var name = text(label, "lesser");
        name.setMinWidth(Region.USE_PREF_SIZE);
        GridPane.setValignment(name, VPos.TOP);
        GridPane.setValignment(value, VPos.TOP);
        name.getStyleClass().add(value instanceof Control && !(value instanceof Label) ? "field-name" : "fact-name");
        grid.addRow(row, name, value);
    }

    public static void fact(GridPane grid, String label, String value, String... styleClasses) {
        fact(grid, label, sentence(value, styleClasses));
    }

    public static Region rule() {
        var rule = new Region();
        rule.getStyleClass().add("rule");
        return rule;
    }
}
