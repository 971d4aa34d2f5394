package app.custodex.desktop.reading;

import app.custodex.desktop.ui.Parts;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;

/** Other ways to look at a layer than by time. */
final class WaysIn extends GridPane {
    /**
     * A way in.
     *
     * @param key that does the same
     */
    record Way(String id, String label, String key, Runnable open) {}

    private final List<Button> buttons;

    WaysIn(Way... ways) {
        super(6, 6);
        buttons = List.of(ways).stream().map(WaysIn::button).toList();
        for (int i = 0; i < buttons.size(); i++) {
            add(buttons.get(i), i % 2, i / 2);
        }
        for (int column = 0; column < 2; column++) {
            var half = new ColumnConstraints();
            half.setPercentWidth(50);
            half.setHgrow(Priority.ALWAYS);
            getColumnConstraints().add(half);
        }
        allow(false);
    }

    private static Button button(Way way) {
        var button = Parts.button(way.id(), way.label(), "", way.open(), "row-button", "scope");
        button.setMaxWidth(Double.MAX_VALUE);
        button.setTooltip(new Tooltip(way.key()));
        return button;
    }

    /** Whether there is a layer to look at. */
    void allow(boolean looking) {
        buttons.forEach(button -> button.setDisable(!looking));
    }

    boolean areAllowed() {
        return !buttons.getFirst().isDisabled();
    }
}
