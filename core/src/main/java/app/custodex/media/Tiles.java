package app.custodex.media;

import static app.custodex.media.Undecodable.check;
import static org.bytedeco.ffmpeg.global.avcodec.AVDISCARD_ALL;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_alloc;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_free;
import static org.bytedeco.ffmpeg.global.avcodec.av_packet_unref;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_flush_buffers;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_free_context;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_receive_frame;
import static org.bytedeco.ffmpeg.global.avcodec.avcodec_send_packet;
import static org.bytedeco.ffmpeg.global.avformat.AV_STREAM_GROUP_PARAMS_TILE_GRID;
import static org.bytedeco.ffmpeg.global.avformat.av_read_frame;
import static org.bytedeco.ffmpeg.global.avutil.AV_FRAME_CROP_UNALIGNED;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_alloc;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_apply_cropping;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_free;
import static org.bytedeco.ffmpeg.global.avutil.av_frame_unref;
import static org.bytedeco.ffmpeg.global.avutil.av_image_copy_plane;
import static org.bytedeco.ffmpeg.global.swscale.SWS_ACCURATE_RND;
import static org.bytedeco.ffmpeg.global.swscale.SWS_BICUBIC;
import static org.bytedeco.ffmpeg.global.swscale.SWS_BILINEAR;
import static org.bytedeco.ffmpeg.global.swscale.SWS_FULL_CHR_H_INT;

import app.custodex.media.Pictures.Made;
import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import org.bytedeco.ffmpeg.avcodec.AVCodecContext;
import org.bytedeco.ffmpeg.avformat.AVStreamGroup;
import org.bytedeco.ffmpeg.avformat.AVStreamGroupTileGrid;
import org.bytedeco.ffmpeg.avutil.AVFrame;
import org.bytedeco.javacpp.BytePointer;
import org.bytedeco.javacpp.Pointer;

/** In the worker: a picture that is stored as a grid of smaller ones (ISO/IEC 23008-12, derived images of type "grid"). */
final class Tiles {
    private final AVStreamGroupTileGrid grid;
    /** Which tile a stream is. */
    private final Map<Integer, Integer> ofStream = new HashMap<>();

    private Tiles(AVStreamGroup group) {
        grid = group.params_tile_grid();
        for (int tile = 0; tile < grid.nb_tiles(); tile++) {
            ofStream.put(group.streams(grid.offsets_idx(tile)).index(), tile);
        }
    }

    static Optional<Tiles> in(AvInput in) {
        for (int i = 0; i < in.format().nb_stream_groups(); i++) {
            var group = in.format().stream_groups(i);
            if (group.type() == AV_STREAM_GROUP_PARAMS_TILE_GRID) {
                return Optional.of(new Tiles(group));
            }
        }
        return Optional.empty();
    }

    boolean has(int stream) {
        return ofStream.containsKey(stream);
    }

    Turn turn() {
        return Turn.of(grid.coded_side_data(), grid.nb_coded_side_data());
    }

    /** How many times the sides can be halved, three at most, and still be as long as is asked for. */
    static int halvings(int width, int height, int side) {
        int halvings = 0;
        while (halvings < 3 && Math.max(width, height) >> halvings + 1 >= side) {
            halvings++;
        }
        return halvings;
    }

    Picture decode(Exchange exchange, AvInput in, int side) throws IOException {
        long pixels = (long) grid.coded_width() * grid.coded_height();
        if (pixels <= 0 || pixels > AvInput.MOST_PIXELS) {
            throw new Undecodable("a picture of " + pixels + " pixels");
        }
        // Each tile is made smaller at once, so that the whole is never in memory at its full size unless that is asked
        // for.
        int halvings = halvings(grid.width(), grid.height(), side);
        var canvas = Scaler.bgra(halved(grid.coded_width(), halvings), halved(grid.coded_height(), halvings));
        Pointer.memset(
                canvas.data(0), 0, (long) canvas.linesize(0) * canvas.height()); // a missing tile shows no old memory
        try (var scaler =
                new Scaler(halvings == 0 ? SWS_BICUBIC | SWS_ACCURATE_RND | SWS_FULL_CHR_H_INT : SWS_BILINEAR)) {
            int done = draw(exchange, in, scaler, canvas, halvings);
            if (done == 0) {
                throw new Undecodable("no part of it was decoded");
            }
            canvas.crop_left(grid.horizontal_offset() >> halvings);
            canvas.crop_top(grid.vertical_offset() >> halvings);
            canvas.crop_right(Math.max(0, canvas.width() - canvas.crop_left() - halved(grid.width(), halvings)));
            canvas.crop_bottom(Math.max(0, canvas.height() - canvas.crop_top() - halved(grid.height(), halvings)));
            check(av_frame_apply_cropping(canvas, AV_FRAME_CROP_UNALIGNED), "crop");
            return Pictures.finish(canvas, turn(), side, new Made(false, done < grid.nb_tiles()))
                    .withFull(grid.width(), grid.height(), turn().swapsSides());
        } finally {
            av_frame_free(canvas);
        }
    }

    private int draw(Exchange exchange, AvInput in, Scaler scaler, AVFrame canvas, int halvings) throws IOException {
        var packet = av_packet_alloc();
        var frame = av_frame_alloc();
        var decoder = Optional.<AVCodecContext>empty();
        int done = 0;
        try {
            while (done < grid.nb_tiles() && av_read_frame(in.format(), packet) >= 0) {
                exchange.checkGoesOn();
                var tile = Optional.ofNullable(ofStream.get(packet.stream_index()));
                if (tile.isPresent()) {
                    if (decoder.isEmpty()) { // all tiles are coded alike
                        decoder = Optional.of(AvInput.decoder(in.format().streams(packet.stream_index()), 0, 1));
                        if (halvings > 1) {
                            decoder.get().skip_loop_filter(AVDISCARD_ALL);
                        }
                    }
                    var open = decoder.get();
                    if (avcodec_send_packet(open, packet) >= 0
                            && avcodec_send_packet(open, null) >= 0
                            && avcodec_receive_frame(open, frame) >= 0) {
                        var small =
                                scaler.scale(frame, halved(frame.width(), halvings), halved(frame.height(), halvings));
                        place(
                                small,
                                canvas,
                                grid.offsets_horizontal(tile.get()) >> halvings,
                                grid.offsets_vertical(tile.get()) >> halvings);
                        done++;
                    }
                    avcodec_flush_buffers(open);
                    av_frame_unref(frame);
                }
                av_packet_unref(packet);
            }
            return done;
        } finally {
            if (decoder.isPresent()) {
                avcodec_free_context(decoder.get());
            }
            av_frame_free(frame);
            av_packet_free(packet);
        }
    }

    private static int halved(int length, int times) {
        return length + (1 << times) - 1 >> times;
    }

    /** The place comes from the file, so it may be anywhere. */
    private static void place(AVFrame tile, AVFrame canvas, int x, int y) {
        int width = Math.min(tile.width(), canvas.width() - x);
        int height = Math.min(tile.height(), canvas.height() - y);
        if (x < 0 || y < 0 || width <= 0 || height <= 0) {
            return;
        }
        var to = new BytePointer(canvas.data(0)).getPointer((long) y * canvas.linesize(0) + 4L * x);
        av_image_copy_plane(to, canvas.linesize(0), tile.data(0), tile.linesize(0), 4 * width, height);
    }
}
