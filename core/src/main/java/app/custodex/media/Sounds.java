package app.custodex.media;

import static app.custodex.media.Undecodable.check;
import static org.bytedeco.ffmpeg.global.avfilter.av_buffersink_get_frame;
import static org.bytedeco.ffmpeg.global.avfilter.av_buffersink_set_frame_size;
import static org.bytedeco.ffmpeg.global.avfilter.av_buffersrc_add_frame;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_get_by_name;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_graph_alloc;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_graph_config;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_graph_create_filter;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_graph_free;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_graph_parse_ptr;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_inout_alloc;
import static org.bytedeco.ffmpeg.global.avfilter.avfilter_inout_free;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_AUDIO;
import static org.bytedeco.ffmpeg.global.avutil.av_channel_layout_describe;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_unref;
import static org.bytedeco.ffmpeg.global.avutil.av_get_sample_fmt_name;
import static org.bytedeco.ffmpeg.global.avutil.av_strdup;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.bytedeco.ffmpeg.avfilter.AVFilterContext;
import org.bytedeco.ffmpeg.avfilter.AVFilterGraph;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.javacpp.BytePointer;
import org.bytedeco.javacpp.Pointer;

/** In the worker: the sound of a file as samples of 16 bits, the lower byte first. */
final class Sounds implements AutoCloseable {
    /** Samples a second of what is played. */
    static final int RATE = 48_000;
    /** What is shorter is measured whole at once. */
    private static final double LONG = 240;
    /** Of each part of a long recording, as much is decoded for a first look. */
    private static final double LOOKED_AT = 0.15;

    private final Exchange exchange;
    private final AVFilterGraph graph = avfilter_graph_alloc();
    private final AVFrame filtered = av_frame_alloc();

    private interface Sink {
        /** @return false when no more is wanted */
        boolean take(ByteBuffer samples) throws IOException;
    }

    private Sounds(Exchange exchange) {
        this.exchange = exchange;
        graph.nb_threads(1);
    }

    /** Sends stereo sound from a place on, at a speed that leaves the pitch as it is. */
    static void play(Exchange exchange, long size, long fromMicros, double speed, int millis) throws IOException {
        var chain = String.format(
                Locale.ROOT, "atempo=%.3f,aresample=%d,aformat=sample_fmts=s16:channel_layouts=stereo", speed, RATE);
        var played = new long[1];
        try (var sounds = new Sounds(exchange)) {
            sounds.run(size, fromMicros, chain, samples -> {
                long at = fromMicros + Math.round(played[0] * speed * 1e6 / RATE);
                played[0] += samples.remaining() / 4;
                return exchange.frame(
                        millis, ByteBuffer.allocate(Long.BYTES).putLong(at).flip(), samples);
            });
        }
    }

    /** Sends the sound of a file in another form, piece by piece. */
    static void convert(
            Exchange exchange, long size, SoundCoding coding, int kilobits, Optional<SoundCut> cut, int millis)
            throws IOException {
        try (var sounds = new Sounds(exchange);
                var in = new AvInput(exchange, size).look()) {
            sounds.convert(in, sound(in), coding, kilobits, cut, millis);
        }
    }

