package app.custodex.practice.content;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.Collections;
import java.util.HashMap;
import java.util.Map;

/** Makes and fills the tables of a phone's database. Empty text is written as nothing. */
final class Tables implements AutoCloseable {
    private final Connection db;
    private final Map<String, PreparedStatement> inserts = new HashMap<>();

    Tables(Connection db) {
        this.db = db;
    }

    void execute(String... statements) throws SQLException {
        try (var sql = db.createStatement()) {
            for (var statement : statements) {
                sql.executeUpdate(statement);
            }
        }
    }

    void put(String table, Object... values) throws SQLException {
        var insert = inserts.get(table);
        if (insert == null) {
            insert = db.prepareStatement("INSERT INTO " + table + " VALUES ("
                    + String.join(",", Collections.nCopies(values.length, "?")) + ")");
            inserts.put(table, insert);
        }
        for (int i = 0; i < values.length; i++) {
            switch (values[i]) {
                case String text when text.isEmpty() -> insert.setString(i + 1, null);
                case Boolean flag -> insert.setInt(i + 1, flag ? 1 : 0);
                default -> insert.setObject(i + 1, values[i]);
            }
        }
        insert.executeUpdate();
    }

    @Override
    public void close() throws SQLException {
        for (var insert : inserts.values()) {
            insert.close();
        }
    }
}
