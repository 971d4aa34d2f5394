package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.FairDisk;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.PhoneIdentity;
import app.custodex.seal.Passphrase;
import java.io.Closeable;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.AccessDeniedException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * All backups of a shop, in one folder: {@code objects} is the OCFL storage root, {@code work} holds unfinished layers,
 * {@code checks} what was found when layers were read back, {@code seals} the keys of sealed stacks.
 *
 * <p>Opening it finishes what an earlier program was cut in. Several programs may have it open; a phone's layers are
 * written by one at a time.
 */
public final class Strongroom {
    static final String RECORD = "layer.json";

    private final Path root;
    private final Disk disk;
    private final StorageRoot storage;
    private final CheckLog checks;
    private final Seals seals;

    private Strongroom(Path root, Disk disk, StorageRoot storage) {
        this.root = root;
        this.disk = disk;
        this.storage = storage;
        this.checks = new CheckLog(root.resolve("checks"), disk);
        this.seals = new Seals(root.resolve("seals"), disk);
    }

    /**
     * Opens the strongroom in a folder, or makes one there.
     *
     * @throws IOException when the folder can't be read or written
     */
    public static Strongroom open(Path root, Disk realDisk) throws IOException {
        var disk = new FairDisk(realDisk);
        try {
            var work = root.resolve("work");
            disk.createFolders(work);
            var storage = StorageRoot.open(root.resolve("objects"), work, disk);
            var strongroom = new Strongroom(root, disk, storage);
            strongroom.recover();
            return strongroom;
        } catch (AccessDeniedException e) {
            throw new ProblemException(
                    Problem.failure(
                            root.toString(), "The strongroom's folder may not be written", "Choose another folder"),
                    e);
        }
    }

    private void recover() throws IOException {
        for (var folder : storage.objectFolders()) {
            var lock = lock(folder.getFileName().toString());
            if (lock.isPresent()) {
                try (var held = lock.get()) {
                    new ObjectFolder(folder, disk).recover(root.resolve("work").resolve(folder.getFileName()));
                }
            }
        }
    }

    public Path root() {
        return root;
    }

    /** Bytes that can still be written. */
    public long room() throws IOException {
        return disk.room(root);
    }

    public CheckLog checks() {
        return checks;
    }

    /** What is kept, the phone with the newest layer first. A phone whose record can't be read is a problem in the list. */
    public Holdings holdings() throws IOException {
        var phones = new ArrayList<StoredPhone>();
        var problems = new ArrayList<Problem>();
        for (var folder : storage.objectFolders()) {
            try {
                phones.add(phone(new ObjectFolder(folder, disk).inventory(), folder));
            } catch (IOException e) {
                problems.add(Problem.failure(
                        folder.toString(),
                        "The record of this phone's layers can't be read",
                        "Its files are untouched; check the disk and restore the folder from the shop's second copy"));
            }
        }
        phones.sort(Comparator.comparing((StoredPhone phone) -> phone.newest().begun())
                .reversed());
        return new Holdings(phones, problems);
    }

    /** @param problems phones that are there but can't be read */
    public record Holdings(List<StoredPhone> phones, List<Problem> problems) {
        public Holdings {
            phones = List.copyOf(phones);
            problems = List.copyOf(problems);
        }

        public Optional<StoredPhone> phone(String identifier) {
            return phones.stream()
                    .filter(p -> p.identity().identifier().equals(identifier))
                    .findFirst();
        }
    }

    private StoredPhone phone(Inventory inventory, Path folder) throws IOException {
        var layers = new ArrayList<LayerRecord>();
        for (int number = 1; number <= inventory.headNumber(); number++) {
            layers.add(record(inventory, folder, number));
        }
        if (layers.isEmpty()) {
            throw new IOException(folder + " has no layer");
        }
        var stack = stack(folder);
        return new StoredPhone(
                layers,
                !stack.sealed()
                        ? StoredPhone.Seal.NONE
                        : stack.open() ? StoredPhone.Seal.OPENED : StoredPhone.Seal.CLOSED);
    }

