package app.custodex.docket;

import app.custodex.base.Disk;
import app.custodex.base.JsonLog;
import app.custodex.base.Problem;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;

/**
 * Everything that was ever written outside of the strongroom, so that it can be found again when a docket is closed. Several programs may
 * add to it; who asks sees what is there at that moment.
 */
public final class HandOutBook {
    /** Files of one line; a line must not grow without end. */
    private static final int FILES = 1_000;

    private final JsonLog<HandOut> log;

    public HandOutBook(Path file, Disk disk) {
        log = new JsonLog<>(file, disk, HandOut.class);
    }

    /** Notes that files will be written; it is on the medium when this returns. */
    public HandOut begin(Optional<Integer> docket, String phone, Instant at, Path folder) throws IOException {
        var begun = new HandOut(
                docket, phone, at, folder.toAbsolutePath().normalize().toString(), false, List.of());
        log.append(begun);
        return begun;
    }

    /** Notes the files that are complete, all that there will be. */
    public void end(HandOut begun, List<HandOut.File> files) throws IOException {
        int from = 0;
        do {
            int until = Math.min(files.size(), from + FILES);
            log.append(new HandOut(
                    begun.docket(),
                    begun.phone(),
                    begun.at(),
                    begun.folder(),
                    until == files.size(),
                    files.subList(from, until)));
            from = until;
        } while (from < files.size());
    }

    private record Key(String phone, Instant at, String folder) {}

    /** The newest first, each in one. */
    public List<HandOut> all() throws IOException {
        var found = new LinkedHashMap<Key, HandOut>();
        for (var line : log.read().entries()) {
            found.merge(new Key(line.phone(), line.at(), line.folder()), line, HandOut::and);
        }
        return List.copyOf(found.sequencedValues().reversed());
    }

    /** What was handed out on a docket, the newest first. */
    public List<HandOut> of(int docket) throws IOException {
        return all().stream()
                .filter(each -> each.docket().equals(Optional.of(docket)))
                .toList();
    }

    /** Lines that can't be read. */
    public List<Problem> problems() throws IOException {
        return log.read().problem("The list of what was handed out").stream().toList();
    }
}
