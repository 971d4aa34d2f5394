package app.custodex.media;

import java.nio.ByteBuffer;
import java.util.Arrays;

/** In the worker: the loudest of each 10 ms, gathered while the length is not known yet, and spread over the parts at the end. */
final class PeakMeter {
    private static final long SECOND = 1_000_000_000;
    private static final long STEP = SECOND / 100;

    private byte[] fine = new byte[1 << 14];
    private long nanos;
    private boolean whole = true;

    /** How long it is, as far as it was taken. */
    double seconds() {
        return (double) nanos / SECOND;
    }

    /** Leaves out a stretch, which is not decoded. */
    void pass(double length) {
        whole = false;
        goOn(Math.round(length * SECOND));
    }

    /**
     * Measures the next stretch.
     *
     * @param levels 0 to 1, one a sample; more is cut
     * @param count how many of them there are
     * @param rate samples a second
     */
    void take(float[] levels, int count, int rate) {
        long from = nanos;
        goOn(count * SECOND / rate);
        for (int at = 0; at < count; ) {
            int step = (int) ((from + at * SECOND / rate) / STEP);
            int until = Math.clamp(Math.ceilDiv(((step + 1) * STEP - from) * rate, SECOND), at + 1, count);
            float loudest = 0;
            for (; at < until; at++) {
                if (levels[at] > loudest) {
                    loudest = levels[at];
                }
            }
            int level = Math.min(255, (int) (loudest * 256));
            fine[step] = (byte) Math.max(fine[step] & 0xff, level);
        }
    }

    private void goOn(long length) {
        nanos += length;
        int needed = (int) (nanos / STEP) + 2;
        if (fine.length < needed) {
            fine = Arrays.copyOf(fine, Math.max(needed, 2 * fine.length));
        }
    }

    /** @return seconds as a double, whether nothing was left out, then a byte each part */
    ByteBuffer result(int parts) {
        int count = (int) Math.ceilDiv(nanos, STEP);
        var spread = new byte[parts];
        for (int part = 0; part < parts && count > 0; part++) {
            int from = (int) ((long) part * count / parts);
            int until =
                    Math.max(from + 1, (int) ((part + 1L) * count / parts)); // short sounds have fewer steps than parts
            for (int at = from; at < until; at++) {
                spread[part] = (byte) Math.max(spread[part] & 0xff, fine[at] & 0xff);
            }
        }
        return ByteBuffer.allocate(Double.BYTES + 1 + parts)
                .putDouble(seconds())
                .put((byte) (whole ? 1 : 0))
                .put(spread)
                .flip();
    }
}
