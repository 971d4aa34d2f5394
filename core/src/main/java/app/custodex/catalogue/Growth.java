package app.custodex.catalogue;

/** Watches how a catalogue is made. It is told by the thread that makes it, and holds that up as long as it takes. */
@FunctionalInterface
public interface Growth {
    /** @param things how many were read so far */
    void read(long things);

    /**
     * The contacts are in it; the rest comes as it is read, conversations in front of their messages. Short beginnings of words are
     * looked for more slowly, and people outside the contacts are not told apart, until it is done. Not called when a catalogue goes
     * on from that of a layer below, since that takes no time.
     *
     * @param growing need not be closed; once the making has ended each question to it ends with a
     *     {@link java.util.concurrent.CancellationException}
     */
    default void usable(Catalogue growing) {}
}
