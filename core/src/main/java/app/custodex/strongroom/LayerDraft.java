package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.Listed;
import app.custodex.link.PhonePath;
import java.io.BufferedOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/**
 * A layer that is being made. It lies outside the storage root until {@link #publish} renames it in; until then nobody
 * sees it. A journal tells what is stored, so that a later attempt goes on behind the last one: in a pack that is not sealed behind
 * its last whole item, in a large item behind its last whole part. One thread at a time writes to a draft.
 *
 * <p>A failure to write ends the draft; {@link #close} keeps what is in the journal.
 */
public final class LayerDraft implements Closeable {
    /** Larger items are stored alone: a pack stays near its size, and an item of a pack fits into memory. */
    public static final int PACKED_UP_TO = 4 << 20;
    /** Large enough for sequential writing; a phone of 200,000 files is some thousand stored files. */
    private static final long PACK_SIZE = 64L << 20;
    /** A sealed pack that was cut can't be gone on with: that would seal two texts with one key and one number. */
    private static final long SEALED_PACK_SIZE = 3L << 20;
    /** What is written between two lines of the journal is what a kill costs. */
    static final long JOURNAL_EVERY = 2L << 20;
    /** Bytes that may wait to be synced while more is written. */
    private static final long SYNCING = 64L << 20;

    private final Stack stack;
    private final ObjectFolder object;
    private final Inventory inventory;
    private final Below below;
    private final Path work;
    private final Disk disk;
    private final List<Problem> mended;
    private final Closeable lease;
    private final DraftJournal journal;
    private final Path content;
    private final String folder;
    private final Map<String, String> fresh = new LinkedHashMap<>();
    private final Map<PhonePath, ManifestItem> resumed = new HashMap<>();
    private final LargeItems large;
    private final Map<String, ManifestItem.Place> byDigest = new HashMap<>();
    private final List<ManifestItem> items = new ArrayList<>();
    private final ExecutorService syncer = Executors.newSingleThreadExecutor(
            Thread.ofVirtual().name("pack-sync").factory());
    private final ArrayDeque<Syncing> syncing = new ArrayDeque<>();
    private Optional<OpenPack> pack = Optional.empty();
    private int contentNumber;

    private record Syncing(long bytes, Future<?> done) {}

    /** A pack that grows, and the items in it that are not in the journal yet. */
    private static final class OpenPack {
        private final String name;
        private final PackWriter writer;
        private final List<ManifestItem> items = new ArrayList<>();
        private long journaled;

        OpenPack(String name, PackWriter writer) {
            this.name = name;
            this.writer = writer;
            this.journaled = writer.size();
        }
    }

    /**
     * @param stack which phone's, and its key when it is sealed
     * @param mended what of the stack's own files was mended before
     * @param lease is closed with the draft
     */
    LayerDraft(Stack stack, Inventory inventory, Below below, Disk disk, List<Problem> mended, Closeable lease)
            throws IOException {
        this.stack = stack;
        this.object = stack.object();
        this.inventory = inventory;
        this.below = below;
        this.work = stack.work();
        this.disk = disk;
        this.mended = List.copyOf(mended);
        this.lease = lease;
        this.content = work.resolve("version").resolve("content");
        this.folder = Stack.contentFolder(number());
        this.journal = new DraftJournal(
                work.resolve(String.format(Locale.ROOT, "journal-%04d.jsonl", number())), disk, stack.key());
        this.large = new LargeItems(this, stack, content, disk, journal);
        disk.createFolders(content.resolve(folder));
        resume();
    }

    /** The number that this layer will have. */
    public int number() {
        return inventory.headNumber() + 1;
    }

    /** What of the stack's own files was mended before this layer was begun. */
    public List<Problem> mended() {
        return mended;
    }

    private void remember(ManifestItem item) {
        resumed.put(item.path(), item);
        item.place().ifPresent(place -> byDigest.putIfAbsent(item.digest(), place));
    }

