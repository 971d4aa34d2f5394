package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.base.Json;
import app.custodex.link.Family;
import app.custodex.link.PhoneIdentity;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * The small files of one stack that are needed to open its layers: the object's marker and inventories, the record and the list of
 * items of each layer, and of a sealed stack its key and labels. Says what is wrong with them, and makes them again from each other
 * and from their second copies.
 */
final class StackFrame {
    private final Stack stack;
    private final ObjectFolder object;
    private final Disk disk;

    StackFrame(Stack stack, Disk disk) {
        this.stack = stack;
        this.object = stack.object();
        this.disk = disk;
    }

    /** The best inventory that there is: of those that are whole, the one that knows most layers. */
    Optional<Inventory> inventory() throws IOException {
        int newest = object.newestFolder();
        var root = Inventory.whole(object.root());
        if (root.filter(inventory -> inventory.headNumber() == newest).isPresent()) {
            return root;
        }
        var candidates = new ArrayList<Inventory>();
        root.ifPresent(candidates::add);
        copyOfInventory().ifPresent(candidates::add);
        for (int version = newest; version > 0; version--) {
            Inventory.whole(object.version(version)).ifPresent(candidates::add);
        }
        return candidates.stream().max(Comparator.comparingInt(Inventory::headNumber));
    }

    private Optional<Inventory> copyOfInventory() throws IOException {
        var copy = stack.copies().sound(Inventory.NAME);
        try {
            return copy.isPresent() ? Optional.of(Inventory.parse(copy.get())) : Optional.empty();
        } catch (IOException nonsense) {
            return Optional.empty();
        }
    }

    /**
     * What a layer says of itself.
     *
     * @param finding present when its own file could not be read, and this comes from elsewhere
     */
    record Said(LayerRecord record, Optional<Finding> finding) {}

    Said record(Inventory inventory, int number) throws IOException {
        var file = stack.sealed()
                ? stack.seals().labelFile(stack.name(), number)
                : inventory
                        .contentPath(number, Strongroom.RECORD)
                        .map(object.root()::resolve)
                        .orElse(object.version(number).resolve("content").resolve(Strongroom.RECORD));
        var expected = stack.sealed()
                ? Optional.ofNullable(stack.copies().sums().get(copyOfRecord(number)))
                : Optional.ofNullable(inventory.digests(number).get(Strongroom.RECORD));
        var own = read(file, expected);
        if (own.isPresent()) {
            return new Said(own.get(), Optional.empty());
        }
        var copy = stack.copies().sound(copyOfRecord(number));
        var told = Optional.of(record(file, copy));
        var second = copy.flatMap(StackFrame::parse).or(() -> rebuilt(number));
        return new Said(second.orElseGet(() -> unknown(inventory, number)), told);
    }

    private static Optional<LayerRecord> read(Path file, Optional<String> digest) {
        try {
            var bytes = Files.readAllBytes(file);
            return digest.isPresent() && !digest.get().equals(Digests.of(bytes)) ? Optional.empty() : parse(bytes);
        } catch (IOException unreadable) {
            return Optional.empty();
        }
    }

    private static Optional<LayerRecord> parse(byte[] bytes) {
        try {
            return Optional.of(Json.PAGE.readValue(bytes, LayerRecord.class));
        } catch (IOException | RuntimeException nonsense) {
            return Optional.empty();
        }
    }

    private Finding record(Path file, Optional<byte[]> copy) {
        var what = Files.exists(file) ? "This record of a layer is damaged" : "This record of a layer is gone";
        return copy.isPresent()
                ? Finding.mendable(stack.shown(file), what, () -> replace(file, copy.get()))
                : Finding.lost(stack.shown(file), what);
    }

    private void replace(Path file, byte[] bytes) throws IOException {
        disk.createFolders(stack.work());
        disk.createFolders(Disk.parent(file));
        disk.replace(file, bytes, stack.work().resolve("next-file"));
    }

    private String copyOfRecord(int number) {
        return Stack.copyName(number, Strongroom.RECORD);
    }

    private Path rebuiltFile(int number) {
        return stack.copies().file(Stack.copyName(number, "rebuilt.json"));
    }

    private Optional<LayerRecord> rebuilt(int number) {
        return read(rebuiltFile(number), Optional.empty());
    }

