package app.custodex.places;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * What of a line is drawn, in pixels. Points that fall together are left out, and so is what lies out of sight, so that a coast of
 * a hundred thousand points costs what one sees of it.
 */
public record Drawn(double[] x, double[] y) {
    /** Pixels; points nearer to each other look like one. */
    private static final double APART = 0.7;
    /** Pixels around what is in sight, so that the edge at which an area is cut is not seen. */
    private static final double AROUND = 8;

    /** An area, cut to what is in sight; empty when nothing of it is. */
    public static Optional<Drawn> area(Outline ring, MapView view) {
        if (!ring.bounds().meets(view.inSight(AROUND))) {
            return Optional.empty();
        }
        var points = projected(ring, view);
        points = cut(points, 0, -AROUND, 1);
        points = cut(points, 0, view.width() + AROUND, -1);
        points = cut(points, 1, -AROUND, 1);
        points = cut(points, 1, view.height() + AROUND, -1);
        return points.n < 3 ? Optional.empty() : Optional.of(points.drawn());
    }

    /** The pieces of a line that come into sight. */
    public static List<Drawn> line(Outline line, MapView view) {
        if (!line.bounds().meets(view.inSight(AROUND))) {
            return List.of();
        }
        var points = projected(line, view);
        var pieces = new ArrayList<Drawn>();
        var piece = new Points(16);
        for (int i = 1; i < points.n; i++) {
            if (points.passes(i, view)) {
                if (piece.n == 0) {
                    piece.add(points.x[i - 1], points.y[i - 1]);
                }
                piece.add(points.x[i], points.y[i]);
            } else if (piece.n > 0) {
                pieces.add(piece.drawn());
                piece = new Points(16);
            }
        }
        if (piece.n > 0) {
            pieces.add(piece.drawn());
        }
        return pieces;
    }

    private static final class Points {
        private double[] x;
        private double[] y;
        private int n;

        Points(int room) {
            x = new double[room];
            y = new double[room];
        }

        void add(double newX, double newY) {
            if (n == x.length) {
                x = Arrays.copyOf(x, 2 * n);
                y = Arrays.copyOf(y, 2 * n);
            }
            x[n] = newX;
            y[n++] = newY;
        }

        Drawn drawn() {
            return new Drawn(Arrays.copyOf(x, n), Arrays.copyOf(y, n));
        }

        /** Whether the way to a point may pass through what is in sight. */
        boolean passes(int i, MapView view) {
            return Math.max(x[i], x[i - 1]) >= -AROUND
                    && Math.min(x[i], x[i - 1]) <= view.width() + AROUND
                    && Math.max(y[i], y[i - 1]) >= -AROUND
                    && Math.min(y[i], y[i - 1]) <= view.height() + AROUND;
        }
    }

    private static Points projected(Outline line, MapView view) {
        var points = new Points(64);
        int last = line.size() - 1;
        for (int i = 0; i <= last; i++) {
            double x = view.screenX(line.x()[i]);
            double y = view.screenY(line.y()[i]);
            if (i == 0
                    || i == last
                    || Math.abs(x - points.x[points.n - 1]) >= APART
                    || Math.abs(y - points.y[points.n - 1]) >= APART) {
                points.add(x, y);
            }
        }
        return points;
    }

    /**
     * Leaves out what lies beyond one edge (Sutherland and Hodgman, "Reentrant Polygon Clipping", 1974).
     *
     * @param axis 0 for an upright edge, 1 for a level one
     * @param inside 1 when what lies after the edge stays, -1 when what lies before it does
     */
    private static Points cut(Points all, int axis, double edge, int inside) {
        var kept = new Points(Math.max(4, all.n));
        var along = axis == 0 ? all.x : all.y;
        for (int i = 0; i < all.n; i++) {
            int before = i == 0 ? all.n - 1 : i - 1;
            boolean here = (along[i] - edge) * inside >= 0;
            boolean there = (along[before] - edge) * inside >= 0;
            if (here != there) {
                double share = (edge - along[before]) / (along[i] - along[before]);
                kept.add(
                        all.x[before] + share * (all.x[i] - all.x[before]),
                        all.y[before] + share * (all.y[i] - all.y[before]));
            }
            if (here) {
                kept.add(all.x[i], all.y[i]);
            }
        }
        return kept;
    }
}