    private void convert(
            AvInput in, AVStream stream, SoundCoding coding, int kilobits, Optional<SoundCut> cut, int millis)
            throws IOException {
        try (var decoding = new Decoding(exchange, in, stream, 1)) {
            long from = cut.map(piece -> micros(piece.from())).orElse(0L);
            // A piece ends where the recording does, and fades there.
            double seconds = in.seconds();
            long last = seconds > 0 ? Math.round(seconds * 1e6) : Long.MAX_VALUE;
            long until = cut.map(piece -> Math.min(last, micros(piece.until()))).orElse(Long.MAX_VALUE);
            if (from > 0) {
                decoding.seek(from);
            }
            var next = decoding.next();
            while (next.isPresent() && end(next.get(), decoding) <= from) {
                next = decoding.next();
            }
            var first = next.orElseThrow(() -> new Undecodable("nothing was decoded"));
            int rate = coding.rate(first.sample_rate());
            int channels = Math.min(2, first.ch_layout().nb_channels());
            var form = String.format(
                    Locale.ROOT,
                    "aresample=%d,aformat=sample_fmts=%s:channel_layouts=%s",
                    rate,
                    coding.samples(),
                    channels == 1 ? "mono" : "stereo");
            long early = Math.max(0, from - decoding.micros(first));
            var chain = cut.map(piece -> chain(piece, early, until - from, first.sample_rate()) + "," + form)
                    .orElse(form);
            try (var encoding = new Encoding(coding, kilobits, rate, channels, in, stream)) {
                var ends = build(chain, first);
                if (encoding.frameSize() > 0) {
                    av_buffersink_set_frame_size(ends.end(), encoding.frameSize());
                }
                for (; next.isPresent() && decoding.micros(next.get()) < until; next = decoding.next()) {
                    if (!ends.shape().equals(Shape.of(next.get()))) {
                        continue; // damage; the filters are made for another shape
                    }
                    check(av_buffersrc_add_frame(ends.source(), next.get()), "filter");
                    encode(ends, encoding);
                }
                av_buffersrc_add_frame(ends.source(), null);
                encode(ends, encoding);
                encoding.finish(exchange, millis);
            }
        }
    }

    private static long micros(Duration time) {
        return TimeUnit.MICROSECONDS.convert(time);
    }

    private static long end(AVFrame frame, Decoding decoding) {
        return decoding.micros(frame) + 1_000_000L * frame.nb_samples() / Math.max(1, frame.sample_rate());
    }

    /**
     * The filters of a piece, which count samples, since times of what was decoded are not to be relied on.
     *
     * @param early how long before the piece the first samples are, in microseconds
     * @param length of the piece, in microseconds
     */
    private static String chain(SoundCut piece, long early, long length, int rate) {
        long first = samples(early, rate);
        long count = Math.max(1, samples(length, rate));
        long in = samples(micros(piece.fadeIn()), rate);
        long out = samples(micros(piece.fadeOut()), rate);
        var chain = new StringBuilder(String.format(
                Locale.ROOT, "atrim=start_sample=%d:end_sample=%d,asetpts=N/SR/TB", first, first + count));
        if (piece.even()) {
            chain.append(",loudnorm=I=-16:TP=-1.5");
            chain.append(String.format(Locale.ROOT, ",aresample=%d,asetpts=N/SR/TB", rate));
        }
        if (in > 0) {
            chain.append(String.format(Locale.ROOT, ",afade=t=in:ss=0:ns=%d", in));
        }
        if (out > 0) {
            chain.append(String.format(Locale.ROOT, ",afade=t=out:ss=%d:ns=%d", Math.max(0, count - out), out));
        }
        return chain.toString();
    }

    private static long samples(long micros, int rate) {
        return Math.round(micros / 1e6 * rate);
    }

    private void encode(Ends ends, Encoding encoding) throws Undecodable {
        while (av_buffersink_get_frame(ends.end(), filtered) >= 0) {
            encoding.add(filtered);
            av_frame_unref(filtered);
        }
    }

    /**
     * Measures how loud it is in so many parts of equal length.
     *
     * @param quick whether of a long recording the start of each part will do
     */
    static ByteBuffer peaks(Exchange exchange, long size, int parts, boolean quick) throws IOException {
        try (var in = new AvInput(exchange, size).look()) {
            var stream = sound(in);
            try (var decoding = new Decoding(exchange, in, stream, 1)) {
                var meter = new PeakMeter();
                var levels = new Levels();
                double length = in.seconds();
                boolean whole = !quick || length < LONG;
                double part = length / parts;
                if (!whole) {
                    decoding.passOver(seconds -> {
                        boolean pass = seconds > 0 && meter.seconds() % part > part * LOOKED_AT;
                        if (pass) {
                            meter.pass(seconds);
                        }
                        return pass;
                    });
                }
                boolean any = false;
                for (var next = decoding.next(); next.isPresent(); next = decoding.next()) {
                    var frame = next.get();
                    meter.take(levels.of(frame), frame.nb_samples(), Math.max(1, frame.sample_rate()));
                    any = true;
                }
                if (!any) {
                    throw new Undecodable("nothing was decoded");
                }
                return meter.result(parts);
            }
        }
    }

