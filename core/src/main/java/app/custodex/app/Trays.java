package app.custodex.app;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.SafeNames;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.StoredLayer;
import app.custodex.twins.Merge;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Keeps what has been picked in each layer, and how contacts are to be merged, until it is taken out, also over a restart of the program. Of a sealed layer it is sealed
 * with the same key. Any thread may use it.
 */
public final class Trays {
    private static final String MERGES = "-merges";

    private final Path folder;
    private final Disk disk;
    private final ShopStrongroom strongroom;

    Trays(Path folder, Disk disk, ShopStrongroom strongroom) {
        this.folder = folder;
        this.disk = disk;
        this.strongroom = strongroom;
    }

    /** @param items the keys of the things that are picked, by the item that they were read from */
    private record Kept(int layer, Map<String, List<String>> items) {
        Kept {
            items = Map.copyOf(items); // throws when they are missing
        }
    }

    private record Merged(List<Merge> merges) {
        Merged {
            merges = List.copyOf(merges);
        }
    }

    /**
     * What is picked in a layer, by the numbers of its catalogue.
     *
     * @throws ProblemException when it can't be read; it was put aside then
     */
    public synchronized BitSet load(OpenPhone open) throws IOException {
        var numbers = new BitSet();
        if (open.layer().isEmpty()) {
            return numbers; // nothing of a phone that is read itself is kept
        }
        var kept = read(open.layer().get(), "", Kept.class, "The tray");
        if (kept.isPresent()) {
            for (var item : kept.get().items().entrySet()) {
                numbers.or(open.catalogue().numbers(item.getKey(), item.getValue()));
            }
        }
        return numbers;
    }

    /**
     * How contacts of a layer are to be written as one.
     *
     * @throws ProblemException when that can't be read; it was put aside then
     */
    public synchronized List<Merge> merges(OpenPhone open) throws IOException {
        return open.layer().isEmpty()
                ? List.of()
                : read(open.layer().get(), MERGES, Merged.class, "What was merged")
                        .map(Merged::merges)
                        .orElse(List.of());
    }

    /**
     * Keeps how contacts are to be written as one.
     *
     * @throws ProblemException when it can't be kept
     */
    public synchronized void saveMerges(OpenPhone open, List<Merge> merges) throws IOException {
        if (open.layer().isPresent()) {
            var layer = open.layer().get();
            write(
                    layer,
                    MERGES,
                    merges.isEmpty() ? Optional.empty() : Optional.of(new Merged(merges)),
                    "What was merged");
        }
    }

    private <T> Optional<T> read(LayerRecord layer, String what, Class<T> type, String called) throws IOException {
        var file = file(layer, what);
        if (!Files.exists(file)) {
            return Optional.empty();
        }
        try {
            return Optional.of(Json.LINE.readValue(bytes(layer, file), type));
        } catch (RuntimeException | IOException damaged) {
            disk.move(file, SafeNames.free(folder, "tray-damaged", ".json"));
            throw new ProblemException(
                    Problem.loss(
                            called + " of layer " + layer.number(),
                            "It can't be read, so it is empty; what was in it is still in the layer",
                            "Pick the things again"),
                    damaged);
        }
    }

    private void write(LayerRecord layer, String what, Optional<?> content, String called) throws IOException {
        try {
            var file = file(layer, what);
            if (content.isEmpty()) {
                disk.delete(file);
            } else {
                disk.createFolders(folder);
                disk.replace(file, sealed(layer, Json.LINE.writeValueAsBytes(content.get())));
            }
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.loss(
                            called + " of layer " + layer.number(),
                            "It can't be kept on the disk, so it is gone when the layer is closed",
                            "Check whether the disk is full or read-only"),
                    e);
        }
    }

    private byte[] bytes(LayerRecord layer, Path file) throws IOException {
        if (!layer.sealed()) {
            return Files.readAllBytes(file);
        }
        try (var stored = stored(layer);
                var in = stored.key().orElseThrow().decrypting(file)) {
            return in.readAllBytes();
        }
    }

    private StoredLayer stored(LayerRecord layer) throws IOException {
        return strongroom
                .current()
                .layer(layer.phone().identifier(), layer.number())
                .orElseThrow(() -> new IOException("the layer is not there any more"));
    }

    /**
     * Keeps what is picked.
     *
     * @throws ProblemException when it can't be kept
     */
    public synchronized void save(OpenPhone open, BitSet numbers) throws IOException {
        if (open.layer().isEmpty()) {
            return;
        }
        var items = new LinkedHashMap<String, List<String>>();
        open.catalogue()
                .states(numbers.stream().asLongStream().toArray())
                .forEach(state -> items.computeIfAbsent(state.item(), item -> new ArrayList<>())
                        .add(state.key()));
        var layer = open.layer().get();
        var kept = items.isEmpty() ? Optional.empty() : Optional.of(new Kept(layer.number(), items));
        write(layer, "", kept, "The tray");
    }

    private byte[] sealed(LayerRecord layer, byte[] plain) throws IOException {
        if (!layer.sealed()) {
            return plain;
        }
        var out = new ByteArrayOutputStream(plain.length + 1024);
        try (var stored = stored(layer)) {
            var writer = stored.key().orElseThrow().writer(buffer -> {
                var bytes = new byte[buffer.remaining()];
                buffer.get(bytes);
                out.writeBytes(bytes);
            });
            writer.write(plain, 0, plain.length);
            writer.finish();
        }
        return out.toByteArray();
    }

    private Path file(LayerRecord layer, String what) {
        // Named by a digest: an identifier comes from the phone and may be no file name.
        var phone = Digests.of(layer.phone().identifier().getBytes(StandardCharsets.UTF_8))
                .substring(0, 24);
        return folder.resolve(phone + "-" + layer.number() + what + ".json" + (layer.sealed() ? ".age" : ""));
    }
}
