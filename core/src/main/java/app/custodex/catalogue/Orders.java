package app.custodex.catalogue;

import app.custodex.model.ThingKind;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.sql.Connection;
import java.sql.SQLException;

/** Writes down what every list and timeline would otherwise have to work out again. */
final class Orders {
    private final Connection db;

    Orders(Connection db) {
        this.db = db;
    }

    void write() throws SQLException {
        countDays();
        orderByTime();
    }

    /** The drawn timeline asks for nothing but these. */
    private void countDays() throws SQLException {
        try (var statement = db.createStatement()) {
            statement.executeUpdate("DELETE FROM day_count");
            statement.executeUpdate("INSERT INTO day_count SELECT kind, day, count(*) FROM thing WHERE day IS NOT NULL"
                    + " AND kind <> " + ThingKind.CONTACT.ordinal() + " GROUP BY kind, day");
        }
    }

    /** Writes down the order of time, so that nothing has to be sorted later. */
    private void orderByTime() throws SQLException {
        ByteBuffer numbers;
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT count(*) FROM thing")) {
            numbers = ByteBuffer.allocate(4 * rows.getInt(1)).order(ByteOrder.LITTLE_ENDIAN);
        }
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id FROM thing ORDER BY at, id")) {
            while (rows.next()) {
                numbers.putInt(rows.getInt(1));
            }
        }
        try (var statement = db.createStatement()) {
            statement.executeUpdate("DELETE FROM time_order");
        }
        try (var write = db.prepareStatement("INSERT INTO time_order VALUES (?)")) {
            write.setBytes(1, numbers.array());
            write.executeUpdate();
        }
    }
}
