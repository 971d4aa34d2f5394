package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.base.Json;
import app.custodex.link.Kind;
import app.custodex.link.Listed;
import app.custodex.link.PhonePath;
import java.io.BufferedOutputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/**
 * A layer that is being made. It lies outside the storage root until {@link #publish} renames it in; until then nobody
 * sees it. Every stored file is synced and then written into a journal, so that a later attempt goes on behind the last
 * one. One thread at a time writes to a draft.
 *
 * <p>A failure to write ends the draft; {@link #close} keeps what is in the journal.
 */
public final class LayerDraft implements Closeable {
    /** Larger items are stored alone: a pack stays near its size, and an item of a pack fits into memory. */
    public static final int PACKED_UP_TO = 4 << 20;
    /** Large enough for sequential writing, small enough to lose little when a copy is cut. */
    private static final long PACK_SIZE = 64L << 20;

    /** One line of the journal: a stored file and the items in it. */
    private record Stored(String content, String digest, List<ManifestItem> items) {}

    private final ObjectFolder object;
    private final Inventory inventory;
    private final Below below;
    private final Stack stack;
    private final Path work;
    private final Disk disk;
    private final Closeable lock;
    private final Path content;
    private final String folder;
    private final Map<String, String> fresh = new LinkedHashMap<>();
    private final Map<PhonePath, ManifestItem> resumed = new HashMap<>();
    private final Map<String, ManifestItem.Place> byDigest = new HashMap<>();
    private final List<ManifestItem> items = new ArrayList<>();
    private final ExecutorService syncer = Executors.newSingleThreadExecutor(
            Thread.ofVirtual().name("pack-sync").factory());
    private final List<Future<?>> syncing = new ArrayList<>();
    private Optional<OpenPack> pack = Optional.empty();
    private int contentNumber;

    private record OpenPack(String name, PackWriter writer, List<ManifestItem> items) {}

    /** @param stack which phone's, and its key when it is sealed */
    LayerDraft(ObjectFolder object, Inventory inventory, Below below, Stack stack, Path work, Disk disk, Closeable lock)
            throws IOException {
        this.object = object;
        this.inventory = inventory;
        this.below = below;
        this.stack = stack;
        this.work = work;
        this.disk = disk;
        this.lock = lock;
        this.content = work.resolve("version").resolve("content");
        this.folder = "layer-%04d".formatted(number());
        disk.createFolders(content.resolve(folder));
        resume();
    }

    /** The number that this layer will have. */
    public int number() {
        return inventory.headNumber() + 1;
    }

    private Path journal() {
        return work.resolve("journal-%04d.jsonl".formatted(number()));
    }

    private void remember(ManifestItem item) {
        resumed.put(item.path(), item);
        item.place().ifPresent(place -> byDigest.putIfAbsent(item.digest(), place));
    }

    /** Takes over what an earlier attempt brought into safety, and drops the rest of it. */
    private void resume() throws IOException {
        if (Files.exists(journal())) {
            for (var line : Files.readAllLines(journal())) {
                Stored stored;
                try {
                    stored = Json.LINE.readValue(unsealed(line), Stored.class);
                } catch (IOException | IllegalArgumentException torn) {
                    break; // the last line of a cut attempt
                }
                if (Files.exists(content.resolve(stored.content()))) {
                    fresh.put(stored.content(), stored.digest());
                    stored.items().forEach(this::remember);
                }
            }
        }
        try (var files = Files.list(content.resolve(folder))) {
            for (var file : files.toList()) {
                if (fresh.containsKey(folder + "/" + file.getFileName())) {
                    contentNumber = Math.max(contentNumber, numberOf(file));
                } else {
                    disk.delete(file);
                }
            }
        }
    }

    private static int numberOf(Path file) {
        return Integer.parseInt(file.getFileName().toString().replaceAll("\\D", ""));
    }

    /** What an earlier attempt at this layer brought into safety of this path. */
    public Optional<ManifestItem> resumed(PhonePath path) {
        return Optional.ofNullable(resumed.get(path));
    }

    /** What the phone's layers below hold. */
    public Below below() {
        return below;
    }

