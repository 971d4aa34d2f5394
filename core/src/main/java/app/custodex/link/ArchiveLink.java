package app.custodex.link;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.apache.commons.compress.archivers.ArchiveException;
import org.apache.commons.compress.archivers.ArchiveStreamFactory;
import org.apache.commons.compress.compressors.CompressorException;
import org.apache.commons.compress.compressors.CompressorStreamFactory;

/**
 * A ZIP archive (PKWARE APPNOTE) or an uncompressed TAR archive (POSIX pax, ustar, GNU). Its names are a stranger's: what would
 * lie outside of it is refused.
 */
public final class ArchiveLink extends PlainLink {
    /** JAR is a ZIP with a certain first entry. */
    private static final Set<String> KNOWN =
            Set.of(ArchiveStreamFactory.ZIP, ArchiveStreamFactory.JAR, ArchiveStreamFactory.TAR);

    private final Path file;
    private Optional<ArchiveIndex> index = Optional.empty();
    private Limits limits = Limits.USUAL;

    public ArchiveLink(String identifier, String name, Path file) {
        super(Family.ARCHIVE, new SourceName(identifier, name));
        this.file = file;
    }

    /**
     * Looks at the beginning of a file before it is taken for an archive.
     *
     * @throws ProblemException when it is none that can be read here
     */
    public static void require(Path file) throws IOException {
        if (!Files.isRegularFile(file)) {
            throw noArchive(file); // reading a pipe would wait for its other end
        }
        try (var in = new BufferedInputStream(Files.newInputStream(file))) {
            if (isArchive(in)) {
                return;
            }
            var packing = packing(in);
            if (packing.isPresent()) {
                throw new ProblemException(Problem.failure(
                        file.toString(),
                        "It is packed with " + packing.get() + "; its items can't be reached one by one",
                        "Unpack it first, and add the TAR archive or the folder that comes out"));
            }
            throw noArchive(file);
        }
    }

    private static ProblemException noArchive(Path file) {
        return new ProblemException(Problem.failure(
                file.toString(),
                "It is not a ZIP or TAR archive",
                "Unpack it with the program that made it, and add the folder instead"));
    }

    private static boolean isArchive(InputStream in) throws IOException {
        try {
            return KNOWN.contains(ArchiveStreamFactory.detect(in));
        } catch (ArchiveException none) {
            return false;
        }
    }

    private static Optional<String> packing(InputStream in) throws IOException {
        try {
            return Optional.of(CompressorStreamFactory.detect(in));
        } catch (CompressorException none) {
            return Optional.empty();
        }
    }

    @Override
    public PhoneStatus status() {
        if (!Files.isReadable(file) || !Files.isRegularFile(file)) {
            return status(none(), file.toString(), 0, 0);
        }
        try {
            long size = Files.size(file);
            return status(EnumSet.of(ReadinessStep.REACH), file.toString(), size, size);
        } catch (IOException e) {
            return status(none(), file.toString(), 0, 0);
        }
    }

    private synchronized ArchiveIndex index() throws LinkException {
        if (index.isPresent()) {
            return index.get();
        }
        try {
            var read = isZip() ? ZipEntries.index(file, limits) : TarEntries.index(file, limits);
            index = Optional.of(read);
            return read;
        } catch (LinkException e) {
            throw e;
        } catch (IOException | RuntimeException e) {
            if (!Files.exists(file)) {
                throw new LinkException.Lost(name().name(), e);
            }
            throw new LinkException.Item(
                    PhonePath.nearest(name().name()),
                    "This is not a ZIP or an uncompressed TAR archive, or it is damaged",
                    "Unpack it with the program that made it, and add the folder instead",
                    e);
        }
    }

    private boolean isZip() throws IOException {
        try (var in = Files.newInputStream(file)) {
            var start = in.readNBytes(4);
            return start.length == 4 && start[0] == 'P' && start[1] == 'K' && (start[2] == 3 || start[2] == 5);
        }
    }

    @Override
    public synchronized void limit(Limits newLimits) {
        if (!newLimits.equals(limits)) {
            limits = newLimits;
            close();
        }
    }

    @Override
    public List<Listed> list(PhonePath folder) throws LinkException {
        return index().in(folder);
    }

    @Override
    public PhoneContent open(PhonePath path, long offset) throws LinkException {
        return index().open(path, offset, e -> trouble(path, e));
    }

    private LinkException trouble(PhonePath path, Exception e) {
        if (e instanceof LinkException known) {
            return known;
        }
        if (!Files.exists(file)) {
            return new LinkException.Lost(name().name(), e);
        }
        return new LinkException.Item(
                path,
                "What the archive holds of it is not what the archive promises",
                "Ask for another copy of the archive; the rest was taken",
                e);
    }

    @Override
    public synchronized void close() {
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
