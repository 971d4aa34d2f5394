package app.custodex.link;

import app.custodex.base.Problem;
import java.time.Instant;

/** One line of a folder's listing. */
public sealed interface Listed {
    /**
     * @param size bytes
     * @param modified the phone's own time of the last change, UTC
     * @param etag changes whenever the content does (RFC 9110 §8.8.3); empty when the phone gives none
     */
    record File(PhonePath path, long size, Instant modified, String etag) implements Listed {}

    record Folder(PhonePath path) implements Listed {}

    /** A symbolic link: kept as what it says, never followed. */
    record Link(PhonePath path, String target) implements Listed {}

    /** A folder that can't be looked into; what is in it is not known this time. */
    record Closed(PhonePath path, Problem problem) implements Listed {}

    /** The phone names something that can't be a file of it. */
    record Refused(Problem problem) implements Listed {}
}
