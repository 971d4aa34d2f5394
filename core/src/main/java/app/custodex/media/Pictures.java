package app.custodex.media;

import static org.bytedeco.ffmpeg.global.avcodec.AVDISCARD_ALL;
import static org.bytedeco.ffmpeg.global.avcodec.AV_CODEC_ID_MJPEG;
import static org.bytedeco.ffmpeg.global.avcodec.av_new_packet;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_alloc_context3;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_find_decoder;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_open2;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_frame;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_packet;
import static org.bytedeco.ffmpeg.global.avformat.AV_DISPOSITION_DEFAULT;
import static org.bytedeco.ffmpeg.global.avformat.av_read_frame;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_AUDIO;
import static org.bytedeco.ffmpeg.global.avutil.AVMEDIA_TYPE_VIDEO;
import static org.bytedeco.ffmpeg.global.avutil.AV_PIX_FMT_FLAG_ALPHA;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_pix_fmt_desc_get;
import static org.bytedeco.ffmpeg.global.swscale.SWS_AREA;

import app.custodex.media.Scaler.Size;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Optional;
import org.bytedeco.ffmpeg.avcodec.AVPacket;
import org.bytedeco.ffmpeg.avformat.AVStream;
import org.bytedeco.ffmpeg.avutil.AVDictionary;
import org.bytedeco.ffmpeg.avutil.AVFrame;

/** In the worker: one picture, or the first of a video, upright, with at most so many pixels along its longer side. */
final class Pictures {
    /** Up to this size nobody sees what the last filters of a decoder mend. */
    private static final int SMALL = 320;
    /** Larger ones in the file are no thumbnails. */
    private static final int LARGEST_THUMBNAIL = 640;

    private final Exchange exchange;
    private final long size;
    private final int side;

    /** @param side the most pixels along the longer side */
    Pictures(Exchange exchange, long size, int side) {
        this.exchange = exchange;
        this.size = size;
        this.side = side;
    }

    /** @param quick whether a thumbnail in the file will do, however small */
    Picture decode(boolean quick) throws IOException {
        if (quick) {
            try {
                var small = thumbnailOfJpeg();
                if (small.isEmpty()) {
                    small = thumbnailOfHeic();
                }
                if (small.isPresent()) {
                    return small.get();
                }
            } catch (Undecodable damaged) {
                exchange.checkGoesOn(); // a damaged thumbnail says nothing about the picture
            }
        }
        try (var in = new AvInput(exchange, size)) {
            if (in.format().nb_streams() == 0) {
                in.look();
            }
            var tiles = Tiles.in(in);
            if (tiles.isPresent()) {
                return tiles.get().decode(exchange, in, side);
            }
            var best = in.best(AVMEDIA_TYPE_VIDEO);
            var stream = best.isPresent()
                    ? best.get()
                    : in.look()
                            .best(AVMEDIA_TYPE_VIDEO)
                            .orElseThrow(() -> new Undecodable("there is no picture in it"));
            var turn = Turn.of(
                    stream.codecpar().coded_side_data(), stream.codecpar().nb_coded_side_data());
            return single(in, stream, turn, false);
        }
    }

    private Optional<Picture> thumbnailOfJpeg() throws IOException {
        var head = ByteBuffer.allocate((int) Math.min(ExifThumbnail.HEAD, size));
        if (exchange.read(0, head) < 0) {
            exchange.checkGoesOn();
        }
        var found = ExifThumbnail.in(head.flip());
        if (found.isEmpty()) {
            return Optional.empty();
        }
        var thumbnail = found.get();
        var decoder = avcodec_alloc_context3(avcodec_find_decoder(AV_CODEC_ID_MJPEG));
        var packet = av_packet_alloc();
        var frame = av_frame_alloc();
        try {
            decoder.thread_count(1).max_pixels(1_000_000);
            if (avcodec_open2(decoder, null, (AVDictionary) null) < 0
                    || av_new_packet(packet, thumbnail.length()) < 0) {
                return Optional.empty();
            }
            packet.data()
                    .capacity(thumbnail.length())
                    .asByteBuffer()
                    .put(head.slice(thumbnail.at(), thumbnail.length()));
            if (avcodec_send_packet(decoder, packet) < 0 || avcodec_receive_frame(decoder, frame) < 0) {
                return Optional.empty();
            }
            return Optional.of(finish(frame, Turn.ofExif(thumbnail.orientation()), side, new Made(true, false)));
        } finally {
            av_frame_free(frame);
            av_packet_free(packet);
            avcodec_free_context(decoder);
        }
    }

    private Optional<Picture> thumbnailOfHeic() throws IOException {
        try (var in = new AvInput(exchange, size)) {
            var tiles = Tiles.in(in);
            var thumbnail = thumbnail(in, tiles);
            return thumbnail.isEmpty()
                    ? Optional.empty()
                    : Optional.of(
                            single(in, thumbnail.get(), tiles.map(Tiles::turn).orElse(Turn.NONE), true));
        }
    }

