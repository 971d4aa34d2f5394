package app.custodex.app;

import app.custodex.search.ContactIndex;
import java.util.function.Supplier;

/** Watches how a phone's data is read for the first time. It is told by the thread that reads, and holds that up as long as it takes. */
@FunctionalInterface
public interface ReadingProgress {
    /** Somebody who does not watch. */
    ReadingProgress NONE = things -> {};

    /** @param things how many were read so far */
    void read(long things);

    /**
     * All contacts have been read; nothing else can be asked yet. Not told of very many.
     *
     * @param contacts puts them in order
     */
    default void contacts(Supplier<ContactIndex> contacts) {}

    /**
     * The contacts can be looked at; the rest comes as it is read.
     *
     * @param growing must not be closed; once the reading has ended each question about its catalogue ends with a
     *     {@link java.util.concurrent.CancellationException}
     */
    default void usable(OpenPhone growing) {}
}
