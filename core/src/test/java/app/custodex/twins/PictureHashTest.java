package app.custodex.twins;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.media.Picture;
import java.nio.ByteBuffer;
import java.util.Random;
import java.util.function.IntUnaryOperator;
import org.junit.jupiter.api.Test;

final class PictureHashTest {
    /** How light each place is, from 0 to 255. */
    private interface Drawing {
        double at(double x, double y);
    }

    private static Picture picture(int width, int height, Drawing drawing, IntUnaryOperator change) {
        var pixels = ByteBuffer.allocate(4 * width * height);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                int light = Math.clamp(
                        change.applyAsInt((int) drawing.at((double) x / width, (double) y / height)), 0, 255);
                pixels.put((byte) light).put((byte) light).put((byte) light).put((byte) 255);
            }
        }
        return new Picture(width, height, false, false, width, height, pixels.flip());
    }

    /** Some soft hills and some things with edges, as pictures have. */
    private static Drawing hills(int seed) {
        var random = new Random(seed);
        var waves = random.doubles(36, 0, 1).toArray();
        var things = random.doubles(30, 0, 1).toArray();
        return (x, y) -> {
            double light = 0;
            for (int i = 0; i < 12; i++) {
                light += Math.cos(2 * Math.PI * (waves[3 * i] * 6 * x + waves[3 * i + 1] * 6 * y + waves[3 * i + 2]));
            }
            for (int i = 0; i < 6; i++) {
                boolean in = Math.abs(x - things[5 * i]) < things[5 * i + 2] / 3
                        && Math.abs(y - things[5 * i + 1]) < things[5 * i + 3] / 3;
                light += in ? 10 * things[5 * i + 4] - 5 : 0;
            }
            return 128 + 8 * light;
        };
    }

    @Test
    void theSamePictureIsKnownAgainAndOthersAreNot() {
        var random = new Random(9);
        for (int seed = 0; seed < 20; seed++) {
            long whole = PictureHash.of(picture(640, 480, hills(seed), light -> light));
            assertEquals(PictureHash.PARTS / 2, Long.bitCount(whole), "half of the parts lie above the middle");
            long small = PictureHash.of(picture(97, 61, hills(seed), light -> light));
            long lighter = PictureHash.of(picture(640, 480, hills(seed), light -> light * 8 / 10 + 20));
            long noisy = PictureHash.of(picture(640, 480, hills(seed), light -> light + random.nextInt(20) - 10));
            for (long other : new long[] {small, lighter, noisy}) {
                assertTrue(
                        PictureHash.different(whole, other) <= 8,
                        "of drawing " + seed + ": " + PictureHash.different(whole, other));
            }
            long another = PictureHash.of(picture(640, 480, hills(seed + 100), light -> light));
            assertTrue(PictureHash.different(whole, another) > 12, "drawing " + seed + " and another");
        }
    }

    @Test
    void picturesOfAFewPixelsAreNoHarm() {
        for (int side = 1; side < 5; side++) {
            var tiny = picture(side, 5 - side, hills(1), light -> light);
            assertEquals(PictureHash.of(tiny), PictureHash.of(tiny));
        }
    }
}
