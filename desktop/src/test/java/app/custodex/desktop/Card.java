package app.custodex.desktop;

import app.custodex.exchange.ThingLines;
import app.custodex.model.Thing;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;

/** A memory card with things in a file, which may be written anew. */
public record Card(Path folder) {
    /** @param day when it was written, so that a later state of the same size is told from it */
    public void write(int day, List<Thing> things) throws IOException {
        Files.createDirectories(folder);
        var lines = new ArrayList<String>();
        lines.add(ThingLines.head("Card", "Europe/Oslo"));
        for (var thing : things) {
            lines.add(ThingLines.line(thing));
        }
        lines.add(ThingLines.end(things.size()));
        var file = Files.write(folder.resolve("things.jsonl"), lines);
        Files.setLastModifiedTime(
                file, FileTime.from(Instant.parse("2025-11-01T08:00:00Z").plusSeconds(86_400L * day)));
    }
}