    private static AVStream sound(AvInput in) throws Undecodable {
        return in.best(AVMEDIA_TYPE_AUDIO).orElseThrow(() -> new Undecodable("there is no sound in it"));
    }

    private record Shape(int rate, int format, int channels) {
        static Shape of(AVFrame frame) {
            return new Shape(
                    frame.sample_rate(), frame.format(), frame.ch_layout().nb_channels());
        }
    }

    private record Ends(AVFilterContext source, AVFilterContext end, Shape shape) {}

    private void run(long size, long fromMicros, String chain, Sink sink) throws IOException {
        try (var in = new AvInput(exchange, size).look()) {
            try (var decoding = new Decoding(exchange, in, sound(in), 1)) {
                decoding.seek(fromMicros);
                var ends = Optional.<Ends>empty();
                for (var next = decoding.next(); next.isPresent(); next = decoding.next()) {
                    var frame = next.get();
                    if (end(frame, decoding) <= fromMicros) {
                        continue;
                    }
                    if (ends.isEmpty()) {
                        ends = Optional.of(build(chain, frame));
                    }
                    if (!ends.get().shape().equals(Shape.of(frame))) {
                        continue; // damage; the filters are made for another shape
                    }
                    if (av_buffersrc_add_frame(ends.get().source(), frame) < 0) {
                        throw new Undecodable("filter");
                    }
                    if (!drain(ends.get().end(), sink)) {
                        return;
                    }
                }
                if (ends.isEmpty()) {
                    throw new Undecodable("nothing was decoded");
                }
                av_buffersrc_add_frame(ends.get().source(), null);
                drain(ends.get().end(), sink);
            }
        }
    }

    private Ends build(String chain, AVFrame first) throws Undecodable {
        var layout = new byte[64];
        av_channel_layout_describe(first.ch_layout(), layout, layout.length);
        int named = 0;
        while (named < layout.length && layout[named] != 0) {
            named++;
        }
        var shape = "time_base=1/" + first.sample_rate()
                + ":sample_rate=" + first.sample_rate()
                + ":sample_fmt=" + av_get_sample_fmt_name(first.format()).getString()
                + ":channel_layout=" + new String(layout, 0, named, StandardCharsets.US_ASCII);
        var source = new AVFilterContext((Pointer) null);
        var end = new AVFilterContext((Pointer) null);
        check(
                avfilter_graph_create_filter(source, avfilter_get_by_name("abuffer"), "in", shape, null, graph),
                "filter source");
        check(
                avfilter_graph_create_filter(end, avfilter_get_by_name("abuffersink"), "out", null, null, graph),
                "filter end");
        var from = avfilter_inout_alloc();
        var to = avfilter_inout_alloc();
        from.name(new BytePointer(av_strdup("in")))
                .filter_ctx(source)
                .pad_idx(0)
                .next(null);
        to.name(new BytePointer(av_strdup("out"))).filter_ctx(end).pad_idx(0).next(null);
        try {
            check(avfilter_graph_parse_ptr(graph, chain, to, from, null), "filter chain");
            check(avfilter_graph_config(graph, null), "filters");
        } finally {
            avfilter_inout_free(from);
            avfilter_inout_free(to);
        }
        return new Ends(source, end, Shape.of(first));
    }

    private boolean drain(AVFilterContext end, Sink sink) throws IOException {
        while (av_buffersink_get_frame(end, filtered) >= 0) {
            long bytes = 2L * filtered.nb_samples() * filtered.ch_layout().nb_channels();
            boolean goesOn = sink.take(new BytePointer(filtered.data(0))
                    .capacity(bytes)
                    .asByteBuffer()
                    .order(ByteOrder.LITTLE_ENDIAN));
            av_frame_unref(filtered);
            if (!goesOn) {
                return false;
            }
        }
        return true;
    }

    @Override
    public void close() {
        avfilter_graph_free(graph);
        av_frame_free(filtered);
    }
}
