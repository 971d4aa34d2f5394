package app.custodex.readers;

import app.custodex.link.FileSource;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Reads some kinds of things out of one sort of store. It keeps nothing between two stores. */
public interface Reader {
    /** A word that names it among the readers of a family, and lasts. */
    String name();

    Set<ThingKind> kinds();

    /** The stores of its sort that are there. */
    List<Store> stores(FileSource files) throws IOException;

    /** Is told once that there are stores to read, before the first of them: what takes a while to start can be started here. */
    default void prepare() {}

    /**
     * Reads a store from its beginning to its end. What is damaged becomes problems; the reading goes on.
     *
     * @throws IOException when the store can't be read at all, or the sink takes no more
     */
    void read(Store store, PhoneFiles phone, Sink sink) throws IOException;

    /** The picture that goes with a thing that was read earlier, such as the photo of a contact; empty when there is none. */
    default Optional<byte[]> picture(ThingId id, PhoneFiles phone) throws IOException {
        return Optional.empty();
    }
}
