package app.custodex.link;

import app.custodex.base.Problem;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** Where a phone's files can be read from without the phone. Safe for use by several threads. */
public interface FileSource extends Closeable {
    boolean has(PhonePath path) throws IOException;

    /** All files below a folder, at any depth, in the order of their paths. */
    List<PhonePath> in(PhonePath folder) throws IOException;

    /** All files of a kind, in the order of their paths. */
    List<PhonePath> of(Kind kind) throws IOException;

    /**
     * What is known of a file without reading it.
     *
     * @param version is another one whenever the content is another one; never empty
     */
    record Facts(long bytes, Instant modified, String version) {}

    /** Why a file that counts as a folder, such as an archive, could not be looked into; empty for any other. */
    default Optional<Problem> problem(PhonePath path) throws IOException {
        return Optional.empty();
    }

    /** @throws IOException when the file is not there */
    Facts facts(PhonePath path) throws IOException;

    /** @throws IOException when the file is not there or its stored copy can't be read */
    InputStream open(PhonePath path) throws IOException;
}
