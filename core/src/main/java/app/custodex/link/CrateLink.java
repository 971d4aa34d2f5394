package app.custodex.link;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.seal.Passphrase;
import app.custodex.seal.StackKey;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;

/** A phone as a maker's own program backed it up on a computer: its files lie where they lie on the phone. */
public final class CrateLink implements PhoneLink {
    /** Bytes; a key under a passphrase has some hundreds. */
    private static final int LONGEST_KEY = 64 << 10;

    private final String identifier;
    private final String name;
    private final Path folder;
    private Optional<StackKey> key = Optional.empty();
    private Optional<ArchiveIndex> index = Optional.empty();
    private Limits limits = Limits.USUAL;

    /** @param folder holds label and body */
    public CrateLink(String identifier, String name, Path folder) {
        this.identifier = identifier;
        this.name = name;
        this.folder = folder;
    }

    /**
     * Opens a sealed one; the key stays in memory until this is closed. Takes about a second.
     *
     * @throws ProblemException when it is another passphrase, or the key is damaged
     */
    public void unlock(Passphrase passphrase) throws IOException {
        byte[] sealed;
        try (var in = Files.newInputStream(folder.resolve(CrateLabel.KEY))) {
            sealed = in.readNBytes(LONGEST_KEY);
        }
        Optional<StackKey> opened;
        try {
            opened = StackKey.open(sealed, passphrase);
        } catch (IOException damaged) {
            throw new ProblemException(
                    Problem.failure(
                            name,
                            "The key in this backup is damaged; without it nobody can open the rest",
                            "Ask the customer for another copy of the backup"),
                    damaged);
        }
        synchronized (this) {
            key = Optional.of(opened.orElseThrow(() -> new ProblemException(Problem.failure(
                    name,
                    "This passphrase does not open the backup",
                    "Ask the customer for it again; it is the one that was given to the maker's program"))));
        }
    }

    @Override
    public PhoneStatus status() {
        var done = EnumSet.noneOf(ReadinessStep.class);
        Optional<CrateLabel> label = Optional.empty();
        try {
            label = Optional.of(CrateLabel.read(folder));
            done.add(ReadinessStep.REACH);
            if (!label.get().sealed() || isUnlocked()) {
                done.add(ReadinessStep.PASSPHRASE);
            }
        } catch (IOException away) {
            // It is asked again.
        }
        var open = label.filter(any -> done.contains(ReadinessStep.PASSPHRASE));
        return new PhoneStatus(
                Family.CRATE,
                label.map(CrateLabel::model).orElse(name),
                done,
                Optional.empty(),
                open.map(any -> any.identity(identifier)),
                open.map(CrateLabel::contents).orElse(List.of()),
                List.of());
    }

    private synchronized boolean isUnlocked() {
        return key.isPresent();
    }

    @Override
    public Duration askEvery() {
        return Duration.ofSeconds(1);
    }

    @Override
    public synchronized void limit(Limits newLimits) {
        if (!newLimits.equals(limits)) {
            limits = newLimits;
            closeIndex();
        }
    }

    private synchronized ArchiveIndex index() throws LinkException {
        if (index.isPresent()) {
            return index.get();
        }
        try {
            var body = body();
            try {
                var read = CrateBody.index(body, limits);
                index = Optional.of(read);
                return read;
            } catch (IOException | RuntimeException e) {
                body.close();
                throw e;
            }
        } catch (LinkException e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            if (!Files.exists(folder)) {
                throw new LinkException.Lost(name, e);
            }
            throw new LinkException.Item(
                    PhonePath.ROOT, "This backup is cut off or damaged", "Ask the customer for another copy of it", e);
        }
    }

    private CrateBody.Source body() throws IOException {
        if (!CrateLabel.read(folder).sealed()) {
            return new PlainBody(FileChannel.open(folder.resolve(CrateLabel.BODY)));
        }
        var opened = key.orElseThrow(() -> new LinkException.NotReady(name));
        var file = opened.seekable(folder.resolve(CrateLabel.SEALED_BODY));
        return new CrateBody.Source() {
            @Override
            public int read(ByteBuffer into, long from) throws IOException {
                return file.read(into, from);
            }

            @Override
            public long size() {
                return file.size();
            }

            @Override
            public void close() throws IOException {
                file.close();
            }
        };
    }

    private static final class PlainBody implements CrateBody.Source {
        private final FileChannel file;
        private final long size;

        PlainBody(FileChannel file) throws IOException {
            this.file = file;
            this.size = file.size();
        }

        @Override
        public int read(ByteBuffer into, long from) throws IOException {
            return file.read(into, from);
        }

        @Override
        public long size() {
            return size;
        }

        @Override
        public void close() throws IOException {
            file.close();
        }
    }

    @Override
    public List<Listed> list(PhonePath path) throws LinkException {
        return index().in(path);
    }

    @Override
    public PhoneContent open(PhonePath path, long offset) throws LinkException {
        return index().open(path, offset, e -> trouble(path, e));
    }

    private LinkException trouble(PhonePath path, Exception e) {
        if (e instanceof LinkException known) {
            return known;
        }
        return Files.exists(folder)
                ? new LinkException.Item(
                        path,
                        "What the backup holds of it is not what its index promises",
                        "Ask for another copy of the backup; the rest was taken",
                        e)
                : new LinkException.Lost(name, e);
    }

    @Override
    public Kind kindOf(PhonePath file) {
        try {
            return Layout.kindOf(CrateLabel.read(folder).family(), file);
        } catch (IOException away) {
            return Kind.OTHER;
        }
    }

    @Override
    public synchronized void close() {
        closeIndex();
        key = Optional.empty();
    }

    private void closeIndex() {
        try {
            if (index.isPresent()) {
                index.get().close();
            }
        } catch (IOException e) {
            // It was only read.
        }
        index = Optional.empty();
    }
}
