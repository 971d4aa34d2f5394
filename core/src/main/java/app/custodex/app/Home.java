package app.custodex.app;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;

/** The folder in which one Custodex keeps everything. */
public record Home(Path root) {
    private static final String ADDRESS_ENDING = ".address";

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

    /** Databases are put here while they are read. */
    public Path reading() {
        return root.resolve("reading");
    }

    private Path phones() {
        return root.resolve("phones");
    }

    /** Remembers where a phone answers when it is plugged in. */
    public void rememberAddress(String name, URI address) throws IOException {
        Files.createDirectories(phones());
        Files.writeString(phones().resolve(name + ADDRESS_ENDING), address + "\n");
    }

    /** Where phones may answer, by the names under which they were remembered. */
    public Map<String, URI> addresses() throws IOException {
        var addresses = new TreeMap<String, URI>();
        if (Files.isDirectory(phones())) {
            try (var files = Files.newDirectoryStream(phones(), "*" + ADDRESS_ENDING)) {
                for (var file : files) {
                    addresses.put(
                            file.getFileName().toString().replace(ADDRESS_ENDING, ""),
                            URI.create(Files.readString(file).strip()));
                }
            }
        }
        return addresses;
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
