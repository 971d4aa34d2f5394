package app.custodex.desktop;

import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.desk.Desk.Place;
import app.custodex.desktop.ui.Parts;
import java.util.EnumMap;
import java.util.List;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;

/** The word mark, the places, and what concerns the whole window. */
final class TopBar extends HBox {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    private static final PseudoClass LIFTED = PseudoClass.getPseudoClass("lifted");

    TopBar(
            Desk desk,
            List<Destination> destinations,
            TextField find,
            Runnable openDrawer,
            boolean hasDrawer,
            Runnable toggleNight,
            Runnable toggleGuide) {
        getStyleClass().add("top-bar");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(14);
        var mark = new HBox(Parts.text("Custode", "word-mark"), Parts.text("x", "word-mark", "word-mark-end"));
        mark.setAlignment(Pos.CENTER_LEFT);
        mark.setMinWidth(USE_PREF_SIZE);
        var places = new EnumMap<Place, Button>(Place.class);
        for (var destination : destinations) {
            destination
                    .way()
                    .ifPresent(way -> places.put(
                            destination.place(),
                            Parts.button(
                                    way.id(),
                                    way.title(),
                                    "",
                                    () -> desk.place().set(destination.place()),
                                    "place")));
        }
        Runnable present = () -> {
            var within = destinations.stream()
                    .filter(destination -> destination.place() == desk.place().get())
                    .map(Destination::within)
                    .toList();
            places.forEach((place, button) -> button.pseudoClassStateChanged(PRESENT, within.contains(place)));
        };
        desk.place().addListener((o, was, is) -> present.run());
        present.run();
        getChildren().add(mark);
        getChildren().addAll(places.values());
        getChildren().addAll(Parts.gap(), find(find));
        if (hasDrawer) {
            getChildren().add(Parts.button("open-drawer", "Practice drawer", "F9", openDrawer, "bar-button"));
        }
        getChildren().add(curtain(desk));
        getChildren().add(Parts.button("toggle-night", "Night", "F8", toggleNight, "bar-button"));
        getChildren().add(Parts.button("open-guide", "Guide", "F1", toggleGuide, "bar-button"));
    }

    private static HBox find(TextField field) {
        field.setId("find-everywhere");
        field.setPromptText("Find in every layer…");
        field.setPrefColumnCount(16);
        field.setMinWidth(110);
        var key = Parts.key("Ctrl+K");
        key.setMinWidth(USE_PREF_SIZE);
        var box = new HBox(6, field, key);
        box.setMinWidth(0);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    private static Button curtain(Desk desk) {
        var button = Parts.button("curtain", "", "F6", desk.curtain()::toggle, "bar-button", "curtain");
        button.textProperty().bind(desk.curtain().state());
        desk.veil().down().addListener((o, was, is) -> button.pseudoClassStateChanged(LIFTED, !is));
        return button;
    }
}
