package app.custodex.desktop.media;

import app.custodex.media.Peaks;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import javafx.css.CssMetaData;
import javafx.css.Styleable;
import javafx.css.StyleableProperty;
import javafx.css.StyleablePropertyFactory;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;

/**
 * How loud a recording is, with a piece of it marked by two edges that can be drawn. The wheel looks closer, drawing elsewhere marks a new
 * piece. Interface thread only.
 */
public final class CutWave extends Region {
    private static final StyleablePropertyFactory<CutWave> STYLES =
            new StyleablePropertyFactory<>(Region.getClassCssMetaData());
    private static final int STEP = 2;
    /** How near to an edge the pointer takes hold of it, in pixels. */
    private static final double NEAR = 7;

    private static final double EDGE = 2;
    private static final double CLOSER = 0.8;
    private static final double LEAST_SHOWN = 1_000;

    private final StyleableProperty<Color> inside =
            STYLES.createStyleableColorProperty(this, "inside", "-wave-played", wave -> wave.inside, Color.TEAL);
    private final StyleableProperty<Color> outside =
            STYLES.createStyleableColorProperty(this, "outside", "-wave-rest", wave -> wave.outside, Color.GRAY);
    private final Canvas canvas = new Canvas();
    private final Marked marked;
    private Optional<Peaks> peaks = Optional.empty();
    /** All in milliseconds. */
    private double length;

    private double from;
    private double until;
    private double shownFrom;
    private double shownUntil;
    private Held held = Held.NOTHING;
    private double anchor;

    private enum Held {
        NOTHING,
        BEGIN,
        END,
        NEW_PIECE
    }

    /** Is told which piece is marked now. */
    public interface Marked {
        void mark(Duration from, Duration until);
    }

    public CutWave(Marked marked) {
        this.marked = marked;
        getStyleClass().add("waveform");
        getChildren().add(canvas);
        canvas.setManaged(false);
        setMinHeight(44);
        setPrefHeight(180);
        setMaxHeight(320);
        setMinWidth(0);
        Redraw.whenStyled(this, inside, outside);
        setAccessibleText("The recording; the piece is marked by its edges");
        addEventHandler(
                MouseEvent.MOUSE_MOVED,
                event -> setCursor(near(event.getX()) == Held.NEW_PIECE ? Cursor.CROSSHAIR : Cursor.H_RESIZE));
        addEventHandler(MouseEvent.MOUSE_PRESSED, event -> {
            held = near(event.getX());
            anchor = time(event.getX());
        });
        addEventHandler(MouseEvent.MOUSE_DRAGGED, event -> draw(time(event.getX())));
        addEventHandler(MouseEvent.MOUSE_RELEASED, event -> held = Held.NOTHING);
        addEventHandler(ScrollEvent.SCROLL, event -> {
            zoom(time(event.getX()), event.getDeltaY() > 0 ? CLOSER : 1 / CLOSER);
            event.consume();
        });
    }

    @Override
    public List<CssMetaData<? extends Styleable, ?>> getCssMetaData() {
        return STYLES.getCssMetaData();
    }

    /** Shows a recording as a whole. */
    public void show(Peaks of) {
        peaks = Optional.of(of);
        length = Math.max(1, of.length().toMillis());
        showWhole();
    }

    /** Shows nothing. */
    public void clear() {
        peaks = Optional.empty();
        requestLayout();
    }

    public void showWhole() {
        shownFrom = 0;
        shownUntil = length;
        requestLayout();
    }

    /** Shows the piece with some of what is around it. */
    public void showPiece() {
        double around = Math.max(LEAST_SHOWN / 4, (until - from) / 8);
        shownFrom = Math.max(0, from - around);
        shownUntil = Math.min(length, until + around);
        requestLayout();
    }

    /** Marks a piece. */
    public void mark(Duration begin, Duration end) {
        from = begin.toMillis();
        until = end.toMillis();
        requestLayout();
    }

    private Held near(double x) {
        double toBegin = Math.abs(x - place(from));
        double toEnd = Math.abs(x - place(until));
        if (Math.min(toBegin, toEnd) > NEAR) {
            return Held.NEW_PIECE;
        }
        return toBegin < toEnd ? Held.BEGIN : Held.END;
    }

    private void draw(double to) {
        switch (held) {
            case BEGIN -> from = Math.min(to, until - 10);
            case END -> until = Math.max(to, from + 10);
            case NEW_PIECE -> {
                from = Math.min(anchor, to);
                until = Math.max(Math.max(anchor, to), from + 10);
            }
            case NOTHING -> {
                return;
            }
        }
        requestLayout();
        marked.mark(Duration.ofMillis(Math.round(from)), Duration.ofMillis(Math.round(until)));
    }

    /** What is under the pointer stays there. */
    private void zoom(double around, double by) {
        double shown = Math.clamp((shownUntil - shownFrom) * by, Math.min(LEAST_SHOWN, length), length);
        double part = (around - shownFrom) / Math.max(1, shownUntil - shownFrom);
        shownFrom = Math.clamp(around - part * shown, 0, length - shown);
        shownUntil = shownFrom + shown;
        requestLayout();
    }

    private double time(double x) {
        double part = Math.clamp(x / Math.max(1, getWidth()), 0, 1);
        return shownFrom + part * (shownUntil - shownFrom);
    }

    private double place(double millis) {
        return (millis - shownFrom) / Math.max(1, shownUntil - shownFrom) * getWidth();
    }

    @Override
    protected void layoutChildren() {
        canvas.setWidth(getWidth());
        canvas.setHeight(getHeight());
        var g = canvas.getGraphicsContext2D();
        g.clearRect(0, 0, getWidth(), getHeight());
        if (peaks.isEmpty()) {
            return;
        }
        for (double x = 0; x < getWidth(); x += STEP) {
            double begin = time(x);
            double end = time(x + STEP);
            double height = Math.max(1, loudest(peaks.get(), begin, end) * getHeight());
            g.setFill(begin >= from && begin < until ? inside.getValue() : outside.getValue());
            g.fillRect(x, (getHeight() - height) / 2, STEP - 0.5, height);
        }
        g.setFill(inside.getValue());
        for (double edge : new double[] {from, until}) {
            g.fillRect(place(edge) - EDGE / 2, 0, EDGE, getHeight());
        }
    }

    private double loudest(Peaks of, double begin, double end) {
        int parts = of.loudness().length;
        int first = (int) (begin / length * parts);
        int last = Math.max(first + 1, (int) Math.ceil(end / length * parts));
        double loudest = 0;
        for (int part = first; part < Math.min(parts, last); part++) {
            loudest = Math.max(loudest, of.at(part));
        }
        return loudest;
    }
}
