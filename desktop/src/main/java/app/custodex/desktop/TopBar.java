package app.custodex.desktop;

import app.custodex.desktop.Desk.Place;
import app.custodex.desktop.ui.Parts;
import java.util.Map;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;

/** The word mark, the places, and what concerns the whole window. */
final class TopBar extends HBox {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");
    private static final PseudoClass LIFTED = PseudoClass.getPseudoClass("lifted");

    TopBar(Desk desk, TextField find, Runnable openDrawer, boolean hasDrawer, Runnable toggleNight) {
        getStyleClass().add("top-bar");
        setAlignment(Pos.CENTER_LEFT);
        setSpacing(14);
        var mark = new HBox(Parts.text("Custode", "word-mark"), Parts.text("x", "word-mark", "word-mark-end"));
        mark.setAlignment(Pos.CENTER_LEFT);
        mark.setMinWidth(USE_PREF_SIZE);
        var bench = Parts.button("place-bench", "Bench", "", () -> desk.place().set(Place.BENCH), "place");
        var strongroom = Parts.button(
                "place-strongroom", "Strongroom", "", () -> desk.place().set(Place.STRONGROOM), "place");
        Map<Place, Button> places = Map.of(
                Place.BENCH, bench, Place.SOURCES, bench, Place.READING_ROOM, bench, Place.STRONGROOM, strongroom);
        Runnable present = () -> {
            var button = places.get(desk.place().get());
            bench.pseudoClassStateChanged(PRESENT, button == bench);
            strongroom.pseudoClassStateChanged(PRESENT, button == strongroom);
        };
        desk.place().addListener((o, was, is) -> present.run());
        present.run();
        getChildren().addAll(mark, bench, strongroom, Parts.gap(), find(find));
        if (hasDrawer) {
            getChildren().add(Parts.button("open-drawer", "Practice drawer", "F9", openDrawer, "bar-button"));
        }
        getChildren().add(curtain(desk));
        getChildren().add(Parts.button("toggle-night", "Night bench", "F8", toggleNight, "bar-button"));
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
