package app.custodex.strongroom;

import app.custodex.link.Kind;
import app.custodex.link.PhoneIdentity;
import java.time.Duration;
import java.time.Instant;
import java.util.List;

/**
 * What a layer is, kept in it as {@code layer.json}.
 *
 * @param number counts from 1, the same as the OCFL version
 * @param phone as it described itself when the layer was begun
 * @param begun UTC
 * @param took from the start to the publishing, pauses and earlier attempts not counted
 * @param kinds in the order of {@link Kind}; kinds of which the phone held nothing are left out
 * @param refused what the phone listed but could not be an item at all
 * @param tool name and version of the program that made it
 */
public record LayerRecord(
        int number,
        PhoneIdentity phone,
        Instant begun,
        Duration took,
        List<KindTotal> kinds,
        int refused,
        String tool) {
    public LayerRecord {
        kinds = List.copyOf(kinds);
    }

    /**
     * @param items all items of this kind that the phone listed
     * @param missed how many of them could not be saved in full
     * @param bytes of the items that were saved
     * @param freshItems how many of them this layer stores itself; the others are stored by layers below
     * @param freshBytes bytes of those
     */
    public record KindTotal(Kind kind, long items, long missed, long bytes, long freshItems, long freshBytes) {}

    public long items() {
        return kinds.stream().mapToLong(KindTotal::items).sum();
    }

    public long missed() {
        return refused + kinds.stream().mapToLong(KindTotal::missed).sum();
    }

    public long bytes() {
        return kinds.stream().mapToLong(KindTotal::bytes).sum();
    }

    public long freshBytes() {
        return kinds.stream().mapToLong(KindTotal::freshBytes).sum();
    }

    public long freshItems() {
        return kinds.stream().mapToLong(KindTotal::freshItems).sum();
    }
}