    /** Makes a layer's record anew from its list of items, when neither it nor a copy of it can be read. */
    private void rebuild(Inventory inventory, int number) throws IOException {
        var unknown = unknown(inventory, number);
        try (var layer = new StoredLayer(stack, inventory, unknown, () -> {})) {
            var phone = knownPhone(inventory).orElse(unknown.phone());
            var record = RecordFromItems.of(layer, number, phone, created(inventory, number), stack.sealed());
            replace(rebuiltFile(number), Json.PAGE.writeValueAsBytes(record));
        }
    }

    private static Instant created(Inventory inventory, int number) {
        return Optional.ofNullable(inventory.versions().get("v" + number))
                .map(Inventory.Version::created)
                .orElse(Instant.EPOCH);
    }

    /** What is known of a layer whose record can't be read. */
    private LayerRecord unknown(Inventory inventory, int number) {
        var identifier = inventory.id().replace(Strongroom.OBJECT_ID, "");
        var phone =
                new PhoneIdentity(identifier, identifier, Family.FOLDER, "", "", "", "", "", ZoneId.of("UTC"), 0, 0);
        return new LayerRecord(
                number,
                phone,
                created(inventory, number),
                Duration.ZERO,
                List.of(),
                0,
                List.of(),
                false,
                stack.sealed(),
                "");
    }

    /** Whether it knows anything but the layer's number. */
    static boolean isUnknown(LayerRecord record) {
        return record.tool().isEmpty();
    }

    /** What is wrong with the files that are looked at whenever the stack is listed; quick. */
    List<Finding> look() throws IOException {
        var findings = new ArrayList<Finding>();
        if (!object.isDeclared()) {
            var marker = object.root().resolve(ObjectFolder.DECLARATION);
            findings.add(Finding.mendable(
                    stack.shown(marker),
                    Files.exists(marker) ? "Its bytes are no longer what was written" : "It is gone from the disk",
                    () -> object.declare(stack.work())));
        }
        lookAtInventories(findings);
        if (stack.sealed()) {
            lookAtKey(findings);
        }
        return findings;
    }

    private void lookAtInventories(List<Finding> findings) throws IOException {
        int newest = object.newestFolder();
        var best = inventory();
        if (best.isEmpty()) {
            findings.add(Finding.lost(
                    stack.shown(object.root().resolve(Inventory.NAME)), "No copy of this phone's inventory is whole"));
            return;
        }
        var inventory = best.get();
        for (int number = inventory.headNumber() + 1; number <= newest; number++) {
            findings.add(Finding.lost(
                    stack.shown(object.version(number).resolve(Inventory.NAME)),
                    "Layer " + number + " can't be opened: no copy of its inventory is whole"));
        }
        lookAtInventory(object.root(), inventory, findings);
        for (int number = 1; number <= inventory.headNumber(); number++) {
            if (!Files.isDirectory(object.version(number))) {
                findings.add(Finding.lost(
                        stack.shown(object.version(number)), "The folder of layer " + number + " is gone"));
            } else {
                lookAtInventory(object.version(number), inventory.upTo(number), findings);
            }
        }
    }

    private void lookAtInventory(Path folder, Inventory expected, List<Finding> findings) {
        if (Inventory.whole(folder).filter(expected::equals).isEmpty()) {
            findings.add(Finding.mendable(
                    stack.shown(folder.resolve(Inventory.NAME)),
                    "This copy of the inventory is damaged; others say the same",
                    () -> object.install(folder, expected.bytes(), stack.work())));
        }
    }

    private void lookAtKey(List<Finding> findings) throws IOException {
        lookAtCopied(stack.seals().keyFile(stack.name()), Seals.KEY, "The file with this stack's sealed key", findings);
    }

    /** A file whose second copy is the same, byte for byte. */
    private void lookAtCopied(Path file, String copyName, String subject, List<Finding> findings) throws IOException {
        var digest = stack.copies().sums().get(copyName);
        boolean there = Files.isRegularFile(file);
        if (there && (digest == null || digest.equals(digest(file)))) {
            return;
        }
        var copy = stack.copies().sound(copyName);
        var what = subject + (there ? " is damaged" : " is gone");
        findings.add(
                copy.isPresent()
                        ? Finding.mendable(stack.shown(file), what, () -> replace(file, copy.get()))
                        : Finding.lost(stack.shown(file), what));
    }

