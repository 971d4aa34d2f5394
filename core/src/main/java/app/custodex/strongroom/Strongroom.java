package app.custodex.strongroom;

import app.custodex.base.Disk;
import app.custodex.base.FairDisk;
import app.custodex.base.Privacy;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.WriteRefused;
import app.custodex.link.PhoneIdentity;
import app.custodex.seal.Passphrase;
import java.io.Closeable;
import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;

/**
 * All backups of a shop, in one folder: {@code objects} is the OCFL storage root, {@code work} holds unfinished layers,
 * {@code checks} what was found when layers were read back, {@code seals} the keys of sealed stacks, {@code copies} second copies of
 * the small files without which nothing opens.
 *
 * <p>Opening it finishes what an earlier program was cut in. Several programs may have it open; a phone's layers are
 * written by one at a time, and while it is moved nobody else uses it. Each use begins by looking whether it is still there.
 */
public final class Strongroom {
    static final String RECORD = "layer.json";
    static final String OBJECT_ID = "urn:custodex:phone:";
    static final String WORK = "work";

    private final Path root;
    private final Disk disk;
    private final StrongroomIdentity identity;
    private final Map<String, Boolean> remembered;
    private final StorageRoot storage;
    private final CheckLog checks;
    private final Seals seals;
    private final Examiner examiner;
    private final Leases leases;

    private Strongroom(Path root, Disk disk, StrongroomIdentity identity, Map<String, Boolean> remembered) {
        this.root = root;
        this.disk = disk;
        this.identity = identity;
        this.remembered = Map.copyOf(remembered);
        this.storage = new StorageRoot(root.resolve(StorageRoot.FOLDER), disk);
        this.checks = new CheckLog(root.resolve("checks"), disk);
        this.seals = new Seals(root.resolve(Seals.FOLDER), disk);
        this.leases = new Leases(root, disk, identity);
        this.examiner = new Examiner(root, disk, identity, remembered.keySet(), storage, seals, checks);
    }

    /**
     * What somebody else remembers of a strongroom, so that what vanishes from it is noticed.
     *
     * @param id of the strongroom; empty for one that is not known yet
     * @param stacks the names of its stacks, and whether each is sealed
     */
    public record Remembered(Optional<String> id, Map<String, Boolean> stacks) {
        public static final Remembered NOTHING = new Remembered(Optional.empty(), Map.of());

        public Remembered {
            stacks = Map.copyOf(stacks);
        }
    }

    /**
     * Makes a strongroom in a folder that is empty or not there, or opens the one that is there.
     *
     * @throws ProblemException when there is something else in the folder
     */
    public static Strongroom make(Path root, Disk disk) throws IOException {
        if (StrongroomFinder.isStrongroom(root)) {
            return open(root, disk);
        }
        try {
            requireFree(root);
            disk.createFolders(root);
            var work = root.resolve(WORK);
            disk.createFolders(work);
            var storage = new StorageRoot(root.resolve(StorageRoot.FOLDER), disk);
            storage.make(work);
            StrongroomIdentity.make().write(root, disk);
        } catch (AccessDeniedException e) {
            throw new ProblemException(
                    Problem.failure(
                            root.toString(), "The strongroom's folder may not be written", "Choose another folder"),
                    e);
        }
        return open(root, disk);
    }

    private static void requireFree(Path root) throws IOException {
        if (!Files.isDirectory(root)) {
            return;
        }
        try (var members = Files.list(root)) {
            // What an attempt to make one left, when it was cut.
            var own = Set.of(WORK, StorageRoot.FOLDER, SecondCopies.FOLDER);
            if (members.anyMatch(member -> !own.contains(String.valueOf(member.getFileName())))) {
                throw new ProblemException(Problem.failure(
                        root.toString(), "There is something else in this folder", "Choose an empty or a new folder"));
            }
        }
    }

    /** As {@link #open(Path, Disk, Remembered)}, by somebody who remembers nothing of it. */
    public static Strongroom open(Path root, Disk disk) throws IOException {
        return open(root, disk, Remembered.NOTHING);
    }

