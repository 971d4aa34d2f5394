package app.custodex.strongroom;

import java.io.IOException;

/** A large item in the clear: the digest of what lies on the disk is that of the content, and going on needs nothing more. */
final class PlainParts implements LargeItem.Parts {
    private final ContentWriter out;
    private final PartJournal journal;
    private long journaled;

    PlainParts(ContentWriter out, PartJournal journal) {
        this.out = out;
        this.journal = journal;
        this.journaled = out.size();
    }

    @Override
    public long size() {
        return out.size();
    }

    @Override
    public void write(byte[] bytes, int length) throws IOException {
        out.write(bytes, 0, length);
        if (out.size() - journaled >= LayerDraft.JOURNAL_EVERY) {
            leave();
        }
    }

    @Override
    public void leave() throws IOException {
        out.flush();
        journal.add(out.size(), out.digestSoFar());
        journaled = out.size();
    }

    @Override
    public LargeItem.Finished finish() throws IOException {
        var digest = out.finish();
        return new LargeItem.Finished(digest, digest, out.storedSize());
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
