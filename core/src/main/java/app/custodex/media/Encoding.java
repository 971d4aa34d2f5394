package app.custodex.media;

import static app.custodex.media.Undecodable.check;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_FLAG_GLOBAL_HEADER;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_rescale_ts;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_encoder_by_name;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_from_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_packet;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_frame;
import static org.bytedeco.ffmpeg.global.avformat.AVFMT_GLOBALHEADER;
import static org.bytedeco.ffmpeg.global.avformat.av_interleaved_write_frame;
import static org.bytedeco.ffmpeg.global.avformat.av_write_trailer;
import static org.bytedeco.ffmpeg.global.avformat.avformat_alloc_output_context2;
import static org.bytedeco.ffmpeg.global.avformat.avformat_free_context;
import static org.bytedeco.ffmpeg.global.avformat.avformat_new_stream;
import static org.bytedeco.ffmpeg.global.avformat.avformat_write_header;
import static org.bytedeco.ffmpeg.global.avformat.avio_close_dyn_buf;
import static org.bytedeco.ffmpeg.global.avformat.avio_open_dyn_buf;
import static org.bytedeco.ffmpeg.global.avformat.avio_tell;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_default;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_copy;
import static org.bytedeco.ffmpeg.global.avutil.av_free;
import static org.bytedeco.ffmpeg.global.avutil.av_get_sample_fmt;

import java.io.IOException;
import java.nio.ByteBuffer;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVIOContext;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.ffmpeg.avutil.AVRational;
import org.bytedeco.javacpp.BytePointer;
import org.bytedeco.javacpp.Pointer;

/** In the worker: a file of sound that is made in memory, since its head is known at its end only. */
final class Encoding implements AutoCloseable {
    /** Bytes; hours of what is packed, and most of an hour of what is not. */
    private static final long LARGEST = 400L << 20;

    private static final int MANY = 1_000;

    private final AVFormatContext file = new AVFormatContext((Pointer) null);
    private final AVIOContext memory = new AVIOContext((Pointer) null);
    private final AVCodecContext encoder;
    private final AVStream stream;
    private final AVPacket packet = av_packet_alloc();
    private long samples;
    private boolean open;

    /**
     * Begins a file.
     *
     * @param kilobits a second, where the coding asks for it
     * @param like the sound that it is made of, with its tags
     */
    Encoding(SoundCoding coding, int kilobits, int rate, int channels, AvInput like, AVStream of) throws Undecodable {
        var codec = avcodec_find_encoder_by_name(coding.encoder());
        check(avformat_alloc_output_context2(file, null, coding.container(), null), "container");
        encoder = avcodec_alloc_context3(codec);
        stream = avformat_new_stream(file, codec);
        encoder.sample_rate(rate)
                .sample_fmt(av_get_sample_fmt(coding.samples()))
                .bit_rate((long) kilobits * MANY * channels / 2)
                .time_base(new AVRational().num(1).den(rate));
        av_channel_layout_default(encoder.ch_layout(), channels);
        if ((file.oformat().flags() & AVFMT_GLOBALHEADER) != 0) {
            encoder.flags(encoder.flags() | AV_CODEC_FLAG_GLOBAL_HEADER);
        }
        check(avcodec_open2(encoder, codec, (AVDictionary) null), "encoder");
        check(avcodec_parameters_from_context(stream.codecpar(), encoder), "parameters");
        stream.time_base(encoder.time_base());
        var tags = new AVDictionary((Pointer) null);
        av_dict_copy(tags, like.format().metadata(), 0);
        av_dict_copy(tags, of.metadata(), 0);
        file.metadata(tags);
        check(avio_open_dyn_buf(memory), "memory");
        open = true;
        file.pb(memory);
        check(avformat_write_header(file, (AVDictionary) null), "head");
    }

    /** How many samples a frame must have; 0 when any number will do. */
    int frameSize() {
        return encoder.frame_size();
    }

    void add(AVFrame frame) throws Undecodable {
        frame.pts(samples);
        samples += frame.nb_samples();
        check(avcodec_send_frame(encoder, frame), "encoding");
        drain();
        if (avio_tell(memory) > LARGEST) {
            throw new Undecodable("too long for this form");
        }
    }

    private void drain() throws Undecodable {
        while (avcodec_receive_packet(encoder, packet) >= 0) {
            av_packet_rescale_ts(packet, encoder.time_base(), stream.time_base());
            packet.stream_index(stream.index());
            check(av_interleaved_write_frame(file, packet), "writing");
        }
    }

    /** Ends the file and sends it, piece by piece, each with its place. */
    void finish(Exchange exchange, int millis) throws IOException {
        check(avcodec_send_frame(encoder, null), "encoding");
        drain();
        check(av_write_trailer(file), "end");
        var made = new BytePointer((Pointer) null);
        int size = avio_close_dyn_buf(memory, made);
        open = false;
        try {
            var all = made.capacity(size).asByteBuffer();
            for (int at = 0; at < size; at += Exchange.PIECE) {
                var piece = all.slice(at, Math.min(Exchange.PIECE, size - at));
                if (!exchange.frame(
                        millis, ByteBuffer.allocate(Long.BYTES).putLong(at).flip(), piece)) {
                    return;
                }
            }
        } finally {
            av_free(made);
        }
    }

    @Override
    public void close() {
        if (open) {
            var made = new BytePointer((Pointer) null);
            avio_close_dyn_buf(memory, made);
            av_free(made);
        }
        av_packet_free(packet);
        avcodec_free_context(encoder);
        avformat_free_context(file);
    }
}
