package app.custodex.backup;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.KindCount;
import app.custodex.link.Listed;
import app.custodex.link.PhonePath;
import app.custodex.strongroom.Below;
import app.custodex.strongroom.LeftOut;
import app.custodex.strongroom.LeftOut.Why;
import app.custodex.strongroom.ManifestItem;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/**
 * What a backup will do, decided before anything is copied.
 *
 * @param unchanged items that are stored already and are taken over as they are
 * @param fresh items that have to be read from the phone, in the phone's order
 * @param noted folders, links, kept as what they say, what is left out, and items that can't be looked at this time
 * @param refused what the phone listed but can't be an item, and folders that can't be listed
 * @param left kinds that are not taken, or not all of
 */
record BackupPlan(
        List<ManifestItem> unchanged,
        List<Fresh> fresh,
        List<ManifestItem> noted,
        List<Problem> refused,
        List<LeftOut> left) {
    record Fresh(Listed.File file, Kind kind) {}

    /** What is known about a path without reading it. */
    interface Known {
        /** @return an item whose bytes are safe already and that may be taken over when the listing says the same of it */
        Optional<ManifestItem> of(PhonePath path);
    }

    /** What the phone listed, and what it says about itself. */
    record Source(List<Listed> listing, List<KindCount> contents, Function<Listed.File, Kind> kindOf, boolean sealed) {
        private Optional<Why> withheld(Kind kind) {
            return contents.stream()
                    .filter(count -> count.kind() == kind && !count.given(sealed))
                    .findFirst()
                    .flatMap(KindCount::withheld)
                    .map(why -> switch (why) {
                        case SEALED_ONLY -> Why.SEALED_ONLY;
                        case OUT_OF_REACH -> Why.OUT_OF_REACH;
                        case NOT_WRITTEN -> Why.NOT_WRITTEN;
                    });
        }
    }

    private static final class Tally {
        private long items;
        private long bytes;
        private long taken;
    }

    static BackupPlan of(Source source, Selection selection, Known known, Below below) {
        var plan = new BackupPlan(
                new ArrayList<>(), new ArrayList<>(), new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        var withheld = new EnumMap<Kind, Why>(Kind.class);
        for (var kind : Kind.values()) {
            source.withheld(kind).ifPresent(why -> withheld.put(kind, why));
        }
        var tallies = new EnumMap<Kind, Tally>(Kind.class);
        for (var listed : source.listing()) {
            switch (listed) {
                case Listed.Folder folder -> plan.noted.add(ManifestItem.folder(folder));
                case Listed.Refused refused -> {
                    plan.noted.add(ManifestItem.leftOut(refused));
                    plan.refused.add(refused.problem());
                }
                case Listed.Closed closed -> plan.closed(closed, below, source, withheld);
                case Listed.Link link -> {
                    if (selection.takes(Kind.OTHER, link.path())) {
                        plan.noted.add(ManifestItem.link(link, Kind.OTHER, linkNote(link)));
                    }
                }
                case Listed.File file -> {
                    var before = known.of(file.path());
                    var kind = before.map(ManifestItem::kind)
                            .orElseGet(() -> source.kindOf().apply(file));
                    var tally = tallies.computeIfAbsent(kind, k -> new Tally());
                    tally.items++;
                    tally.bytes += file.size();
                    if (!withheld.containsKey(kind) && selection.takes(kind, file.path())) {
                        tally.taken++;
                        plan.take(file, kind, before);
                    }
                }
            }
        }
        for (var kind : Kind.values()) {
            var tally = tallies.getOrDefault(kind, new Tally());
            why(kind, tally, selection, withheld, source.contents())
                    .ifPresent(why -> plan.left.add(leftOut(kind, why, tally, source.contents())));
        }
        return plan;
    }

    private void take(Listed.File file, Kind kind, Optional<ManifestItem> before) {
        var same = before.filter(item -> item.matches(file));
        if (same.isPresent()) {
            unchanged.add(same.get());
        } else {
            fresh.add(new Fresh(file, kind));
        }
    }

    /** What lay in a folder that can't be listed may still be there: it is missed, not gone. */
    private void closed(Listed.Closed closed, Below below, Source source, Map<Kind, Why> withheld) {
        var probe = new Listed.File(closed.path().child("file"), 0, Instant.EPOCH, "");
        if (withheld.containsKey(source.kindOf().apply(probe))) {
            return; // the phone said so beforehand, and the kind is named as left out
        }
        refused.add(closed.problem());
        noted.add(ManifestItem.leftOut(new Listed.Refused(closed.path(), closed.problem())));
        below.items().stream()
                .filter(item -> item.path().in(closed.path()))
                .map(item -> ManifestItem.missed(item, closed.problem()))
                .forEach(noted::add);
    }

    private static Optional<Why> why(
            Kind kind, Tally tally, Selection selection, Map<Kind, Why> withheld, List<KindCount> contents) {
        if (withheld.containsKey(kind)) {
            return Optional.of(withheld.get(kind));
        }
        boolean shared =
                tally.items == 0 && contents.stream().anyMatch(count -> count.kind() == kind && count.shared());
        if (!selection.kinds().contains(kind)) {
            return Optional.of(tally.items == 0 && !shared ? Why.NOTHING_THERE : Why.NOT_CHOSEN);
        }
        if (tally.items == 0) {
            return Optional.of(shared ? Why.SHARED : Why.NOTHING_THERE);
        }
        return selection.whole(kind) || tally.taken == tally.items ? Optional.empty() : Optional.of(Why.PARTLY_CHOSEN);
    }

    /** Of what can't be listed, the figures are the phone's own. */
    private static LeftOut leftOut(Kind kind, Why why, Tally tally, List<KindCount> contents) {
        var told = contents.stream().filter(count -> count.kind() == kind).findFirst();
        return new LeftOut(
                kind,
                why,
                Math.max(tally.items, told.map(KindCount::files).orElse(0L)),
                Math.max(tally.bytes, told.map(KindCount::bytes).orElse(0L)));
    }

    private static Problem linkNote(Listed.Link link) {
        return Problem.note(
                link.path().text(),
                "It is a link to \"" + link.target() + "\" and was kept as a link, not followed",
                "What it points to is copied only if it lies among the phone's own files");
    }

    /** How many things that are no items cost something: a pipe has no content that could be missing. */
    int missing() {
        return (int) refused.stream()
                .filter(problem -> problem.grade() != Problem.Grade.NOTE)
                .count();
    }

    long freshBytes() {
        return fresh.stream().mapToLong(f -> f.file().size()).sum();
    }

    long unchangedBytes() {
        return unchanged.stream().mapToLong(ManifestItem::size).sum();
    }

    long need() {
        return need(freshBytes(), fresh.size(), fresh.size() + unchanged.size());
    }

    /**
     * Bytes that the strongroom's disk has to have room for. What comes on top of the content was measured at 0.9 kB for an item
     * that is stored and a fifth of that for one that is only listed, and is rounded up.
     */
    static long need(long freshBytes, long freshItems, long allItems) {
        return freshBytes + freshItems * 1_200 + allItems * 300;
    }
}
