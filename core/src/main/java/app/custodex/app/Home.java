package app.custodex.app;

import app.custodex.base.RealDisk;
import app.custodex.drawer.PracticeDrawer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/** The folder in which one Custodex keeps everything. */
public record Home(Path root) {
    /** Where the strongroom is unless the shop has put it elsewhere. */
    public Path strongroom() {
        return root.resolve("strongroom");
    }

    public Path dockets() {
        return root.resolve("dockets");
    }

    /** Where practice phones live. */
    public Path practice() {
        return root.resolve("practice");
    }

    /** Folders of users of this computer: the real one, and in a demo the simulated one. */
    public List<Path> users() {
        return List.of(Path.of(System.getProperty("user.home")), practice().resolve(PracticeDrawer.COMPUTER));
    }

    /** Databases are put here while they are read. */
    public Path reading() {
        return root.resolve("reading");
    }

    /** Phones and other sources that were added to the bench. */
    public Path sources() {
        return root.resolve("sources");
    }

    /** Outlines and named places that the shop adds to the map, as GeoJSON. */
    public Path maps() {
        return root.resolve("maps");
    }

    /** What the shop has settled. */
    public Path settings() {
        return root.resolve("settings.json");
    }

    /** What is remembered of strongrooms. */
    Path remembered() {
        return root.resolve("remembered.json");
    }

    /** Marks a home that holds nothing but a demo, which may be thrown away. */
    public Path demoMark() {
        return root.resolve("demo-home");
    }

    /** Marks a home that is new as a demo's; one that held anything before is never thrown away. */
    public void markAsDemoIfNew() throws IOException {
        if (!Files.exists(root)) {
            new RealDisk().createFolders(root);
            Files.writeString(demoMark(), "Everything in this folder belongs to a demo and may be thrown away.\n");
        }
    }

    /** The list of what was written outside of the strongroom. */
    public Path handOuts() {
        return root.resolve("handed-out.jsonl");
    }

    /** Into which files are written unless another folder is chosen. */
    public Path handedOut() {
        return root.resolve("handed out");
    }

    /** The result list of all backups. */
    public Path runs() {
        return root.resolve("runs.jsonl");
    }

    /** When the curtain was lifted, for whom and by whom. */
    public Path curtain() {
        return root.resolve("curtain.jsonl");
    }

    /** What has been picked in each layer. */
    Path trays() {
        return root.resolve("trays");
    }

    /** The folder for programs' data of this user, by the custom of the system. */
    public static Path userData(Map<String, String> environment, String system, Path userHome) {
        var os = system.toLowerCase(Locale.ROOT);
        if (os.startsWith("windows") && environment.containsKey("APPDATA")) {
            return Path.of(environment.get("APPDATA"));
        }
        if (os.startsWith("mac")) {
            return userHome.resolve("Library").resolve("Application Support");
        }
        // XDG Base Directory Specification, "$XDG_DATA_HOME"
        var xdg = environment.getOrDefault("XDG_DATA_HOME", "");
        return xdg.isEmpty() ? userHome.resolve(".local").resolve("share") : Path.of(xdg);
    }
}
