package app.custodex.practice.content;

import app.custodex.link.Kind;
import app.custodex.link.KindCount;
import app.custodex.practice.island.Life;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/** How many things were written into a phone's stores, counted as its owner would. */
public record StoreCounts(Map<Kind, Integer> items) {
    public StoreCounts {
        items = Map.copyOf(items);
    }

    static StoreCounts of(int contacts, Life life) {
        var items = new EnumMap<Kind, Integer>(Kind.class);
        items.put(Kind.CONTACTS, contacts);
        items.put(Kind.CONVERSATIONS, life.said().size());
        items.put(Kind.CALLS, life.calls().size());
        items.put(Kind.CALENDARS, life.events().size());
        items.put(Kind.NOTES, life.notes().size());
        items.put(Kind.WEB, life.marks().size());
        return new StoreCounts(items);
    }

    public List<KindCount> asKinds() {
        return items.entrySet().stream()
                .map(e -> new KindCount(e.getKey(), e.getValue(), 0, 0))
                .toList();
    }
}