    private static String digest(Path file) {
        try {
            return Digests.of(Files.readAllBytes(file));
        } catch (IOException unreadable) {
            return "";
        }
    }

    /**
     * What the next layer needs: the above, and the records of all layers; of those layers that it is compared with, the lists of
     * items too.
     */
    List<Finding> findingsThatMatterToTheNextLayer() throws IOException {
        var findings = new ArrayList<>(look());
        var inventory = inventory();
        for (int number = inventory.map(Inventory::headNumber).orElse(0); number > 0; number--) {
            if (number == inventory.get().headNumber()) {
                lookAtLayer(inventory.get(), number, findings);
            } else {
                record(inventory.get(), number).finding().ifPresent(findings::add);
            }
        }
        return findings;
    }

    /** The same, with records, lists of items, second copies and whatever does not belong; reads all of these. */
    List<Finding> lookClosely() throws IOException {
        var findings = new ArrayList<>(look());
        var inventory = inventory();
        if (inventory.isEmpty()) {
            return findings;
        }
        for (int number = 1; number <= inventory.get().headNumber(); number++) {
            lookAtLayer(inventory.get(), number, findings);
        }
        lookAtCopies(inventory.get(), findings);
        lookForStrays(inventory.get(), findings);
        return findings;
    }

    private void lookAtLayer(Inventory inventory, int number, List<Finding> findings) throws IOException {
        for (var name : List.of(stack.stored(Strongroom.RECORD), stack.stored(Manifest.NAME))) {
            var digest = inventory.digests(number).get(name);
            var path = inventory.contentPath(number, name);
            if (digest == null || path.isEmpty()) {
                findings.add(Finding.lost(
                        stack.shown(object.version(number)), "The inventory of layer " + number + " lists no " + name));
                continue;
            }
            var file = object.root().resolve(path.get());
            if (digest.equals(digest(file))) {
                continue;
            }
            var copy = stack.copies()
                    .sound(Stack.copyName(number, name))
                    .filter(bytes -> Digests.of(bytes).equals(digest));
            var what = (name.startsWith("manifest") ? "The list of items" : "The record") + " of layer " + number
                    + (Files.exists(file) ? " is damaged" : " is gone");
            findings.add(
                    copy.isPresent()
                            ? Finding.mendable(stack.shown(file), what, () -> replace(file, copy.get()))
                            : Finding.lost(stack.shown(file), what));
        }
        if (stack.sealed()) {
            lookAtCopied(
                    stack.seals().labelFile(stack.name(), number),
                    copyOfRecord(number),
                    "The label of layer " + number,
                    findings);
        }
        var said = record(inventory, number);
        if (isUnknown(said.record()) && stack.open()) {
            findings.add(new Finding(
                    stack.shown(rebuiltFile(number)),
                    "What layer " + number + " says of itself can be counted from its list of items",
                    Optional.of(() -> rebuild(inventory, number)),
                    true));
        }
    }

    /** The phone as another of its layers tells of it. */
    private Optional<PhoneIdentity> knownPhone(Inventory inventory) throws IOException {
        for (int number = inventory.headNumber(); number > 0; number--) {
            var said = record(inventory, number).record();
            if (!isUnknown(said)) {
                return Optional.of(said.phone());
            }
        }
        return Optional.empty();
    }

    /** The files whose copies are kept, by the names of their copies. */
    private Map<String, Path> copied(Inventory inventory) {
        var copied = new LinkedHashMap<String, Path>();
        copied.put(Inventory.NAME, object.root().resolve(Inventory.NAME));
        if (stack.sealed()) {
            copied.put(Seals.KEY, stack.seals().keyFile(stack.name()));
        }
        for (int number = 1; number <= inventory.headNumber(); number++) {
            int layer = number;
            for (var name : List.of(stack.stored(Strongroom.RECORD), stack.stored(Manifest.NAME))) {
                inventory
                        .contentPath(layer, name)
                        .ifPresent(path -> copied.put(
                                Stack.copyName(layer, name), object.root().resolve(path)));
            }
            if (stack.sealed()) {
                copied.put(copyOfRecord(layer), stack.seals().labelFile(stack.name(), layer));
            }
        }
        return copied;
    }

