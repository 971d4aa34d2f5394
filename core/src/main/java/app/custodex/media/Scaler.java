package app.custodex.media;

import static app.custodex.media.Undecodable.check;
import static org.bytedeco.ffmpeg.global.avutil.AV_PIX_FMT_BGRA;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_get_buffer;
import static org.bytedeco.ffmpeg.global.swscale.sws_alloc_context;
import static org.bytedeco.ffmpeg.global.swscale.sws_freeContext;
import static org.bytedeco.ffmpeg.global.swscale.sws_scale_frame;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Optional;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.swscale.SwsContext;
import org.bytedeco.javacpp.BytePointer;

/** Turns decoded frames into BGRA of a size. */
final class Scaler implements AutoCloseable {
    private final SwsContext context = sws_alloc_context();
    private Optional<AVFrame> target = Optional.empty();

    Scaler(int flags) {
        context.flags(flags);
    }

    /** @return good until the next call; its rows have no gaps */
    AVFrame scale(AVFrame source, int width, int height) throws Undecodable {
        if (target.filter(last -> last.width() == width && last.height() == height)
                .isEmpty()) {
            free();
            target = Optional.of(bgra(width, height));
        }
        check(sws_scale_frame(context, target.get(), source), "scale");
        return target.get();
    }

    static AVFrame bgra(int width, int height) throws Undecodable {
        var frame = av_frame_alloc();
        frame.width(width).height(height).format(AV_PIX_FMT_BGRA);
        int allocated = av_frame_get_buffer(frame, 1);
        if (allocated < 0) {
            av_frame_free(frame);
        }
        check(allocated, "memory");
        return frame;
    }

    static ByteBuffer bytes(AVFrame bgra) {
        return new BytePointer(bgra.data(0))
                .capacity((long) bgra.linesize(0) * bgra.height())
                .asByteBuffer()
                .order(ByteOrder.LITTLE_ENDIAN);
    }

    record Size(int width, int height) {
        /** The largest that fits, never larger than the source. */
        static Size fit(int width, int height, int mostWidth, int mostHeight) {
            double scale = Math.min(1, Math.min((double) mostWidth / width, (double) mostHeight / height));
            return new Size(
                    Math.max(1, (int) Math.round(width * scale)), Math.max(1, (int) Math.round(height * scale)));
        }
    }

    private void free() {
        if (target.isPresent()) {
            av_frame_free(target.get());
        }
        target = Optional.empty();
    }

    @Override
    public void close() {
        free();
        sws_freeContext(context);
    }
}