    /** HEIC keeps its thumbnail as one more stream without any mark: it is no tile, and not the main picture. */
    private Optional<AVStream> thumbnail(AvInput in, Optional<Tiles> tiles) {
        if (!in.form().startsWith("mov") || in.best(AVMEDIA_TYPE_AUDIO).isPresent()) {
            return Optional.empty();
        }
        for (int i = 0; i < in.format().nb_streams(); i++) {
            var stream = in.format().streams(i);
            int longer = Math.max(stream.codecpar().width(), stream.codecpar().height());
            boolean main = tiles.isEmpty()
                    && ((stream.disposition() & AV_DISPOSITION_DEFAULT) != 0
                            || in.format().nb_streams() == 1);
            boolean tile = tiles.filter(any -> any.has(stream.index())).isPresent();
            if (!main && !tile && longer <= LARGEST_THUMBNAIL && longer * 2 >= side) {
                return Optional.of(stream);
            }
        }
        return Optional.empty();
    }

    private Picture single(AvInput in, AVStream stream, Turn ofContainer, boolean embedded) throws IOException {
        boolean jpeg = in.form().equals("jpeg_pipe");
        var decoder = AvInput.decoder(stream, jpeg ? halvings(in, stream) : 0, 1);
        var packet = av_packet_alloc();
        var frame = av_frame_alloc();
        boolean cut = false;
        try {
            if (side <= SMALL) {
                decoder.skip_loop_filter(AVDISCARD_ALL);
            }
            boolean ended = false;
            while (avcodec_receive_frame(decoder, frame) < 0) {
                exchange.checkGoesOn();
                if (ended) {
                    throw new Undecodable("nothing was decoded");
                }
                if (av_read_frame(in.format(), packet) < 0) {
                    ended = true;
                    avcodec_send_packet(decoder, null);
                } else {
                    if (packet.stream_index() == stream.index()) {
                        cut |= jpeg && isCut(packet);
                        avcodec_send_packet(decoder, packet);
                    }
                    av_packet_unref(packet);
                }
            }
            exchange.checkGoesOn();
            var own = Turn.of(frame); // of a JPEG, made of its orientation by the decoder
            return finish(frame, own.equals(Turn.NONE) ? ofContainer : own, side, new Made(embedded, cut))
                    .withFull(decoder.lowres());
        } finally {
            av_frame_free(frame);
            av_packet_free(packet);
            avcodec_free_context(decoder);
        }
    }

    /** The decoder fills a JPEG that was cut with grey or green and says nothing: its end mark is missing behind the last scan. */
    private static boolean isCut(AVPacket packet) {
        var data = packet.data();
        for (long i = packet.size() - 2L; i >= 0; i--) {
            if (data.get(i) == (byte) 0xff) {
                int mark = data.get(i + 1) & 0xff;
                if (mark == 0xd9 || mark == 0xda) {
                    return mark == 0xda;
                }
            }
        }
        return true;
    }

    /** A JPEG can be decoded with its sides halved one to three times, at a fraction of the work. */
    private int halvings(AvInput in, AVStream stream) throws Undecodable {
        if (stream.codecpar().width() == 0) {
            in.look();
        }
        return Tiles.halvings(stream.codecpar().width(), stream.codecpar().height(), side);
    }

    /** @param damaged whether parts are known to be missing */
    record Made(boolean embedded, boolean damaged) {}

    /** Scales and turns what was decoded. */
    static Picture finish(AVFrame frame, Turn turn, int side, Made made) throws Undecodable {
        var size = Size.fit(frame.width(), frame.height(), side, side);
        try (var scaler = new Scaler(SWS_AREA)) {
            var pixels = new int[size.width() * size.height()];
            Scaler.bytes(scaler.scale(frame, size.width(), size.height()))
                    .asIntBuffer()
                    .get(pixels);
            if ((av_pix_fmt_desc_get(frame.format()).flags() & AV_PIX_FMT_FLAG_ALPHA) != 0) {
                premultiply(pixels);
            }
            if (!turn.equals(Turn.NONE)) {
                pixels = turn.apply(pixels, size.width(), size.height());
            }
            var bytes = ByteBuffer.allocate(pixels.length * Integer.BYTES).order(ByteOrder.LITTLE_ENDIAN);
            bytes.asIntBuffer().put(pixels);
            boolean damaged = made.damaged()
                    || frame.decode_error_flags() != 0
                    || (frame.flags() & AVFrame.AV_FRAME_FLAG_CORRUPT) != 0;
            boolean swap = turn.swapsSides();
            return new Picture(
                    swap ? size.height() : size.width(),
                    swap ? size.width() : size.height(),
                    made.embedded(),
                    damaged,
                    swap ? frame.height() : frame.width(),
                    swap ? frame.width() : frame.height(),
                    bytes);
        }
    }

    private static void premultiply(int[] pixels) {
        for (int i = 0; i < pixels.length; i++) {
            int alpha = pixels[i] >>> 24;
            if (alpha < 255) {
                int red = (pixels[i] >> 16 & 255) * alpha / 255;
                int green = (pixels[i] >> 8 & 255) * alpha / 255;
                int blue = (pixels[i] & 255) * alpha / 255;
                pixels[i] = alpha << 24 | red << 16 | green << 8 | blue;
            }
        }
    }
}