    private Stack stack(Path objectFolder) {
        return new Stack(objectFolder.getFileName().toString(), seals);
    }

    private LayerRecord record(Inventory inventory, Path folder, int number) throws IOException {
        var stack = stack(folder);
        if (stack.sealed()) {
            return seals.label(stack.name(), number);
        }
        var path = inventory
                .contentPath(number, RECORD)
                .orElseThrow(() -> new IOException(folder + ": layer " + number + " has no record"));
        return Json.PAGE.readValue(folder.resolve(path).toFile(), LayerRecord.class);
    }

    /** Opens a layer for reading; the caller closes it. Empty when there is no such layer. */
    public Optional<StoredLayer> layer(String phoneIdentifier, int number) throws IOException {
        var object = object(phoneIdentifier);
        if (!object.exists()) {
            return Optional.empty();
        }
        var inventory = object.inventory();
        if (number < 1 || number > inventory.headNumber()) {
            return Optional.empty();
        }
        return Optional.of(stored(object, inventory, number));
    }

    private StoredLayer stored(ObjectFolder object, Inventory inventory, int number) throws IOException {
        return new StoredLayer(
                object.root(), inventory, record(inventory, object.root(), number), stack(object.root()));
    }

    /** The number of the newest layer of a phone; 0 when it has none. */
    public int newestLayer(String phoneIdentifier) throws IOException {
        var object = object(phoneIdentifier);
        return object.exists() ? object.inventory().headNumber() : 0;
    }

    private static String objectId(String phoneIdentifier) {
        return "urn:custodex:phone:" + phoneIdentifier;
    }

    private ObjectFolder object(String phoneIdentifier) {
        return new ObjectFolder(storage.objectFolder(objectId(phoneIdentifier)), disk);
    }

    /** Whether a phone's stack is, or will be, sealed. */
    public boolean sealed(String phoneIdentifier) {
        return stack(object(phoneIdentifier).root()).sealed();
    }

    /** Whether a phone's content can be read now: it is not sealed, or its passphrase was given. */
    public boolean readable(String phoneIdentifier) {
        return stack(object(phoneIdentifier).root()).open();
    }

    /**
     * Seals the stack of a phone that has no layer yet. Unfinished copies of it are thrown away, since they lie there in the clear.
     *
     * @throws ProblemException when it has layers
     */
    public void seal(PhoneIdentity phone, Passphrase passphrase) throws IOException {
        beforeTheFirstLayer(phone, stack -> seals.seal(stack.name(), passphrase));
    }

    /** Takes back a seal under which nothing was stored yet. */
    public void unseal(PhoneIdentity phone) throws IOException {
        beforeTheFirstLayer(phone, stack -> seals.remove(stack.name()));
    }

    private interface StackAction {
        void on(Stack stack) throws IOException;
    }

    private void beforeTheFirstLayer(PhoneIdentity phone, StackAction action) throws IOException {
        var object = object(phone.identifier());
        var stack = stack(object.root());
        try (var held = lockedFor(phone, stack)) {
            if (object.exists()) {
                throw new ProblemException(Problem.failure(
                        phone.name(),
                        "Whether a stack is sealed is settled by its first layer",
                        "Go on as it is, or begin anew after its layers were destroyed"));
            }
            disk.delete(root.resolve("work").resolve(stack.name()));
            action.on(stack);
        }
    }

    /**
     * Opens a sealed stack until the program ends or {@link #close} is called. Takes about a second.
     *
     * @throws ProblemException when the passphrase is not the right one
     */
    public void open(PhoneIdentity phone, Passphrase passphrase) throws IOException {
        var stack = stack(object(phone.identifier()).root());
        if (stack.sealed()) {
            seals.open(stack.name(), phone.name(), passphrase);
        }
    }

    /** Forgets the key of a sealed stack. */
    public void close(PhoneIdentity phone) {
        seals.close(stack(object(phone.identifier()).root()).name());
    }

