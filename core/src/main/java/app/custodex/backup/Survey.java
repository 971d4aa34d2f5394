package app.custodex.backup;

import app.custodex.base.CancelToken;
import app.custodex.link.Kind;
import app.custodex.link.Limits;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhoneLink;
import app.custodex.link.PhonePath;
import app.custodex.strongroom.Below;
import app.custodex.strongroom.LeftOut;
import app.custodex.strongroom.ManifestItem;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What a phone holds, compared with what is stored of it: looked at before a backup, without copying anything.
 *
 * @param files everything that the phone lists and gives, in its order
 * @param left kinds that it does not give, and why
 * @param compared whether it was compared with the layers below; not while those are sealed and closed
 */
public record Survey(List<Found> files, List<LeftOut> left, boolean compared) {
    public Survey {
        files = List.copyOf(files);
        left = List.copyOf(left);
    }

    /** @param below the item of a layer below that has it as it is */
    public record Found(Listed.File file, Kind kind, Optional<ManifestItem> below) {
        public boolean stored() {
            return below.isPresent();
        }
    }

    /** How much of one kind there is, and how much of it is new. */
    public record Amount(long items, long bytes, long newItems, long newBytes) {
        static final Amount NONE = new Amount(0, 0, 0, 0);

        Amount plus(Found found) {
            long size = found.file().size();
            return new Amount(
                    items + 1,
                    bytes + size,
                    newItems + (found.stored() ? 0 : 1),
                    newBytes + (found.stored() ? 0 : size));
        }
    }

    /**
     * Lists a phone that is ready and compares it with the layers below.
     *
     * @param sealed whether the copy is going to be sealed
     * @param limits how much the phone may list
     */
    public static Survey of(
            PhoneLink link, Strongroom strongroom, boolean sealed, Limits limits, Clock clock, CancelToken cancel)
            throws IOException {
        var status = link.status();
        var phone = status.identity().orElseThrow(() -> new LinkException.NotReady(status.model()));
        link.promise(sealed);
        boolean readable = strongroom.readable(phone.identifier());
        var below = readable ? strongroom.below(phone.identifier()) : Below.nothing();
        var gate = new Gate(link, phone.identifier(), Duration.ZERO, clock, cancel, waiting -> {});
        try (var watch = new StallWatch(link, waiting -> {}, cancel, StallWatch.TELL_AFTER, StallWatch.HANG_UP_AFTER)) {
            var listing = new PhoneLister(link, gate, watch, cancel, limits).list(found -> {});
            var source = new BackupPlan.Source(listing, status.contents(), file -> link.kindOf(file.path()), sealed);
            var plan = BackupPlan.of(source, Selection.EVERYTHING, below::find, below);
            Map<PhonePath, ManifestItem> unchanged = new HashMap<>();
            plan.unchanged().forEach(item -> unchanged.put(item.path(), item));
            Map<PhonePath, Kind> fresh = new HashMap<>();
            plan.fresh().forEach(item -> fresh.put(item.file().path(), item.kind()));
            var files = new ArrayList<Found>();
            for (var listed : listing) {
                if (listed instanceof Listed.File file) {
                    Optional.ofNullable(unchanged.get(file.path()))
                            .ifPresent(item -> files.add(new Found(file, item.kind(), Optional.of(item))));
                    Optional.ofNullable(fresh.get(file.path()))
                            .ifPresent(kind -> files.add(new Found(file, kind, Optional.empty())));
                }
            }
            return new Survey(files, plan.left(), readable);
        }
    }

    /** By kind, in the order of {@link Kind}. */
    public Map<Kind, Amount> amounts(Selection selection) {
        var amounts = new EnumMap<Kind, Amount>(Kind.class);
        for (var found : files) {
            if (selection.takes(found.kind(), found.file().path())) {
                amounts.merge(found.kind(), Amount.NONE.plus(found), (sum, one) -> sum.plus(found));
            }
        }
        return amounts;
    }

    /** Bytes that a backup of this selection needs on the strongroom's disk. */
    public long need(Selection selection) {
        return amounts(selection).values().stream()
                .mapToLong(amount -> BackupPlan.need(amount.newBytes(), amount.newItems(), amount.items()))
                .sum();
    }

    /** What of this kind the phone lists. */
    public List<Found> of(Kind kind) {
        return files.stream().filter(found -> found.kind() == kind).toList();
    }
}
