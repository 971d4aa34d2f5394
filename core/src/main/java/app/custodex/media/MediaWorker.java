package app.custodex.media;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.WarmPool;
import app.custodex.media.UnplayableException.Why;
import app.custodex.media.Wire.Kind;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/**
 * This end of one worker. It believes nothing: every length is held against what was asked for. One thread uses it at a time; any may end it.
 */
final class MediaWorker implements WarmPool.Worker {
    private static final Duration START = Duration.ofSeconds(20);
    /** Frames under way. */
    private static final int CREDITS = 4;

    private static final int LONGEST_WORDS = 1 << 14;
    /** The variables that a program needs; what else stands there is nobody's business, and options for Java must not reach it. */
    private static final Set<String> ENVIRONMENT =
            Set.of("HOME", "PATH", "LANG", "LC_ALL", "SystemRoot", "TEMP", "TMPDIR");

    private static final ScheduledExecutorService CLOCK = Executors.newSingleThreadScheduledExecutor(task -> {
        var thread = new Thread(task, "media-clock");
        thread.setDaemon(true);
        return thread;
    });

    private final Process process;
    private final Wire wire;
    private volatile boolean late;

    private MediaWorker(Process process) {
        this.process = process;
        wire = new Wire(process.getInputStream(), new BufferedOutputStream(process.getOutputStream(), 1 << 16));
    }

    static MediaWorker start() throws IOException {
        var builder = new ProcessBuilder(List.of(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx700m",
                        "-XX:+UseSerialGC",
                        "-XX:TieredStopAtLevel=1",
                        "-XX:-UsePerfData",
                        // A report of a crash shows memory, which holds pieces of what was decoded; and it would go
                        // over the wire.
                        "-XX:+SuppressFatalErrorMessage",
                        "-XX:-CreateCoredumpOnCrash",
                        "-XX:+DisplayVMOutputToStderr",
                        "-Xlog:disable",
                        "-XX:+DisableAttachMechanism",
                        "--enable-native-access=ALL-UNNAMED",
                        "-Dorg.bytedeco.javacpp.nopointergc=true", // all is freed by hand
                        "-Djava.awt.headless=true",
                        MediaWorkerMain.class.getName()))
                .redirectError(ProcessBuilder.Redirect.DISCARD);
        builder.environment().keySet().retainAll(ENVIRONMENT);
        builder.environment().put("CLASSPATH", System.getProperty("java.class.path")); // a command line has its limits
        var worker = new MediaWorker(builder.start());
        try (var guard = worker.new Guard(START)) {
            if (worker.wire.receive(0) != Kind.READY) {
                throw new Wire.Broken("it does not say that it is ready");
            }
            return worker;
        } catch (IOException e) {
            worker.close();
            throw new ProblemException(
                    Problem.failure(
                            "Pictures and sound",
                            "The part of Custodex that decodes them does not start",
                            "Everything else works; start Custodex again, and save a problem report (F1) if it happens twice"),
                    e);
        }
    }

    /** Takes the frames of what plays. */
    interface Sink {
        /**
         * Takes one.
         *
         * @param body good during the call only
         * @return before which time in microseconds no frames are wanted any more; empty when none are wanted at all
         */
        Optional<Long> frame(long micros, ByteBuffer body) throws IOException;
    }

    private static final Sink NO_FRAMES = (micros, body) -> {
        throw new Wire.Broken("a frame that nobody asked for");
    };

    Picture picture(MediaSource source, int side, boolean quick, Duration limit) throws IOException {
        int head = 17;
        int most = Math.toIntExact(4L * side * side + head);
        var arguments =
                ByteBuffer.allocate(5).putInt(side).put((byte) (quick ? 1 : 0)).flip();
        return ask(Kind.PICTURE, source, limit, most, arguments, NO_FRAMES, () -> {
            var body = wire.takeBody();
            int width = body.getInt();
            int height = body.getInt();
            int marks = body.get();
            var picture = new Picture(
                    width, height, (marks & 1) != 0, (marks & 2) != 0, body.getInt(), body.getInt(), body.slice());
            boolean fits = width > 0 && height > 0 && width <= side && height <= side;
            if (!fits || picture.bgra().remaining() != 4 * width * height) {
                throw new Wire.Broken("a picture of " + width + " x " + height);
            }
            return picture;
        });
    }

    Peaks peaks(MediaSource source, int parts, boolean quick, Duration limit) throws IOException {
        var arguments =
                ByteBuffer.allocate(5).putInt(parts).put((byte) (quick ? 1 : 0)).flip();
        return ask(Kind.PEAKS, source, limit, Double.BYTES + 1 + parts, arguments, NO_FRAMES, () -> {
            var body = wire.body();
            double seconds = body.getDouble();
            boolean whole = body.get() != 0;
            var loudness = new byte[parts];
            body.get(loudness);
            if (!(seconds >= 0 && seconds < Duration.ofDays(365).toSeconds())) {
                throw new Wire.Broken("a length of " + seconds);
            }
            return new Peaks(loudness, Duration.ofMillis(Math.round(seconds * 1000)), whole);
        });
    }

    /** Stereo, 16 bits, the lower byte first; returns at the end. */
    void sound(MediaSource source, long fromMicros, double speed, Duration limit, Sink sink) throws IOException {
        var arguments =
                ByteBuffer.allocate(16).putLong(fromMicros).putDouble(speed).flip();
        ask(Kind.SOUND, source, limit, 1 << 22, arguments, sink, wire::body);
    }

