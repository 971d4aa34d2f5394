package app.custodex.places;

/** A piece of the map, in the units of {@link Mercator}. */
public record Bounds(double left, double top, double right, double bottom) {
    public static final Bounds WORLD = new Bounds(0, 0, 1, 1);

    /** Around some points; all of the map when there are none. */
    public static Bounds of(double[] x, double[] y) {
        if (x.length == 0) {
            return WORLD;
        }
        double left = x[0];
        double right = x[0];
        double top = y[0];
        double bottom = y[0];
        for (int i = 1; i < x.length; i++) {
            left = Math.min(left, x[i]);
            right = Math.max(right, x[i]);
            top = Math.min(top, y[i]);
            bottom = Math.max(bottom, y[i]);
        }
        return new Bounds(left, top, right, bottom);
    }

    boolean meets(Bounds other) {
        return left <= other.right && other.left <= right && top <= other.bottom && other.top <= bottom;
    }

    public boolean has(double x, double y) {
        return x >= left && x <= right && y >= top && y <= bottom;
    }

    Bounds and(Bounds other) {
        return new Bounds(
                Math.min(left, other.left),
                Math.min(top, other.top),
                Math.max(right, other.right),
                Math.max(bottom, other.bottom));
    }

    /** The larger of width and height. */
    double extent() {
        return Math.max(right - left, bottom - top);
    }
}
