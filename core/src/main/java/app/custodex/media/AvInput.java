package app.custodex.media;

import static app.custodex.media.Undecodable.check;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_decoder;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_parameters_to_context;
import static org.bytedeco.ffmpeg.global.avformat.av_find_best_stream;
import static org.bytedeco.ffmpeg.global.avformat.avformat_alloc_context;
import static org.bytedeco.ffmpeg.global.avformat.avformat_close_input;
import static org.bytedeco.ffmpeg.global.avformat.avformat_find_stream_info;
import static org.bytedeco.ffmpeg.global.avformat.avformat_open_input;
import static org.bytedeco.ffmpeg.global.avformat.avio_alloc_context;
import static org.bytedeco.ffmpeg.global.avformat.avio_context_free;
import static org.bytedeco.ffmpeg.global.avutil.AVERROR_EOF;
import static org.bytedeco.ffmpeg.global.avutil.AVERROR_EXIT;
import static org.bytedeco.ffmpeg.global.avutil.AV_TIME_BASE;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_free;
import static org.bytedeco.ffmpeg.global.avutil.av_dict_set;
import static org.bytedeco.ffmpeg.global.avutil.av_free;
import static org.bytedeco.ffmpeg.global.avutil.av_malloc;

import java.util.Optional;
import java.util.Set;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avformat.AVFormatContext;
import org.bytedeco.ffmpeg.avformat.AVIOContext;
import org.bytedeco.ffmpeg.avformat.AVInputFormat;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avformat.Read_packet_Pointer_BytePointer_int;
import org.bytedeco.ffmpeg.avformat.Seek_Pointer_long_int;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.javacpp.BytePointer;
import org.bytedeco.javacpp.Pointer;
import org.bytedeco.javacpp.PointerPointer;

/**
 * An open media file whose bytes come from the other process: the library gets two callbacks and no path, and may open nothing else, so
 * that a playlist in the file leads nowhere. A worker has one open at a time.
 */
final class AvInput implements AutoCloseable {
    /** Pixels: a picture of the largest cameras of phones, with some room. */
    static final long MOST_PIXELS = 120_000_000;

    private static final String FORMATS = "mov,mp3,aac,amr,amrnb,amrwb,ogg,wav,flac,matroska,avi,mpegts,caf,aiff,"
            + "jpeg_pipe,png_pipe,webp_pipe,tiff_pipe,bmp_pipe,gif";
    private static final Set<String> DECODERS = Set.of(
            "mjpeg",
            "png",
            "webp",
            "tiff",
            "bmp",
            "gif",
            "hevc",
            "h264",
            "av1",
            "libdav1d",
            "h263",
            "mpeg4",
            "vp8",
            "vp9",
            "aac",
            "mp3",
            "mp3float",
            "opus",
            "vorbis",
            "amrnb",
            "amrwb",
            "alac",
            "flac",
            "pcm_s16le",
            "pcm_s16be",
            "pcm_u8",
            "pcm_s24le",
            "pcm_s32le",
            "pcm_f32le",
            "pcm_alaw",
            "pcm_mulaw");
    /** A picture in tiles has each of them as a stream. */
    private static final int MOST_STREAMS = 1_000;

    private static final int BUFFER = 1 << 17;
    /** AVSEEK_SIZE in avio.h. */
    private static final int ASKS_SIZE = 0x10000;
    /** AVERROR(EIO). */
    private static final int IO_ERROR = -5;

    // The binding has ten slots for each type of callback, so these two are made once; and are held here, or they are
    // collected.
    private static final Read_packet_Pointer_BytePointer_int READ = new Read_packet_Pointer_BytePointer_int() {
        @Override
        public int call(Pointer opaque, BytePointer into, int most) {
            return present.map(input -> input.read(into, most)).orElse(IO_ERROR);
        }
    };
    private static final Seek_Pointer_long_int SEEK = new Seek_Pointer_long_int() {
        @Override
        public long call(Pointer opaque, long offset, int whence) {
            return present.map(input -> input.seek(offset, whence)).orElse((long) IO_ERROR);
        }
    };
    private static Optional<AvInput> present = Optional.empty();

