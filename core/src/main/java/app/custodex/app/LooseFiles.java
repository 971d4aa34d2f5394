package app.custodex.app;

import app.custodex.link.PhoneIdentity;
import app.custodex.link.PickedLink;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * Files of this computer that somebody picked, with no phone: they are read straight, under the shop's own docket, and nothing of them is
 * kept.
 */
public final class LooseFiles {
    private static final String IDENTIFIER = "loose-files";
    private static final String NAME = "Files of this computer";

    private LooseFiles() {}

    /** Whether that is what a phone's identity stands for. */
    public static boolean are(PhoneIdentity phone) {
        return phone.identifier().equals(IDENTIFIER);
    }

    /**
     * A bay in which they lie; it is on no bench.
     *
     * @param strongroom is left out of a folder that holds it
     * @throws IOException when one of them is not there
     */
    static Bay bay(List<Path> paths, Supplier<Path> strongroom) throws IOException {
        var source = new Source(
                0,
                IDENTIFIER,
                IDENTIFIER,
                NAME,
                Source.Type.FOLDER,
                URI.create("custodex:" + IDENTIFIER),
                Optional.empty());
        var bay = new Bay(source, new PickedLink(IDENTIFIER, NAME, paths, strongroom));
        bay.ask();
        return bay;
    }
}
