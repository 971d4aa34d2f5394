package app.custodex.app;

import app.custodex.base.Disk;
import app.custodex.base.FileLease;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** What this Custodex remembers of strongrooms: which stacks each holds, and which of them are sealed. */
final class StrongroomMemory {
    /** @param strongrooms by their ids: the names of their stacks, and whether each is sealed */
    private record Remembered(Map<String, Map<String, Boolean>> strongrooms) {
        private Remembered {
            strongrooms = strongrooms == null ? Map.of() : Map.copyOf(strongrooms);
        }
    }

    private final Path file;
    private final Disk disk;

    StrongroomMemory(Path file, Disk disk) {
        this.file = file;
        this.disk = disk;
    }

    private Optional<Remembered> read() {
        try {
            return Files.exists(file)
                    ? Optional.of(Json.PAGE.readValue(file.toFile(), Remembered.class))
                    : Optional.of(new Remembered(Map.of()));
        } catch (IOException | RuntimeException damaged) {
            return Optional.empty();
        }
    }

    Map<String, Boolean> stacks(String id) {
        return read().map(Remembered::strongrooms).map(all -> all.get(id)).orElse(Map.of());
    }

    /** What is wrong with it, if anything. */
    Optional<Problem> problem() {
        return read().isPresent()
                ? Optional.empty()
                : Optional.of(Problem.loss(
                        file.getFileName().toString(),
                        "What was remembered of the strongroom can't be read",
                        "Check the strongroom; it is remembered anew from what lies there"));
    }

    /** Writes down what a strongroom holds now, unless that is known. */
    void remember(Strongroom strongroom) throws IOException {
        var id = strongroom.identity().id();
        var now = strongroom.stacks();
        if (stacks(id).equals(now) && read().isPresent()) {
            return;
        }
        disk.createFolders(Disk.parent(file));
        try (var lease = FileLease.awaitAlone(file.resolveSibling(file.getFileName() + ".lock"))) {
            var all = new HashMap<>(read().map(Remembered::strongrooms).orElse(Map.of()));
            var stacks = new TreeMap<>(all.getOrDefault(id, Map.of()));
            stacks.putAll(now);
            all.put(id, stacks);
            disk.replace(file, Json.PAGE.writeValueAsBytes(new Remembered(all)));
        }
    }
}
