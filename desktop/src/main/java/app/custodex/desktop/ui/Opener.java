package app.custodex.desktop.ui;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.TimeUnit;

/** Shows a folder or a file in a program of this computer. */
public final class Opener {
    /** Files that a system shows and never runs. What comes from a phone may be a program. */
    private static final Set<String> HARMLESS = Set.of(
            "pdf", "html", "txt", "md", "csv", "xlsx", "vcf", "ics", "json", "jsonl", "ldif", "mbox", "eml", "gpx",
            "kml", "geojson", "xspf", "m3u8", "zip", "tar", "age", "jpg", "jpeg", "png", "gif", "webp", "heic", "tif",
            "tiff", "mp4", "mov", "3gp", "webm", "mp3", "m4a", "m4r", "aac", "amr", "opus", "ogg", "flac", "wav");

    private Opener() {}

    /** @throws ProblemException when this system has no program for it */
    public static Path openFolder(Path folder) throws IOException, InterruptedException {
        return open(folder, "This computer has no program that shows folders");
    }

    /** @throws ProblemException when it is none that is only looked at, or this system has no program for it */
    public static Path openFile(Path file) throws IOException, InterruptedException {
        var name = file.getFileName().toString();
        if (!HARMLESS.contains(name.substring(name.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT))) {
            throw new ProblemException(Problem.note(
                    name,
                    "It may be a program, so it is not opened from here",
                    "Open the folder, and look at it with a program of your own"));
        }
        return open(file, "This computer has no program for it");
    }

    private static Path open(Path path, String none) throws IOException, InterruptedException {
        var system = System.getProperty("os.name").toLowerCase(Locale.ROOT);
        var program = system.startsWith("windows") ? "explorer" : system.startsWith("mac") ? "open" : "xdg-open";
        try {
            var process = new ProcessBuilder(List.of(program, path.toString()))
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            // Windows' program answers 1 even when it showed the folder; one that still runs after a moment has shown
            // it.
            if (process.waitFor(5, TimeUnit.SECONDS) && process.exitValue() != 0 && !system.startsWith("windows")) {
                throw none(path, none);
            }
            return path;
        } catch (ProblemException e) {
            throw e;
        } catch (IOException e) {
            throw none(path, none);
        }
    }

    private static ProblemException none(Path path, String what) {
        return new ProblemException(
                Problem.note(path.toString(), what, "The files are there; look at them with a program of your own"));
    }
}
