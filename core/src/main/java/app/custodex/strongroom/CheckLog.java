package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.JsonLog;
import app.custodex.base.Problem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Remembers the checks of every layer, one JSON line each, outside the layers, which never change. */
public final class CheckLog {
    private final Path folder;
    private final Disk disk;

    CheckLog(Path folder, Disk disk) {
        this.folder = folder;
        this.disk = disk;
    }

    private JsonLog<CheckReport> log(String phoneIdentifier) {
        return new JsonLog<>(folder.resolve(StorageRoot.hash(phoneIdentifier) + ".jsonl"), disk, CheckReport.class);
    }

    public void add(String phoneIdentifier, CheckReport report) throws IOException {
        log(phoneIdentifier).append(report);
    }

    /** The last check of a layer; empty when it was never checked. */
    public Optional<CheckReport> last(String phoneIdentifier, int layer) throws IOException {
        return Optional.ofNullable(lasts(phoneIdentifier).get(layer));
    }

    /** The last check of each layer of a phone that was ever checked. */
    public Map<Integer, CheckReport> lasts(String phoneIdentifier) throws IOException {
        var last = new HashMap<Integer, CheckReport>();
        log(phoneIdentifier).read().entries().forEach(report -> last.put(report.layer(), report));
        return last;
    }

    /** Lines of the lists of checks that can't be read. */
    List<Problem> problems() throws IOException {
        var problems = new ArrayList<Problem>();
        if (Files.isDirectory(folder)) {
            try (var files = Files.newDirectoryStream(folder, "*.jsonl")) {
                for (var file : files) {
                    new JsonLog<>(file, disk, CheckReport.class)
                            .read()
                            .problem("checks/" + file.getFileName())
                            .ifPresent(problems::add);
                }
            }
        }
        return problems;
    }
}