    private final Exchange exchange;
    private final long size;
    private final AVIOContext io;
    private final AVFormatContext format;
    private long position;

    AvInput(Exchange exchange, long size) throws Undecodable {
        this.exchange = exchange;
        this.size = size;
        present = Optional.of(this);
        io = avio_alloc_context(new BytePointer(av_malloc(BUFFER)), BUFFER, 0, null, READ, null, SEEK);
        format = avformat_alloc_context();
        format.pb(io);
        format.max_streams(MOST_STREAMS);
        var options = new AVDictionary(null);
        av_dict_set(options, "format_whitelist", FORMATS, 0);
        av_dict_set(options, "protocol_whitelist", "none", 0);
        av_dict_set(options, "codec_whitelist", String.join(",", DECODERS), 0);
        int opened =
                avformat_open_input(format, (String) null, (AVInputFormat) null, options); // frees it when it fails
        av_dict_free(options);
        if (opened < 0) {
            freeIo();
            check(opened, "open");
        }
    }

    AVFormatContext format() {
        return format;
    }

    /** Nothing may be thrown into native code. */
    private int read(BytePointer into, int most) {
        try {
            if (position >= size) {
                return AVERROR_EOF;
            }
            int n = exchange.read(position, into.capacity(most).asByteBuffer());
            if (n < 0) {
                return exchange.goesOn() ? IO_ERROR : AVERROR_EXIT;
            }
            position += n;
            return n == 0 ? AVERROR_EOF : n;
        } catch (RuntimeException | Error e) {
            return IO_ERROR;
        }
    }

    private long seek(long offset, int whence) {
        if ((whence & ASKS_SIZE) != 0) {
            return size;
        }
        long to = switch (whence & 3) {
            case 1 -> position + offset;
            case 2 -> size + offset;
            default -> offset;
        };
        if (to < 0) {
            return IO_ERROR;
        }
        position = to;
        return to;
    }

    /** Finds out what the container leaves open, by decoding a little. */
    AvInput look() throws Undecodable {
        check(avformat_find_stream_info(format, (AVDictionary) null), "streams");
        return this;
    }

    /** How long it says it is; 0 when it does not say. */
    double seconds() {
        return Math.max(0, format.duration() / (double) AV_TIME_BASE);
    }

    String form() {
        return format.iformat().name().getString();
    }

    /** The stream that is meant to be seen or heard. */
    Optional<AVStream> best(int type) {
        int index = av_find_best_stream(format, type, -1, -1, (PointerPointer<?>) null, 0);
        return index < 0 ? Optional.empty() : Optional.of(format.streams(index));
    }

    /**
     * Opens a decoder.
     *
     * @param halvings how many times the sides may be halved while decoding, where the decoder can
     */
    static AVCodecContext decoder(AVStream stream, int halvings, int threads) throws Undecodable {
        var codec = avcodec_find_decoder(stream.codecpar().codec_id());
        if (codec == null || codec.isNull()) {
            throw new Undecodable("no decoder");
        }
        var name = codec.name().getString();
        if (!DECODERS.contains(name)) {
            throw new Undecodable("the decoder " + name + " is not among those that are used");
        }
        var context = avcodec_alloc_context3(codec);
        avcodec_parameters_to_context(context, stream.codecpar());
        context.max_pixels(MOST_PIXELS);
        context.thread_count(threads);
        context.pkt_timebase(stream.time_base());
        context.lowres(Math.min(halvings, codec.max_lowres()));
        int opened = avcodec_open2(context, codec, (AVDictionary) null);
        if (opened < 0) {
            avcodec_free_context(context);
        }
        check(opened, "decoder");
        return context;
    }

    @Override
    public void close() {
        avformat_close_input(format); // leaves what is read from alone: that is ours
        freeIo();
    }

    private void freeIo() {
        av_free(io.buffer()); // the library may have put another one in the place of the first
        avio_context_free(io);
        present = Optional.empty();
    }
}
