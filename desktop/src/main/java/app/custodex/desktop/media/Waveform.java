package app.custodex.desktop.media;

import app.custodex.media.Peaks;
import java.util.List;
import java.util.Optional;
import javafx.css.CssMetaData;
import javafx.css.Styleable;
import javafx.css.StyleableProperty;
import javafx.css.StyleablePropertyFactory;
import javafx.scene.canvas.Canvas;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;

/** How loud a recording is over its length, and how far it was played; a click goes to a place. */
final class Waveform extends Region {
    private static final StyleablePropertyFactory<Waveform> STYLES =
            new StyleablePropertyFactory<>(Region.getClassCssMetaData());
    private static final int STEP = 3;

    private final StyleableProperty<Color> played =
            STYLES.createStyleableColorProperty(this, "played", "-wave-played", wave -> wave.played, Color.TEAL);
    private final StyleableProperty<Color> rest =
            STYLES.createStyleableColorProperty(this, "rest", "-wave-rest", wave -> wave.rest, Color.GRAY);
    private final Canvas canvas = new Canvas();
    private Optional<Peaks> peaks = Optional.empty();
    private double part;

    /** Takes a place in the recording. */
    interface Seeker {
        /**
         * Goes there.
         *
         * @param part of the whole, 0 to 1
         * @param resting whether somebody means this place, and is not only passing it
         */
        void goTo(double part, boolean resting);
    }

    Waveform(Seeker seeker) {
        getStyleClass().add("waveform");
        getChildren().add(canvas);
        canvas.setManaged(false);
        setMinHeight(44);
        setPrefHeight(44);
        setMinWidth(0);
        Redraw.whenStyled(this, played, rest);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> seeker.goTo(at(event), false));
        addEventHandler(MouseEvent.MOUSE_RELEASED, event -> seeker.goTo(at(event), true));
    }

    private double at(MouseEvent event) {
        return Math.clamp(event.getX() / Math.max(1, getWidth()), 0, 1);
    }

    @Override
    public List<CssMetaData<? extends Styleable, ?>> getCssMetaData() {
        return STYLES.getCssMetaData();
    }

    void show(Peaks of) {
        peaks = Optional.of(of);
        requestLayout();
    }

    /** @param newPart 0 to 1 */
    void playedTo(double newPart) {
        part = newPart;
        requestLayout();
    }

    @Override
    protected void layoutChildren() {
        canvas.setWidth(getWidth());
        canvas.setHeight(getHeight());
        var g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, getWidth(), getHeight());
        int bars = (int) (getWidth() / STEP);
        for (int bar = 0; bar < bars; bar++) {
            double height = Math.max(1, loudest(bar, bars) * getHeight());
            g.setFill((bar + 0.5) / bars <= part ? played.getValue() : rest.getValue());
            g.fillRect(STEP * bar, (getHeight() - height) / 2, STEP - 1, height);
        }
    }

    private double loudest(int bar, int bars) {
        if (peaks.isEmpty()) {
            return 0;
        }
        int parts = peaks.get().loudness().length;
        int from = (int) ((long) bar * parts / bars);
        int until = Math.max(from + 1, (int) ((long) (bar + 1) * parts / bars));
        double loudest = 0;
        for (int i = from; i < Math.min(parts, until); i++) {
            loudest = Math.max(loudest, peaks.get().at(i));
        }
        return loudest;
    }
}