    /**
     * What a phone's layers hold together.
     *
     * @param newest the layer to begin with; layers above it are not looked at
     */
    private Below below(ObjectFolder object, Inventory inventory, String identifier, int newest) throws IOException {
        var below = new Below();
        for (int number = newest; number > 0 && below.wanting(); number--) {
            try (var layer = stored(object, inventory, number)) {
                below.add(layer, checks.last(identifier, number));
            }
        }
        return below;
    }

    /** What all layers of a phone hold together; nothing when it has none. */
    public Below below(String phoneIdentifier) throws IOException {
        var object = object(phoneIdentifier);
        if (!object.exists()) {
            return new Below();
        }
        var inventory = object.inventory();
        return below(object, inventory, phoneIdentifier, inventory.headNumber());
    }

    /** What came, changed and went in a layer, against the layers below it. */
    public List<LayerChange> changes(String phoneIdentifier, int number) throws IOException {
        var object = object(phoneIdentifier);
        var inventory = object.inventory();
        var below = below(object, inventory, phoneIdentifier, number - 1);
        try (var layer = stored(object, inventory, number)) {
            var items = new ArrayList<ManifestItem>();
            layer.forEach(items::add);
            return LayerChange.between(below, items, layer.record().whole());
        }
    }

    /**
     * Begins a layer on top of a phone's newest one, or goes on with the one that was cut.
     *
     * @throws ProblemException when another copy of the same phone is under way, or its stack is sealed and not opened
     */
    public LayerDraft draft(PhoneIdentity phone) throws IOException {
        var object = object(phone.identifier());
        var stack = stack(object.root());
        stack.requireOpen(phone.name());
        var lock = lockedFor(phone, stack);
        try {
            ObjectFolder.removeEmptyParents(object.root(), storage.root());
            var inventory = object.exists() ? object.inventory() : Inventory.none(objectId(phone.identifier()));
            var below = below(object, inventory, phone.identifier(), inventory.headNumber());
            return new LayerDraft(
                    object, inventory, below, stack, root.resolve("work").resolve(stack.name()), disk, lock);
        } catch (IOException | RuntimeException e) {
            lock.close();
            throw e;
        }
    }

    /**
     * Mends what earlier checks found damaged, as far as the newest layer has sound copies of it.
     *
     * @return the layers that were damaged; to be read back again
     */
    public List<Integer> mend(PhoneIdentity phone) throws IOException {
        var object = object(phone.identifier());
        var stack = stack(object.root());
        var inventory = object.inventory();
        var damaged = new TreeMap<Integer, Set<String>>();
        checks.lasts(phone.identifier()).forEach((number, report) -> {
            if (!report.sound() && number < inventory.headNumber()) {
                damaged.put(
                        number, report.damage().stream().map(Problem::subject).collect(Collectors.toSet()));
            }
        });
        if (damaged.isEmpty() || stack.sealed()) {
            return List.copyOf(damaged.keySet());
        }
        var work = root.resolve("work").resolve(stack.name());
        try (var held = lockedFor(phone, stack);
                var newest = stored(object, inventory, inventory.headNumber())) {
            disk.createFolders(work);
            for (var layer : damaged.entrySet()) {
                try (var owner = stored(object, inventory, layer.getKey())) {
                    new Mender(owner, newest, work, disk).mend(layer.getValue());
                } catch (ProblemException unreadable) {
                    // Its list of items is damaged itself; reading it back says so again.
                }
            }
            disk.delete(work);
        }
        return List.copyOf(damaged.keySet());
    }

    private Closeable lockedFor(PhoneIdentity phone, Stack stack) throws IOException {
        return lock(stack.name())
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        phone.name(),
                        "Another copy of this phone is under way",
                        "Wait until it is done, or stop it there")));
    }

    private Optional<Closeable> lock(String hash) throws IOException {
        var channel = FileChannel.open(
                root.resolve("work").resolve(hash + ".lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
        try {
            if (channel.tryLock() != null) {
                return Optional.of(channel);
            }
        } catch (OverlappingFileLockException heldByThisProgram) {
            // The same answer as for another program's lock.
        }
        channel.close();
        return Optional.empty();
    }
}
