package app.custodex.media;

import app.custodex.base.WarmPool;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * The processes that decode pictures, sound and video: started when they are needed, kept for the next file for a while, ended when a file
 * keeps one of them too long. A file that ends its worker harms nothing else. All of this program share them; each question has a worker
 * of its own while it lasts.
 */
public final class MediaWorkers {
    /** Samples a second of what is played, in two channels of 16 bits. */
    public static final int RATE = Sounds.RATE;

    /** Pixels along the longer side: larger pictures are made smaller. */
    public static final int LARGEST = 8192;

    private static final Logger LOG = LoggerFactory.getLogger(MediaWorkers.class);
    private static final Duration PICTURE = Duration.ofSeconds(20);
    private static final Duration PEAKS = Duration.ofMinutes(2);
    private static final Duration CONVERSION = Duration.ofMinutes(10);
    private static final Duration FRAME = Duration.ofSeconds(8);
    private static final MediaWorkers SHARED = new MediaWorkers(PICTURE);

    private final Duration picturePatience;
    private final WarmPool<MediaWorker> pool = new WarmPool<>("media", MediaWorker::start);
    private final AtomicInteger deaths = new AtomicInteger();

    /** @param picturePatience how long a picture may take */
    MediaWorkers(Duration picturePatience) {
        this.picturePatience = picturePatience;
    }

    public static MediaWorkers shared() {
        return SHARED;
    }

    /** How many workers were ended by what they were given. */
    public int deaths() {
        return deaths.get();
    }

    /**
     * Decodes a picture, or the first of a video.
     *
     * @param side the most pixels along the longer side; up to {@link #LARGEST}
     * @param quick whether the small one that the camera put into the file will do, however small
     * @throws UnplayableException when that can't be done; nothing else is harmed
     * @throws IOException when the file can't be read
     */
    public Picture picture(MediaSource source, int side, boolean quick) throws IOException {
        return with(worker -> worker.picture(source, side, quick, picturePatience));
    }

    /**
     * Measures how loud a recording is.
     *
     * @param parts of equal length
     * @param quick whether the start of each part of a long recording will do, for a first look: it may miss what is loud for a
     *     moment only
     */
    public Peaks peaks(MediaSource source, int parts, boolean quick) throws IOException {
        return with(worker -> worker.peaks(source, parts, quick, PEAKS));
    }

    /** Takes sound, piece by piece. */
    public interface Listener {
        /**
         * Takes a piece.
         *
         * @param samples good during the call only
         * @return whether more is wanted
         */
        boolean hear(ByteBuffer samples) throws IOException;
    }

    /**
     * Decodes sound from a place on; returns at the end, or when no more is wanted.
     *
     * @param speed 0.5 to 2; the pitch stays
     */
    public void sound(MediaSource source, Duration from, double speed, Listener listener) throws IOException {
        with(worker -> {
            worker.sound(
                    source,
                    micros(from),
                    speed,
                    FRAME,
                    (at, samples) -> listener.hear(samples) ? Optional.of(Long.MIN_VALUE) : Optional.empty());
            return true;
        });
    }

    /**
     * Writes the sound of a file in another form, with its tags.
     *
     * @param kilobits a second of stereo, where the coding asks for it
     * @param cut the piece that is wanted; empty for all of it
     * @throws UnplayableException when that can't be done; what was written until then is worth nothing
     * @throws IOException when the file can't be read, or the other one can't be written
     */
    public void convert(MediaSource source, SoundCoding coding, int kilobits, Optional<SoundCut> cut, OutputStream out)
            throws IOException {
        var at = new long[1];
        var failed = new AtomicReference<IOException>();
        with(worker -> {
            worker.convert(source, coding, kilobits, cut, CONVERSION, (place, piece) -> {
                if (place != at[0]) {
                    throw new Wire.Broken("a piece at " + place + " instead of " + at[0]);
                }
                var bytes = new byte[piece.remaining()];
                piece.get(bytes);
                try {
                    out.write(bytes);
                } catch (IOException e) { // no fault of the worker
                    failed.set(e);
                    return Optional.empty();
                }
                at[0] += bytes.length;
                return Optional.of(Long.MIN_VALUE);
            });
            return true;
        });
        var unwritable = failed.get();
        if (unwritable != null) {
            throw unwritable;
        }
        if (at[0] == 0) {
            throw new UnplayableException(UnplayableException.Why.DAMAGED, "nothing came of it");
        }
    }

    /** Takes the pictures of a video. */
    public interface Viewer {
        /**
         * Takes one.
         *
         * @param bgra good during the call only; as that of a {@link Picture}
         * @return before which time none are wanted any more; empty when none are wanted at all
         */
        Optional<Duration> see(Duration at, int width, int height, ByteBuffer bgra) throws IOException;
    }

    /**
     * Decodes a video from a place on; returns at the end, or when no more is wanted.
     *
     * @param exact whether to begin at the place itself, or at the key frame before it, which is quicker
     */
    public void film(MediaSource source, Duration from, boolean exact, int mostWidth, int mostHeight, Viewer viewer)
            throws IOException {
        var wish = new Films.Wish(micros(from), exact, mostWidth, mostHeight);
        with(worker -> {
            worker.film(source, wish, FRAME, (at, frame) -> {
                int width = frame.getInt();
                int height = frame.getInt();
                if (width < 1 || height < 1 || frame.remaining() != 4L * width * height) {
                    throw new Wire.Broken("a frame of " + width + " x " + height);
                }
                return viewer.see(Duration.of(at, ChronoUnit.MICROS), width, height, frame.slice())
                        .map(MediaWorkers::micros);
            });
            return true;
        });
    }

    private static long micros(Duration time) {
        return TimeUnit.MICROSECONDS.convert(time);
    }

    private interface Question<T> {
        T ask(MediaWorker worker) throws IOException;
    }

    private <T> T with(Question<T> question) throws IOException {
        var worker = pool.take();
        try {
            return question.ask(worker);
        } catch (UnplayableException e) {
            LOG.info("a media file can't be played: {}, {}", e.why(), e.getMessage());
            if (!worker.goesOn()) {
                deaths.incrementAndGet();
            }
            throw e;
        } finally {
            pool.giveBack(worker);
        }
    }

    void close() {
        pool.close();
    }
}
