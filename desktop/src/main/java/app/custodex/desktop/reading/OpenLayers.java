package app.custodex.desktop.reading;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import javafx.beans.binding.Bindings;
import javafx.collections.ListChangeListener;
import javafx.css.PseudoClass;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;

/** The layers that are open, when there is more than one; a click goes from one to the other. */
final class OpenLayers extends FlowPane {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");

    private final Desk desk;

    OpenLayers(Desk desk) {
        super(10, 6);
        this.desk = desk;
        setId("open-layers");
        visibleProperty().bind(Bindings.size(desk.openLayers()).greaterThan(1));
        managedProperty().bind(visibleProperty());
        desk.openLayers().addListener((ListChangeListener<Desk.Reading>) change -> show());
        desk.reading().addListener((o, was, is) -> show());
    }

    private void show() {
        getChildren().clear();
        for (var layer : desk.openLayers()) {
            var button = Parts.button(
                    "open-layer",
                    layer.phone().name() + ", layer " + layer.layer(),
                    "",
                    () -> desk.read(layer.phone(), layer.layer(), false),
                    "row-button",
                    "scope");
            button.pseudoClassStateChanged(
                    PRESENT, desk.reading().get().filter(layer::sameLayer).isPresent());
            var close = Parts.button("close-layer", "×", "", () -> desk.closeLayer(layer), "row-button");
            close.setAccessibleText(
                    "Close layer " + layer.layer() + " of " + layer.phone().name());
            getChildren().add(new HBox(button, close));
        }
    }
}
