package app.custodex.catalogue;

import app.custodex.model.Contact;
import java.util.List;

/**
 * Watches how a catalogue is made. It is told by the thread that makes it, and holds that up as long as it takes. That the contacts are
 * there is not told when a catalogue goes on from that of a layer below, since that takes no time.
 */
@FunctionalInterface
public interface Growth {
    /** @param things how many were read so far */
    void read(long things);

    /**
     * All contacts have been read, and none of them is in the catalogue yet. Not told of very many, which are not all kept in memory.
     *
     * @param contacts as the phone keeps them
     */
    default void contacts(List<Contact> contacts) {}

    /**
     * The contacts are in it; the rest comes as it is read, conversations in front of their messages. Short beginnings of words are
     * looked for more slowly, and people outside the contacts are not told apart, until it is done.
     *
     * @param growing need not be closed; once the making has ended each question to it ends with a
     *     {@link java.util.concurrent.CancellationException}
     */
    default void usable(Catalogue growing) {}
}
