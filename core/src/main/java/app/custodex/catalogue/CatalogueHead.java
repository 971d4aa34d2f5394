package app.custodex.catalogue;

import java.sql.Connection;
import java.sql.SQLException;
import java.util.HashMap;
import java.util.Optional;

/**
 * Says whose a catalogue is, once it is complete.
 *
 * @param form of the tables and of what is in them
 * @param phone its identifier
 * @param region by which numbers without a prefix were read, ISO 3166-1 alpha-2; may be empty
 */
public record CatalogueHead(int form, String phone, int layer, String region) {
    /** Of a catalogue as it is made now. */
    public static CatalogueHead of(String phone, int layer, String region) {
        return new CatalogueHead(Schema.FORM, phone, layer, region);
    }

    /** Empty when there are no tables, or they were not completed. */
    static Optional<CatalogueHead> read(Connection db) throws SQLException {
        var values = new HashMap<String, String>();
        try (var statement = db.createStatement();
                var tables = statement.executeQuery("SELECT count(*) FROM sqlite_schema WHERE name = 'head'")) {
            if (tables.getInt(1) == 0) {
                return Optional.empty();
            }
        }
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT name, value FROM head")) {
            while (rows.next()) {
                values.put(rows.getString(1), rows.getString(2));
            }
        }
        try {
            return values.containsKey("phone")
                    ? Optional.of(new CatalogueHead(
                            Integer.parseInt(values.getOrDefault("form", "0")),
                            values.getOrDefault("phone", ""),
                            Integer.parseInt(values.getOrDefault("layer", "0")),
                            values.getOrDefault("region", "")))
                    : Optional.empty();
        } catch (NumberFormatException damaged) {
            return Optional.empty();
        }
    }

    static void remove(Connection db) throws SQLException {
        try (var statement = db.createStatement()) {
            statement.executeUpdate("DELETE FROM head");
        }
    }

    void write(Connection db) throws SQLException {
        try (var insert =
                db.prepareStatement("INSERT INTO head VALUES ('form', ?), ('phone', ?), ('layer', ?), ('region', ?)")) {
            insert.setString(1, Integer.toString(form));
            insert.setString(2, phone);
            insert.setString(3, Integer.toString(layer));
            insert.setString(4, region);
            insert.executeUpdate();
        }
    }
}
