package app.custodex.extract;

import app.custodex.extract.Extraction.Order;
import java.io.Closeable;
import java.io.IOException;
import java.util.List;

/** Where things are written to: a folder, or a package. Closing one that is not finished leaves no half of a package. */
public interface Target extends Closeable {
    /** Opens one. */
    interface Opening {
        Target open() throws IOException;
    }

    /** Into which formats write. */
    OutFolder folder();

    /** What was written, and what is in it. */
    WrittenFiles files();

    /**
     * Adds what belongs to it: checksums, a start page.
     *
     * @param leftOut what the formats had no place for, a line each
     */
    void finish(Material material, List<Order> orders, List<String> leftOut) throws IOException;

    /** The files that lie on the disk now because of it. */
    List<WrittenFile> onDisk();

    @Override
    void close() throws IOException;
}
