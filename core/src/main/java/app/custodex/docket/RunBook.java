package app.custodex.docket;

import app.custodex.base.Disk;
import app.custodex.base.Json;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** Every backup that was ever started here, one JSON line each, in the order in which they ended. */
public final class RunBook {
    private final Path file;
    private final Disk disk;
    private final List<Run> runs = new ArrayList<>();

    private RunBook(Path file, Disk disk) {
        this.file = file;
        this.disk = disk;
    }

    /** @throws IOException when the file can't be read; a torn line is passed over */
    public static RunBook open(Path file, Disk disk) throws IOException {
        var book = new RunBook(file, disk);
        if (Files.exists(file)) {
            for (var line : Files.readAllLines(file)) {
                try {
                    book.runs.add(Json.LINE.readValue(line, Run.class));
                } catch (IOException torn) {
                    // The line was being written when the computer went down; its layer says all the same.
                }
            }
        }
        return book;
    }

    public synchronized void add(Run run) throws IOException {
        runs.add(run);
        try (var out = disk.append(file)) {
            out.write(ByteBuffer.wrap((Json.LINE.writeValueAsString(run) + "\n").getBytes(StandardCharsets.UTF_8)));
            out.sync();
        }
    }

    /** The newest first. */
    public synchronized List<Run> all() {
        return List.copyOf(runs).reversed();
    }

    /** The newest first. */
    public synchronized List<Run> of(int docket) {
        return all().stream()
                .filter(run -> run.docket().equals(Optional.of(docket)))
                .toList();
    }

    /** When the docket's last run ended. */
    public synchronized Optional<Instant> last(int docket) {
        return of(docket).stream().map(Run::ended).max(Comparator.naturalOrder());
    }
}
