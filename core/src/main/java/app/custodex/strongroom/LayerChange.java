package app.custodex.strongroom;

import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * What became of one item since the layers below.
 *
 * @param before bytes; 0 for what was not there
 * @param after bytes; 0 for what is gone
 */
public record LayerChange(PhonePath path, Kind kind, What what, long before, long after) {
    /** What became of it. */
    public enum What {
        ADDED,
        CHANGED,
        GONE
    }

    /**
     * Compares a layer's items with what the layers below hold. An item that could not be saved this time is neither changed nor
     * gone.
     *
     * @param whole the kinds of which the layer holds all that the phone had
     */
    static List<LayerChange> between(Below below, Collection<ManifestItem> items, Set<Kind> whole) {
        var changes = new ArrayList<LayerChange>();
        var listed = HashSet.<PhonePath>newHashSet(items.size());
        for (var item : items) {
            listed.add(item.path());
            if (!item.saved()) {
                continue;
            }
            var before = below.known(item.path());
            if (before.isEmpty()) {
                changes.add(new LayerChange(item.path(), item.kind(), What.ADDED, 0, item.size()));
            } else if (!before.get().digest().equals(item.digest())) {
                changes.add(new LayerChange(
                        item.path(), item.kind(), What.CHANGED, before.get().size(), item.size()));
            }
        }
        for (var item : below.items()) {
            if (whole.contains(item.kind()) && !listed.contains(item.path())) {
                changes.add(new LayerChange(item.path(), item.kind(), What.GONE, item.size(), 0));
            }
        }
        return changes;
    }

    /** The change as a count of one. */
    public LayerRecord.Change counted() {
        return switch (what) {
            case ADDED -> new LayerRecord.Change(1, 0, 0);
            case CHANGED -> new LayerRecord.Change(0, 1, 0);
            case GONE -> new LayerRecord.Change(0, 0, 1);
        };
    }
}
