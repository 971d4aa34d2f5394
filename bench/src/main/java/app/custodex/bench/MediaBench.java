package app.custodex.bench;

import app.custodex.media.MediaSource;
import app.custodex.media.MediaWorkers;
import app.custodex.media.Picture;
import app.custodex.media.StreamSource;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;

/**
 * Pictures of 12 megapixels as thumbnails, beside vipsthumbnail, and large; the waveform of half an hour. The media are made by ffmpeg.
 */
public final class MediaBench {
    private static final MediaWorkers WORKERS = MediaWorkers.shared();

    private MediaBench() {}

    /** @param args how many pictures, 20 when it says nothing */
    public static void main(String[] args) throws Exception {
        int pictures = Side.number(args, 0, 20);
        Side.inFolder(folder -> {
            var files = pictures(folder, pictures);
            WORKERS.picture(open(files.getFirst()), 320, true).width(); // the worker has started
            thumbnails(folder, files);
            large(files);
            waveform(folder);
            System.out.printf(Locale.ROOT, "workers that died: %d%n", WORKERS.deaths());
        });
        System.exit(0);
    }

    private static void ffmpeg(Path file, String... options) throws Exception {
        var command = new ArrayList<>(List.of("ffmpeg", "-v", "error", "-y"));
        command.addAll(List.of(options));
        command.add(file.toString());
        Side.run(command);
    }

    private static List<Path> pictures(Path folder, int count) throws Exception {
        var files = new ArrayList<Path>();
        for (int i = 0; i < count; i++) {
            var file = folder.resolve("p%03d.jpg".formatted(i));
            ffmpeg(
                    file,
                    "-f",
                    "lavfi",
                    "-i",
                    "gradients=s=4032x3024:n=5:seed=" + i,
                    "-vf",
                    "noise=alls=10:c0_seed=" + i,
                    "-frames:v",
                    "1",
                    "-pix_fmt",
                    "yuvj420p",
                    "-q:v",
                    "2");
            files.add(file);
        }
        return files;
    }

    private static MediaSource open(Path file) throws IOException {
        return new StreamSource(Files.size(file), () -> Files.newInputStream(file));
    }

    private static Picture picture(Path file, int side) throws IOException {
        try (var source = open(file)) {
            return WORKERS.picture(source, side, false);
        }
    }

    private static void thumbnails(Path folder, List<Path> files) throws Exception {
        var ours = new double[3];
        var theirs = new double[3];
        for (int round = 0; round < ours.length; round++) {
            try (var threads = Executors.newFixedThreadPool(2)) {
                ours[round] = Side.seconds(() -> {
                    var tasks = new ArrayList<Callable<Picture>>();
                    files.forEach(file -> tasks.add(() -> picture(file, 256)));
                    for (var done : threads.invokeAll(tasks)) {
                        done.get();
                    }
                });
            }
            var command = new ArrayList<>(List.of("vipsthumbnail", "--size", "256", "-o", folder + "/%s-small.jpg"));
            files.forEach(file -> command.add(file.toString()));
            theirs[round] = Side.seconds(() -> Side.run(command));
        }
        Arrays.sort(ours);
        Arrays.sort(theirs);
        System.out.printf(
                Locale.ROOT,
                "%d thumbnails: %.1f a second, vipsthumbnail %.1f, ratio %.2f%n",
                files.size(),
                files.size() / ours[1],
                files.size() / theirs[1],
                theirs[1] / ours[1]);
    }

    private static void large(List<Path> files) throws Exception {
        for (int side : new int[] {1600, MediaWorkers.LARGEST}) {
            var times = new double[Math.min(10, files.size())];
            for (int i = 0; i < times.length; i++) {
                var file = files.get(i);
                times[i] = Side.seconds(() -> picture(file, side)) * 1000;
            }
            Arrays.sort(times);
            System.out.printf(
                    Locale.ROOT,
                    "12 megapixels, at most %d pixels a side: median %.0f ms, at most %.0f ms%n",
                    side,
                    times[times.length / 2],
                    times[times.length - 1]);
        }
    }

    private static void waveform(Path folder) throws Exception {
        for (var coding : List.of("m4a:aac", "mp3:libmp3lame", "opus:libopus")) {
            var parts = coding.split(":");
            var file = folder.resolve("half-an-hour." + parts[0]);
            ffmpeg(
                    file,
                    "-f",
                    "lavfi",
                    "-i",
                    "aevalsrc='0.4*sin(440*2*PI*t)*sin(t)|0.3*sin(660*2*PI*t)':s=44100:d=1800",
                    "-c:a",
                    parts[1],
                    "-b:a",
                    "96k");
            double look = seconds(file, true);
            double whole = seconds(file, false);
            System.out.printf(
                    Locale.ROOT,
                    "waveform of half an hour, %s: first look %.1f s, whole %.1f s%n",
                    parts[0],
                    look,
                    whole);
        }
    }

    private static double seconds(Path file, boolean quick) throws Exception {
        return Side.seconds(() -> {
            try (var source = open(file)) {
                WORKERS.peaks(source, 600, quick);
            }
        });
    }
}
