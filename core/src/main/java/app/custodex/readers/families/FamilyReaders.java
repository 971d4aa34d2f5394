package app.custodex.readers.families;

import app.custodex.link.Family;
import app.custodex.readers.Reader;
import app.custodex.readers.files.OpenFiles;
import app.custodex.readers.ostrel.Ostrel;
import app.custodex.readers.pellow.Pellow;
import java.util.List;

/** All readers. Whoever adds one adds it to its family, and nowhere else. */
public final class FamilyReaders {
    private FamilyReaders() {}

    /** Those whose things are wanted first come first. */
    public static List<Reader> of(Family family) {
        return switch (family) {
            case OSTREL -> Ostrel.readers();
            case PELLOW -> Pellow.readers();
            case FOLDER, ARCHIVE, WEBDAV, LOFT -> OpenFiles.readers();
        };
    }
}
