package app.custodex.places;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Arrays;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

final class DrawnTest {
    /** A hundred pixels wide and high, of the square from 0.4 to 0.6. */
    private static final MapView VIEW = new MapView(0.5, 0.5, 500, 100, 100);

    private static Outline ring(double... xy) {
        return Outline.of(
                IntStream.range(0, xy.length / 2).mapToDouble(i -> xy[2 * i]).toArray(),
                IntStream.range(0, xy.length / 2)
                        .mapToDouble(i -> xy[2 * i + 1])
                        .toArray());
    }

    /** Square pixels (shoelace formula). */
    private static double area(Drawn of) {
        double twice = 0;
        int n = of.x().length;
        for (int i = 0; i < n; i++) {
            int next = (i + 1) % n;
            twice += of.x()[i] * of.y()[next] - of.x()[next] * of.y()[i];
        }
        return Math.abs(twice) / 2;
    }

    @Test
    void anAreaIsCutToWhatIsInSight() {
        // 116 pixels: what is in sight and 8 around it.
        assertEquals(
                116 * 116,
                area(Drawn.area(ring(0, 0, 1, 0, 1, 1, 0, 1, 0, 0), VIEW).orElseThrow()),
                1e-6);
        assertEquals(
                58 * 116,
                area(Drawn.area(ring(0.5, 0, 1, 0, 1, 1, 0.5, 1, 0.5, 0), VIEW).orElseThrow()),
                1e-6);
        assertEquals(
                50 * 50,
                area(Drawn.area(ring(0.45, 0.45, 0.55, 0.45, 0.55, 0.55, 0.45, 0.55), VIEW)
                        .orElseThrow()),
                1e-6);
        assertTrue(Drawn.area(ring(0.7, 0.7, 0.9, 0.7, 0.9, 0.9), VIEW).isEmpty());
        // Around the corner, and yet not in sight.
        assertTrue(Drawn.area(ring(0.1, 0.59, 0.41, 0.9, 0.1, 0.9), VIEW).isEmpty());
    }

    /** However it lies, what is cut off is not in sight: a fine ring and what is drawn of it cover the same pixels. */
    @Test
    void nothingInSightIsLost() {
        var random = new Random(5);
        for (int turn = 0; turn < 200; turn++) {
            int points = 3 + random.nextInt(60);
            double radius = 0.02 + random.nextDouble();
            double middleX = 0.3 + 0.4 * random.nextDouble();
            double middleY = 0.3 + 0.4 * random.nextDouble();
            var xy = new double[2 * points];
            for (int i = 0; i < points; i++) {
                double r = radius * (0.5 + random.nextDouble() / 2);
                xy[2 * i] = middleX + r * Math.cos(2 * Math.PI * i / points);
                xy[2 * i + 1] = middleY + r * Math.sin(2 * Math.PI * i / points);
            }
            var whole = ring(xy);
            var drawn = Drawn.area(whole, VIEW);
            var screenX = Arrays.stream(whole.x()).map(VIEW::screenX).toArray();
            var screenY = Arrays.stream(whole.y()).map(VIEW::screenY).toArray();
            for (int probe = 0; probe < 20; probe++) {
                double x = 1 + 98 * random.nextDouble();
                double y = 1 + 98 * random.nextDouble();
                if (distance(screenX, screenY, x, y) > 2) { // points of less than a pixel are left out
                    assertEquals(
                            inside(screenX, screenY, x, y),
                            drawn.filter(some -> inside(some.x(), some.y(), x, y))
                                    .isPresent(),
                            "turn " + turn);
                }
            }
        }
    }

    private static boolean inside(double[] xs, double[] ys, double x, double y) {
        boolean inside = false;
        for (int i = 0, j = xs.length - 1; i < xs.length; j = i++) {
            if (ys[i] > y != ys[j] > y && x < xs[j] + (y - ys[j]) / (ys[i] - ys[j]) * (xs[i] - xs[j])) {
                inside = !inside;
            }
        }
        return inside;
    }

    private static double distance(double[] xs, double[] ys, double x, double y) {
        double least = Double.MAX_VALUE;
        for (int i = 0, j = xs.length - 1; i < xs.length; j = i++) {
            double dx = xs[i] - xs[j];
            double dy = ys[i] - ys[j];
            double t = Math.clamp(((x - xs[j]) * dx + (y - ys[j]) * dy) / Math.max(1e-12, dx * dx + dy * dy), 0, 1);
            least = Math.min(least, Math.hypot(x - xs[j] - t * dx, y - ys[j] - t * dy));
        }
        return least;
    }

    @Test
    void aLineShowsThePiecesInSight() {
        var zigzag = ring(0.3, 0.5, 0.5, 0.5, 0.7, 0.5, 0.7, 0.9, 0.5, 0.9, 0.5, 0.55, 0.51, 0.55);
        var pieces = Drawn.line(zigzag, VIEW);
        assertEquals(2, pieces.size());
        assertEquals(3, pieces.getFirst().x().length);
        assertTrue(Drawn.line(ring(0.1, 0.1, 0.2, 0.2), VIEW).isEmpty());
    }

    @Test
    void whatLiesNearTogetherIsOneCircle() {
        var random = new Random(3);
        var x = IntStream.range(0, 5_000)
                .mapToDouble(i -> (i % 3 == 0 ? 0.45 : 0.55) + random.nextGaussian() / 500)
                .toArray();
        var y = IntStream.range(0, 5_000)
                .mapToDouble(i -> 0.5 + random.nextGaussian() / 500)
                .toArray();
        var two = Cluster.of(x, y, VIEW);
        assertEquals(2, two.size());
        assertEquals(3_333, two.getFirst().members().length);
        assertEquals(
                5_000,
                two.stream().mapToInt(cluster -> cluster.members().length).sum());
        // Moved, it is the same; nearer, it comes apart, and no two of them cover each other.
        assertEquals(
                two.stream().map(Cluster::x).toList(),
                Cluster.of(x, y, VIEW.moved(7, -5)).stream().map(Cluster::x).toList());
        var nearer = VIEW.zoomed(40, VIEW.screenX(0.55), 50);
        var many = Cluster.of(x, y, nearer);
        assertTrue(many.size() > 4, many.size() + " circles");
        assertEquals(0, Cluster.of(x, y, new MapView(0.1, 0.1, 500, 50, 50)).size());
    }
}
