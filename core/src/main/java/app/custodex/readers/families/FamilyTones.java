package app.custodex.readers.families;

import app.custodex.link.Family;
import app.custodex.readers.ostrel.Ostrel;
import app.custodex.readers.pellow.Pellow;
import app.custodex.tones.ToneRules;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** What families of phones take as tones. */
public final class FamilyTones {
    private FamilyTones() {}

    /** Empty for what is no phone. */
    public static Optional<ToneRules> of(Family family) {
        return switch (family) {
            case OSTREL -> Optional.of(Ostrel.TONES);
            case PELLOW -> Optional.of(Pellow.TONES);
            case FOLDER, ARCHIVE, WEBDAV, LOFT, CRATE -> Optional.empty();
        };
    }

    /** Those that play tones. */
    public static List<Family> families() {
        return Arrays.stream(Family.values())
                .filter(family -> of(family).isPresent())
                .toList();
    }
}
