package app.custodex.desktop.bench;

import app.custodex.desktop.ui.Parts;
import java.util.ArrayList;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** A short table of kinds: a name, figures to the right, and perhaps a state. Long lists are list views, not this. */
final class KindTable extends VBox {
    private static final double FIGURE = 84;
    private static final double STATE = 250;
    private static final double STATE_BESIDE_MANY = 170;
    private static final int MANY = 4;

    private final int figures;

    /** @param heads the first is the name's, the others the figures' */
    KindTable(String... heads) {
        figures = heads.length - 1;
        var cells = new ArrayList<Node>();
        for (int i = 0; i < heads.length; i++) {
            cells.add(i == 0 ? name(heads[i], "table-head") : figure(heads[i], "table-head"));
        }
        getChildren().add(line(cells, "table-head-row"));
    }

    /** Adds a head for the states, at the right. */
    KindTable withState(String head) {
        ((HBox) getChildren().getFirst()).getChildren().add(state(Parts.text(head, "table-head")));
        return this;
    }

    void row(String name, String... values) {
        getChildren().add(line(cells(name, values), "table-row"));
    }

    void row(String name, Node state, String... values) {
        var cells = cells(name, values);
        cells.add(state(state));
        getChildren().add(line(cells, "table-row"));
    }

    private List<Node> cells(String name, String... values) {
        var cells = new ArrayList<Node>();
        cells.add(name(name, "table-name"));
        for (int i = 0; i < figures; i++) {
            cells.add(figure(i < values.length ? values[i] : "", "table-figure"));
        }
        return cells;
    }

    private static Node name(String text, String styleClass) {
        var label = Parts.text(text, styleClass);
        label.setMaxWidth(Double.MAX_VALUE);
        label.setMinWidth(120);
        HBox.setHgrow(label, Priority.ALWAYS);
        return label;
    }

    private static Node figure(String text, String styleClass) {
        Label label = Parts.text(text, styleClass);
        label.setAlignment(Pos.CENTER_RIGHT);
        label.setMinWidth(FIGURE);
        label.setPrefWidth(FIGURE);
        return label;
    }

    private Node state(Node node) {
        var box = new HBox(node);
        box.setAlignment(Pos.CENTER_LEFT);
        double width = figures < MANY ? STATE : STATE_BESIDE_MANY;
        box.setMinWidth(width);
        box.setPrefWidth(width);
        box.setStyle("-fx-padding: 0 0 0 22;");
        return box;
    }

    private static Region line(List<Node> cells, String styleClass) {
        var line = new HBox(8);
        line.getChildren().addAll(cells);
        line.setAlignment(Pos.CENTER_LEFT);
        line.getStyleClass().add(styleClass);
        return line;
    }
}
