package app.custodex.readers.families;

import app.custodex.link.Family;
import app.custodex.readers.Reader;
import app.custodex.readers.files.OpenFiles;
import app.custodex.readers.ostrel.Ostrel;
import app.custodex.readers.pellow.Pellow;
import app.custodex.seal.Passphrase;
import java.util.List;
import java.util.Optional;

/** All readers. Whoever adds one adds it to its family, and nowhere else. */
public final class FamilyReaders {
    private FamilyReaders() {}

    /** Those whose things are wanted first come first. */
    public static List<Reader> of(Family family) {
        return of(family, Optional.empty());
    }

    /**
     * The same, with what only a key of the customer opens.
     *
     * @param burrowKey it stays the caller's to destroy, once nothing is read any more
     */
    public static List<Reader> of(Family family, Optional<Passphrase> burrowKey) {
        return switch (family) {
            case OSTREL -> Ostrel.readers(burrowKey);
            case PELLOW -> Pellow.readers(burrowKey);
            case FOLDER, ARCHIVE, WEBDAV, LOFT, CRATE -> OpenFiles.readers();
        };
    }
}
