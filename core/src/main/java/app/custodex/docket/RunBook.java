package app.custodex.docket;

import app.custodex.base.Disk;
import app.custodex.base.JsonLog;
import app.custodex.base.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Every backup that was ever started here, one JSON line each, in the order in which they ended. Several programs may add to it; who
 * asks sees what is there at that moment.
 */
public final class RunBook {
    private final Path file;
    private final JsonLog<Run> log;
    private JsonLog.Read<Run> last = new JsonLog.Read<>(List.of(), List.of());
    private long readSize = -1;

    private RunBook(Path file, Disk disk) {
        this.file = file;
        this.log = new JsonLog<>(file, disk, Run.class);
    }

    /** @throws IOException when the file can't be read; a torn line is a problem, see {@link #problems} */
    public static RunBook open(Path file, Disk disk) throws IOException {
        var book = new RunBook(file, disk);
        book.look();
        return book;
    }

    private synchronized JsonLog.Read<Run> look() throws IOException {
        long size = Files.exists(file) ? Files.size(file) : 0;
        if (size != readSize) { // it only grows
            last = log.read();
            readSize = size;
        }
        return last;
    }

    public void add(Run run) throws IOException {
        log.append(run);
    }

    /** Lines that can't be read. */
    public List<Problem> problems() throws IOException {
        return look().problem("The result list").stream().toList();
    }

    /** The newest first. */
    public List<Run> all() throws IOException {
        return look().entries().reversed();
    }

    /** The newest first. */
    public List<Run> of(int docket) throws IOException {
        return all().stream()
                .filter(run -> run.docket().equals(Optional.of(docket)))
                .toList();
    }

    /** When the docket's last run ended. */
    public Optional<Instant> last(int docket) throws IOException {
        return of(docket).stream().map(Run::ended).max(Comparator.naturalOrder());
    }
}
