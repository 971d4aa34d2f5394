package app.custodex.desktop.guide;

import app.custodex.app.Custodex;
import app.custodex.app.Settings;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.desktop.desk.Desk;
import app.custodex.media.MediaWorkers;
import app.custodex.strongroom.StoredPhone;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.stage.Screen;

/** What whoever mends the program has to know, without anything of a customer. */
record ProblemReport(String text) {
    /** Writes down how things stand; on the interface thread. */
    static ProblemReport of(Desk desk, Settings settings) {
        var holdings = desk.holdings().get();
        var layers = holdings.phones().stream()
                .mapToInt(phone -> phone.layers().size())
                .sum();
        long sealed = holdings.phones().stream()
                .filter(phone -> phone.seal() != StoredPhone.Seal.NONE)
                .count();
        var memory = Runtime.getRuntime();
        var lines = new ArrayList<String>();
        lines.addAll(List.of(
                Custodex.TOOL + ", " + desk.now(),
                "Java " + property("java.version") + " of " + property("java.vendor"),
                property("os.name") + " " + property("os.version") + ", " + property("os.arch"),
                "Language " + Locale.getDefault().toLanguageTag() + ", time zone "
                        + desk.words().zone(),
                "Screens "
                        + Screen.getScreens().stream().map(ProblemReport::size).toList(),
                "Processors " + memory.availableProcessors() + ", memory " + (memory.totalMemory() >> 20) + " of "
                        + (memory.maxMemory() >> 20) + " MiB",
                "",
                "Bays " + desk.bays().size() + ", phones in the strongroom "
                        + holdings.phones().size() + " (" + sealed + " sealed), layers " + layers + ", damaged files "
                        + holdings.problems().size(),
                "Checks " + settings.checks() + ", night " + settings.look().night() + ", size "
                        + settings.look().percent() + " %",
                "Media workers that died: " + MediaWorkers.shared().deaths(),
                "",
                "What went wrong lately (without its words, in which names may stand):"));
        var events = RecentEvents.all();
        lines.addAll(events.isEmpty() ? List.of("nothing") : events);
        return new ProblemReport(String.join("\n", lines) + "\n");
    }

    private static String property(String name) {
        return System.getProperty(name, "");
    }

    private static String size(Screen screen) {
        var bounds = screen.getBounds();
        return Math.round(bounds.getWidth()) + " x " + Math.round(bounds.getHeight()) + " at "
                + Math.round(100 * screen.getOutputScaleX()) + " %";
    }

    /** @throws ProblemException when there is such a file already, or it can't be written */
    void save(Path file) throws IOException {
        try {
            Files.writeString(
                    file, text, StandardCharsets.UTF_8, StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE);
        } catch (FileAlreadyExistsException e) {
            throw new ProblemException(Problem.failure(file.toString(), "It is there already", "Give another name"), e);
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.failure(file.toString(), "It can't be written there", "Choose a folder that is yours"), e);
        }
    }
}
