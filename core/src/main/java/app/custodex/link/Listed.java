package app.custodex.link;

import app.custodex.base.Problem;
import java.time.Instant;

/** One line of a folder's listing. */
public sealed interface Listed {
    /** Where it is, or is said to be. */
    PhonePath path();

    /**
     * @param size bytes
     * @param modified the phone's own time of the last change, UTC
     * @param etag changes whenever the content does (RFC 9110 §8.8.3); empty when the phone gives none
     */
    record File(PhonePath path, long size, Instant modified, String etag) implements Listed {}

    /** @param modified the phone's own time of the last change, UTC; the epoch when it gives none */
    record Folder(PhonePath path, Instant modified) implements Listed {
        public Folder(PhonePath path) {
            this(path, Instant.EPOCH);
        }
    }

    /**
     * A symbolic link: kept as what it says, never followed.
     *
     * @param modified the phone's own time of the last change, UTC; the epoch when it gives none
     */
    record Link(PhonePath path, String target, Instant modified) implements Listed {
        public Link(PhonePath path, String target) {
            this(path, target, Instant.EPOCH);
        }
    }

    /** A folder that can't be looked into; what is in it is not known this time. */
    record Closed(PhonePath path, Problem problem) implements Listed {}

    /** The phone names something that can't be a file of it. */
    record Refused(PhonePath path, Problem problem) implements Listed {
        /** Of something whose name is what the problem says. */
        public Refused(Problem problem) {
            this(PhonePath.nearest(problem.subject()), problem);
        }
    }
}
