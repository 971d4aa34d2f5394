package app.custodex.backup;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/**
 * How far a backup is, at one moment.
 *
 * @param kinds in the order of {@link Kind}; empty while the phone is listed
 * @param doneBytes of what is new, copied so far; bytes read back while it is checked
 * @param allBytes of what is new; bytes to read back while it is checked
 * @param doneItems of what is new, copied so far
 * @param allItems of what is new; items found so far while the phone is listed
 * @param unchangedBytes that are there already and are not copied again
 * @param bytesPerSecond over the last half minute
 * @param left empty while it can't be told
 * @param failed items that could not be read so far
 * @param waiting what the copy waits for, when it stands still
 */
public record BackupProgress(
        Phase phase,
        List<KindProgress> kinds,
        long doneBytes,
        long allBytes,
        long doneItems,
        long allItems,
        long unchangedBytes,
        long bytesPerSecond,
        Optional<Duration> left,
        long failed,
        Optional<Problem> waiting) {
    /** What is being done. */
    public enum Phase {
        LISTING,
        COPYING,
        PUBLISHING,
        CHECKING,
        ENDED
    }

    /**
     * @param items on the phone
     * @param fresh of them new or changed
     * @param freshBytes of those
     * @param done of the new ones, saved or given up
     */
    public record KindProgress(Kind kind, long items, long fresh, long freshBytes, long done) {}

    /** From 0 to 1 within the phase. */
    public double share() {
        if (allBytes + allItems == 0) {
            return phase == Phase.ENDED ? 1 : 0;
        }
        // Empty files have no bytes; a small weight an item keeps the line moving.
        double perItem = 4096;
        return Math.min(1, (doneBytes + doneItems * perItem) / (allBytes + allItems * perItem));
    }
}
