package app.custodex.twins;

import app.custodex.media.Picture;
import java.nio.ByteBuffer;
import java.util.Arrays;

/**
 * By what a picture is known again when it was made smaller, lighter or packed anew: which of its coarse frequencies are above the middle
 * one. This is the hash by the discrete cosine transform of C. Zauner, "Implementation and Benchmarking of Perceptual Image Hash
 * Functions", 2010, section 3.1.1. The library for it draws JavaFX into the core, so it stands here.
 */
final class PictureHash {
    /** Parts of a picture that are compared: bits of a hash. */
    static final int PARTS = Long.SIZE;

    private static final int SIDE = 32;
    private static final int COARSE = 8;
    /** By frequency, and by place. */
    private static final double[][] COSINES = cosines();

    private PictureHash() {}

    private static double[][] cosines() {
        var cosines = new double[COARSE + 1][SIDE];
        for (int frequency = 0; frequency <= COARSE; frequency++) {
            for (int place = 0; place < SIDE; place++) {
                cosines[frequency][place] = Math.cos(Math.PI * frequency * (2 * place + 1) / (2 * SIDE));
            }
        }
        return cosines;
    }

    static long of(Picture picture) {
        var light = light(picture);
        var frequencies = new double[PARTS];
        // The lowest of each direction only say how light all of it is.
        for (int down = 1; down <= COARSE; down++) {
            for (int across = 1; across <= COARSE; across++) {
                double sum = 0;
                for (int y = 0; y < SIDE; y++) {
                    for (int x = 0; x < SIDE; x++) {
                        sum += light[y * SIDE + x] * COSINES[down][y] * COSINES[across][x];
                    }
                }
                frequencies[(down - 1) * COARSE + across - 1] = sum;
            }
        }
        var sorted = frequencies.clone();
        Arrays.sort(sorted);
        double middle = (sorted[PARTS / 2 - 1] + sorted[PARTS / 2]) / 2;
        long hash = 0;
        for (int i = 0; i < PARTS; i++) {
            hash |= frequencies[i] > middle ? 1L << i : 0;
        }
        return hash;
    }

    static int different(long one, long other) {
        return Long.bitCount(one ^ other);
    }

    /** How light it is (Rec. ITU-R BT.601), as a square of means; a pixel over an edge counts on both sides of it. */
    private static double[] light(Picture picture) {
        var light = new double[SIDE * SIDE];
        double across = (double) SIDE / picture.width();
        double down = (double) SIDE / picture.height();
        for (int y = 0; y < picture.height(); y++) {
            for (int x = 0; x < picture.width(); x++) {
                double of = lightOf(picture.bgra(), 4 * (y * picture.width() + x));
                for (int row = (int) (y * down); row < Math.min(SIDE, (y + 1) * down); row++) {
                    double high = overlap(row, y * down, down);
                    for (int column = (int) (x * across); column < Math.min(SIDE, (x + 1) * across); column++) {
                        light[row * SIDE + column] += of * high * overlap(column, x * across, across);
                    }
                }
            }
        }
        return light;
    }

    /** How much of a place lies under a pixel that begins at some point. */
    private static double overlap(int place, double from, double length) {
        return Math.min(place + 1, from + length) - Math.max(place, from);
    }

    private static double lightOf(ByteBuffer bgra, int at) {
        return 0.114 * (bgra.get(at) & 0xff) + 0.587 * (bgra.get(at + 1) & 0xff) + 0.299 * (bgra.get(at + 2) & 0xff);
    }
}
