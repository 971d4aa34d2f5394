package app.custodex.practice.content;

import app.custodex.link.Kind;
import app.custodex.link.KindCount;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/** How many things were written into a phone's stores, counted as its owner would. */
public record StoreCounts(Map<Kind, Integer> items) {
    public StoreCounts {
        items = Map.copyOf(items);
    }

    static StoreCounts of(int contacts, int messages, int calls, int events, int notes, int bookmarks) {
        var items = new EnumMap<Kind, Integer>(Kind.class);
        items.put(Kind.CONTACTS, contacts);
        items.put(Kind.CONVERSATIONS, messages);
        items.put(Kind.CALLS, calls);
        items.put(Kind.CALENDARS, events);
        items.put(Kind.NOTES, notes);
        items.put(Kind.WEB, bookmarks);
        return new StoreCounts(items);
    }

    public List<KindCount> asKinds() {
        return items.entrySet().stream()
                .map(e -> new KindCount(e.getKey(), e.getValue(), 0, 0))
                .toList();
    }
}
