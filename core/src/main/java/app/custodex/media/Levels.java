package app.custodex.media;

import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_DBL;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_FLT;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_S16;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_S32;
import static org.bytedeco.ffmpeg.global.avutil.AV_SAMPLE_FMT_U8;
import static org.bytedeco.ffmpeg.global.avutil.av_get_bytes_per_sample;
import static org.bytedeco.ffmpeg.global.avutil.av_get_packed_sample_fmt;
import static org.bytedeco.ffmpeg.global.avutil.av_sample_fmt_is_planar;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Arrays;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.javacpp.BytePointer;

/** In the worker: how far the samples of a frame are from silence, 0 to 1, of all channels the loudest. */
final class Levels {
    /** A frame has a pointer for each of so many channels; what is beyond is not measured. */
    private static final int MOST_CHANNELS = 8;

    private float[] levels = new float[1 << 12];
    private float[] piece = new float[1 << 12];

    /** Those of a frame, one a sample; the array may be longer, and is good until the next call. */
    float[] of(AVFrame frame) throws Undecodable {
        int samples = frame.nb_samples();
        if (levels.length < samples) {
            levels = new float[samples];
        }
        Arrays.fill(levels, 0, samples, 0);
        int channels = frame.ch_layout().nb_channels();
        int form = av_get_packed_sample_fmt(frame.format());
        long bytes = (long) samples * av_get_bytes_per_sample(form);
        if (av_sample_fmt_is_planar(frame.format()) != 0) {
            for (int channel = 0; channel < Math.min(MOST_CHANNELS, channels); channel++) {
                read(form, bytes(frame, channel, bytes), samples, 1);
            }
        } else {
            read(form, bytes(frame, 0, bytes * channels), samples, channels);
        }
        return levels;
    }

    private static ByteBuffer bytes(AVFrame frame, int plane, long count) {
        return new BytePointer(frame.data(plane)).capacity(count).asByteBuffer().order(ByteOrder.nativeOrder());
    }

    /** Loops are plain and data comes in bulk: half an hour has two hundred million samples. */
    private void read(int form, ByteBuffer in, int samples, int together) throws Undecodable {
        int count = samples * together;
        if (piece.length < count) {
            piece = new float[count];
        }
        switch (form) {
            case AV_SAMPLE_FMT_FLT -> in.asFloatBuffer().get(piece, 0, count);
            case AV_SAMPLE_FMT_S16 -> {
                var from = new short[count];
                in.asShortBuffer().get(from);
                for (int i = 0; i < count; i++) {
                    piece[i] = from[i] / 32_768f;
                }
            }
            case AV_SAMPLE_FMT_S32 -> {
                var from = new int[count];
                in.asIntBuffer().get(from);
                for (int i = 0; i < count; i++) {
                    piece[i] = from[i] / 2_147_483_648f;
                }
            }
            case AV_SAMPLE_FMT_DBL -> {
                for (int i = 0; i < count; i++) {
                    piece[i] = (float) in.getDouble(Double.BYTES * i);
                }
            }
            case AV_SAMPLE_FMT_U8 -> {
                for (int i = 0; i < count; i++) {
                    piece[i] = ((in.get(i) & 0xff) - 128) / 128f;
                }
            }
            default -> throw new Undecodable("samples of the form " + form);
        }
        for (int at = 0, i = 0; at < samples; at++) {
            float loudest = levels[at];
            for (int channel = 0; channel < together; channel++, i++) {
                float level = piece[i] < 0 ? -piece[i] : piece[i];
                if (level > loudest) {
                    loudest = level;
                }
            }
            levels[at] = loudest;
        }
    }
}
