package app.custodex.strongroom;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import java.io.ByteArrayInputStream;
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
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;

/** A published layer: the state of the phone as it was, whatever layer the bytes were first stored in. */
public final class StoredLayer implements FileSource {
    private final Path object;
    private final Inventory inventory;
    private final LayerRecord record;
    private final Map<String, FileChannel> open = new ConcurrentHashMap<>();
    private Optional<TreeMap<PhonePath, ManifestItem>> index = Optional.empty();

    StoredLayer(Path object, Inventory inventory, LayerRecord record) {
        this.object = object;
        this.inventory = inventory;
        this.record = record;
    }

    public LayerRecord record() {
        return record;
    }

    /** Goes through the manifest without keeping it. */
    public void forEach(Consumer<ManifestItem> action) throws IOException {
        try (var in = Files.newInputStream(contentFile(Manifest.NAME))) {
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

    private synchronized TreeMap<PhonePath, ManifestItem> index() throws IOException {
        if (index.isEmpty()) {
            var items = new TreeMap<PhonePath, ManifestItem>();
            forEach(item -> items.put(item.path(), item));
            index = Optional.of(items);
        }
        return index.get();
    }

    Map<String, String> contentDigests() {
        return inventory.digests(record.number());
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
        return Optional.ofNullable(index().get(path));
    }

    @Override
    public boolean has(PhonePath path) throws IOException {
        return find(path).filter(ManifestItem::saved).isPresent();
    }

    @Override
    public List<PhonePath> in(PhonePath folder) throws IOException {
        return index().tailMap(folder, true).values().stream()
                .takeWhile(item -> item.path().text().startsWith(folder.text()))
                .filter(item -> item.saved() && item.path().in(folder))
                .map(ManifestItem::path)
                .toList();
    }

    @Override
    public InputStream open(PhonePath path) throws IOException {
        var item = find(path)
                .orElseThrow(() -> new ProblemException(
                        Problem.failure(path.text(), "It is not in this layer", "Look into another layer")));
        var place = item.place()
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        path.text(),
                        "It was not saved in this layer",
                        item.problem().map(Problem::what).orElse("Look into another layer"))));
        if (item.size() <= LayerDraft.PACKED_UP_TO) {
            return new ByteArrayInputStream(bytes(item, place));
        }
        var in = Files.newInputStream(contentFile(place.content()));
        in.skipNBytes(place.offset());
        return in;
    }

    private byte[] bytes(ManifestItem item, ManifestItem.Place place) throws IOException {
        var channel = channel(place.content());
        var buffer = ByteBuffer.allocate((int) item.size());
        while (buffer.hasRemaining()) {
            if (channel.read(buffer, place.offset() + buffer.position()) < 0) {
                throw new ProblemException(
                        Problem.failure(item.path().text(), "Its stored copy ends too early", "Check the layer"));
            }
        }
        return buffer.array();
    }

    private FileChannel channel(String content) throws IOException {
        var there = open.get(content);
        if (there != null) {
            return there;
        }
        var file = contentFile(content);
        try {
            var opened = FileChannel.open(file);
            var first = open.putIfAbsent(content, opened);
            if (first != null) {
                opened.close();
                return first;
            }
            return opened;
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.failure(content, "This stored file can't be opened", "Check the layer"), e);
        }
    }

    @Override
    public void close() throws IOException {
        for (var channel : open.values()) {
            channel.close();
        }
        open.clear();
    }
}