    /** Takes over what an earlier attempt stored, as far as it is what was written, and drops the rest of it. */
    private void resume() throws IOException {
        var known = journal.files();
        Optional<DraftJournal.Entry> growing = Optional.empty();
        for (var entry : known.values()) {
            var file = content.resolve(entry.content());
            if (!entry.content().startsWith(folder + "/") || !Files.isRegularFile(file)) {
                continue;
            }
            if (Salvage.isComplete(entry, file, disk)) {
                fresh.put(entry.content(), entry.digest());
                entry.items().forEach(this::remember);
            } else if (entry.alone().isPresent()) {
                large.remember(entry.alone().get(), entry);
            } else if (stack.key().isEmpty() && entry.content().endsWith(".tar")) {
                growing = Optional.of(entry);
            }
        }
        if (growing.isPresent()) {
            goOn(growing.get());
        }
        dropUnknown();
    }

    /** Goes on with the pack that was open: behind the last of its items that are all there. */
    private void goOn(DraftJournal.Entry entry) throws IOException {
        var file = content.resolve(entry.content());
        var inOrder = new ArrayList<>(entry.items());
        inOrder.sort(Comparator.comparingLong(item -> item.place().orElseThrow().offset()));
        var whole = new ArrayList<ManifestItem>();
        long end = 0;
        var digest = Digests.sha512();
        try (var channel = FileChannel.open(file)) {
            for (var item : inOrder) {
                long from = item.place().orElseThrow().offset();
                if (!Salvage.isThere(channel, from, item)) {
                    break;
                }
                whole.add(item);
                end = Math.max(end, PackWriter.endOf(from + item.size()));
            }
            if (end > channel.size() || whole.isEmpty()) {
                return;
            }
            Salvage.digest(channel, end, digest);
        }
        whole.forEach(this::remember);
        if (whole.size() < inOrder.size() || end < entry.size()) {
            // What was cut away must not be taken for what is written in its place.
            journal.add(DraftJournal.Entry.of(entry.content(), DraftJournal.State.GROWING, end, "", List.of()));
        }
        var writer = new PackWriter(new ContentWriter(disk.reopen(file, end), digest));
        pack = Optional.of(new OpenPack(entry.content(), writer));
    }

    private void dropUnknown() throws IOException {
        try (var files = Files.list(content.resolve(folder))) {
            for (var file : files.toList()) {
                var name = folder + "/" + file.getFileName();
                boolean known = fresh.containsKey(name)
                        || pack.filter(open -> open.name.equals(name)).isPresent()
                        || large.waiting().stream()
                                .anyMatch(entry -> entry.content().equals(name));
                if (known) {
                    contentNumber = Math.max(contentNumber, numberOf(file));
                } else {
                    disk.delete(file);
                }
            }
        }
    }

    private static int numberOf(Path file) {
        return Integer.parseInt(String.valueOf(file.getFileName()).replaceAll("\\D", ""));
    }

    /** What an earlier attempt at this layer brought into safety of this path. */
    public Optional<ManifestItem> resumed(PhonePath path) {
        return Optional.ofNullable(resumed.get(path));
    }

    /** What the phone's layers below hold. */
    public Below below() {
        return below;
    }

    /** Where content lies that this layer or one below it stored. */
    Optional<ManifestItem.Place> place(String digest) {
        return Optional.ofNullable(byDigest.get(digest)).or(() -> below.place(digest));
    }

    /** Whether the item's bytes are stored by this layer, rather than by one below. */
    public boolean isFresh(ManifestItem item) {
        return item.place()
                .filter(place -> place.content().startsWith(folder + "/"))
                .isPresent();
    }

    /** Takes an item as it is: unchanged, or with the reason why it could not be saved. */
    public void keep(ManifestItem item) {
        items.add(item);
    }

