package app.custodex.strongroom;

import app.custodex.seal.AgeWriter;
import java.io.IOException;
import java.util.List;
import java.util.Optional;

/** The lines of the journal that tell how far one large item is. */
record PartJournal(DraftJournal journal, String name, DraftJournal.Alone item) {
    /** @param digest of so many bytes, as they lie on the disk */
    void add(long size, String digest) throws IOException {
        add(size, digest, Optional.empty());
    }

    /**
     * @param digest of so many bytes of content
     * @param begun how to go on with its age file
     */
    void add(long size, String digest, Optional<AgeWriter.Begun> begun) throws IOException {
        journal.add(new DraftJournal.Entry(
                name, DraftJournal.State.GROWING, size, digest, List.of(), Optional.of(item), begun));
    }
}
