package app.custodex.facts;

import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;

/** AAC without a container, in frames that each say how long they are (ISO/IEC 14496-3, Annex 1.A: ADTS). */
final class AdtsFrames {
    private static final int HEAD = 7;
    private static final int SAMPLES = 1024;
    private static final int[] RATES = {
        96_000, 88_200, 64_000, 48_000, 44_100, 32_000, 24_000, 22_050, 16_000, 12_000, 11_025, 8_000, 7_350
    };

    private AdtsFrames() {}

    /** @param in stands where it stood before */
    static boolean begins(InputStream in) throws IOException {
        in.mark(HEAD);
        var head = in.readNBytes(HEAD);
        in.reset();
        return isFrame(head);
    }

    /** Twelve bits of ones, and a layer of zero, by which it is told from MPEG sound of other layers. */
    private static boolean isFrame(byte[] head) {
        return head.length == HEAD
                && (head[0] & 0xff) == 0xff
                && (head[1] & 0xf6) == 0xf0
                && rate(head) < RATES.length
                && size(head) >= HEAD;
    }

    private static int rate(byte[] head) {
        return head[2] >> 2 & 0xf;
    }

    private static int size(byte[] head) {
        return (head[3] & 0x3) << 11 | (head[4] & 0xff) << 3 | (head[5] & 0xff) >> 5;
    }

    /** @throws IOException when it breaks off inside a frame, or something else follows one */
    static Duration length(InputStream in) throws IOException {
        double seconds = 0;
        for (var head = in.readNBytes(HEAD); head.length > 0; head = in.readNBytes(HEAD)) {
            if (!isFrame(head)) {
                throw new IOException("no frame");
            }
            seconds += (double) SAMPLES * ((head[6] & 0x3) + 1) / RATES[rate(head)];
            in.skipNBytes(size(head) - HEAD);
        }
        return Duration.ofMillis(Math.round(seconds * 1000));
    }
}
