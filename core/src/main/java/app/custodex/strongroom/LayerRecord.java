package app.custodex.strongroom;

import app.custodex.link.Kind;
import app.custodex.link.PhoneIdentity;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.Set;

/**
 * What a layer is, kept in it as {@code layer.json}.
 *
 * @param number counts from 1, the same as the OCFL version
 * @param phone as it described itself when the layer was begun
 * @param begun UTC
 * @param took from the start to the publishing, pauses and earlier attempts not counted
 * @param kinds in the order of {@link Kind}; kinds of which the layer holds nothing are left out
 * @param refused what the phone listed but could not be an item at all
 * @param left kinds that are not in the layer, or not in full, and why
 * @param readEverything whether unchanged items were read and compared too, not only looked at
 * @param sealed whether the stack is sealed
 * @param tool name and version of the program that made it
 */
public record LayerRecord(
        int number,
        PhoneIdentity phone,
        Instant begun,
        Duration took,
        List<KindTotal> kinds,
        int refused,
        List<LeftOut> left,
        boolean readEverything,
        boolean sealed,
        String tool) {
    public LayerRecord {
        Objects.requireNonNull(phone);
        Objects.requireNonNull(begun);
        Objects.requireNonNull(took);
        kinds = List.copyOf(kinds);
        left = left == null ? List.of() : List.copyOf(left); // layers of Custodex 0.1 did not say
    }

    /**
     * @param items all items of this kind that the phone listed and that were asked for
     * @param missed how many of them could not be saved in full
     * @param bytes of the items that were saved
     * @param freshItems how many of them this layer stores itself; the others are stored by layers below
     * @param freshBytes bytes of those
     * @param change against the layers below
     */
    public record KindTotal(
            Kind kind, long items, long missed, long bytes, long freshItems, long freshBytes, Change change) {
        public KindTotal {
            change = change == null ? Change.NONE : change; // layers of Custodex 0.1 did not say
        }

        /** Of one item; what became of it since the layer below is not looked at. */
        public static KindTotal of(ManifestItem item, boolean fresh) {
            long bytes = item.saved() ? item.size() : 0;
            return new KindTotal(
                    item.kind(), 1, item.missed() ? 1 : 0, bytes, fresh ? 1 : 0, fresh ? bytes : 0, Change.NONE);
        }

        /** The sum of two totals of one kind. */
        public KindTotal plus(KindTotal other) {
            return new KindTotal(
                    kind,
                    items + other.items,
                    missed + other.missed,
                    bytes + other.bytes,
                    freshItems + other.freshItems,
                    freshBytes + other.freshBytes,
                    change.plus(other.change));
        }
    }

    /** How many items came, changed and went since the layer below. */
    public record Change(long added, long changed, long gone) {
        public static final Change NONE = new Change(0, 0, 0);

        public Change plus(Change other) {
            return new Change(added + other.added, changed + other.changed, gone + other.gone);
        }
    }

    /** Kinds of which this layer holds all that the phone had. */
    Set<Kind> whole() {
        return LeftOut.whole(left);
    }

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

    public Change change() {
        return kinds.stream().map(KindTotal::change).reduce(Change.NONE, Change::plus);
    }
}
