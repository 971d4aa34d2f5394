package app.custodex.places;

import app.custodex.model.MediaFile.Place;
import java.util.Arrays;
import java.util.List;

/**
 * A line on the map, in the units of {@link Mercator}: the edge of a piece of land, a border, a track. The arrays belong to it and are
 * not to be changed.
 */
public record Outline(double[] x, double[] y, Bounds bounds) {
    static Outline of(double[] x, double[] y) {
        return new Outline(x, y, Bounds.of(x, y));
    }

    /** A line through places. */
    public static Outline through(List<Place> places) {
        return of(
                places.stream()
                        .mapToDouble(place -> Mercator.x(place.longitude()))
                        .toArray(),
                places.stream()
                        .mapToDouble(place -> Mercator.y(place.latitude()))
                        .toArray());
    }

    int size() {
        return x.length;
    }

    Outline shifted(double right) {
        return of(Arrays.stream(x).map(each -> each + right).toArray(), y);
    }

    /** The same where it leaves the map at one side and comes in at the other: it goes on beyond the edge instead. */
    Outline goingOn() {
        var on = x.clone();
        double turns = 0;
        for (int i = 1; i < on.length; i++) {
            double step = x[i] - x[i - 1];
            if (Math.abs(step) > 0.5) {
                turns -= Math.signum(step);
            }
            on[i] = x[i] + turns;
        }
        return turns == 0 && Arrays.equals(on, x) ? this : of(on, y);
    }

    /** A ring that ends a turn away from where it began lies around a pole: everything up to that edge of the map belongs to it. */
    Outline aroundPole() {
        int last = x.length - 1;
        if (last < 1 || Math.abs(x[last] - x[0]) < 0.5) {
            return this;
        }
        double edge = Arrays.stream(y).average().orElse(0) > 0.5 ? 1 : 0;
        var newX = Arrays.copyOf(x, x.length + 2);
        var newY = Arrays.copyOf(y, y.length + 2);
        newX[last + 1] = x[last];
        newX[last + 2] = x[0];
        newY[last + 1] = edge;
        newY[last + 2] = edge;
        return of(newX, newY);
    }
}
