package app.custodex.catalogue;

import app.custodex.model.MediaFile;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;

/** What became of the things of one layer in another one of the same phone. */
public final class Comparison {
    /** What became of a thing. */
    public enum Change {
        GONE,
        NEW,
        CHANGED
    }

    /**
     * One thing that is not the same in both.
     *
     * @param before its number in the older catalogue; absent when it is new
     * @param after its number in the newer one; absent when it is gone
     */
    public record Difference(ThingKind kind, OptionalLong before, OptionalLong after) {
        public Change change() {
            if (before.isEmpty()) {
                return Change.NEW;
            }
            return after.isEmpty() ? Change.GONE : Change.CHANGED;
        }
    }

    private final List<Difference> differences = new ArrayList<>();
    private final Set<ThingKind> kinds;

    private Comparison(Set<ThingKind> kinds) {
        this.kinds = kinds;
    }

    /**
     * Compares by what names a thing, and by all that it says. Stores that did not change are not gone through. A phone may number its
     * rows anew, so what says the same in both is the same, whatever its number.
     *
     * @param kinds which are wanted; empty for all
     */
    public static Comparison of(Catalogue older, Catalogue newer, Set<ThingKind> kinds) throws IOException {
        var comparison = new Comparison(kinds);
        var before = older.stores();
        var after = newer.stores();
        var names = new TreeSet<>(before.keySet());
        names.addAll(after.keySet());
        for (var name : names) {
            var was = Optional.ofNullable(before.get(name));
            var is = Optional.ofNullable(after.get(name));
            if (was.isEmpty()
                    || is.isEmpty()
                    || !was.get().version().equals(is.get().version())) {
                comparison.merge(
                        was.isEmpty() ? List.of() : older.rows(was.get().id()),
                        is.isEmpty() ? List.of() : newer.rows(is.get().id()));
            }
        }
        comparison.findAgain(older, newer);
        return comparison;
    }

    private void findAgain(Catalogue older, Catalogue newer) throws IOException {
        var renumbered = new Renumbered(older, newer, differences);
        differences.clear();
        differences.addAll(renumbered.rest());
    }

    /** Both in the order of their keys. */
    private void merge(List<Stores.Row> before, List<Stores.Row> after) {
        int b = 0;
        int a = 0;
        while (b < before.size() || a < after.size()) {
            int order = b == before.size() ? 1 : a == after.size() ? -1 : order(before.get(b), after.get(a));
            if (order < 0) {
                add(before.get(b).kind(), OptionalLong.of(before.get(b++).number()), OptionalLong.empty());
            } else if (order > 0) {
                add(
                        after.get(a).kind(),
                        OptionalLong.empty(),
                        OptionalLong.of(after.get(a++).number()));
            } else {
                var was = before.get(b++);
                var is = after.get(a++);
                // That its store changed is a change of a file that is the thing, though it may say the same of itself.
                if (was.digest() != is.digest() || was.key().length == 0 && MediaFile.KINDS.contains(was.kind())) {
                    add(is.kind(), OptionalLong.of(was.number()), OptionalLong.of(is.number()));
                }
            }
        }
    }

    private static int order(Stores.Row one, Stores.Row other) {
        int byKey = Arrays.compareUnsigned(one.key(), other.key());
        return byKey != 0 ? byKey : one.kind().compareTo(other.kind());
    }

    private void add(ThingKind kind, OptionalLong before, OptionalLong after) {
        if (kinds.isEmpty() || kinds.contains(kind)) {
            differences.add(new Difference(kind, before, after));
        }
    }

    /** In the order of stores and of the things in them. */
    public List<Difference> differences() {
        return List.copyOf(differences);
    }

    /** How many there are of each sort; kinds without any are left out. */
    public Map<ThingKind, Map<Change, Integer>> counts() {
        var counts = new EnumMap<ThingKind, Map<Change, Integer>>(ThingKind.class);
        for (var difference : differences) {
            counts.computeIfAbsent(difference.kind(), kind -> new EnumMap<>(Change.class))
                    .merge(difference.change(), 1, Integer::sum);
        }
        return counts;
    }
}
