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

    private static final Comparator<Group> LARGEST_FIRST = Comparator.comparing((Group group) -> -group.count)
            .thenComparing(Group::x)
            .thenComparing(Group::y);

    /**
     * Puts together what is in sight. The same points fall together wherever one moves; only a change of the scale takes them apart.
     *
     * @param x of the points, in the units of {@link Mercator}
     * @return the largest first; of two of a size, the one farther in the west
     */
    public static List<Cluster> of(double[] x, double[] y, MapView view) {
        double cell = APART / view.scale();
        var cells = new HashMap<Long, Group>();
        var sight = view.inSight(APART);
        for (int i = 0; i < x.length; i++) {
            if (sight.has(x[i], y[i])) {
                long key = ((long) Math.floor(x[i] / cell) << 32) | ((long) Math.floor(y[i] / cell) & 0xffff_ffffL);
                cells.computeIfAbsent(key, k -> new Group()).add(i, x[i], y[i]);
            }
        }
        var merged = new ArrayList<Group>();
        cells.values().stream().sorted(LARGEST_FIRST).forEach(next -> join(merged, next, cell));
        return merged.stream()
                .sorted(LARGEST_FIRST)
                .map(group -> group.cluster(x, y))
                .toList();
    }

    /** One whose middle lies too near to that of a larger one goes into it, or they would cover each other. */
    private static void join(List<Group> merged, Group next, double apart) {
        for (var other : merged) {
            if (Math.hypot(other.x() - next.x(), other.y() - next.y()) < apart) {
                other.add(next);
                return;
            }
        }
        merged.add(next);
    }

    /** Points that are together so far, with the sums of which their middle is made. */
    private static final class Group {
        private int[] members = new int[4];
        private int count;
        private double sumX;
        private double sumY;

        void add(int member, double x, double y) {
            if (count == members.length) {
                members = Arrays.copyOf(members, 2 * count);
            }
            members[count++] = member;
            sumX += x;
            sumY += y;
        }

        void add(Group other) {
            members = Arrays.copyOf(members, count + other.count);
            System.arraycopy(other.members, 0, members, count, other.count);
            count += other.count;
            sumX += other.sumX;
            sumY += other.sumY;
        }

        double x() {
            return sumX / count;
        }

        double y() {
            return sumY / count;
        }

        Cluster cluster(double[] x, double[] y) {
            var inOrder = Arrays.copyOf(members, count);
            Arrays.sort(inOrder);
            var xs = new double[count];
            var ys = new double[count];
            for (int i = 0; i < count; i++) {
                xs[i] = x[inOrder[i]];
                ys[i] = y[inOrder[i]];
            }
            return new Cluster(x(), y(), inOrder, Bounds.of(xs, ys));
        }
    }
}
