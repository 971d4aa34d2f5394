package app.custodex.backup;

import app.custodex.base.Problem;
import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.KindCount;
import app.custodex.link.Layout;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhoneContent;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneLink;
import app.custodex.link.PhonePath;
import app.custodex.link.PhoneStatus;
import app.custodex.link.ReadinessStep;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicLong;

/** A phone in memory that can hold names which no file system of this computer would take, and that fails on demand. */
public class FakePhone implements PhoneLink {
    private record Stored(byte[] bytes, Instant modified, int version) {}

    private final Map<PhonePath, Stored> files = new LinkedHashMap<>();
    private final Map<PhonePath, String> links = new LinkedHashMap<>();
    private final List<Problem> refused = new ArrayList<>();
    private final Set<PhonePath> unreadable = new HashSet<>();
    private final AtomicLong bytesRead = new AtomicLong();
    private final String identifier;
    private volatile long unplugAfter = Long.MAX_VALUE;
    private volatile boolean pluggedIn = true;
    private volatile long stallAfter = Long.MAX_VALUE;
    private volatile List<KindCount> contents = List.of();
    private volatile Optional<PhonePath> closed = Optional.empty();
    private int versions;

    public FakePhone(String identifier) {
        this.identifier = identifier;
    }

    public static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    public PhonePath put(String path, byte[] bytes) {
        return put(path, bytes, Instant.parse("2026-01-02T03:04:05Z").plusSeconds(++versions));
    }

    public synchronized PhonePath put(String path, byte[] bytes, Instant modified) {
        var at = new PhonePath(path);
        files.put(at, new Stored(bytes.clone(), modified, ++versions));
        return at;
    }

    /** Changes a file's content and says that it is the file that it was. */
    public synchronized void lie(PhonePath path, byte[] bytes) {
        files.computeIfPresent(path, (p, was) -> new Stored(bytes.clone(), was.modified(), was.version()));
    }

    public synchronized void remove(PhonePath path) {
        files.remove(path);
    }

    public void link(String path, String target) {
        links.put(new PhonePath(path), target);
    }

    public void refuse(Problem problem) {
        refused.add(problem);
    }

    public void unreadable(PhonePath path) {
        unreadable.add(path);
    }

    /** Pulls the cable after so many more bytes, in the middle of whatever is read then. */
    public void unplugAfter(long bytes) {
        unplugAfter = bytesRead.get() + bytes;
    }

    /** After so many more bytes nothing comes any more, though the connection stays. */
    public void stallAfter(long bytes) {
        stallAfter = bytesRead.get() + bytes;
    }

    /** Ends a stall for new connections; those that stand still stay so. */
    public void flow() {
        stallAfter = Long.MAX_VALUE;
    }

    /** What the phone says that it holds and does not give. */
    public void says(KindCount... counts) {
        contents = List.of(counts);
    }

    /** A folder that can't be looked into. */
    public void closeFolder(Optional<PhonePath> folder) {
        closed = folder;
    }

    public void plugIn() {
        unplugAfter = Long.MAX_VALUE;
        pluggedIn = true;
    }

    public long bytesRead() {
        return bytesRead.get();
    }

    /** What is on the phone now. */
    public synchronized Map<PhonePath, byte[]> state() {
        var state = new LinkedHashMap<PhonePath, byte[]>();
        files.forEach((path, stored) -> state.put(path, stored.bytes().clone()));
        return state;
    }

    public PhoneIdentity identity() {
        return new PhoneIdentity(
                identifier,
                "Test phone",
                Family.PELLOW,
                "Pellow Ridge",
                "PR9-0001",
                "004401000007712",
                "Pellow Base 9",
                "GB",
                ZoneId.of("Etc/GMT-1"),
                64_000_000_000L,
                1_000_000L);
    }

    private void requirePluggedIn() throws LinkException {
        if (!pluggedIn) {
            throw new LinkException.Lost("Test phone", null);
        }
    }

    @Override
    public PhoneStatus status() throws LinkException {
        requirePluggedIn();
        return new PhoneStatus(
                Family.PELLOW,
                "Pellow Ridge",
                Set.of(ReadinessStep.values()),
                Optional.of(80),
                Optional.of(identity()),
                contents,
                List.of());
    }

    @Override
    public synchronized List<Listed> list(PhonePath folder) throws LinkException {
        requirePluggedIn();
        if (closed.equals(Optional.of(folder))) {
            throw new LinkException.Item(folder, "The phone can't read it (answer 500)", "Try again", null);
        }
        var listed = new ArrayList<Listed>();
        var folders = new HashSet<PhonePath>();
        for (var file : files.entrySet()) {
            var path = file.getKey();
            if (!path.in(folder)) {
                continue;
            }
            var rest = folder.text().isEmpty()
                    ? path.text()
                    : path.text().substring(folder.text().length() + 1);
            if (rest.contains("/")) {
                var child = folder.child(rest.substring(0, rest.indexOf('/')));
                if (folders.add(child)) {
                    listed.add(new Listed.Folder(child));
                }
            } else {
                var stored = file.getValue();
                listed.add(new Listed.File(path, stored.bytes().length, stored.modified(), etag(stored)));
            }
        }
        if (folder.equals(PhonePath.ROOT)) {
            links.forEach((path, target) -> listed.add(new Listed.Link(path, target)));
            refused.forEach(problem -> listed.add(new Listed.Refused(problem)));
        }
        return listed;
    }

    private String etag(Stored stored) {
        return etagOf(stored.version());
    }

    /** @param version counts up with each change of any file */
    protected String etagOf(int version) {
        return "\"" + version + "\"";
    }

    @Override
    public synchronized PhoneContent open(PhonePath file, long offset) throws LinkException {
        requirePluggedIn();
        var stored = files.get(file);
        if (stored == null) {
            throw new LinkException.Item(
                    file, "It is no longer on the phone", "It was deleted while the copy ran", null);
        }
        if (unreadable.contains(file)) {
            throw new LinkException.Item(file, "The phone can't read it (answer 500)", "Try again", null);
        }
        var rest = new ByteArrayInputStream(stored.bytes());
        rest.skip(offset);
        return new PhoneContent(stored.bytes().length - offset, etag(stored), new Cable(rest));
    }

    @Override
    public Kind kindOf(PhonePath file) {
        return Layout.kindOf(Family.PELLOW, file);
    }

    @Override
    public void close() {}

    private final class Cable extends InputStream {
        private final InputStream in;
        private final CountDownLatch hungUp = new CountDownLatch(1);

        Cable(InputStream in) {
            this.in = in;
        }

        @Override
        public int read() throws IOException {
            var one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public void close() {
            hungUp.countDown();
        }

        private void standStill() throws IOException {
            try {
                hungUp.await();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
            throw new LinkException.Lost("Test phone", null);
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            if (bytesRead.get() > stallAfter) {
                standStill();
            }
            int n = in.read(buffer, offset, Math.min(length, 1 << 20));
            if (n > 0 && bytesRead.addAndGet(n) > unplugAfter) {
                pluggedIn = false;
            }
            requirePluggedIn();
            return n;
        }
    }
}
