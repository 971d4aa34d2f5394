package app.custodex.facts;

import app.custodex.model.MediaFile.Fact;
import app.custodex.model.MediaFile.Place;
import app.custodex.model.Moment;
import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/**
 * What a file says of itself.
 *
 * @param title its own; empty when it has none
 * @param taken when it was taken or made: with the zone only where the file has it, by the clock on the wall otherwise
 * @param text that stands in a document, with a {@link #PAGE} where a page or a chapter begins; empty for other files
 */
public record FileFacts(
        String title,
        Optional<Moment> taken,
        Optional<Place> place,
        Optional<Duration> length,
        List<Fact> facts,
        String text) {
    /** Form feed: a page begins. */
    public static final char PAGE = '\f';

    public static final FileFacts NONE =
            new FileFacts("", Optional.empty(), Optional.empty(), Optional.empty(), List.of(), "");

    public FileFacts {
        facts = List.copyOf(facts);
    }

    /** The same, with a length; none when that is zero. */
    FileFacts lasting(Duration time) {
        return new FileFacts(title, taken, place, time.isZero() ? Optional.empty() : Optional.of(time), facts, text);
    }

    /** Why a file says nothing. */
    enum Unread {
        DAMAGED,
        /** Under a password. */
        LOCKED,
        TOO_LARGE;

        /** Why, as an exception. */
        Unreadable exception() {
            return new Unreadable(this);
        }
    }

    /** A file says nothing, which harms nobody else. */
    static final class Unreadable extends IOException {
        private static final long serialVersionUID = 1L;
        private final Unread why;

        private Unreadable(Unread why) {
            super(why.name());
            this.why = why;
        }

        Unread why() {
            return why;
        }
    }

    /** How a file is to be read. */
    public enum Sort {
        /** Pictures and videos. */
        IMAGE,
        SOUND,
        DOCUMENT
    }
}
