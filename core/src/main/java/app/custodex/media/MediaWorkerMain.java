package app.custodex.media;

import static org.bytedeco.ffmpeg.global.avutil.AV_LOG_QUIET;
import static org.bytedeco.ffmpeg.global.avutil.av_log_set_level;
import static org.bytedeco.ffmpeg.global.avutil.av_max_alloc;

import app.custodex.media.Wire.Kind;
import java.io.EOFException;
import java.io.FileDescriptor;
import java.io.FileInputStream;
import java.io.FileOutputStream;
import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.bytedeco.ffmpeg.global.avcodec;
import org.bytedeco.ffmpeg.global.avfilter;
import org.bytedeco.ffmpeg.global.avformat;
import org.bytedeco.ffmpeg.global.avutil;
import org.bytedeco.ffmpeg.global.swresample;
import org.bytedeco.ffmpeg.global.swscale;
import org.bytedeco.javacpp.Loader;

/**
 * The process in which media of strangers are decoded: one after the other, until nobody talks to it any more. It gets no path and no
 * file, and where that can be had it gives up the right to open any.
 */
public final class MediaWorkerMain {
    /** Bytes in one piece: a picture of the most pixels fits. */
    private static final long MOST_MEMORY = 600L << 20;

    private static final int LONGEST_QUESTION = 1 << 20;
    private static final int LONGEST_WORDS = 1_000;

    private final Wire wire;
    private final Exchange exchange;

    private MediaWorkerMain(Wire wire) {
        this.wire = wire;
        exchange = new Exchange(wire);
    }

    /** Talks over standard input and output. */
    public static void main(String... words) throws Exception {
        System.setOut(System.err); // a library that prints must not be taken for the worker
        var wire = new Wire(new FileInputStream(FileDescriptor.in), new FileOutputStream(FileDescriptor.out));
        for (var library :
                List.of(avutil.class, swresample.class, avcodec.class, avformat.class, swscale.class, avfilter.class)) {
            Loader.load(library);
        }
        // Else every class of the binding takes a lock file when it is first used.
        System.setProperty("org.bytedeco.javacpp.loadlibraries", "false");
        av_log_set_level(AV_LOG_QUIET);
        av_max_alloc(MOST_MEMORY);
        loadClasses();
        Confinement.enter();
        wire.send(Kind.READY);
        try {
            new MediaWorkerMain(wire).serve();
        } catch (EOFException theOtherIsGone) {
            // and so is this one
        }
    }

    /** Later no file can be opened: jars have to be open by then, and classes in folders loaded. */
    private static void loadClasses() throws IOException, URISyntaxException, ClassNotFoundException {
        ClassLoader.getSystemResource("is/not/there"); // asks every jar
        var from = Path.of(MediaWorkerMain.class
                .getProtectionDomain()
                .getCodeSource()
                .getLocation()
                .toURI());
        if (Files.isDirectory(from)) {
            var here = MediaWorkerMain.class.getPackageName();
            try (var files = Files.list(from.resolve(here.replace('.', '/')))) {
                for (var file : files.toList()) {
                    var name = file.getFileName().toString();
                    if (name.endsWith(".class") && !name.startsWith("package-info")) {
                        Class.forName(here + "." + name.substring(0, name.length() - ".class".length()));
                    }
                }
            }
        }
    }

    private void serve() throws IOException {
        while (true) {
            var kind = wire.receive(LONGEST_QUESTION);
            if (kind == Kind.CREDIT || kind == Kind.STOP || kind == Kind.DATA) {
                continue; // it came too late for what was asked before
            }
            try {
                answer(kind, wire.body());
            } catch (Undecodable e) {
                fail(String.valueOf(e.getMessage()));
            } catch (OutOfMemoryError | StackOverflowError | RuntimeException e) {
                fail(e.toString());
            }
        }
    }

    private void fail(String why) throws IOException {
        var words = why.substring(0, Math.min(LONGEST_WORDS, why.length()));
        wire.send(Kind.ERROR, ByteBuffer.wrap(words.getBytes(StandardCharsets.UTF_8)));
    }

    private static Optional<SoundCut> cut(ByteBuffer question) {
        return question.get() == 0
                ? Optional.empty()
                : Optional.of(new SoundCut(
                        Duration.ofNanos(question.getLong()),
                        Duration.ofNanos(question.getLong()),
                        Duration.ofNanos(question.getLong()),
                        Duration.ofNanos(question.getLong()),
                        question.get() != 0));
    }

    private void answer(Kind kind, ByteBuffer question) throws IOException {
        long size = question.getLong();
        int millis = question.getInt();
        exchange.begin(millis, question.getInt());
        switch (kind) {
            case PICTURE -> {
                int side = question.getInt();
                boolean quick = question.get() != 0;
                var picture = new Pictures(exchange, size, side).decode(quick);
                var head = ByteBuffer.allocate(17)
                        .putInt(picture.width())
                        .putInt(picture.height())
                        .put((byte) ((picture.embedded() ? 1 : 0) | (picture.damaged() ? 2 : 0)))
                        .putInt(picture.fullWidth())
                        .putInt(picture.fullHeight());
                wire.send(Kind.RESULT, head.flip(), picture.bgra());
            }
            case PEAKS -> wire.send(Kind.RESULT, Sounds.peaks(exchange, size, question.getInt(), question.get() != 0));
            case SOUND -> {
                Sounds.play(exchange, size, question.getLong(), question.getDouble(), millis);
                wire.send(Kind.RESULT);
            }
            case FILM -> {
                var wish =
                        new Films.Wish(question.getLong(), question.get() != 0, question.getInt(), question.getInt());
                Films.play(exchange, size, wish, millis);
                wire.send(Kind.RESULT);
            }
            case CONVERT -> {
                var coding = SoundCoding.values()[question.get()];
                Sounds.convert(exchange, size, coding, question.getInt(), cut(question), millis);
                wire.send(Kind.RESULT);
            }
            default -> throw new Undecodable(kind + " is no question");
        }
    }
}