    /**
     * Opens the strongroom in a folder.
     *
     * @throws ProblemException when there is none, or another one than is remembered
     */
    public static Strongroom open(Path root, Disk realDisk, Remembered remembered) throws IOException {
        var disk = new FairDisk(realDisk);
        if (!StrongroomFinder.isStrongroom(root)) {
            throw Leases.away(root);
        }
        var found = StrongroomIdentity.read(root);
        var identity =
                found.or(() -> remembered.id().map(StrongroomIdentity::of)).orElseGet(StrongroomIdentity::make);
        if (remembered.id().isPresent() && !remembered.id().get().equals(identity.id())) {
            throw new ProblemException(Problem.failure(
                    root.toString(),
                    "Another strongroom lies here than the one that was used last",
                    "Plug in the right drive, or choose this one with \"use\""));
        }
        var strongroom = new Strongroom(root, disk, identity, remembered.stacks());
        try {
            if (StrongroomIdentity.readFile(root.resolve(StrongroomIdentity.FILE))
                            .isEmpty()
                    || !Files.exists(root.resolve(SecondCopies.FOLDER).resolve(StrongroomIdentity.FILE))) {
                identity.write(root, disk);
            }
            Privacy.keepOthersOut(root);
            disk.createFolders(root.resolve(WORK));
            strongroom.recover();
        } catch (FileSystemException e) {
            if (!WriteRefused.is(e)) {
                throw e;
            }
            // It can be read all the same.
        }
        return strongroom;
    }

    /** The right to use it alone. */
    Closeable alone() throws IOException {
        return leases.alone();
    }

    private void recover() throws IOException {
        try (var lease = leases.shared()) {
            for (var folder : storage.objectFolders()) {
                var stack = stack(folder);
                var lock = leases.lock(stack);
                if (lock.isPresent()) {
                    try (var held = lock.get()) {
                        stack.object().recover(stack.work());
                        new StackFrame(stack, disk).keepMissingCopies();
                    }
                }
            }
        }
    }

    public Path root() {
        return root;
    }

    /** Which strongroom this is. */
    public StrongroomIdentity identity() {
        return identity;
    }

    /** The names of its stacks that hold layers, and whether each is sealed: what is to be remembered of it elsewhere. */
    public Map<String, Boolean> stacks() throws IOException {
        var stacks = new TreeMap<String, Boolean>(remembered);
        for (var folder : storage.objectFolders()) {
            var stack = stack(folder);
            stacks.put(stack.name(), stack.sealed());
        }
        return stacks;
    }

    /** Bytes that can still be written. */
    public long room() throws IOException {
        leases.requireThere();
        return disk.room(root);
    }

    public CheckLog checks() {
        return checks;
    }

    /**
     * What is kept, the phone with the newest layer first. The list is made of what lies on the disk: what can't be read of it is a
     * problem in the list.
     */
    public Holdings holdings() throws IOException {
        try (var lease = leases.shared()) {
            var phones = new ArrayList<StoredPhone>();
            var problems = new ArrayList<Problem>(examiner.ownProblems());
            var names = new TreeSet<String>();
            for (var folder : storage.objectFolders()) {
                var stack = stack(folder);
                names.add(stack.name());
                hold(stack, phones, problems);
            }
            problems.addAll(examiner.vanished(names));
            phones.sort(
                    Comparator.comparing((StoredPhone phone) -> phone.newest().begun())
                            .reversed());
            return new Holdings(phones, problems);
        }
    }

    private void hold(Stack stack, List<StoredPhone> phones, List<Problem> problems) throws IOException {
        var own = new ArrayList<Problem>();
        try {
            var frame = new StackFrame(stack, disk);
            frame.look().forEach(finding -> own.add(finding.problem()));
            var inventory = frame.inventory();
            if (inventory.isPresent() && inventory.get().headNumber() > 0) {
                phones.add(phone(stack, frame, inventory.get(), own));
                problems.addAll(own);
                return;
            }
        } catch (IOException | RuntimeException unreadable) {
            own.add(Problem.failure(
                    stack.shown(stack.object().root()),
                    "The layers of this phone can't be read",
                    "Look at the disk and its cable, and bring the folder back from the shop's second copy"));
        }
        if (own.isEmpty() || !stack.object().exists()) {
            own.add(Problem.failure(
                    stack.shown(stack.object().root()),
                    "Nothing is left of a phone's layers here",
                    "Bring the folder back from the shop's second copy"));
        }
        problems.addAll(own);
    }

