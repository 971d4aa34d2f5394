package app.custodex.desktop.strongroom;

import app.custodex.strongroom.LayerRecord;
import java.util.List;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;

/** A phone's layers drawn on an axis of time: each as wide as it was the newest, as high as what it added. */
final class Strata extends Region {
    private static final double HEIGHT = 64;
    private static final double FLOOR = 4;
    /** Layers of the same hour would have no width at all. */
    private static final double LEAST_WIDTH = 26;

    private final List<LayerRecord> layers;
    private final Pane canvas = new Pane();

    Strata(List<LayerRecord> layers) {
        this.layers = layers;
        getChildren().add(canvas);
        setMinHeight(HEIGHT);
        setPrefHeight(HEIGHT);
        setMaxHeight(HEIGHT);
        setMinWidth(0);
        widthProperty().addListener((o, was, is) -> draw());
    }

    private void draw() {
        canvas.getChildren().clear();
        double width = getWidth() - 12;
        if (width < LEAST_WIDTH) {
            return;
        }
        var shown = layers.subList(Math.max(0, layers.size() - (int) (width / LEAST_WIDTH)), layers.size());
        long first = shown.getFirst().begun().toEpochMilli();
        double span = Math.max(1, shown.getLast().begun().toEpochMilli() - first);
        double most = Math.max(
                1, shown.stream().mapToLong(LayerRecord::freshBytes).max().orElse(1));
        double free = width - LEAST_WIDTH * shown.size();
        double bottom = HEIGHT - 4;
        for (int i = 0; i < shown.size(); i++) {
            var layer = shown.get(i);
            double from = (layer.begun().toEpochMilli() - first) / span * free + i * LEAST_WIDTH;
            double to = i + 1 < shown.size()
                    ? (shown.get(i + 1).begun().toEpochMilli() - first) / span * free + (i + 1) * LEAST_WIDTH
                    : width;
            // The square root keeps a small layer visible beside the first, large one.
            double height = FLOOR + (HEIGHT - 24) * Math.sqrt(layer.freshBytes() / most);
            var stratum = new Rectangle(from, bottom - height, Math.max(2, to - from - 2), height);
            stratum.getStyleClass().add("stratum");
            var number = new Text(from + 2, bottom - height - 4, Integer.toString(layer.number()));
            number.setStyle("-fx-font-size: 12px; -fx-fill: -second;");
            canvas.getChildren().addAll(stratum, number);
        }
        var ground = new Line(0, bottom, width, bottom);
        ground.getStyleClass().add("stratum-line");
        canvas.getChildren().add(ground);
    }
}
