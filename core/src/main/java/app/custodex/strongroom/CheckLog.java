package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.Json;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
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

    private Path file(String phoneIdentifier) {
        return folder.resolve(StorageRoot.hash(phoneIdentifier) + ".jsonl");
    }

    public void add(String phoneIdentifier, CheckReport report) throws IOException {
        disk.createFolders(folder);
        try (var out = disk.append(file(phoneIdentifier))) {
            out.write(ByteBuffer.wrap((Json.LINE.writeValueAsString(report) + "\n").getBytes(StandardCharsets.UTF_8)));
            out.sync();
        }
    }

    /** The last check of a layer; empty when it was never checked. */
    public Optional<CheckReport> last(String phoneIdentifier, int layer) throws IOException {
        return Optional.ofNullable(lasts(phoneIdentifier).get(layer));
    }

    /** The last check of each layer of a phone that was ever checked. */
    public Map<Integer, CheckReport> lasts(String phoneIdentifier) throws IOException {
        var last = new HashMap<Integer, CheckReport>();
        var file = file(phoneIdentifier);
        if (!Files.exists(file)) {
            return last;
        }
        try (var lines = Files.lines(file)) {
            lines.forEach(line -> {
                try {
                    var report = Json.LINE.readValue(line, CheckReport.class);
                    last.put(report.layer(), report);
                } catch (IOException torn) {
                    // A line that was cut while it was written says nothing; the others stand.
                }
            });
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
        return last;
    }
}