    private StoredPhone phone(Stack stack, StackFrame frame, Inventory inventory, List<Problem> problems)
            throws IOException {
        var layers = new ArrayList<LayerRecord>();
        for (int number = 1; number <= inventory.headNumber(); number++) {
            var said = frame.record(inventory, number);
            layers.add(said.record());
            said.finding().ifPresent(finding -> problems.add(finding.problem()));
        }
        return new StoredPhone(
                layers,
                !stack.sealed()
                        ? StoredPhone.Seal.NONE
                        : stack.open() ? StoredPhone.Seal.OPENED : StoredPhone.Seal.CLOSED,
                problems);
    }

    /** @param problems phones that are there but can't be read, and whatever else is wrong with the strongroom's own files */
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

    /**
     * Looks at every file that layers need to be opened, apart from the content of items: reads all of them, and names what does not
     * belong.
     *
     * @param phones the identifiers of those that are meant; empty for all, and for the files that belong to no phone
     */
    public List<Problem> examine(Set<String> phones) throws IOException {
        try (var lease = leases.shared()) {
            var problems = new ArrayList<Problem>();
            var names = new TreeSet<String>();
            for (var folder : storage.objectFolders()) {
                var stack = stack(folder);
                names.add(stack.name());
                if (phones.isEmpty() || isOneOf(stack, phones)) {
                    examiner.findings(stack).forEach(finding -> problems.add(finding.problem()));
                }
            }
            if (phones.isEmpty()) {
                problems.addAll(examiner.ownProblems());
                problems.addAll(examiner.vanished(names));
            }
            return problems;
        }
    }

    private static boolean isOneOf(Stack stack, Set<String> phones) {
        return phones.stream()
                .anyMatch(phone -> StorageRoot.hash(OBJECT_ID + phone).equals(stack.name()));
    }

    /**
     * Makes every file again that can be made from what is there, apart from the content of items, which needs the phone.
     *
     * @return what was mended, as notes, and what could not be
     */
    public List<Problem> mend() throws IOException {
        try (var lease = leases.shared()) {
            var told = new ArrayList<>(Examiner.mend(examiner.ownFindings()));
            for (var folder : storage.objectFolders()) {
                var stack = stack(folder);
                var lock = leases.lock(stack);
                if (lock.isPresent()) {
                    try (var held = lock.get()) {
                        told.addAll(Examiner.mend(examiner.findings(stack)));
                        told.addAll(Examiner.mend(examiner.findings(stack))); // what could be seen only then
                        disk.delete(stack.work());
                    }
                }
            }
            return told;
        }
    }

    private Stack stack(Path objectFolder) {
        var name = String.valueOf(objectFolder.getFileName());
        return Stack.of(name, root, objectFolder, seals, disk, remembered.getOrDefault(name, false));
    }

    private Stack stackOf(String phoneIdentifier) {
        return stack(storage.objectFolder(OBJECT_ID + phoneIdentifier));
    }

    /** Opens a layer for reading; the caller closes it. Empty when there is no such layer. */
    public Optional<StoredLayer> layer(String phoneIdentifier, int number) throws IOException {
        var lease = leases.shared();
        try {
            var stack = stackOf(phoneIdentifier);
            var inventory = stack.object().exists() ? Optional.of(inventory(stack)) : Optional.<Inventory>empty();
            if (inventory.isEmpty() || number < 1 || number > inventory.get().headNumber()) {
                lease.close();
                return Optional.empty();
            }
            return Optional.of(stored(stack, inventory.get(), number, lease));
        } catch (IOException | RuntimeException e) {
            lease.close();
            throw e;
        }
    }

