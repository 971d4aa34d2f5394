package app.custodex.backup;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.Listed;
import app.custodex.strongroom.LayerDraft;
import app.custodex.strongroom.ManifestItem;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;

/**
 * What a backup will do, decided before anything is copied.
 *
 * @param unchanged items that are stored already and are taken over as they are
 * @param fresh items that have to be read from the phone, in the phone's order
 * @param links symbolic links, kept as what they say
 * @param refused what the phone listed but can't be an item, or folders that can't be listed
 */
record BackupPlan(List<ManifestItem> unchanged, List<Fresh> fresh, List<ManifestItem> links, List<Problem> refused) {
    record Fresh(Listed.File file, Kind kind) {}

    static BackupPlan of(List<Listed> listing, Function<Listed.File, Kind> kindOf, LayerDraft draft) {
        var plan = new BackupPlan(new ArrayList<>(), new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        for (var listed : listing) {
            switch (listed) {
                case Listed.Folder folder -> {}
                case Listed.Refused refused -> plan.refused.add(refused.problem());
                case Listed.Link link -> plan.links.add(ManifestItem.link(link, Kind.OTHER, linkNote(link)));
                case Listed.File file -> {
                    var known = draft.known(file.path()).filter(item -> item.matches(file));
                    if (known.isPresent()) {
                        plan.unchanged.add(known.get());
                    } else {
                        plan.fresh.add(new Fresh(file, kindOf.apply(file)));
                    }
                }
            }
        }
        return plan;
    }

    private static Problem linkNote(Listed.Link link) {
        return Problem.note(
                link.path().text(),
                "It is a link to \"" + link.target() + "\" and was kept as a link, not followed",
                "What it points to is copied only if it lies among the phone's own files");
    }

    long freshBytes() {
        return fresh.stream().mapToLong(f -> f.file().size()).sum();
    }

    long unchangedBytes() {
        return unchanged.stream().mapToLong(ManifestItem::size).sum();
    }
}
