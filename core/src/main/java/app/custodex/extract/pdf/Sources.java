package app.custodex.extract.pdf;

import app.custodex.base.Digests;
import app.custodex.extract.Batch;
import app.custodex.extract.Clean;
import app.custodex.extract.OutFolder;
import app.custodex.extract.UnreadableException;
import app.custodex.model.Thing;
import java.io.IOException;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SequencedMap;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.UnaryOperator;

/** The items of a phone from which things were read, with the digests that they have now. */
public final class Sources {
    private final Batch batch;
    private final Set<String> items = new TreeSet<>();
    /** Large stores are read once, however many documents name them. */
    private final Map<String, Optional<String>> known;

    public Sources(Batch batch) {
        this(batch, new HashMap<>());
    }

    private Sources(Batch batch, Map<String, Optional<String>> known) {
        this.batch = batch;
        this.known = known;
    }

    /** Those of a document of its own; what this one has read need not be read again. */
    public Sources ofDocument(Batch part) {
        return new Sources(part, known);
    }

    /** Notes from where a thing was read. */
    public void add(Thing thing) {
        items.add(thing.id().item());
    }

    /** The items that were noted, and their SHA-512 digests; empty for what can't be read, which is told. */
    public SequencedMap<String, Optional<String>> read() throws IOException {
        var digests = new LinkedHashMap<String, Optional<String>>();
        for (var item : items) {
            digests.put(item, digest(item));
        }
        return digests;
    }

    /** Reads an item, and compares it with what its layer says of it. */
    public Optional<String> digest(String item) throws IOException {
        var before = known.get(item);
        if (before != null) {
            return before;
        }
        var found = readNow(item);
        known.put(item, found);
        return found;
    }

    private Optional<String> readNow(String item) throws IOException {
        try (var content = batch.material().open(item)) {
            var found = Digests.of(content);
            batch.compare(item, found);
            return Optional.of(found);
        } catch (UnreadableException e) {
            batch.unreadable(item, "so it has no digest");
            return Optional.empty();
        }
    }

    /**
     * Writes digests as sha512sum checks them; those of the sources as remarks, since these lie in the layer.
     *
     * @param open gives a text without what was blacked out
     */
    public void writeBeside(OutFolder out, String title, List<Volumes.Written> written, UnaryOperator<String> open)
            throws IOException {
        out.text(title + ", digests", ".sha512", text -> {
            for (var volume : written) {
                text.write(volume.sha512() + "  " + out.relative(volume.file()) + "\n");
            }
            for (var source : read().entrySet()) {
                text.write("# source " + source.getValue().orElse("(can't be read)") + "  "
                        + Clean.line(open.apply(source.getKey())) + "\n");
            }
        });
    }
}
