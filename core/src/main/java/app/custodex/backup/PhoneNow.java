package app.custodex.backup;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.link.FileSource;
import app.custodex.link.Kind;
import app.custodex.link.Limits;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhoneContent;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneLink;
import app.custodex.link.PhonePath;
import app.custodex.strongroom.LeftOut;
import app.custodex.strongroom.ManifestItem;
import app.custodex.strongroom.Strongroom;
import java.io.FileNotFoundException;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;

/** The files of a phone that is plugged in and ready, read from the phone itself. It is listed once, when this is opened. */
public final class PhoneNow implements FileSource {
    /** So much of a file tells what it is, where the place does not. */
    private static final int HEAD = 8192;

    private record Known(Listed.File file, Kind kind, String version) {}

    private final PhoneLink link;
    private final PhoneIdentity phone;
    private final StallWatch watch;
    private final List<LeftOut> left;
    private final TreeMap<PhonePath, Known> files = new TreeMap<>();
    private volatile Optional<LinkException> gone = Optional.empty();

    private PhoneNow(PhoneLink link, PhoneIdentity phone, List<LeftOut> left, CancelToken cancel) {
        this.link = link;
        this.phone = phone;
        this.left = left;
        this.watch = new StallWatch(link, waiting -> {}, cancel, StallWatch.TELL_AFTER, StallWatch.HANG_UP_AFTER);
    }

    /**
     * Lists a phone.
     *
     * @param phone the one that is meant
     * @throws LinkException when it is not there or not ready, or another one is there
     */
    public static PhoneNow open(
            PhoneLink link, PhoneIdentity phone, Strongroom strongroom, Clock clock, CancelToken cancel)
            throws IOException {
        var there = link.status().identity();
        if (there.filter(same -> same.identifier().equals(phone.identifier())).isEmpty()) {
            throw new LinkException.NotReady(phone.name());
        }
        var survey = Survey.of(link, strongroom, false, Limits.USUAL, clock, cancel);
        var now = new PhoneNow(link, phone, survey.left(), cancel);
        try {
            for (var found : survey.files()) {
                cancel.check();
                now.add(found);
            }
            return now;
        } catch (IOException | RuntimeException e) {
            now.close();
            throw e;
        }
    }

    private void add(Survey.Found found) throws IOException {
        var file = found.file();
        // What a layer has as it is goes by its digest there, so that it counts as the same.
        var version = found.below()
                .map(ManifestItem::digest)
                .orElseGet(() -> file.size() + " " + file.modified() + " " + file.etag());
        files.put(file.path(), new Known(file, found.kind(), version)); // so that it can be opened
        if (phone.family().plain() && !found.stored()) {
            files.put(file.path(), new Known(file, kind(found), version));
        }
    }

    private Kind kind(Survey.Found found) throws IOException {
        var path = found.file().path();
        try (var in = open(path)) {
            return link.kindOf(path, found.kind(), in.readNBytes(HEAD));
        } catch (LinkException.Item unreadable) {
            return found.kind(); // told when it is read
        }
    }

    /** Whose files these are. */
    public PhoneIdentity phone() {
        return phone;
    }

    /** Kinds that the phone does not give this way, and what they need. */
    public List<Problem> problems() {
        return left.stream()
                .filter(kind -> kind.why() != LeftOut.Why.NOTHING_THERE && kind.why() != LeftOut.Why.SHARED)
                .map(kind -> Problem.note(
                        kind.kind().label(),
                        kind.why().words(),
                        switch (kind.why()) {
                            case SEALED_ONLY -> "Make a sealed backup, and read that";
                            case NOT_WRITTEN -> "Let the app write its copy first";
                            case OUT_OF_REACH -> "The owner decides about that on the phone";
                            default -> "";
                        }))
                .toList();
    }

    @Override
    public boolean has(PhonePath path) {
        return files.containsKey(path);
    }

    @Override
    public List<PhonePath> in(PhonePath folder) {
        return files.tailMap(folder, true).keySet().stream()
                .takeWhile(path -> path.text().startsWith(folder.text()))
                .filter(path -> path.in(folder))
                .toList();
    }

    @Override
    public List<PhonePath> of(Kind kind) {
        return files.values().stream()
                .filter(known -> known.kind() == kind)
                .map(known -> known.file().path())
                .toList();
    }

    private Known known(PhonePath path) throws IOException {
        var known = files.get(path);
        if (known == null) {
            throw new FileNotFoundException(path.text());
        }
        return known;
    }

    @Override
    public Facts facts(PhonePath path) throws IOException {
        var known = known(path);
        return new Facts(known.file().size(), known.file().modified(), known.version());
    }

    @Override
    public InputStream open(PhonePath path) throws IOException {
        known(path);
        if (gone.isPresent()) {
            throw gone.get();
        }
        try {
            return new Whole(path, watch.watched(link.open(path, 0)));
        } catch (LinkException e) {
            throw noted(e);
        }
    }

    /** Why the phone gives nothing any more; empty as long as it does. */
    public Optional<LinkException> gone() {
        return gone;
    }

    private LinkException noted(LinkException e) {
        if (!(e instanceof LinkException.Item)) {
            gone = Optional.of(e);
        }
        return e;
    }

    /** Compares what came with what was promised. */
    private final class Whole extends FilterInputStream {
        private final PhonePath path;
        private final long promised;
        private long came;

        Whole(PhonePath path, PhoneContent content) {
            super(content.stream());
            this.path = path;
            this.promised = content.size();
        }

        @Override
        public int read() throws IOException {
            var one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
        }

        @Override
        public int read(byte[] buffer, int offset, int length) throws IOException {
            int n;
            try {
                n = super.read(buffer, offset, length);
            } catch (LinkException e) {
                throw noted(e);
            }
            came += Math.max(0, n);
            if (n < 0 && came != promised || came > promised) {
                throw new LinkException.Item(
                        path,
                        "It has " + came + " bytes where " + promised + " were promised",
                        "Make a backup, which reads it again",
                        null);
            }
            return n;
        }

        @Override
        public long skip(long n) throws IOException {
            long skipped = super.skip(n);
            came += skipped;
            return skipped;
        }

        @Override
        public boolean markSupported() {
            return false;
        }
    }

    @Override
    public void close() {
        watch.close();
    }
}
