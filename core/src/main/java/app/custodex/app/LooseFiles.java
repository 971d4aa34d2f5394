package app.custodex.app;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PickedLink;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
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
     * @param kept further folders of this program in which data of customers lie
     * @throws ProblemException when one of them is not there, can't be read, or lies where customers' data is kept: that is read as a layer,
     *     on a docket
     */
    static Bay bay(List<Path> paths, Supplier<Path> strongroom, List<Path> kept) throws IOException {
        try {
            refuse(paths, strongroom.get(), false);
            for (var place : kept) {
                refuse(paths, place, true);
            }
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
            if (!bay.ready()) {
                throw new ProblemException(Problem.failure(
                        String.valueOf(paths.getFirst()),
                        "This user may not read it",
                        "Give this user the right to read it"));
            }
            return bay;
        } catch (NoSuchFileException e) {
            throw new ProblemException(
                    Problem.failure(String.valueOf(e.getFile()), "It is not there", "Pick a file or a folder"), e);
        }
    }

    /** @param around whether a folder that holds it is refused too, since nobody leaves it out */
    private static void refuse(List<Path> paths, Path kept, boolean around) throws IOException {
        if (Files.notExists(kept)) {
            return;
        }
        var place = kept.toRealPath();
        for (var path : paths) {
            var real = path.toRealPath();
            if (real.startsWith(place)) {
                throw new ProblemException(Problem.failure(
                        path.toString(),
                        "It is a part of what is kept here for customers",
                        "Open the layer in the strongroom"));
            }
            if (around && place.startsWith(real)) {
                throw new ProblemException(Problem.failure(
                        path.toString(), "It holds what is kept here for customers", "Pick a folder inside of it"));
            }
        }
    }
}
