package app.custodex.media;

import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_VIDEO;
import static org.bytedeco.ffmpeg.global.swscale.SWS_BILINEAR;

import app.custodex.media.Scaler.Size;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/** In the worker: the pictures of a video from a place on. */
final class Films {
    /** Microseconds; a clock that is so far ahead was moved, and "stop" is on its way. */
    private static final long JUMP = 1_000_000;

    private static final long NEAR_ENOUGH = 20_000;

    private Films() {}

    /**
     * Where to begin, and how large the pictures may be.
     *
     * @param exact whether to begin at the place itself, or at the key frame before it, which is quicker
     */
    record Wish(long fromMicros, boolean exact, int mostWidth, int mostHeight) {}

    static void play(Exchange exchange, long size, Wish wish, int millis) throws IOException {
        try (var in = new AvInput(exchange, size).look()) {
            var stream = in.best(AVMEDIA_TYPE_VIDEO).orElseThrow(() -> new Undecodable("there is no video in it"));
            var turn = Turn.of(
                    stream.codecpar().coded_side_data(), stream.codecpar().nb_coded_side_data());
            int mostWidth = turn.swapsSides() ? wish.mostHeight() : wish.mostWidth();
            int mostHeight = turn.swapsSides() ? wish.mostWidth() : wish.mostHeight();
            try (var decoding = new Decoding(exchange, in, stream, 2);
                    var scaler = new Scaler(SWS_BILINEAR)) {
                decoding.seek(wish.fromMicros());
                for (var next = decoding.next(); next.isPresent(); next = decoding.next()) {
                    var frame = next.get();
                    long at = decoding.micros(frame);
                    if (wish.exact() && at < wish.fromMicros() - NEAR_ENOUGH) {
                        continue;
                    }
                    long late = exchange.wanted() - at;
                    if (late > 0 && late < JUMP) {
                        continue; // too late to be shown
                    }
                    var fit = Size.fit(frame.width(), frame.height(), mostWidth, mostHeight);
                    var pixels = Scaler.bytes(scaler.scale(frame, fit.width(), fit.height()));
                    var upright = turn.equals(Turn.NONE) ? pixels : turned(pixels, turn, fit);
                    var head = ByteBuffer.allocate(16)
                            .putLong(at)
                            .putInt(turn.swapsSides() ? fit.height() : fit.width())
                            .putInt(turn.swapsSides() ? fit.width() : fit.height());
                    if (!exchange.frame(millis, head.flip(), upright)) {
                        break;
                    }
                }
            }
        }
    }

    private static ByteBuffer turned(ByteBuffer pixels, Turn turn, Size size) {
        var ints = new int[size.width() * size.height()];
        pixels.asIntBuffer().get(ints);
        var bytes = ByteBuffer.allocate(ints.length * Integer.BYTES).order(ByteOrder.LITTLE_ENDIAN);
        bytes.asIntBuffer().put(turn.apply(ints, size.width(), size.height()));
        return bytes;
    }
}
