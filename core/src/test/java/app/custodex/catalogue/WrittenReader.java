package app.custodex.catalogue;

import app.custodex.base.CancelToken;
import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.link.Family;
import app.custodex.link.FileSource;
import app.custodex.link.Kind;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhonePath;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import app.custodex.readers.Sink;
import app.custodex.readers.Store;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/** A reader of things that a test wrote down, store by store, and a phone that has such stores. */
public final class WrittenReader implements Reader, FileSource {
    private final Map<String, List<Thing>> stores = new TreeMap<>();
    private final Map<String, Integer> versions = new TreeMap<>();
    private final List<String> read = new ArrayList<>();
    private final Path folder;

    public WrittenReader(Path folder) {
        this.folder = folder;
    }

    /** Puts things into a store, which has another version then. */
    public void write(String store, Thing... things) {
        stores.put(store, List.of(things));
        versions.merge(store, 1, Integer::sum);
    }

    void remove(String store) {
        stores.remove(store);
    }

    /** The stores that were read since the last time that this was asked. */
    List<String> read() {
        var names = List.copyOf(read);
        read.clear();
        return names;
    }

    public Catalogue catalogue(Optional<byte[]> below, int layer) throws IOException {
        try (var draft = draft(below, layer)) {
            return draft.handOver();
        }
    }

    CatalogueDraft draft(Optional<byte[]> below, int layer) throws IOException {
        var draft = CatalogueDraft.inMemory(below);
        build(draft, layer, new CancelToken());
        return draft;
    }

    void build(CatalogueDraft draft, CancelToken cancel) throws IOException {
        build(draft, 1, cancel);
    }

    private void build(CatalogueDraft draft, int layer, CancelToken cancel) throws IOException {
        build(draft, layer, List.of(this), n -> {}, cancel);
    }

    void build(CatalogueDraft draft, int layer, List<Reader> readers, Growth growth, CancelToken cancel)
            throws IOException {
        var identity = new PhoneIdentity(
                "phone", "n", Family.OSTREL, "m", "s", "i", "sys", "GB", ZoneId.of("Etc/GMT-1"), 1, 1);
        try (var place = PrivatePlace.open(folder.resolve("reading"));
                var phone = new PhoneFiles(this, identity, place)) {
            draft.build(CatalogueHead.of("phone", layer, "GB"), phone, readers, growth, cancel);
        }
    }

    @Override
    public String name() {
        return "written";
    }

    @Override
    public Set<ThingKind> kinds() {
        return EnumSet.allOf(ThingKind.class);
    }

    @Override
    public List<Store> stores(FileSource files) {
        return stores.keySet().stream()
                .map(name -> Store.of(new PhonePath(name)))
                .toList();
    }

    @Override
    public void read(Store store, PhoneFiles phone, Sink sink) throws IOException {
        synchronized (read) {
            read.add(store.name());
        }
        for (var thing : stores.getOrDefault(store.name(), List.of())) {
            sink.thing(thing);
        }
        if (store.name().equals("torn")) {
            sink.problem(Problem.loss("torn", "Part of it could not be read", "Look into an older layer"));
        }
    }

    @Override
    public boolean has(PhonePath path) {
        return stores.containsKey(path.text());
    }

    @Override
    public List<PhonePath> in(PhonePath within) {
        return List.of();
    }

    @Override
    public List<PhonePath> of(Kind kind) {
        return List.of();
    }

    @Override
    public Facts facts(PhonePath path) {
        return new Facts(1, Instant.EPOCH, "version " + versions.get(path.text()));
    }

    @Override
    public InputStream open(PhonePath path) throws IOException {
        throw new IOException(Arrays.asList(path).toString());
    }

    @Override
    public void close() {
        // It holds nothing.
    }
}
