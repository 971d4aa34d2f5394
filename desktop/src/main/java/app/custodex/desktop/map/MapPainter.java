package app.custodex.desktop.map;

import app.custodex.places.Cluster;
import app.custodex.places.Drawn;
import app.custodex.places.MapView;
import app.custodex.places.Mercator;
import app.custodex.places.WorldMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import javafx.geometry.BoundingBox;
import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.shape.FillRule;
import javafx.scene.text.Font;
import javafx.scene.text.Text;
import javafx.scene.text.TextAlignment;

/** Draws a map: land, borders and names below, tracks and circles above. */
final class MapPainter {
    record Colours(Color land, Color shore, Color water, Color ink, Color accent, Color onAccent) {}

    private static final double SMALLEST = 11;
    private static final double LARGEST = 23;
    private static final int MOST_NAMES = 40;
    private static final double NAME_HEIGHT = 16;
    /** Metres, of which the largest that fits stands under the scale bar. */
    private static final int[] LENGTHS = {
        20, 50, 100, 200, 500, 1_000, 2_000, 5_000, 10_000, 20_000, 50_000, 100_000, 200_000, 500_000, 1_000_000,
        2_000_000
    };

    private static final double BAR = 120;

    private final Font names = Font.font("Hanken Grotesk", 13);
    private final Font small = Font.font("Hanken Grotesk", 11.5);
    private final Font figures = Font.font("Spline Sans Mono", 12);
    private final Text measure = new Text();

    /** Half the width of a circle, in pixels: the more things, the larger. */
    private static double radius(Cluster cluster) {
        return Math.min(LARGEST, SMALLEST + 2.4 * Math.log(cluster.members().length));
    }

    static boolean covers(Cluster cluster, MapView view, double x, double y) {
        return Math.hypot(view.screenX(cluster.x()) - x, view.screenY(cluster.y()) - y) <= radius(cluster) + 2;
    }

    void ground(GraphicsContext g, Optional<WorldMap> world, MapView view, Colours colours) {
        g.setFill(colours.water());
        g.fillRect(0, 0, view.width(), view.height());
        world.ifPresent(map -> {
            g.setFillRule(FillRule.EVEN_ODD);
            g.setFill(colours.land());
            g.setStroke(colours.shore());
            g.setLineWidth(1);
            g.beginPath();
            map.land().forEach(ring -> Drawn.area(ring, view).ifPresent(area -> trace(g, area, true)));
            g.fill();
            g.stroke();
            g.setLineDashes(4, 3);
            g.setStroke(colours.shore().deriveColor(0, 1, 1, 0.55));
            g.beginPath();
            map.borders().forEach(border -> Drawn.line(border, view).forEach(piece -> trace(g, piece, false)));
            g.stroke();
            g.setLineDashes();
        });
        scale(g, view, colours);
        g.setFont(small);
        g.setFill(colours.ink());
        g.setTextAlign(TextAlignment.RIGHT);
        g.setTextBaseline(VPos.BOTTOM);
        g.setStroke(colours.water());
        g.setLineWidth(3);
        g.strokeText(WorldMap.SOURCES, view.width() - 8, view.height() - 5);
        g.fillText(WorldMap.SOURCES, view.width() - 8, view.height() - 5);
    }

    private static void trace(GraphicsContext g, Drawn line, boolean closed) {
        var x = line.x();
        var y = line.y();
        g.moveTo(x[0], y[0]);
        for (int i = 1; i < x.length; i++) {
            g.lineTo(x[i], y[i]);
        }
        if (closed) {
            g.closePath();
        }
    }

