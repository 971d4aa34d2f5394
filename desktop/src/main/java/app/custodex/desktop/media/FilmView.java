package app.custodex.desktop.media;

import app.custodex.media.MediaSource;
import app.custodex.media.MediaWorkers;
import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.animation.AnimationTimer;
import javafx.scene.image.ImageView;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;

/**
 * The pictures of a video, each shown when a clock comes to its time. A few buffers go round: one thread fills them, the interface thread
 * shows them, and gives each back when two later ones were shown, for by then it is drawn.
 */
public final class FilmView extends ImageView implements Closeable {
    private static final int BUFFERS = 6;
    private static final Duration EARLY = Duration.ofMillis(20);

    private final MediaSource source;
    private final Supplier<Duration> clock;
    private final int mostWidth;
    private final int mostHeight;
    private final Consumer<IOException> trouble;
    private final BlockingQueue<Buffer> free = new LinkedBlockingQueue<>();
    /** Filled, the earliest first; guarded by itself. */
    private final Deque<Buffer> ready = new ArrayDeque<>();

    private final Deque<Buffer> shown = new ArrayDeque<>();
    private final ExecutorService thread = Executors.newSingleThreadExecutor(
            Thread.ofPlatform().daemon().name("film").factory());
    private final AnimationTimer timer = new AnimationTimer() {
        @Override
        public void handle(long now) {
            showNext();
        }
    };
    private volatile int turn;
    private volatile boolean anyIsDue;

    private static final class Buffer {
        private final PixelBuffer<ByteBuffer> pixels;
        private final WritableImage image;
        private Duration at = Duration.ZERO;

        Buffer(int width, int height) {
            pixels = new PixelBuffer<>(
                    width, height, ByteBuffer.allocateDirect(4 * width * height), PixelFormat.getByteBgraPreInstance());
            image = new WritableImage(pixels);
        }

        boolean fits(int width, int height) {
            return pixels.getWidth() == width && pixels.getHeight() == height;
        }
    }

    /**
     * Closes the source in the end.
     *
     * @param clock which is followed
     * @param mostWidth of what is shown, in pixels
     * @param trouble is told when it can't go on, on a thread of its own
     */
    public FilmView(
            MediaSource source,
            Supplier<Duration> clock,
            int mostWidth,
            int mostHeight,
            Consumer<IOException> trouble) {
        this.source = source;
        this.clock = clock;
        this.mostWidth = mostWidth;
        this.mostHeight = mostHeight;
        this.trouble = trouble;
        setPreserveRatio(true);
        setSmooth(true);
        timer.start();
    }

    /**
     * Shows it from a place on; returns at once.
     *
     * @param exact false for the key frame before it, which comes sooner
     */
    public void show(Duration from, boolean exact) {
        int mine = ++turn; // whoever decodes the one before ends at its next picture
        anyIsDue = true;
        thread.execute(() -> decode(mine, from, exact));
    }

    private void decode(int mine, Duration from, boolean exact) {
        synchronized (ready) {
            ready.clear();
        }
        free.clear();
        for (int i = 0; i < BUFFERS; i++) {
            free.add(new Buffer(1, 1));
        }
        if (mine != turn) {
            return;
        }
        try {
            MediaWorkers.shared().film(source, from, exact, mostWidth, mostHeight, (at, width, height, bgra) -> {
                var buffer = take(mine);
                if (buffer.isEmpty()) {
                    return Optional.empty();
                }
                var filled = buffer.get().fits(width, height) ? buffer.get() : new Buffer(width, height);
                filled.pixels.getBuffer().clear().put(bgra).flip();
                filled.at = at;
                synchronized (ready) {
                    if (mine != turn) {
                        return Optional.empty();
                    }
                    ready.add(filled);
                }
                return Optional.of(clock.get().minus(EARLY));
            });
        } catch (IOException e) {
            if (mine == turn) {
                trouble.accept(e);
            }
        } catch (CancellationException closed) {
            // whoever closed the layer wants to see no more
        }
    }

    private Optional<Buffer> take(int mine) {
        try {
            while (mine == turn) {
                var buffer = Optional.ofNullable(free.poll(50, TimeUnit.MILLISECONDS));
                if (buffer.isPresent()) {
                    return buffer;
                }
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        return Optional.empty();
    }

    private void showNext() {
        var now = clock.get();
        var next = Optional.<Buffer>empty();
        synchronized (ready) {
            // The first one shows at once, wherever the clock is; of those that are due, only the last.
            while (!ready.isEmpty() && (anyIsDue || ready.peek().at.compareTo(now) <= 0)) {
                anyIsDue = false;
                next.ifPresent(free::add);
                next = Optional.of(ready.remove());
            }
        }
        next.ifPresent(buffer -> {
            buffer.pixels.updateBuffer(all -> null);
            setImage(buffer.image);
            shown.add(buffer);
            while (shown.size() > 2) {
                free.add(shown.remove());
            }
        });
    }

    /** At which time of the video the picture is that is shown; empty before the first. */
    public Optional<Duration> shown() {
        return Optional.ofNullable(shown.peekLast()).map(buffer -> buffer.at);
    }

    @Override
    public void close() throws IOException {
        turn++;
        timer.stop();
        thread.shutdownNow();
        source.close();
    }
}
