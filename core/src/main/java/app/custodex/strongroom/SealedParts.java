package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.link.LinkException;
import app.custodex.seal.AgeWriter;
import java.io.IOException;
import java.security.MessageDigest;
import java.util.Optional;

/**
 * A large item on its way into an age file. What a part holds is in the journal before any of it is on the disk, so that a later
 * attempt can tell that it seals the same content at the same place: two contents under one key and one number would give each
 * other away.
 */
final class SealedParts implements LargeItem.Parts {
    /** Whole chunks of an age file. */
    static final int PART = 2 << 20;

    /**
     * What an earlier attempt began to seal.
     *
     * @param size bytes of content
     * @param digest of those
     */
    record Expected(long size, String digest) {}

    private final ContentWriter out;
    private final PartJournal journal;
    private final AgeWriter.Begun begun;
    private final MessageDigest content;
    private final byte[] part = new byte[PART];
    private Optional<Expected> expected;
    private int filled;

    /**
     * @param content the digest of what is stored already
     * @param expected what the next part must be
     */
    SealedParts(ContentWriter out, PartJournal journal, MessageDigest content, Optional<Expected> expected) {
        this.out = out;
        this.journal = journal;
        this.begun = out.begun().orElseThrow();
        this.content = content;
        this.expected = expected;
    }

    @Override
    public long size() {
        return out.size() + filled;
    }

    @Override
    public void write(byte[] bytes, int length) throws IOException {
        for (int from = 0; from < length; ) {
            if (filled == PART) {
                sealPart();
                out.moreFollows();
                out.flush();
            }
            int n = Math.min(length - from, PART - filled);
            System.arraycopy(bytes, from, part, filled, n);
            filled += n;
            from += n;
        }
    }

    private void sealPart() throws IOException {
        content.update(part, 0, filled);
        var digest = Digests.hex(Salvage.copyOf(content));
        if (expected.isPresent() && !expected.get().equals(new Expected(size(), digest))) {
            throw new LinkException.Item(
                    journal.item().path(),
                    "It changed on the phone while it was copied",
                    "Back up again to take it",
                    null);
        }
        expected = Optional.empty();
        journal.add(size(), digest, Optional.of(begun));
        out.write(part, 0, filled);
        filled = 0;
    }

    /** What waits is read again by the next attempt: an age file goes on behind whole chunks only. */
    @Override
    public void leave() throws IOException {
        out.flush();
    }

    @Override
    public LargeItem.Finished finish() throws IOException {
        sealPart();
        return new LargeItem.Finished(Digests.hex(content), out.finish(), out.storedSize());
    }

    @Override
    public void sync() throws IOException {
        out.sync();
    }

    @Override
    public void close() throws IOException {
        out.close();
    }
}