    /** Names the largest towns in sight whose names don't cover each other, beside the circles. */
    void names(GraphicsContext g, Optional<WorldMap> world, List<Cluster> clusters, MapView view, Colours colours) {
        var taken = new ArrayList<BoundingBox>();
        g.setFont(names);
        g.setTextAlign(TextAlignment.LEFT);
        g.setTextBaseline(VPos.CENTER);
        measure.setFont(names);
        g.setFill(colours.ink());
        g.setStroke(colours.land().deriveColor(0, 1, 1, 0.8));
        g.setLineWidth(3);
        for (var cluster : clusters) {
            double radius = radius(cluster);
            taken.add(new BoundingBox(
                    view.screenX(cluster.x()) - radius, view.screenY(cluster.y()) - radius, 2 * radius, 2 * radius));
        }
        int most = taken.size() + MOST_NAMES;
        world.stream()
                .flatMap(map -> map.towns().in(view.inSight(0)))
                .limit(4L * MOST_NAMES)
                .forEach(town -> {
                    double x = view.screenX(Mercator.x(town.place().longitude()));
                    double y = view.screenY(Mercator.y(town.place().latitude()));
                    var covering = clusters.stream()
                            .filter(cluster -> covers(cluster, view, x, y))
                            .findFirst();
                    double left = covering.map(cluster -> view.screenX(cluster.x()) + radius(cluster) + 5)
                            .orElse(x + 6);
                    measure.setText(town.name());
                    double width = measure.getLayoutBounds().getWidth();
                    var box = new BoundingBox(left, y - NAME_HEIGHT / 2, width + 4, NAME_HEIGHT);
                    if (taken.size() < most
                            && left + width + 4 < view.width()
                            && taken.stream().noneMatch(other -> other.intersects(box))) {
                        taken.add(box);
                        if (covering.isEmpty()) {
                            g.fillOval(x - 2, y - 2, 4, 4);
                        }
                        g.strokeText(town.name(), left, y); // so that it can be read over a coast
                        g.fillText(town.name(), left, y);
                    }
                });
    }

    private void scale(GraphicsContext g, MapView view, Colours colours) {
        int length = LENGTHS[0];
        for (int each : LENGTHS) {
            if (each / view.metresPerPixel() <= BAR) {
                length = each;
            }
        }
        double width = length / view.metresPerPixel();
        double y = view.height() - 9.5;
        g.setStroke(colours.ink());
        g.setLineWidth(1);
        g.strokePolyline(new double[] {10.5, 10.5, 10.5 + width, 10.5 + width}, new double[] {y - 5, y, y, y - 5}, 4);
        g.setFont(figures);
        g.setFill(colours.ink());
        g.setTextAlign(TextAlignment.LEFT);
        g.setTextBaseline(VPos.BOTTOM);
        g.fillText(length < 1000 ? length + " m" : length / 1000 + " km", 16, y - 1);
    }

    void marks(
            GraphicsContext g,
            List<Drawn> tracks,
            List<Cluster> clusters,
            Predicate<Cluster> chosen,
            MapView view,
            Colours colours) {
        g.clearRect(0, 0, view.width(), view.height());
        g.setStroke(colours.accent());
        g.setLineWidth(2.5);
        g.beginPath();
        tracks.forEach(track -> trace(g, track, false));
        g.stroke();
        g.setFont(figures);
        g.setTextAlign(TextAlignment.CENTER);
        g.setTextBaseline(VPos.CENTER);
        // The smaller ones first: where two touch, the larger one is seen whole.
        for (var cluster : clusters.reversed()) {
            double radius = radius(cluster);
            double x = view.screenX(cluster.x());
            double y = view.screenY(cluster.y());
            boolean present = chosen.test(cluster);
            g.setFill(present ? colours.ink() : colours.accent());
            g.fillOval(x - radius, y - radius, 2 * radius, 2 * radius);
            g.setStroke(present ? colours.accent() : colours.onAccent());
            g.setLineWidth(present ? 3 : 1.5);
            g.strokeOval(x - radius, y - radius, 2 * radius, 2 * radius);
            g.setFill(colours.onAccent());
            g.fillText(figure(cluster.members().length), x, y);
        }
    }

    static void focus(GraphicsContext g, MapView view, Colours colours) {
        g.setStroke(colours.accent());
        g.setLineWidth(2);
        g.strokeRect(1, 1, view.width() - 2, view.height() - 2);
    }

    private static String figure(int count) {
        return count < 10_000 ? Integer.toString(count) : String.format(Locale.ROOT, "%dk", count / 1000);
    }
}
