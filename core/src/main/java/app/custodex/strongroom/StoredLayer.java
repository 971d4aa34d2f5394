package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.FileSource;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.seal.StackKey;
import java.io.ByteArrayInputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.stream.Collectors;

/** A published layer: the state of the phone as it was, whatever layer the bytes were first stored in. */
public final class StoredLayer implements FileSource {
    private final Path object;
    private final Inventory inventory;
    private final LayerRecord record;
    private final Stack stack;
    private final Closeable lease;
    private final boolean sealed;
    private final OpenContents open = new OpenContents(this::opened);
    private Optional<Index> index = Optional.empty();

    /**
     * What is in the layer.
     *
     * @param files that were saved
     */
    private record Index(TreeMap<PhonePath, ManifestItem> items, Map<Kind, List<PhonePath>> files) {
        static Index of(TreeMap<PhonePath, ManifestItem> items) {
            var files = items.values().stream()
                    .filter(item -> item.saved() && item.type() == ManifestItem.Type.FILE)
                    .collect(Collectors.groupingBy(
                            ManifestItem::kind, Collectors.mapping(ManifestItem::path, Collectors.toList())));
            files.replaceAll((kind, paths) -> List.copyOf(paths));
            return new Index(items, files);
        }
    }

    /** @param lease is closed with the layer */
    StoredLayer(Stack stack, Inventory inventory, LayerRecord record, Closeable lease) {
        this.object = stack.object().root();
        this.inventory = inventory;
        this.record = record;
        this.stack = stack;
        this.lease = lease;
        this.sealed = stack.sealed();
    }

    /** The key of the stack, for what is kept about a sealed layer elsewhere; empty when it is not sealed or not opened. */
    public Optional<StackKey> key() {
        return stack.key();
    }

    /** Whether the items can be read now; a sealed stack has to be opened with its passphrase first. */
    public boolean readable() {
        return stack.open();
    }

    public LayerRecord record() {
        return record;
    }

    /** Goes through the manifest without keeping it. */
    public void forEach(Consumer<ManifestItem> action) throws IOException {
        stack.requireOpen(record.phone().name());
        try (var in = stream(contentFile(stack.stored(Manifest.NAME)))) {
            Manifest.read(in, action);
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.failure(
                            "The list of items of layer " + record.number(),
                            "It can't be read in full",
                            "Check the layer; a layer above or below may still be whole"),
                    e);
        }
    }

    private InputStream stream(Path file) throws IOException {
        return stack.key().isPresent() ? stack.key().get().decrypting(file) : Files.newInputStream(file);
    }

    private synchronized Index index() throws IOException {
        if (index.isEmpty()) {
            var items = new TreeMap<PhonePath, ManifestItem>();
            forEach(item -> items.put(item.path(), item));
            index = Optional.of(Index.of(items));
        }
        return index.get();
    }

    Map<String, String> contentDigests() {
        return inventory.digests(record.number());
    }

    /** What is wrong with this layer's own copy of the inventory, if anything. */
    Optional<String> inventoryDamage() {
        return Inventory.whole(stack.object().version(record.number())).isPresent()
                ? Optional.empty()
                : Optional.of("This layer's copy of the inventory is damaged; the others say the same");
    }

    /** Where a logical path of this layer lies on this computer. */
    Path contentFile(String logical) throws IOException {
        var path = inventory
                .contentPath(record.number(), logical)
                .orElseThrow(() -> new ProblemException(
                        Problem.failure(logical, "The layer doesn't list this stored file", "Check the layer")));
        var file = object.resolve(path).normalize();
        if (!file.startsWith(object)) {
            throw new ProblemException(Problem.failure(
                    logical, "The layer's inventory points out of the strongroom", "Don't trust this copy; check it"));
        }
        return file;
    }

    public Optional<ManifestItem> find(PhonePath path) throws IOException {
        return Optional.ofNullable(index().items().get(path));
    }

    @Override
    public boolean has(PhonePath path) throws IOException {
        return find(path).filter(ManifestItem::saved).isPresent();
    }

    @Override
    public List<PhonePath> in(PhonePath folder) throws IOException {
        return index().items().tailMap(folder, true).values().stream()
                .takeWhile(item -> item.path().text().startsWith(folder.text()))
                .filter(item -> item.saved() && item.path().in(folder))
                .map(ManifestItem::path)
                .toList();
    }

    @Override
    public List<PhonePath> of(Kind kind) throws IOException {
        return index().files().getOrDefault(kind, List.of());
    }

    private ManifestItem item(PhonePath path) throws IOException {
        return find(path)
                .orElseThrow(() -> new ProblemException(
                        Problem.failure(path.text(), "It is not in this layer", "Look into another layer")));
    }

    @Override
    public Facts facts(PhonePath path) throws IOException {
        var item = item(path);
        return new Facts(item.size(), item.modified(), item.digest());
    }

    @Override
    public InputStream open(PhonePath path) throws IOException {
        var item = item(path);
        var place = item.place()
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        path.text(),
                        "It was not saved in this layer",
                        item.problem().map(Problem::what).orElse("Look into another layer"))));
        if (sealed) { // else each stored file is asked about once, when it is opened
            stack.requireOpen(record.phone().name());
        }
        return item.size() <= LayerDraft.PACKED_UP_TO ? new ByteArrayInputStream(bytes(item, place)) : alone(place);
    }

    /** What has a stored file of its own. */
    private InputStream alone(ManifestItem.Place place) throws IOException {
        stack.requireOpen(record.phone().name());
        return stream(contentFile(place.content()));
    }

    /** Whether an item's stored bytes are those that were copied. */
    boolean whole(ManifestItem item) {
        try (var in = open(item.path())) {
            return Digests.of(in).equals(item.digest());
        } catch (IOException e) {
            return false;
        }
    }

    private byte[] bytes(ManifestItem item, ManifestItem.Place place) throws IOException {
        var buffer = ByteBuffer.allocate((int) item.size());
        try (var content = open.get(place.content())) {
            while (buffer.hasRemaining()) {
                if (content.read(buffer, place.offset() + buffer.position()) < 0) {
                    throw new ProblemException(
                            Problem.failure(item.path().text(), "Its stored copy ends too early", "Check the layer"));
                }
            }
        }
        return buffer.array();
    }

    private OpenContents.Content opened(String name) throws IOException {
        stack.requireOpen(record.phone().name());
        var file = contentFile(name);
        try {
            if (stack.key().isPresent()) {
                var age = stack.key().get().seekable(file);
                return OpenContents.Content.of(age::read, age);
            }
            var channel = FileChannel.open(file);
            return OpenContents.Content.of(channel::read, channel);
        } catch (IOException e) {
            throw new ProblemException(Problem.failure(name, "This stored file can't be opened", "Check the layer"), e);
        }
    }

    @Override
    public void close() throws IOException {
        try (lease) {
            open.close();
        }
    }
}