    private Inventory inventory(Stack stack) throws IOException {
        return new StackFrame(stack, disk)
                .inventory()
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        stack.shown(stack.object().root()),
                        "No copy of this phone's inventory is whole",
                        "Its files are untouched; bring the inventory back from the shop's second copy")));
    }

    private StoredLayer stored(Stack stack, Inventory inventory, int number, Closeable lease) throws IOException {
        var said = new StackFrame(stack, disk).record(inventory, number);
        return new StoredLayer(stack, inventory, said.record(), lease);
    }

    /** The number of the newest layer of a phone; 0 when it has none. */
    public int newestLayer(String phoneIdentifier) throws IOException {
        try (var lease = leases.shared()) {
            var stack = stackOf(phoneIdentifier);
            return stack.object().exists() ? inventory(stack).headNumber() : 0;
        }
    }

    /** Whether a phone's stack is, or will be, sealed. */
    public boolean sealed(String phoneIdentifier) throws IOException {
        leases.requireThere();
        return stackOf(phoneIdentifier).sealed();
    }

    /** Whether a phone's content can be read now: it is not sealed, or its passphrase was given. */
    public boolean readable(String phoneIdentifier) throws IOException {
        leases.requireThere();
        return stackOf(phoneIdentifier).open();
    }

    /**
     * Seals the stack of a phone that has no layer yet. Unfinished copies of it are thrown away, since they lie there in the clear.
     *
     * @throws ProblemException when it has layers
     */
    public void seal(PhoneIdentity phone, Passphrase passphrase) throws IOException {
        beforeTheFirstLayer(phone, stack -> {
            var key = seals.seal(stack.name(), passphrase);
            stack.copies().keep(Map.of(Seals.KEY, key));
        });
    }

    /** Takes back a seal under which nothing was stored yet. */
    public void unseal(PhoneIdentity phone) throws IOException {
        beforeTheFirstLayer(phone, stack -> {
            seals.remove(stack.name());
            stack.copies().forget(Seals.KEY);
        });
    }

    private interface StackAction {
        void on(Stack stack) throws IOException;
    }

    private void beforeTheFirstLayer(PhoneIdentity phone, StackAction action) throws IOException {
        var stack = stackOf(phone.identifier());
        try (var lease = leases.shared();
                var held = leases.lockedFor(phone, stack)) {
            if (stack.object().exists()) {
                throw new ProblemException(Problem.failure(
                        phone.name(),
                        "Whether a stack is sealed is decided by its first layer",
                        "Go on as it is, or begin anew after its layers were destroyed"));
            }
            disk.delete(stack.work());
            action.on(stack);
        }
    }

    /**
     * Opens a sealed stack until the program ends or {@link #close} is called. Takes about a second.
     *
     * @throws ProblemException when the passphrase is not the right one
     */
    public void open(PhoneIdentity phone, Passphrase passphrase) throws IOException {
        try (var lease = leases.shared()) {
            var stack = stackOf(phone.identifier());
            if (stack.sealed()) {
                seals.open(stack, phone.name(), passphrase);
            }
        }
    }

    /** Forgets the key of a sealed stack. */
    public void close(PhoneIdentity phone) {
        seals.close(stackOf(phone.identifier()).name());
    }

    /**
     * What a phone's layers hold together.
     *
     * @param newest the layer to begin with; layers above it are not looked at
     */
    private Below below(Stack stack, Inventory inventory, String identifier, int newest) throws IOException {
        var below = new Below();
        for (int number = newest; number > 0 && below.wanting(); number--) {
            try (var layer = stored(stack, inventory, number, () -> {})) {
                below.add(layer, checks.last(identifier, number));
            }
        }
        return below;
    }

    /** What all layers of a phone hold together; nothing when it has none. */
    public Below below(String phoneIdentifier) throws IOException {
        try (var lease = leases.shared()) {
            var stack = stackOf(phoneIdentifier);
            if (!stack.object().exists()) {
                return new Below();
            }
            var inventory = inventory(stack);
            return below(stack, inventory, phoneIdentifier, inventory.headNumber());
        }
    }

    /** What came, changed and went in a layer, against the layers below it. */
    public List<LayerChange> changes(String phoneIdentifier, int number) throws IOException {
        try (var lease = leases.shared()) {
            var stack = stackOf(phoneIdentifier);
            var inventory = inventory(stack);
            var below = below(stack, inventory, phoneIdentifier, number - 1);
            try (var layer = stored(stack, inventory, number, () -> {})) {
                var items = new ArrayList<ManifestItem>();
                layer.forEach(items::add);
                return LayerChange.between(below, items, layer.record().whole());
            }
        }
    }

    /**
     * Begins a layer on top of a phone's newest one, or goes on with the one that was cut. What is damaged of the small files of the
     * layers below, and can be made again, is mended first.
     *
     * @throws ProblemException when another copy of the same phone is under way, its stack is sealed and not opened, or the file with
     *     its key is gone
     */
    public LayerDraft draft(PhoneIdentity phone) throws IOException {
        var lease = leases.shared();
        try {
            var stack = stackOf(phone.identifier());
            stack.requireOpen(phone.name());
            var lock = leases.lockedFor(phone, stack);
            try {
                ObjectFolder.removeEmptyParents(stack.object().root(), storage.root());
                boolean exists = stack.object().exists();
                if (!exists && remembered.containsKey(stack.name())) {
                    throw new ProblemException(Problem.failure(
                            phone.name(),
                            "Its layers are gone from the strongroom's disk",
                            "Bring " + root.relativize(stack.object().root())
                                    + " back from the shop's second copy; nothing was written"));
                }
                var mended = new ArrayList<Problem>(Examiner.mend(examiner.ownFindings()));
                if (exists) {
                    mended.addAll(Examiner.mend(new StackFrame(stack, disk).findingsThatMatterToTheNextLayer()));
                    requireWhole(stack);
                }
                Seals.requireKey(stack, phone.name());
                var inventory = exists ? inventory(stack) : Inventory.none(OBJECT_ID + phone.identifier());
                var below = below(stack, inventory, phone.identifier(), inventory.headNumber());
                return new LayerDraft(stack, inventory, below, disk, mended, () -> {
                    try (lease) {
                        lock.close();
                    }
                });
            } catch (IOException | RuntimeException e) {
                lock.close();
                throw e;
            }
        } catch (IOException | RuntimeException e) {
            lease.close();
            throw e;
        }
    }

    /** A layer that can't be listed would be overwritten by the next one of its number. */
    private void requireWhole(Stack stack) throws IOException {
        int newest = stack.object().newestFolder();
        if (inventory(stack).headNumber() < newest) {
            throw new ProblemException(Problem.failure(
                    stack.shown(stack.object().version(newest)),
                    "Layer " + newest + " can't be opened, since no copy of its inventory is whole",
                    "Bring its inventory back from the shop's second copy; nothing was written"));
        }
    }

    /**
     * Mends what earlier checks found damaged, as far as there are second copies of it and the newest layer has sound copies of
     * items.
     *
     * @return the layers that were damaged; to be read back again
     */
    public List<Integer> mend(PhoneIdentity phone) throws IOException {
        var stack = stackOf(phone.identifier());
        var damaged = new TreeMap<Integer, Set<String>>();
        try (var lease = leases.shared();
                var held = leases.lockedFor(phone, stack)) {
            var inventory = inventory(stack);
            checks.lasts(phone.identifier()).forEach((number, report) -> {
                if (!report.sound() && number < inventory.headNumber()) {
                    damaged.put(
                            number,
                            report.damage().stream().map(Problem::subject).collect(Collectors.toSet()));
                }
            });
            if (damaged.isEmpty()) {
                return List.of();
            }
            Examiner.mend(examiner.findings(stack));
            if (!stack.sealed()) {
                mendPacks(stack, inventory, damaged);
            }
            disk.delete(stack.work());
        }
        return List.copyOf(damaged.keySet());
    }

    private void mendPacks(Stack stack, Inventory inventory, Map<Integer, Set<String>> damaged) throws IOException {
        try (var newest = stored(stack, inventory, inventory.headNumber(), () -> {})) {
            disk.createFolders(stack.work());
            for (var layer : damaged.entrySet()) {
                try (var owner = stored(stack, inventory, layer.getKey(), () -> {})) {
                    new Mender(owner, newest, stack.work(), disk).mend(layer.getValue());
                } catch (ProblemException unreadable) {
                    // Its list of items is damaged itself; reading it back says so again.
                }
            }
        }
    }
}
