package app.custodex.strongroom;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.Problem;
import app.custodex.link.PhonePath;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.LongConsumer;

/** Reads every stored byte of a layer back from the medium and compares the digests. */
public final class LayerCheck {
    private static final int AT_ONCE = 2;

    private final StoredLayer layer;
    private final Clock clock;

    public LayerCheck(StoredLayer layer, Clock clock) {
        this.layer = layer;
        this.clock = clock;
    }

    /** Bytes that {@link #run} will read. */
    public long size() throws IOException {
        long size = 0;
        for (var content : layer.contentDigests().keySet()) {
            var file = layer.contentFile(content);
            size += Files.exists(file) ? Files.size(file) : 0;
        }
        return size;
    }

    /**
     * @param progress is told bytes as they are read
     * @throws java.util.concurrent.CancellationException when it was stopped; nothing is concluded then
     */
    public CheckReport run(LongConsumer progress, CancelToken cancel) throws IOException {
        var damaged = new ConcurrentHashMap<String, Problem>();
        var files = new AtomicInteger();
        var bytes = new AtomicLong();
        var jobs = new ArrayList<Future<?>>();
        // Digesting is all processor: two at a time keep the disk busy without taking the computer from its user.
        try (var threads = Executors.newFixedThreadPool(AT_ONCE)) {
            for (var entry : layer.contentDigests().entrySet()) {
                jobs.add(threads.submit(() -> {
                    check(entry.getKey(), entry.getValue(), damaged, cancel, n -> {
                        bytes.addAndGet(n);
                        progress.accept(n);
                    });
                    files.incrementAndGet();
                    return null;
                }));
            }
        }
        cancel.check();
        for (var job : jobs) {
            if (job.state() == Future.State.FAILED) {
                throw new IOException(job.exceptionNow());
            }
        }
        return new CheckReport(
                layer.record().number(),
                clock.instant(),
                files.get(),
                bytes.get(),
                List.copyOf(new TreeMap<>(damaged).values()),
                hit(damaged));
    }

    private void check(
            String content, String digest, Map<String, Problem> damaged, CancelToken cancel, LongConsumer progress)
            throws IOException {
        cancel.check();
        var file = layer.contentFile(content);
        try (var in = new MediumStream(file)) {
            if (!Digests.of(counted(in, cancel, progress)).equals(digest)) {
                damaged.put(content, damage(content, "Its bytes are no longer what was written"));
            }
        } catch (IOException e) {
            damaged.put(
                    content,
                    damage(
                            content,
                            Files.exists(file) ? "It can't be read from the disk" : "It is gone from the disk"));
        }
    }

    private static Problem damage(String content, String what) {
        return Problem.failure(
                content, what, "Back the phone up again while it is here; look for trouble with the disk");
    }

    private static InputStream counted(InputStream in, CancelToken cancel, LongConsumer progress) {
        return new java.io.FilterInputStream(in) {
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

    /** Of the items in a damaged file, those whose own bytes are hit; all of them where that can't be told. */
    private List<PhonePath> hit(Map<String, Problem> damaged) throws IOException {
        if (damaged.isEmpty()) {
            return List.of();
        }
        var hit = new ArrayList<PhonePath>();
        layer.forEach(item -> item.place().ifPresent(place -> {
            if (damaged.containsKey(place.content()) && !whole(item)) {
                hit.add(item.path());
            }
        }));
        return hit;
    }

    private boolean whole(ManifestItem item) {
        var place = item.place().orElseThrow();
        try {
            Path file = layer.contentFile(place.content());
            try (var in = Files.newInputStream(file)) {
                in.skipNBytes(place.offset());
                return Digests.of(new LimitedStream(in, item.size())).equals(item.digest());
            }
        } catch (IOException e) {
            return false;
        }
    }
}
