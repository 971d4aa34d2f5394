package app.custodex.readers.pellow;

import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import app.custodex.model.ThingKind;
import app.custodex.readers.NamedReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import app.custodex.readers.Store;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.time.DateTimeException;
import java.util.List;
import java.util.Set;

/** Reads a list that the phone keeps as JSON (RFC 8259), entry by entry; what stands in front of damage is read. */
abstract class ListReader extends NamedReader {
    private static final String ADVICE = "What could be read is shown; look into an older layer for the rest";

    private final PhonePath path;

    ListReader(String name, PhonePath path, ThingKind kind) {
        super(name, Set.of(kind));
        this.path = path;
    }

    @Override
    public List<Store> stores(FileSource files) throws IOException {
        return files.has(path) ? List.of(Store.of(path)) : List.of();
    }

    @Override
    public final void read(Store store, PhoneFiles phone, Sink sink) throws IOException {
        int number = 0;
        try (var in = phone.open(path);
                var entries = Json.LINE.readerFor(JsonNode.class).<JsonNode>readValues(in)) {
            while (entries.hasNextValue()) {
                var entry = entries.nextValue();
                number++;
                try {
                    entry(entry, number, phone, sink);
                } catch (DateTimeException strange) {
                    sink.problem(Problem.loss(path.text(), "A time in entry " + number + " is none", ADVICE));
                }
            }
        } catch (JsonProcessingException e) {
            sink.problem(Problem.loss(path.text(), "It can't be understood behind entry " + number, ADVICE));
        }
    }

    /**
     * Reads one entry.
     *
     * @param number from 1
     */
    abstract void entry(JsonNode entry, int number, PhoneFiles phone, Sink sink) throws IOException;

    static String text(JsonNode entry, String name) {
        return entry.path(name).asText("");
    }
}
