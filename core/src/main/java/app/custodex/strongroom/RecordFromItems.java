package app.custodex.strongroom;

import app.custodex.link.Kind;
import app.custodex.link.PhoneIdentity;
import app.custodex.strongroom.LayerRecord.KindTotal;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.EnumMap;
import java.util.List;

/** Counts a layer's record from its list of items. What can't be counted (the phone's words, the time that it took) is left open. */
final class RecordFromItems {
    private static final String TOOL = "rebuilt";

    private RecordFromItems() {}

    static LayerRecord of(StoredLayer layer, int number, PhoneIdentity phone, Instant created, boolean sealed)
            throws IOException {
        var totals = new EnumMap<Kind, KindTotal>(Kind.class);
        var own = Stack.contentFolder(number) + "/";
        layer.forEach(item -> {
            if (!item.counts()) {
                return;
            }
            boolean fresh = item.place()
                    .filter(place -> place.content().startsWith(own))
                    .isPresent();
            totals.merge(item.kind(), KindTotal.of(item, fresh), KindTotal::plus);
        });
        return new LayerRecord(
                number, phone, created, Duration.ZERO, List.copyOf(totals.values()), 0, List.of(), false, sealed, TOOL);
    }
}