    /** Stores an item of at most {@link #PACKED_UP_TO} bytes, unless its content is stored already. */
    public ManifestItem add(Listed.File file, Kind kind, byte[] bytes, String digest, ManifestItem.Origin origin)
            throws IOException {
        var there = place(digest);
        if (there.isPresent()) {
            var item = ManifestItem.stored(file, kind, bytes.length, digest, there.get(), origin);
            items.add(item);
            return item;
        }
        var open = openPack();
        var place = new ManifestItem.Place(open.name, open.writer.add(file.path(), file.modified(), bytes));
        var item = ManifestItem.stored(file, kind, bytes.length, digest, place, origin);
        items.add(item);
        byDigest.put(digest, place);
        open.items.add(item);
        boolean sealed = stack.key().isPresent();
        if (open.writer.size() >= (sealed ? SEALED_PACK_SIZE : PACK_SIZE)) {
            closePack();
        } else if (!sealed && open.writer.size() - open.journaled >= JOURNAL_EVERY) {
            open.writer.flush();
            journal.add(DraftJournal.Entry.of(
                    open.name, DraftJournal.State.GROWING, open.writer.size(), "", List.copyOf(open.items)));
            open.items.clear();
            open.journaled = open.writer.size();
        }
        return item;
    }

    private OpenPack openPack() throws IOException {
        if (pack.isEmpty()) {
            var name = stack.stored(folder + "/" + String.format(Locale.ROOT, "pack-%06d.tar", ++contentNumber));
            pack = Optional.of(new OpenPack(name, new PackWriter(create(name))));
        }
        return pack.get();
    }

    private ContentWriter create(String name) throws IOException {
        return new ContentWriter(disk.create(content.resolve(name)), stack.key());
    }

    /** Ends the open pack; syncing goes on beside the next one. */
    private void closePack() throws IOException {
        if (pack.isEmpty()) {
            return;
        }
        var open = pack.get();
        pack = Optional.empty();
        var digest = open.writer.finish();
        long size = open.writer.storedSize();
        var closed = DraftJournal.Entry.of(open.name, DraftJournal.State.CLOSED, size, digest, List.copyOf(open.items));
        journal.add(closed);
        settle(SYNCING - size);
        syncing.add(new Syncing(size, syncer.submit(() -> {
            try (var writer = open.writer) {
                writer.sync();
            }
            journalSafe(closed);
            return null;
        })));
        fresh.put(open.name, digest);
    }

    private void journalSafe(DraftJournal.Entry closed) throws IOException {
        journal.add(DraftJournal.Entry.of(
                closed.content(), DraftJournal.State.SAFE, closed.size(), closed.digest(), List.of()));
    }

    /** Waits for the syncing under way, until no more than so many bytes wait for it. */
    private void settle(long allowed) throws IOException {
        while (!syncing.isEmpty() && syncing.stream().mapToLong(Syncing::bytes).sum() > allowed) {
            try {
                syncing.removeFirst().done().get();
            } catch (ExecutionException e) {
                if (e.getCause() instanceof IOException failure) {
                    throw failure;
                }
                throw new IOException(e.getCause());
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IOException(e);
            }
        }
    }

    /** Begins an item that is stored in a file of its own, or goes on with it behind what an earlier attempt stored of it. */
    public LargeItem alone(Listed.File file) throws IOException {
        var there = large.goOn(file);
        return there.isPresent()
                ? there.get()
                : large.begin(
                        file, stack.stored(folder + "/" + String.format(Locale.ROOT, "file-%06d", ++contentNumber)));
    }

    /** A large item is complete and on the medium. */
    void stored(String name, LargeItem.Finished finished, ManifestItem item) throws IOException {
        journal.add(DraftJournal.Entry.of(
                name, DraftJournal.State.SAFE, finished.storedSize(), finished.stored(), List.of(item)));
        fresh.put(name, finished.stored());
        byDigest.put(finished.digest(), item.place().orElseThrow());
    }

    /** A large item is not wanted. */
    void drop(String name) throws IOException {
        disk.delete(content.resolve(name));
    }

    /** Brings everything taken so far into safety without publishing it. */
    public void settleAll() throws IOException {
        closePack();
        settle(0);
    }

    /** All items so far, in the order in which they came. */
    public List<ManifestItem> items() {
        return List.copyOf(items);
    }

