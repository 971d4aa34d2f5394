package app.custodex.app;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.SafeNames;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.StoredLayer;
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

/**
 * Keeps what has been picked in each layer until it is taken out, also over a restart of the program. Of a sealed layer it is sealed
 * with the same key. Any thread may use it.
 */
public final class Trays {
    private final Path folder;
    private final Disk disk;
    private final ShopStrongroom strongroom;

    Trays(Path folder, Disk disk, ShopStrongroom strongroom) {
        this.folder = folder;
        this.disk = disk;
        this.strongroom = strongroom;
    }

    /** @param items the keys of the things that are picked, by the item that they were read from */
    private record Kept(int layer, Map<String, List<String>> items) {}

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
        var file = file(open.layer().get());
        if (!Files.exists(file)) {
            return numbers;
        }
        try {
            var kept = Json.LINE.readValue(bytes(open.layer().get(), file), Kept.class);
            for (var item : kept.items().entrySet()) {
                numbers.or(open.catalogue().numbers(item.getKey(), item.getValue()));
            }
            return numbers;
        } catch (RuntimeException | IOException damaged) {
            var aside = SafeNames.free(folder, "tray-damaged", ".json");
            disk.move(file, aside);
            throw new ProblemException(
                    Problem.loss(
                            "The tray of layer " + open.layer().get().number(),
                            "It can't be read, so it is empty; what was in it is still in the layer",
                            "Pick the things again"),
                    damaged);
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
        try {
            save(open, open.layer().get(), numbers);
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.loss(
                            "The tray of layer " + open.layer().get().number(),
                            "It can't be kept on the disk, so it is gone when the layer is closed",
                            "Check whether the disk is full or read-only"),
                    e);
        }
    }

    private void save(OpenPhone open, LayerRecord layer, BitSet numbers) throws IOException {
        var file = file(layer);
        if (numbers.isEmpty()) {
            disk.delete(file);
            return;
        }
        var items = new LinkedHashMap<String, List<String>>();
        open.catalogue()
                .states(numbers.stream().asLongStream().toArray())
                .forEach(state -> items.computeIfAbsent(state.item(), item -> new ArrayList<>())
                        .add(state.key()));
        disk.createFolders(folder);
        disk.replace(file, sealed(layer, Json.LINE.writeValueAsBytes(new Kept(layer.number(), items))));
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

    private Path file(LayerRecord layer) {
        // Named by a digest: an identifier comes from the phone and may be no file name.
        var phone = Digests.of(layer.phone().identifier().getBytes(StandardCharsets.UTF_8))
                .substring(0, 24);
        return folder.resolve(phone + "-" + layer.number() + ".json" + (layer.sealed() ? ".age" : ""));
    }
}
