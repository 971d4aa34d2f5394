package app.custodex.strongroom;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.Problem;
import app.custodex.link.PhonePath;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.LongConsumer;

/**
 * Reads every stored byte of some layers of one phone back from the medium and compares the digests; what several of them share is
 * read once. Of a sealed stack the stored bytes are compared as they lie there, which needs no passphrase; when it was opened, the
 * content is decrypted and compared too.
 */
public final class LayerCheck {
    private static final int AT_ONCE = 2;

    private final List<StoredLayer> layers;
    private final boolean decrypt;
    private final Clock clock;

    /** @param layers of one phone; the caller closes them when the check is done */
    public LayerCheck(List<StoredLayer> layers, Clock clock) {
        this(layers, true, clock);
    }

    private LayerCheck(List<StoredLayer> layers, boolean decrypt, Clock clock) {
        this.layers = List.copyOf(layers);
        this.decrypt = decrypt;
        this.clock = clock;
    }

    /**
     * The same, of layers whose stored bytes were digested as they were sealed: that they are still these bytes says that their
     * content is what was sealed, so it is not decrypted as a whole.
     */
    public static LayerCheck ofStoredBytes(List<StoredLayer> layers, Clock clock) {
        return new LayerCheck(layers, false, clock);
    }

    /** Bytes that {@link #run} will read. */
    public long size() throws IOException {
        long size = 0;
        for (var file : files().keySet()) {
            size += Files.exists(file) ? Files.size(file) : 0;
        }
        return decrypts() ? 2 * size : size;
    }

    private boolean decrypts() {
        return decrypt && layers.stream().anyMatch(layer -> layer.key().isPresent());
    }

    /** The stored files of all layers, with the digests that they should have. */
    private Map<Path, String> files() throws IOException {
        var files = new LinkedHashMap<Path, String>();
        for (var layer : layers) {
            for (var content : layer.contentDigests().entrySet()) {
                files.put(layer.contentFile(content.getKey()), content.getValue());
            }
        }
        return files;
    }

    /**
     * @param progress is told bytes as they are read
     * @return one report a layer
     * @throws java.util.concurrent.CancellationException when it was stopped; nothing is concluded then
     */
    public List<CheckReport> run(LongConsumer progress, CancelToken cancel) throws IOException {
        var bytes = new AtomicLong();
        LongConsumer counted = n -> {
            bytes.addAndGet(n);
            progress.accept(n);
        };
        var files = files();
        var damaged = new ConcurrentHashMap<Path, String>();
        forEach(files.entrySet(), cancel, file -> check(file.getKey(), file.getValue(), damaged, cancel, counted));
        var torn = tornItems(damaged.keySet(), cancel, counted);
        var reports = new ArrayList<CheckReport>();
        for (var layer : layers) {
            reports.add(report(layer, damaged, torn, bytes.get()));
        }
        return reports;
    }

    private interface Step<T> {
        void run(T each) throws IOException;
    }

    /** Digesting is all processor: two at a time keep the disk busy without taking the computer from its user. */
    private static <T> void forEach(Iterable<T> all, CancelToken cancel, Step<T> step) throws IOException {
        var jobs = new ArrayList<Future<Boolean>>();
        try (var threads = Executors.newFixedThreadPool(AT_ONCE)) {
            for (var each : all) {
                Callable<Boolean> job = () -> {
                    cancel.check();
                    step.run(each);
                    return true;
                };
                jobs.add(threads.submit(job));
            }
        }
        cancel.check();
        for (var job : jobs) {
            if (job.state() == Future.State.FAILED) {
                throw new IOException(job.exceptionNow());
            }
        }
    }

    private static void check(
            Path file, String digest, Map<Path, String> damaged, CancelToken cancel, LongConsumer progress) {
        try (var in = new MediumStream(file)) {
            if (!Digests.of(counted(in, cancel, progress)).equals(digest)) {
                damaged.put(file, "Its bytes are no longer what was written");
            }
        } catch (IOException e) {
            damaged.put(file, Files.exists(file) ? "It can't be read from the disk" : "It is gone from the disk");
        }
    }

    private static InputStream counted(InputStream in, CancelToken cancel, LongConsumer progress) {
        return new FilterInputStream(in) {
            @Override
            public int read(byte[] buffer, int offset, int length) throws IOException {
                cancel.check();
                int n = super.read(buffer, offset, length);
                if (n > 0) {
                    progress.accept(n);
                }
                return n;
            }
        };
    }

    /**
     * Where items lie whose own bytes are not what was copied: looked for in damaged files, and everywhere in a sealed stack that
     * was opened.
     */
    private Set<ManifestItem.Place> tornItems(Set<Path> damaged, CancelToken cancel, LongConsumer progress)
            throws IOException {
        var torn = ConcurrentHashMap.<ManifestItem.Place>newKeySet();
        if (damaged.isEmpty() && !decrypts()) {
            return torn;
        }
        var seen = new HashSet<ManifestItem.Place>();
        for (var layer : layers) {
            if (!layer.readable()) {
                continue;
            }
            var byContent = new HashMap<String, List<ManifestItem>>();
            try {
                layer.forEach(item -> item.place()
                        .filter(seen::add)
                        .ifPresent(place -> byContent
                                .computeIfAbsent(place.content(), c -> new ArrayList<>())
                                .add(item)));
            } catch (IOException unreadable) {
                continue; // its stored file is damaged, and that is told
            }
            if (!decrypts()) {
                byContent.keySet().removeIf(content -> !isDamaged(layer, content, damaged));
            }
            forEach(byContent.values(), cancel, items -> {
                for (var item : items) {
                    cancel.check();
                    if (!layer.whole(item)) {
                        item.place().ifPresent(torn::add);
                    }
                    progress.accept(decrypts() ? item.size() : 0);
                }
            });
        }
        return torn;
    }

    private static boolean isDamaged(StoredLayer layer, String content, Set<Path> damaged) {
        try {
            return damaged.contains(layer.contentFile(content));
        } catch (IOException unknown) {
            return true;
        }
    }

    private CheckReport report(StoredLayer layer, Map<Path, String> damaged, Set<ManifestItem.Place> torn, long bytes)
            throws IOException {
        var damage = new TreeMap<String, Problem>();
        for (var content : layer.contentDigests().keySet()) {
            var what = damaged.get(layer.contentFile(content));
            if (what != null) {
                damage.put(content, damage(content, what));
            }
        }
        layer.inventoryDamage().ifPresent(what -> damage.put(Inventory.NAME, damage(Inventory.NAME, what)));
        var hit = new ArrayList<PhonePath>();
        if (!torn.isEmpty()) {
            try {
                layer.forEach(item -> item.place().filter(torn::contains).ifPresent(place -> {
                    hit.add(item.path());
                    damage.computeIfAbsent(
                            place.content(), content -> damage(content, "Its content is not what was copied"));
                }));
            } catch (IOException unreadable) {
                // Its list of items is among the damaged files; what was read of it is named.
            }
        }
        return new CheckReport(
                layer.record().number(),
                clock.instant(),
                layer.contentDigests().size(),
                bytes,
                List.copyOf(damage.values()),
                hit,
                decrypts() && layer.key().isPresent());
    }

    private static Problem damage(String content, String what) {
        return Problem.failure(content, what, "Back the phone up again while it is here; check the disk for errors");
    }
}
