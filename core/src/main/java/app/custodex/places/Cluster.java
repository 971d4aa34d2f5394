package app.custodex.places;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;

/**
 * Points that lie so near to each other where one looks that they are shown as one.
 *
 * @param x of their middle, in the units of {@link Mercator}
 * @param members which of the points, in their order
 */
public record Cluster(double x, double y, int[] members, Bounds bounds) {
    /** Pixels. */
    private static final double APART = 46;

    /**
     * Puts together what is in sight. The same points fall together wherever one moves; only a change of the scale takes them apart.
     *
     * @param x of the points, in the units of {@link Mercator}
     * @return the largest first; of two of a size, the one farther in the west
     */
    public static List<Cluster> of(double[] x, double[] y, MapView view) {
        double cell = APART / view.scale();
        var cells = new HashMap<Long, List<Integer>>();
        var sight = view.inSight(APART);
        for (int i = 0; i < x.length; i++) {
            if (sight.has(x[i], y[i])) {
                long key = ((long) Math.floor(x[i] / cell) << 32) | ((long) Math.floor(y[i] / cell) & 0xffff_ffffL);
                cells.computeIfAbsent(key, k -> new ArrayList<>()).add(i);
            }
        }
        var order = Comparator.comparing((Cluster cluster) -> -cluster.members.length)
                .thenComparing(Cluster::x)
                .thenComparing(Cluster::y);
        var merged = new ArrayList<Cluster>();
        cells.values().stream()
                .map(members -> of(x, y, members.stream().mapToInt(i -> i).toArray()))
                .sorted(order)
                .forEach(next -> join(merged, next, x, y, cell));
        return merged.stream().sorted(order).toList();
    }

    /** One whose middle lies too near to that of a larger one goes into it, or they would cover each other. */
    private static void join(List<Cluster> merged, Cluster next, double[] x, double[] y, double apart) {
        for (int i = 0; i < merged.size(); i++) {
            var other = merged.get(i);
            if (Math.hypot(other.x - next.x, other.y - next.y) < apart) {
                var members = Arrays.copyOf(other.members, other.members.length + next.members.length);
                System.arraycopy(next.members, 0, members, other.members.length, next.members.length);
                Arrays.sort(members);
                merged.set(i, of(x, y, members));
                return;
            }
        }
        merged.add(next);
    }

    private static Cluster of(double[] x, double[] y, int[] members) {
        var xs = Arrays.stream(members).mapToDouble(i -> x[i]).toArray();
        var ys = Arrays.stream(members).mapToDouble(i -> y[i]).toArray();
        return new Cluster(
                Arrays.stream(xs).average().orElse(0),
                Arrays.stream(ys).average().orElse(0),
                members,
                Bounds.of(xs, ys));
    }
}