    /** What came, changed and went, as far as the items so far tell. */
    public List<LayerChange> changes(List<LeftOut> left) {
        return LayerChange.between(below, items, LeftOut.whole(left));
    }

    /**
     * Makes the layer visible, in one step; before it nothing of it is, after it all.
     *
     * @return what could not be done afterwards, though the layer is there
     */
    public List<Problem> publish(LayerRecord record) throws IOException {
        settleAll();
        for (var left : large.waiting()) {
            disk.delete(content.resolve(left.content()));
        }
        var recordBytes = Json.PAGE.writeValueAsBytes(record);
        write(Manifest.NAME, out -> Manifest.write(out, items));
        write(Strongroom.RECORD, out -> out.write(recordBytes));
        var state = new LinkedHashMap<>(fresh);
        var stored = inventory.contents();
        var referred = new HashSet<String>();
        items.forEach(item -> item.place().ifPresent(place -> referred.add(place.content())));
        for (var content : referred) {
            if (stored.containsKey(content)) {
                state.putIfAbsent(content, stored.get(content));
            }
        }
        var next = inventory
                .next(fresh, state, record.begun(), "Layer " + record.number())
                .bytes();
        var version = work.resolve("version");
        for (var name : List.of(Inventory.NAME, Inventory.SIDECAR)) {
            disk.delete(version.resolve(name));
        }
        disk.write(version.resolve(Inventory.NAME), next);
        disk.write(version.resolve(Inventory.SIDECAR), Inventory.sidecar(next));
        dropWhatIsStoredBelow();
        disk.syncFolder(content);
        disk.syncFolder(version);
        if (stack.sealed()) {
            stack.seals().label(stack.name(), number(), recordBytes);
        }
        object.publish(version, number(), work);
        return tidyUp();
    }

    private List<Problem> tidyUp() {
        try {
            new StackFrame(stack, disk).keepMissingCopies();
            disk.delete(work);
            return List.of();
        } catch (IOException e) {
            return List.of(Problem.loss(
                    "Layer " + number(),
                    "The second copies of its small files could not be written",
                    "Free some space on the strongroom's disk; they are written when it is opened next"));
        }
    }

    /**
     * OCFL stores content once an object: what an older layer has already, this one refers to by its digest. The new copy takes
     * the place of the old one, byte for byte the same, so that an old one which was damaged is mended by it.
     */
    private void dropWhatIsStoredBelow() throws IOException {
        for (var file : fresh.entrySet()) {
            var there = inventory.contentPath(file.getValue());
            if (there.isPresent()) {
                var older = object.root().resolve(there.get());
                disk.move(content.resolve(file.getKey()), older);
                disk.syncFolder(Disk.parent(older));
            }
        }
        boolean empty;
        try (var left = Files.list(content.resolve(folder))) {
            empty = left.findAny().isEmpty();
        }
        if (empty) {
            disk.delete(content.resolve(folder)); // OCFL allows no empty folder
        } else {
            disk.syncFolder(content.resolve(folder));
        }
    }

    private interface Body {
        void writeTo(OutputStream out) throws IOException;
    }

    /** Writes a file of the layer's own. */
    private void write(String plainName, Body body) throws IOException {
        var name = stack.stored(plainName);
        disk.delete(content.resolve(name));
        try (var out = create(name)) {
            var stream = new BufferedOutputStream(
                    new OutputStream() {
                        @Override
                        public void write(int b) throws IOException {
                            write(new byte[] {(byte) b}, 0, 1);
                        }

                        @Override
                        public void write(byte[] bytes, int offset, int length) throws IOException {
                            out.write(bytes, offset, length);
                        }
                    },
                    1 << 16);
            body.writeTo(stream);
            stream.flush();
            fresh.put(name, out.finish());
            out.sync();
        }
    }

    /** Lets go of the draft. What is in its journal stays for the next attempt; {@link #publish} has removed it. */
    @Override
    public void close() throws IOException {
        try (lease) {
            if (pack.isPresent()) {
                pack.get().writer.close();
                pack = Optional.empty();
            }
            syncer.close();
        }
    }
}
