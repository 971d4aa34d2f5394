package app.custodex.link;

import java.time.Duration;
import java.util.List;

/**
 * A phone, or anything else that can be backed up, at the other end of a cable.
 *
 * <p>Every method blocks and may be called from several threads at once. Errors: {@link LinkException.Lost} when the
 * phone is gone, {@link LinkException.NotReady} when it waits for a movement of the hand, {@link LinkException.Item}
 * when one file or folder can't be read while the rest can.
 */
public interface PhoneLink extends AutoCloseable {
    /** Asks the phone how it is; also how pairing goes on, so ask again until it is ready. */
    PhoneStatus status() throws LinkException;

    /** Tells the phone whether the copy will be sealed: some give certain kinds only then. */
    default void promise(boolean sealed) {}

    /** How much it may list; without it, as much as is usual. */
    default void limit(Limits limits) {}

    /** How long to leave it in peace between two questions how it is. */
    default Duration askEvery() {
        return Duration.ofMillis(400);
    }

    /** What lies directly in a folder, in the phone's order. */
    List<Listed> list(PhonePath folder) throws LinkException;

    /** Opens a file from an offset on; the caller closes it. */
    PhoneContent open(PhonePath file, long offset) throws LinkException;

    /** Which kind a file is, by where it lies and how it is called. */
    Kind kindOf(PhonePath file);

    /** Which kind a file is now that its content is known; on a phone the place decides. */
    default Kind kindOf(PhonePath file, Kind byPlace, byte[] content) {
        return byPlace;
    }

    @Override
    void close();
}