    /** Each frame is its width and height, then its pixels as those of a picture; returns at the end. */
    void film(MediaSource source, Films.Wish wish, Duration limit, Sink sink) throws IOException {
        var arguments = ByteBuffer.allocate(17)
                .putLong(wish.fromMicros())
                .put((byte) (wish.exact() ? 1 : 0))
                .putInt(wish.mostWidth())
                .putInt(wish.mostHeight())
                .flip();
        int most = Math.toIntExact(4L * wish.mostWidth() * wish.mostHeight() + 16);
        ask(Kind.FILM, source, limit, most, arguments, sink, wire::body);
    }

    /** Each frame is a piece of the file, with its place instead of a time. */
    void convert(
            MediaSource source, SoundCoding coding, int kilobits, Optional<SoundCut> cut, Duration limit, Sink sink)
            throws IOException {
        var arguments = ByteBuffer.allocate(39)
                .put((byte) coding.ordinal())
                .putInt(kilobits)
                .put((byte) (cut.isPresent() ? 1 : 0));
        cut.ifPresent(piece -> arguments
                .putLong(piece.from().toNanos())
                .putLong(piece.until().toNanos())
                .putLong(piece.fadeIn().toNanos())
                .putLong(piece.fadeOut().toNanos())
                .put((byte) (piece.even() ? 1 : 0)));
        arguments.flip();
        ask(Kind.CONVERT, source, limit, Exchange.PIECE + 16, arguments, sink, wire::body);
    }

    private interface Answer<T> {
        T read() throws IOException;
    }

    /** @param limit for all of it, or from one frame to the next */
    private <T> T ask(
            Kind kind, MediaSource source, Duration limit, int most, ByteBuffer arguments, Sink sink, Answer<T> answer)
            throws IOException {
        // The worker gets less, so that it mostly gives up by itself and need not be ended.
        var head = ByteBuffer.allocate(16)
                .putLong(source.size())
                .putInt((int) limit.toMillis() * 3 / 4)
                .putInt(CREDITS);
        try (var guard = new Guard(limit)) {
            wire.send(kind, head.flip(), arguments);
            boolean stopped = false;
            while (true) {
                switch (wire.receive(Math.max(most, LONGEST_WORDS))) {
                    case NEED -> {
                        guard.pause(); // the file may be slow to come, which is not its fault
                        stopped = !feed(source, stopped);
                        guard.goOn();
                    }
                    case FRAME -> {
                        guard.pause();
                        stopped = stopped || !show(sink);
                        guard.goOn();
                    }
                    case RESULT -> {
                        return answer.read();
                    }
                    case ERROR -> {
                        if (stopped) {
                            return answer.read(); // it was told to stop, and did, in the middle of something
                        }
                        var words = StandardCharsets.UTF_8.decode(wire.body()).toString();
                        throw new UnplayableException(words.equals("too slow") ? Why.TOO_SLOW : Why.DAMAGED, words);
                    }
                    default -> throw new Wire.Broken("not the word of a worker");
                }
            }
        } catch (Wire.Broken | BufferUnderflowException e) {
            close();
            throw new UnplayableException(Why.SUSPICIOUS, String.valueOf(e.getMessage()));
        } catch (Failed e) {
            close(); // it still waits for what does not come
            throw e.cause;
        } catch (UnplayableException e) {
            throw e;
        } catch (RuntimeException e) {
            close();
            throw e;
        } catch (IOException e) {
            close();
            throw new UnplayableException(late ? Why.TOO_SLOW : Why.ENDED, "it ended with " + ended());
        }
    }

    /** The file could not be read, which is nobody's fault here. */
    private static final class Failed extends IOException {
        private static final long serialVersionUID = 1L;
        private final IOException cause;

        Failed(IOException cause) {
            super(cause);
            this.cause = cause;
        }
    }

    private boolean feed(MediaSource source, boolean stopped) throws IOException {
        if (stopped) {
            return false;
        }
        if (Thread.currentThread().isInterrupted()) {
            throw new Failed(new InterruptedIOException("interrupted"));
        }
        var need = wire.body();
        long position = need.getLong();
        int length = need.getInt();
        if (position < 0 || length < 0 || length > Exchange.PIECE) {
            throw new Wire.Broken("asks for " + length + " bytes at " + position);
        }
        var data = ByteBuffer.allocate(length);
        try {
            boolean more = true;
            while (data.hasRemaining() && more) { // a piece that is too short costs one more question
                more = source.read(position + data.position(), data) > 0;
            }
        } catch (IOException e) {
            throw new Failed(e);
        }
        wire.send(Kind.DATA, data.flip());
        return true;
    }

    private boolean show(Sink sink) throws IOException {
        var body = wire.body();
        var wanted = sink.frame(body.getLong(), body.slice());
        if (wanted.isEmpty()) {
            wire.send(Kind.STOP);
        } else {
            wire.send(
                    Kind.CREDIT,
                    ByteBuffer.allocate(Long.BYTES).putLong(wanted.get()).flip());
        }
        return wanted.isPresent();
    }

    private String ended() {
        return process.isAlive() ? "nothing" : String.valueOf(process.exitValue());
    }

    @Override
    public boolean goesOn() {
        return process.isAlive();
    }

    @Override
    public void close() {
        process.destroyForcibly();
        try {
            process.waitFor(5, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Ends the process when its time is over; whoever reads from it sees that it is gone. */
    private final class Guard implements AutoCloseable {
        private final Duration time;
        private Future<?> alarm;

        Guard(Duration time) {
            this.time = time;
            alarm = set();
        }

        private Future<?> set() {
            return CLOCK.schedule(
                    () -> {
                        late = true;
                        process.destroyForcibly();
                    },
                    time.toMillis(),
                    TimeUnit.MILLISECONDS);
        }

        void pause() {
            alarm.cancel(false);
        }

        void goOn() {
            alarm = set();
        }

        @Override
        public void close() {
            pause();
        }
    }
}
