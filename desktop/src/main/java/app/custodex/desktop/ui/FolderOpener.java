package app.custodex.desktop.ui;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;

/** Shows a folder in the system's own file program. */
public final class FolderOpener {
    private FolderOpener() {}

    /** @throws ProblemException when this system has no program for it */
    public static Path open(Path folder) throws IOException, InterruptedException {
        var system = System.getProperty("os.name").toLowerCase(Locale.ROOT);
        var program = system.startsWith("windows") ? "explorer" : system.startsWith("mac") ? "open" : "xdg-open";
        try {
            var process = new ProcessBuilder(List.of(program, folder.toString()))
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                    .start();
            // Windows' program answers 1 even when it showed the folder; one that still runs after a moment has shown
            // it.
            if (process.waitFor(5, TimeUnit.SECONDS) && process.exitValue() != 0 && !system.startsWith("windows")) {
                throw none(folder);
            }
            return folder;
        } catch (ProblemException e) {
            throw e;
        } catch (IOException e) {
            throw none(folder);
        }
    }

    private static ProblemException none(Path folder) {
        return new ProblemException(Problem.note(
                folder.toString(),
                "This computer has no program that shows folders",
                "The files are there; look at them with a program of your own"));
    }
}