    private Optional<ManifestItem.Place> place(String digest) {
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
    public ManifestItem add(
            Listed.File file, Kind kind, String etag, byte[] bytes, String digest, ManifestItem.Origin origin)
            throws IOException {
        var there = place(digest);
        if (there.isPresent()) {
            var item = ManifestItem.stored(file, kind, etag, bytes.length, digest, there.get(), origin);
            items.add(item);
            return item;
        }
        var open = openPack();
        var place = new ManifestItem.Place(open.name(), open.writer().add(file.path(), file.modified(), bytes));
        var item = ManifestItem.stored(file, kind, etag, bytes.length, digest, place, origin);
        items.add(item);
        byDigest.put(digest, place);
        open.items().add(item);
        if (open.writer().size() >= PACK_SIZE) {
            closePack();
        }
        return item;
    }

    private OpenPack openPack() throws IOException {
        if (pack.isEmpty()) {
            var name = stack.stored(folder + "/pack-%06d.tar".formatted(++contentNumber));
            pack = Optional.of(new OpenPack(name, new PackWriter(create(name)), new ArrayList<>()));
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
        var digest = open.writer().finish();
        settle();
        syncing.add(syncer.submit(() -> {
            try (var writer = open.writer()) {
                writer.sync();
            }
            journal(new Stored(open.name(), digest, open.items()));
            return null;
        }));
        fresh.put(open.name(), digest);
    }

    /** Waits for the syncing under way, so that no more than one pack is unsafe beside the open one. */
    private void settle() throws IOException {
        for (var running : syncing) {
            try {
                running.get();
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
        syncing.clear();
    }

    private void journal(Stored stored) throws IOException {
        try (var out = disk.append(journal())) {
            out.write(ByteBuffer.wrap(
                    (sealed(Json.LINE.writeValueAsString(stored)) + "\n").getBytes(StandardCharsets.UTF_8)));
            out.sync();
        }
    }

    /** A line of the journal as it may lie on the disk: of a sealed stack an age file in base64. */
    private String sealed(String line) throws IOException {
        return stack.key().isEmpty()
                ? line
                : Base64.getEncoder().encodeToString(stack.key().get().encrypt(line.getBytes(StandardCharsets.UTF_8)));
    }

    private String unsealed(String line) throws IOException {
        return stack.key().isEmpty()
                ? line
                : new String(stack.key().get().decrypt(Base64.getDecoder().decode(line)), StandardCharsets.UTF_8);
    }

    /** Begins an item that is stored in a file of its own. */
    public Alone alone(Listed.File file, Kind kind) throws IOException {
        return new Alone(file, kind);
    }

    /** A large item on its way in. Closing it before {@link #finish} drops it. */
    public final class Alone implements Closeable {
        private final Listed.File file;
        private final Kind kind;
        private final String name = stack.stored(folder + "/file-%06d".formatted(++contentNumber));
        private final ContentWriter out;
        /** Of a file that is not sealed, the digest of what lies on the disk is that of the content. */
        private final Optional<MessageDigest> plain;

        private boolean kept;

        private Alone(Listed.File file, Kind kind) throws IOException {
            this.file = file;
            this.kind = kind;
            this.plain = stack.key().isPresent() ? Optional.of(Digests.sha512()) : Optional.empty();
            this.out = create(name);
        }

        public void write(byte[] bytes, int length) throws IOException {
            plain.ifPresent(digest -> digest.update(bytes, 0, length));
            out.write(bytes, 0, length);
        }

        public ManifestItem finish(String etag, ManifestItem.Origin origin) throws IOException {
            var stored = out.finish();
            var digest = plain.map(Digests::hex).orElse(stored);
            var there = LayerDraft.this.place(digest);
            var place = there.orElse(new ManifestItem.Place(name, 0));
            var item = ManifestItem.stored(file, kind, etag, out.size(), digest, place, origin);
            if (there.isEmpty()) {
                out.sync();
                kept = true;
                settle();
                journal(new Stored(name, stored, List.of(item)));
                fresh.put(name, stored);
                byDigest.put(digest, place);
            }
            items.add(item);
            return item;
        }

        @Override
        public void close() throws IOException {
            out.close();
            if (!kept) {
                disk.delete(content.resolve(name));
            }
        }
    }

    /** Brings everything taken so far into safety without publishing it. */
    public void settleAll() throws IOException {
        closePack();
        settle();
    }

    /** All items so far, in the order in which they came. */
    public List<ManifestItem> items() {
        return List.copyOf(items);
    }

    /** What came, changed and went, as far as the items so far tell. */
    public List<LayerChange> changes(List<LeftOut> left) {
        return LayerChange.between(below, items, LeftOut.whole(left));
    }

    /** Makes the layer visible, in one step; before it nothing of it is, after it all. */
    public void publish(LayerRecord record) throws IOException {
        settleAll();
        write(Manifest.NAME, out -> Manifest.write(out, items));
        write(Strongroom.RECORD, out -> out.write(Json.PAGE.writeValueAsBytes(record)));
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
        stack.label(record);
        object.publish(version, number(), work);
        disk.delete(work);
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
                disk.syncFolder(ObjectFolder.parent(older));
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
        try (lock) {
            if (pack.isPresent()) {
                pack.get().writer().close();
                pack = Optional.empty();
            }
            syncer.close();
        }
    }
}
