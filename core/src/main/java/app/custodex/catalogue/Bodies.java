package app.custodex.catalogue;

import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.exchange.ThingJson;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Objects;

/** Reads whole things out of a catalogue. */
final class Bodies {
    private Bodies() {}

    /** A thing as it is stored. */
    record Body(long number, ThingKind kind, String item, byte[] json) {
        private Entry entry() {
            try {
                return new Entry(number, ThingJson.read(kind, item, json));
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    /** The bodies of these numbers, in this order; numbers that are not there are left out. */
    static List<Body> read(Connection db, long... numbers) throws SQLException {
        var found = new HashMap<Long, Body>();
        // The database takes the numbers apart by itself: to ask for each takes several times as long.
        try (var query = db.prepareStatement("SELECT thing.id, kind, store.name, body.json FROM json_each(?) AS wanted"
                + " CROSS JOIN thing ON thing.id = wanted.value JOIN body ON body.thing = thing.id"
                + " JOIN store ON store.id = thing.store")) {
            query.setString(1, Arrays.toString(numbers));
            try (var rows = query.executeQuery()) {
                while (rows.next()) {
                    var kind = ThingKind.values()[rows.getInt(2)];
                    found.put(rows.getLong(1), new Body(rows.getLong(1), kind, rows.getString(3), rows.getBytes(4)));
                }
            }
        }
        return Arrays.stream(numbers)
                .mapToObj(found::get)
                .filter(Objects::nonNull)
                .toList();
    }

    /** What is stored, made ready by as many threads as there are. */
    static List<Entry> things(List<Body> bodies) throws IOException {
        try {
            return bodies.parallelStream().map(Body::entry).toList();
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }
}
