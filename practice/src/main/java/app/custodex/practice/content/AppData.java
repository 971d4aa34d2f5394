package app.custodex.practice.content;

import app.custodex.practice.island.Life;
import java.io.IOException;
import java.nio.file.Path;

/** What an app keeps for itself: a settings file and a log, in a form of its own. */
final class AppData {
    private AppData() {}

    /** The chat apps write their copies into folders that bear their names. */
    static String folder(Life.App app) {
        return app.identifier().startsWith("app.") ? app.identifier().substring("app.".length()) : app.identifier();
    }

    static void write(Path folder, Life life) throws IOException {
        Clips.text("{\"boats\":2,\"kettle\":true}\n", folder.resolve("settings.json"), life.until());
        Clips.text(
                "force nine, gusting\n".repeat(100 + life.owner().ordinal() * 20),
                folder.resolve("log/2025-11.txt"),
                life.until());
    }
}
