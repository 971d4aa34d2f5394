package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.base.Disk;
import app.custodex.link.Listed;
import java.io.IOException;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Begins the large items of a draft, or goes on with those that an earlier attempt began. */
final class LargeItems {
    private final LayerDraft draft;
    private final Stack stack;
    private final Path content;
    private final Disk disk;
    private final DraftJournal journal;
    private final Map<DraftJournal.Alone, DraftJournal.Entry> begun = new HashMap<>();

    /** @param content where stored files lie */
    LargeItems(LayerDraft draft, Stack stack, Path content, Disk disk, DraftJournal journal) {
        this.draft = draft;
        this.stack = stack;
        this.content = content;
        this.disk = disk;
        this.journal = journal;
    }

    /** Keeps what an earlier attempt began. */
    void remember(DraftJournal.Alone item, DraftJournal.Entry last) {
        begun.put(item, last);
    }

    /** What was begun, and that nobody has gone on with. */
    Collection<DraftJournal.Entry> waiting() {
        return begun.values();
    }

    /** Goes on with an item, if it was begun and what is stored of it is what was written. */
    Optional<LargeItem> goOn(Listed.File file) throws IOException {
        var before = begun.remove(DraftJournal.Alone.of(file));
        if (before == null) {
            return Optional.empty();
        }
        var stored = content.resolve(before.content());
        var there = before.begun().isPresent() ? sealed(file, before, stored) : plain(file, before, stored);
        if (there.isEmpty()) {
            disk.delete(stored);
        }
        return there;
    }

    LargeItem begin(Listed.File file, String name) throws IOException {
        var out = new ContentWriter(disk.create(content.resolve(name)), stack.key());
        var parts = new PartJournal(journal, name, DraftJournal.Alone.of(file));
        return new LargeItem(
                draft,
                file,
                name,
                stack.key().isPresent()
                        ? new SealedParts(out, parts, Digests.sha512(), Optional.empty())
                        : new PlainParts(out, parts),
                new byte[0]);
    }

    private Optional<LargeItem> plain(Listed.File file, DraftJournal.Entry before, Path stored) throws IOException {
        var digest = Digests.sha512();
        try (var channel = FileChannel.open(stored)) {
            if (channel.size() < before.size()) {
                return Optional.empty();
            }
            Salvage.digest(channel, before.size(), digest);
            if (!Digests.hex(Salvage.copyOf(digest)).equals(before.digest())) {
                return Optional.empty();
            }
            channel.position(0);
            var head = Channels.newInputStream(channel).readNBytes((int) Math.min(LargeItem.HEAD, before.size()));
            var out = new ContentWriter(disk.reopen(stored, before.size()), digest);
            return Optional.of(
                    new LargeItem(draft, file, before.content(), new PlainParts(out, journalOf(before, file)), head));
        }
    }

    private PartJournal journalOf(DraftJournal.Entry before, Listed.File file) {
        return new PartJournal(journal, before.content(), DraftJournal.Alone.of(file));
    }

    /**
     * Goes on behind the last whole part. A file that is more than one part behind the journal, or before it, begins anew: what was
     * sealed of it can no longer be compared with what will be.
     */
    private Optional<LargeItem> sealed(Listed.File file, DraftJournal.Entry before, Path stored) throws IOException {
        var begunFile = before.begun().orElseThrow();
        try (var channel = FileChannel.open(stored)) {
            if (stack.key().isEmpty() || channel.size() > begunFile.storedSize(before.size())) {
                return Optional.empty();
            }
            var there = SealedSoFar.read(channel, begunFile, before.size());
            boolean isAll = there.size() == before.size();
            if (there.size() == 0 // perhaps not even its header is there
                    || before.size() - there.size() > SealedParts.PART
                    || isAll && !Digests.hex(Salvage.copyOf(there.content())).equals(before.digest())) {
                return Optional.empty();
            }
            long end = begunFile.storedSize(there.size());
            var digest = Digests.sha512();
            Salvage.digest(channel, end, digest);
            var out = new ContentWriter(disk.reopen(stored, end), digest, begunFile, there.size());
            var expected = new SealedParts.Expected(before.size(), before.digest());
            var parts = new SealedParts(
                    out, journalOf(before, file), there.content(), isAll ? Optional.empty() : Optional.of(expected));
            return Optional.of(new LargeItem(draft, file, before.content(), parts, there.head()));
        }
    }
}
