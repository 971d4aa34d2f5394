package app.custodex.catalogue;

import app.custodex.catalogue.Catalogue.Entry;
import java.lang.ref.SoftReference;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Things that were written a moment ago, so that they need not be read again, as long as there is memory for them. */
final class AtHand {
    private final SoftReference<Map<Long, Entry>> things = new SoftReference<>(new HashMap<>());

    void keep(List<Entry> added) {
        Optional.ofNullable(things.get()).ifPresent(kept -> added.forEach(entry -> kept.put(entry.number(), entry)));
    }

    /** The things of these numbers, in this order; empty when not all of them are at hand. */
    List<Entry> read(long[] numbers) {
        var kept = Optional.ofNullable(things.get()).orElseGet(Map::of);
        var found = new ArrayList<Entry>(numbers.length);
        for (long number : numbers) {
            var entry = kept.get(number);
            if (entry == null) {
                return List.of();
            }
            found.add(entry);
        }
        return found;
    }

    void clear() {
        things.clear();
    }
}
