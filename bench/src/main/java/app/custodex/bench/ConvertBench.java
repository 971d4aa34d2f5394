package app.custodex.bench;

import app.custodex.app.OpenPhone;
import app.custodex.model.KindGroup;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Random;

/**
 * Files of a layer as they are, beside cp -r; songs in other forms, beside ffmpeg; pictures of phones as JPEG, beside heif-convert.
 * Arguments: songs of three minutes, pictures of twelve megapixels, files of 500 kB.
 */
public final class ConvertBench {
    private ConvertBench() {}

    public static void main(String[] args) throws Exception {
        int songs = Side.number(args, 0, 4);
        int pictures = Side.number(args, 1, 8);
        int files = Side.number(args, 2, 1_000);
        Side.inFolder(folder -> {
            var source = Files.createDirectories(folder.resolve("phone"));
            var music = Files.createDirectories(source.resolve("music"));
            var camera = Files.createDirectories(source.resolve("camera"));
            var other = Files.createDirectories(source.resolve("other"));
            write(songs, pictures, files, folder, music, camera, other);
            Extracting.layer(folder, source, open -> {
                for (int round = 1; round <= 2; round++) {
                    files(open, other, folder, round);
                    for (var form1 : songs == 0 ? List.<String>of() : List.of("mp3", "m4a", "opus", "flac")) {
                        double made = taken(
                                open,
                                KindGroup.MUSIC,
                                "originals:sound=" + form1,
                                folder.resolve("songs " + form1 + round));
                        print(
                                "songs as " + form1,
                                made,
                                "ffmpeg",
                                Side.seconds(() -> each(
                                        music,
                                        song -> List.of(
                                                "ffmpeg",
                                                "-v",
                                                "quiet",
                                                "-y",
                                                "-i",
                                                song.toString(),
                                                "-b:a",
                                                "192k",
                                                folder.resolve("theirs." + form1)
                                                        .toString()))));
                    }
                    if (pictures == 0) {
                        continue;
                    }
                    double seen = taken(
                            open, KindGroup.PICTURES, "originals:pictures=jpeg", folder.resolve("pictures " + round));
                    print(
                            "pictures as JPEG",
                            seen,
                            "heif-convert",
                            Side.seconds(() -> each(
                                    camera,
                                    picture -> List.of(
                                            "heif-convert",
                                            "-q",
                                            "92",
                                            picture.toString(),
                                            folder.resolve("theirs.jpg").toString()))));
                }
            });
        });
        System.exit(0);
    }

    /** From memory into memory, and from the disk onto the disk, until all of it is there. */
    private static void files(OpenPhone open, Path from, Path folder, int round) throws Exception {
        double ours = taken(open, KindGroup.OTHER, "originals", folder.resolve("files " + round));
        var copy = folder.resolve("copy " + round);
        print("files as they are", ours, "cp -r", Side.seconds(() -> Side.run(copying(from, copy))));
        if (!Side.mayEmptyCaches()) {
            System.out.println("files as they are, disk to disk: not measured, since only root may empty the caches");
            return;
        }
        Side.emptyCaches();
        double onDisk = Side.seconds(() -> {
            taken(open, KindGroup.OTHER, "originals", folder.resolve("disk files " + round));
            Side.run(List.of("sync"));
        });
        Side.emptyCaches();
        var diskCopy = folder.resolve("disk copy " + round);
        print("files as they are, disk to disk", onDisk, "cp -r", Side.seconds(() -> {
            Side.run(copying(from, diskCopy));
            Side.run(List.of("sync"));
        }));
    }

    private static List<String> copying(Path from, Path to) {
        return List.of("cp", "-r", from.toString(), to.toString());
    }

    private static void write(int songs, int pictures, int files, Path folder, Path music, Path camera, Path other)
            throws IOException, InterruptedException {
        for (int i = 0; i < songs; i++) {
            Side.run(List.of(
                    "ffmpeg",
                    "-v",
                    "quiet",
                    "-y",
                    "-f",
                    "lavfi",
                    "-i",
                    "anoisesrc=color=pink:duration=180:amplitude=0.4:seed=" + i + ":sample_rate=44100",
                    "-ac",
                    "2",
                    music.resolve("song " + i + ".flac").toString()));
        }
        for (int i = 0; i < pictures; i++) {
            var png = folder.resolve("picture.png").toString();
            Side.run(List.of(
                    "ffmpeg",
                    "-v",
                    "quiet",
                    "-y",
                    "-f",
                    "lavfi",
                    "-i",
                    "testsrc2=size=4032x3024:rate=1,noise=alls=12:all_seed=" + i,
                    "-frames:v",
                    "1",
                    png));
            Side.run(List.of(
                    "heif-enc",
                    "-q",
                    "60",
                    "-o",
                    camera.resolve("picture " + i + ".heic").toString(),
                    png));
        }
        var random = new Random(1);
        var bytes = new byte[500_000];
        for (int i = 0; i < files; i++) {
            random.nextBytes(bytes);
            Files.write(other.resolve("file " + i + ".bin"), bytes);
        }
    }

    private interface Command {
        List<String> of(Path file);
    }

    private static void each(Path of, Command command) throws IOException, InterruptedException {
        try (var files = Files.list(of)) {
            for (var file : files.toList()) {
                Side.run(command.of(file));
            }
        }
    }

    private static double taken(OpenPhone open, KindGroup group, String how, Path to) throws Exception {
        return Extracting.seconds(open, Extracting.order(open, group, how), to);
    }

    private static void print(String what, double ours, String name, double theirs) {
        System.out.printf(
                Locale.ROOT, "%s: %.1f s, %s %.1f s: %.2f times as fast%n", what, ours, name, theirs, theirs / ours);
    }
}
