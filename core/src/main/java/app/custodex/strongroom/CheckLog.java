package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.Json;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
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
        Optional<CheckReport> last = Optional.empty();
        var file = file(phoneIdentifier);
        if (!Files.exists(file)) {
            return last;
        }
        for (var line : Files.readAllLines(file)) {
            try {
                var report = Json.LINE.readValue(line, CheckReport.class);
                if (report.layer() == layer) {
                    last = Optional.of(report);
                }
            } catch (IOException torn) {
                // A line that was cut while it was written says nothing; the others stand.
            }
        }
        return last;
    }
}
