package app.custodex.practice.island;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.Objects;

/** Skerrow: the same seed gives the same three years. */
public final class Island {
    private final long seed;

    public Island(long seed) {
        this.seed = seed;
    }

    /** Puts its outline into a folder, as GeoJSON, unless it is there already. */
    public static void drawOutline(Path folder) throws IOException {
        var file = folder.resolve("skerrow.geojson");
        if (Files.exists(file)) {
            return;
        }
        Files.createDirectories(folder);
        try (var in = Objects.requireNonNull(Island.class.getResourceAsStream("skerrow.geojson"))) {
            Files.copy(in, file);
        }
    }

    /**
     * How much of it there is.
     *
     * @param messages about; 0 for as many as come by themselves
     * @param calls likewise
     * @param pictures likewise
     */
    public record Size(int messages, int calls, int pictures) {
        public static final Size ORDINARY = new Size(0, 0, 0);
    }

    /** What an islander's phone holds at some time. */
    public Life life(Islander owner, LocalDateTime until, Size size) {
        var written = new Conversations(seed, owner, 1).until(until);
        if (size.messages() > 0) {
            double scale = (double) size.messages() / written.said().size();
            written = new Conversations(seed, owner, scale).until(until);
        }
        var album = new Photographs(seed, owner, until, size.pictures());
        var days = new Days(seed, owner, until);
        return new Life(
                owner,
                until,
                written.talks(),
                written.said(),
                written.erased(),
                days.calls(size.calls()),
                days.voicemails(),
                days.events(),
                days.todos(),
                days.notes(),
                days.marks(),
                days.visits(),
                album.shots(),
                album.albums(),
                days.apps(),
                days.alarms());
    }
}
