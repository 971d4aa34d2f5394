package app.custodex.media;

import static org.bytedeco.ffmpeg.global.avcodec.AVDISCARD_ALL;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_frame;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_packet;
import static org.bytedeco.ffmpeg.global.avformat.AVSEEK_FLAG_BACKWARD;
import static org.bytedeco.ffmpeg.global.avformat.av_read_frame;
import static org.bytedeco.ffmpeg.global.avformat.av_seek_frame;
import static org.bytedeco.ffmpeg.global.avutil.AVERROR_EOF;
import static org.bytedeco.ffmpeg.global.avutil.AV_NOPTS_VALUE;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_unref;
import static org.bytedeco.ffmpeg.global.avutil.av_q2d;

import java.io.IOException;
import java.util.Optional;
import java.util.function.DoublePredicate;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVFrame;

/** In the worker: the decoded frames of one stream, from a place to its end. Damaged packets are passed over. */
final class Decoding implements AutoCloseable {
    private final Exchange exchange;
    private final AvInput in;
    private final AVStream stream;
    /** Seconds. */
    private final double unit;

    private final long start;
    private final AVCodecContext decoder;
    private final AVPacket packet = av_packet_alloc();
    private final AVFrame frame = av_frame_alloc();
    private DoublePredicate passedOver = seconds -> false;
    private boolean read;

    Decoding(Exchange exchange, AvInput in, AVStream stream, int threads) throws Undecodable {
        this.exchange = exchange;
        this.in = in;
        this.stream = stream;
        unit = av_q2d(stream.time_base());
        start = stream.start_time() == AV_NOPTS_VALUE ? 0 : stream.start_time();
        decoder = AvInput.decoder(stream, 0, threads);
        for (int i = 0; i < in.format().nb_streams(); i++) {
            if (i != stream.index()) {
                in.format().streams(i).discard(AVDISCARD_ALL);
            }
        }
    }

    /** Goes to the key frame at or before a place; the frames up to the place still come. */
    void seek(long micros) {
        if (micros > 0) {
            av_seek_frame(in.format(), stream.index(), start + (long) (micros / 1e6 / unit), AVSEEK_FLAG_BACKWARD);
        }
    }

    /**
     * Leaves packets out: what is long need not be decoded whole.
     *
     * @param choice is told the length of each packet in seconds, 0 when that is not known, and says whether to pass it over
     */
    void passOver(DoublePredicate choice) {
        passedOver = choice;
    }

    /** The next frame, good until the next call; empty at the end. */
    Optional<AVFrame> next() throws IOException {
        av_frame_unref(frame);
        while (true) {
            exchange.checkGoesOn();
            int got = avcodec_receive_frame(decoder, frame);
            if (got >= 0) {
                return Optional.of(frame);
            }
            if (got == AVERROR_EOF || read) {
                return Optional.empty();
            }
            if (av_read_frame(in.format(), packet) < 0) {
                read = true;
                avcodec_send_packet(decoder, null);
            } else {
                if (packet.stream_index() == stream.index() && !passedOver.test(packet.duration() * unit)) {
                    avcodec_send_packet(decoder, packet); // what it refuses is damaged, and the next one may not be
                }
                av_packet_unref(packet);
            }
        }
    }

    long micros(AVFrame of) {
        long at = of.best_effort_timestamp();
        return at == AV_NOPTS_VALUE ? 0 : Math.round((at - start) * unit * 1e6);
    }

    @Override
    public void close() {
        av_frame_free(frame);
        av_packet_free(packet);
        avcodec_free_context(decoder);
    }
}
