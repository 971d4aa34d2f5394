package app.custodex.catalogue;

import app.custodex.model.ThingKind;
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

    /** Writes down the order of time with what is asked of every row, so that nothing has to be sorted or read later. */
    private void orderByTime() throws SQLException {
        var columns = Spine.read(db).columns();
        try (var statement = db.createStatement()) {
            statement.executeUpdate("DELETE FROM spine");
        }
        try (var write = db.prepareStatement("INSERT INTO spine VALUES (?, ?, ?, ?)")) {
            for (int i = 0; i < columns.length; i++) {
                write.setBytes(i + 1, columns[i]);
            }
            write.executeUpdate();
        }
    }
}
