package app.custodex.desktop.media;

import javafx.beans.value.ObservableValue;
import javafx.css.StyleableProperty;
import javafx.scene.Parent;
import javafx.scene.paint.Color;

/** Has what is drawn by hand drawn again when the look of the window changes. */
final class Redraw {
    private Redraw() {}

    @SafeVarargs
    static void whenStyled(Parent drawn, StyleableProperty<Color>... colours) {
        for (var colour : colours) {
            if (colour instanceof ObservableValue<?> observed) {
                observed.addListener((o, was, is) -> drawn.requestLayout());
            }
        }
    }
}