    private void lookAtCopies(Inventory inventory, List<Finding> findings) throws IOException {
        var copies = stack.copies();
        for (var entry : copied(inventory).entrySet()) {
            var name = entry.getKey();
            if (copies.sound(name).isEmpty() && Files.isRegularFile(entry.getValue())) {
                findings.add(Finding.mendable(
                        stack.shown(copies.file(name)),
                        copies.has(name) ? "This second copy is damaged" : "This second copy is gone",
                        () -> keepCopies(Set.of(name))));
            }
        }
    }

    private void lookForStrays(Inventory inventory, List<Finding> findings) throws IOException {
        var expected = new TreeSet<String>(List.of(ObjectFolder.DECLARATION, Inventory.NAME, Inventory.SIDECAR));
        for (int number = 1; number <= inventory.headNumber(); number++) {
            expected.add("v" + number + "/" + Inventory.NAME);
            expected.add("v" + number + "/" + Inventory.SIDECAR);
        }
        inventory.manifest().values().forEach(expected::addAll);
        strays(object.root(), expected, findings);
        var copies = new TreeSet<>(copied(inventory).keySet());
        copies.add(SecondCopies.SUMS);
        for (int number = 1; number <= inventory.headNumber(); number++) {
            copies.add(Stack.copyName(number, "rebuilt.json"));
        }
        strays(stack.copies().folder(), copies, findings);
        if (stack.sealed()) {
            var seals = new TreeSet<String>(List.of(Seals.KEY));
            for (int number = 1; number <= inventory.headNumber(); number++) {
                seals.add(Seals.labelName(number));
            }
            strays(stack.seals().folder(stack.name()), seals, findings);
        }
    }

    private void strays(Path folder, Set<String> expected, List<Finding> findings) throws IOException {
        if (!Files.isDirectory(folder)) {
            return;
        }
        try (var all = Files.walk(folder)) {
            for (var file : (Iterable<Path>) all.filter(path -> !Files.isDirectory(path))::iterator) {
                var name = folder.relativize(file).toString().replace('\\', '/');
                if (!expected.contains(name) && !name.endsWith(".part")) {
                    findings.add(Finding.stray(stack.shown(file)));
                }
            }
        }
    }

    /** Keeps second copies of what has none yet: of a new layer, and of those that were made before there were copies. */
    void keepMissingCopies() throws IOException {
        var inventory = inventory();
        if (inventory.isEmpty()) {
            return;
        }
        var missing = new TreeSet<>(copied(inventory.get()).keySet());
        var sums = stack.copies().sums();
        missing.removeAll(sums.keySet());
        if (!inventory.equals(copyOfInventory())) {
            missing.add(Inventory.NAME);
        }
        if (!missing.isEmpty()) {
            keepCopies(missing);
        }
    }

    /** Copies files that are what they should be; of those that can't be told to be, those that there is no other word against. */
    private void keepCopies(Set<String> names) throws IOException {
        var inventory = inventory();
        if (inventory.isEmpty()) {
            return;
        }
        var copies = new LinkedHashMap<String, byte[]>();
        for (var entry : copied(inventory.get()).entrySet()) {
            if (!names.contains(entry.getKey()) || !Files.isRegularFile(entry.getValue())) {
                continue;
            }
            var bytes = Files.readAllBytes(entry.getValue());
            if (isSound(entry.getKey(), bytes, inventory.get())) {
                copies.put(entry.getKey(), bytes);
            }
        }
        stack.copies().keep(copies);
    }

    private boolean isSound(String copyName, byte[] bytes, Inventory inventory) throws IOException {
        if (copyName.equals(Inventory.NAME)) {
            return Inventory.whole(object.root()).filter(inventory::equals).isPresent();
        }
        if (copyName.equals(Seals.KEY) || stack.sealed() && copyName.endsWith(Strongroom.RECORD)) {
            var digest = stack.copies().sums().get(copyName);
            boolean plausible = copyName.equals(Seals.KEY) || parse(bytes).isPresent();
            return plausible
                    && (digest == null
                            || digest.equals(Digests.of(bytes))
                            || Arrays.equals(bytes, readIfThere(stack.copies().file(copyName))));
        }
        int number = Integer.parseInt(copyName.substring(0, copyName.indexOf('-')));
        var name = copyName.substring(copyName.indexOf('-') + 1);
        return Digests.of(bytes).equals(inventory.digests(number).get(name));
    }

    private static byte[] readIfThere(Path file) throws IOException {
        return Files.isRegularFile(file) ? Files.readAllBytes(file) : new byte[0];
    }
}
