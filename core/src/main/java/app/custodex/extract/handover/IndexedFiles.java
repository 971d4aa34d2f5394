package app.custodex.extract.handover;

import app.custodex.base.Json;
import app.custodex.extract.Clean;
import app.custodex.extract.Material;
import app.custodex.extract.Spool;
import app.custodex.extract.WrittenFile;
import app.custodex.extract.WrittenFiles;
import app.custodex.model.KindGroup;
import app.custodex.model.Moment;
import app.custodex.model.Thing;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;

/** Files of a package, and an index by which things are found in them. */
final class IndexedFiles extends WrittenFiles implements Closeable {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm", Locale.ROOT);

    private final Spool lines = new Spool();
    /** By the number of a file, in the order in which files were begun; empty for what is not there. */
    private final List<Optional<Path>> begun = new ArrayList<>();

    private final Deque<Integer> open = new ArrayDeque<>();
    private final Material material;
    private int things;

    IndexedFiles(Material material) {
        this.material = material;
    }

    /** A line each: the number of its file, its group, its time, what it says. */
    @Override
    public void thing(Thing thing, Function<Thing, List<String>> said) {
        int file = open.isEmpty() ? begun.size() : open.element();
        var line = List.of(
                file,
                KindGroup.of(thing.kind()).label(),
                thing.moment().map(this::time).orElse(""),
                Clean.line(String.join(" · ", said.apply(thing))));
        try {
            // "<" could end the script in which the index stands.
            var json = Json.LINE.writeValueAsString(line).replace("<", "\\u003c");
            lines.write(((things++ == 0 ? "" : ",\n") + json).getBytes(StandardCharsets.UTF_8));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private String time(Moment at) {
        var zone = material.zone();
        return TIME.format(LocalDateTime.ofInstant(at.instant(zone), zone));
    }

    @Override
    public void begin() {
        open.push(begun.size());
        begun.add(Optional.empty());
    }

    @Override
    public void complete(WrittenFile written) {
        super.complete(written);
        begun.set(open.pop(), Optional.of(written.file()));
    }

    @Override
    public void fail() {
        open.pop();
    }

    /** Where files are, by their numbers. */
    List<Optional<Path>> places() {
        return List.copyOf(begun);
    }

    /** The lines of the index, with commas between. */
    InputStream lines() throws IOException {
        return lines.content();
    }

    @Override
    public void close() throws IOException {
        lines.close();
    }
}
