package app.custodex.backup;

import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;

/**
 * What to take from a phone.
 *
 * @param kinds those of which anything is taken
 * @param only of a kind that is named here, just these files; of the others, all
 */
public record Selection(Set<Kind> kinds, Map<Kind, Set<PhonePath>> only) {
    public static final Selection EVERYTHING = new Selection(EnumSet.allOf(Kind.class), Map.of());

    public Selection {
        kinds = Set.copyOf(kinds);
        only = Map.copyOf(only);
    }

    public static Selection of(Set<Kind> kinds) {
        return new Selection(kinds, Map.of());
    }

    public boolean takes(Kind kind, PhonePath path) {
        var chosen = only.get(kind);
        return kinds.contains(kind) && (chosen == null || chosen.contains(path));
    }

    /** Whether all of a kind is taken. */
    public boolean whole(Kind kind) {
        return kinds.contains(kind) && !only.containsKey(kind);
    }

    public boolean everything() {
        return kinds.size() == Kind.values().length && only.isEmpty();
    }

    public Selection with(Kind kind, boolean taken) {
        var changed = EnumSet.noneOf(Kind.class);
        changed.addAll(kinds);
        if (taken) {
            changed.add(kind);
        } else {
            changed.remove(kind);
        }
        var stays = new EnumMap<Kind, Set<PhonePath>>(Kind.class);
        stays.putAll(only);
        stays.remove(kind);
        return new Selection(changed, stays);
    }

    public Selection withOnly(Kind kind, Set<PhonePath> items) {
        var chosen = new EnumMap<Kind, Set<PhonePath>>(Kind.class);
        chosen.putAll(with(kind, true).only());
        chosen.put(kind, Set.copyOf(items));
        return new Selection(with(kind, true).kinds(), chosen);
    }
}
