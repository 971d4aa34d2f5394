package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Mends damaged packs with sound copies of their items that another layer has, as after a further backup of the phone. A pack is
 * written anew from its items and takes the damaged one's place only if it is, byte for byte, what was once written. Of a sealed
 * stack nothing is mended: its stored bytes can't be made twice.
 */
final class Mender {
    private final StoredLayer owner;
    private final StoredLayer newest;
    private final Path work;
    private final Disk disk;

    /**
     * @param owner the layer that stores the packs
     * @param newest a layer in which sound copies are looked for
     * @param work an empty folder on the same file system
     */
    Mender(StoredLayer owner, StoredLayer newest, Path work, Disk disk) {
        this.owner = owner;
        this.newest = newest;
        this.work = work;
        this.disk = disk;
    }

    /** @param contents logical paths of damaged stored files; those that are no packs of the owner are passed over */
    void mend(Set<String> contents) throws IOException {
        var own = Stack.contentFolder(owner.record().number()) + "/pack-";
        var items = new HashMap<String, List<ManifestItem>>();
        owner.forEach(item -> item.place()
                .map(ManifestItem.Place::content)
                .filter(content -> content.startsWith(own) && contents.contains(content))
                .ifPresent(content ->
                        items.computeIfAbsent(content, c -> new ArrayList<>()).add(item)));
        if (items.isEmpty()) {
            return;
        }
        Map<String, ManifestItem> sound = new HashMap<>();
        newest.forEach(item -> item.place()
                .filter(place -> !contents.contains(place.content()))
                .ifPresent(place -> sound.put(item.digest(), item)));
        for (var pack : items.entrySet()) {
            mend(pack.getKey(), pack.getValue(), sound);
        }
    }

    private void mend(String content, List<ManifestItem> items, Map<String, ManifestItem> sound) throws IOException {
        items.sort(Comparator.comparingLong(Mender::offset));
        var anew = work.resolve("pack");
        disk.delete(anew);
        String digest;
        try (var writer = new PackWriter(new ContentWriter(disk.create(anew), Optional.empty()))) {
            var written = new HashSet<Long>();
            for (var item : items) {
                if (!written.add(offset(item))) {
                    continue; // several items with the same content share one place
                }
                var bytes = bytes(item, sound);
                if (bytes.isEmpty()) {
                    return;
                }
                writer.add(item.path(), item.modified(), bytes.get());
            }
            digest = writer.finish();
            writer.sync();
        }
        var damaged = owner.contentFile(content);
        if (digest.equals(owner.contentDigests().get(content))) {
            disk.move(anew, damaged);
        } else {
            disk.delete(anew);
        }
    }

    private static long offset(ManifestItem item) {
        return item.place().map(ManifestItem.Place::offset).orElse(0L);
    }

    private Optional<byte[]> bytes(ManifestItem item, Map<String, ManifestItem> sound) throws IOException {
        var own = read(owner, item);
        if (own.isPresent()) {
            return own;
        }
        var copy = sound.get(item.digest());
        return copy == null ? Optional.empty() : read(newest, copy);
    }

    /** Empty when its bytes are not what was copied. */
    private static Optional<byte[]> read(StoredLayer layer, ManifestItem item) {
        try (var in = layer.open(item.path())) {
            var bytes = in.readAllBytes();
            return Digests.of(bytes).equals(item.digest()) ? Optional.of(bytes) : Optional.empty();
        } catch (IOException damaged) {
            return Optional.empty();
        }
    }
}
