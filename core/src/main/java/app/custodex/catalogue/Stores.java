package app.custodex.catalogue;

import app.custodex.model.ThingKind;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** What was read together, and by what its things are known again. */
final class Stores {
    /** What was read together. */
    record StoreRow(long id, String version) {}

    /** By what a thing is known again, and whether it is as it was. */
    record Row(byte[] key, ThingKind kind, long digest, long number) {}

    private Stores() {}

    /** All of them, by reader and name. */
    static Map<String, StoreRow> all(Connection db) throws SQLException {
        var stores = new HashMap<String, StoreRow>();
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT reader, name, id, version FROM store")) {
            while (rows.next()) {
                stores.put(
                        rows.getString(1) + '\n' + rows.getString(2), new StoreRow(rows.getLong(3), rows.getString(4)));
            }
        }
        return stores;
    }

    /** The things of a store, in the order of their keys, byte by byte. */
    static List<Row> rows(Connection db, long store) throws SQLException {
        var found = new ArrayList<Row>();
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT CAST(key AS BLOB), kind, digest, id FROM thing WHERE store = "
                        + store + " ORDER BY key, kind, id")) {
            while (rows.next()) {
                var key = rows.getBytes(1);
                found.add(new Row(
                        key == null ? new byte[0] : key,
                        ThingKind.values()[rows.getInt(2)],
                        rows.getLong(3),
                        rows.getLong(4)));
            }
        }
        return found;
    }
}
