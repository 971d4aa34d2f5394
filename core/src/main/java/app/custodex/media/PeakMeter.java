package app.custodex.media;

import java.nio.ByteBuffer;
import java.nio.ShortBuffer;
import java.util.Arrays;

/** In the worker: the loudest of each 10 ms, gathered while the length is not known yet, and spread over the parts at the end. */
final class PeakMeter {
    private final int rate;
    private final int step;
    private byte[] fine = new byte[1 << 14];
    private int count;
    private int inStep;
    private int loudest;
    private long samples;
    private short[] piece = new short[1 << 12];

    /** @param rate samples a second */
    PeakMeter(int rate) {
        this.rate = rate;
        step = Math.max(1, rate / 100);
    }

    void take(ShortBuffer sound) {
        int n = sound.remaining();
        if (piece.length < n) {
            piece = new short[n];
        }
        sound.get(piece, 0, n);
        for (int i = 0; i < n; i++) {
            loudest = Math.max(loudest, Math.abs(piece[i]));
            if (++inStep == step) {
                endStep();
            }
        }
        samples += n;
    }

    private void endStep() {
        if (count == fine.length) {
            fine = Arrays.copyOf(fine, 2 * count);
        }
        fine[count++] = (byte) Math.min(255, loudest >> 7);
        inStep = 0;
        loudest = 0;
    }

    /** @return seconds as a double, then a byte each part */
    ByteBuffer result(int parts) {
        if (inStep > 0) {
            endStep();
        }
        var spread = new byte[parts];
        for (int part = 0; part < parts && count > 0; part++) {
            int from = (int) ((long) part * count / parts);
            int until =
                    Math.max(from + 1, (int) ((part + 1L) * count / parts)); // short sounds have fewer steps than parts
            for (int at = from; at < until; at++) {
                spread[part] = (byte) Math.max(spread[part] & 0xff, fine[at] & 0xff);
            }
        }
        return ByteBuffer.allocate(Double.BYTES + parts)
                .putDouble((double) samples / rate)
                .put(spread)
                .flip();
    }
}
