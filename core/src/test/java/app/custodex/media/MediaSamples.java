package app.custodex.media;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Media files made by programs other than this one, and what those programs decode from them. */
public final class MediaSamples {
    private final Path folder;

    public MediaSamples(Path folder) {
        this.folder = folder;
    }

    public static byte[] run(String... command) throws IOException {
        var process = new ProcessBuilder(command)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        var out = process.getInputStream().readAllBytes();
        try {
            assertEquals(0, process.waitFor(), String.join(" ", command));
        } catch (InterruptedException e) {
            throw new IOException(e);
        }
        return out;
    }

    /** Made by ffmpeg. */
    public Path made(String name, String... options) throws IOException {
        var file = folder.resolve(name);
        var command = new ArrayList<>(List.of("ffmpeg", "-v", "quiet", "-y"));
        command.addAll(List.of(options));
        command.add(file.toString());
        run(command.toArray(String[]::new));
        return file;
    }

    /** A drawing with many colours and fine detail, in a format; HEIC by heif-enc. */
    public Path picture(String name, int width, int height) throws IOException {
        var drawing = "testsrc2=size=" + width + "x" + height;
        if (!name.endsWith(".heic")) {
            return made(name, "-f", "lavfi", "-i", drawing, "-frames:v", "1", "-q:v", "2");
        }
        var png = made(name + ".png", "-f", "lavfi", "-i", drawing, "-frames:v", "1");
        var heic = folder.resolve(name);
        run("heif-enc", "-q", "90", png.toString(), "-o", heic.toString());
        return heic;
    }

    /** A tone that lasts some seconds, and then silence for as long. */
    public Path toneAndSilence(String name, int seconds, String... options) throws IOException {
        var all = new ArrayList<>(List.of(
                "-f",
                "lavfi",
                "-i",
                "sine=frequency=440:sample_rate=44100:duration=" + seconds,
                "-f",
                "lavfi",
                "-i",
                "anullsrc=sample_rate=44100:channel_layout=mono:duration=" + seconds,
                "-filter_complex",
                "[0]volume=8[tone];[tone][1]concat=n=2:v=0:a=1"));
        all.addAll(List.of(options));
        return made(name, all.toArray(String[]::new));
    }

    /** The pixels that ffmpeg gives, upright: blue, green, red, alpha; of HEIC those that heif-convert gives. */
    public ByteBuffer reference(Path picture) throws IOException {
        var source = picture;
        if (picture.toString().endsWith(".heic")) {
            source = folder.resolve(picture.getFileName() + ".converted.png");
            run("heif-convert", picture.toString(), source.toString());
        }
        return ByteBuffer.wrap(run(
                        "ffmpeg",
                        "-v",
                        "quiet",
                        "-i",
                        source.toString(),
                        "-frames:v",
                        "1",
                        "-f",
                        "rawvideo",
                        "-pix_fmt",
                        "bgra",
                        "-"))
                .order(ByteOrder.LITTLE_ENDIAN);
    }

    /** How much two pictures differ: the mean over all bytes, 0 to 255. */
    public static double difference(ByteBuffer one, ByteBuffer other) {
        assertEquals(one.remaining(), other.remaining());
        long sum = 0;
        for (int i = 0; i < one.remaining(); i++) {
            sum += Math.abs((one.get(one.position() + i) & 0xff) - (other.get(other.position() + i) & 0xff));
        }
        return (double) sum / one.remaining();
    }

    static double seconds(Path recording) throws IOException {
        return Double.parseDouble(new String(run(
                        "ffprobe",
                        "-v",
                        "quiet",
                        "-show_entries",
                        "format=duration",
                        "-of",
                        "csv=p=0",
                        recording.toString()))
                .strip());
    }

    public static MediaSource open(Path file) throws IOException {
        return new StreamSource(Files.size(file), () -> Files.newInputStream(file));
    }

    /** The same file, read wherever one likes. */
    static MediaSource anywhere(Path file) throws IOException {
        var channel = FileChannel.open(file);
        return new MediaSource() {
            @Override
            public long size() {
                return file.toFile().length();
            }

            @Override
            public int read(long position, ByteBuffer into) throws IOException {
                return channel.read(into, position);
            }

            @Override
            public void close() throws IOException {
                channel.close();
            }
        };
    }
}
