package app.custodex.catalogue;

import java.io.IOException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;

/** Writes words into an index at once. */
final class WordTable implements WordIndex {
    private final Connection db;
    private final PreparedStatement insert;
    /** An index without content forgets a text only when it is told the same text again. */
    private final PreparedStatement forget;

    private final Beginnings beginnings;

    /** @param db holds the index */
    WordTable(Connection db, Beginnings beginnings) throws SQLException {
        this.db = db;
        this.beginnings = beginnings;
        insert = db.prepareStatement("INSERT INTO words (rowid, text) VALUES (?, ?)");
        forget = db.prepareStatement("INSERT INTO words (words, rowid, text) VALUES ('delete', ?, ?)");
    }

    @Override
    public Connection connection() {
        return db;
    }

    @Override
    public void add(int thing, Filed.Words words) throws SQLException, IOException {
        insert.setInt(1, thing);
        insert.setString(2, words.text());
        insert.addBatch();
        beginnings.add(thing, words.beginnings());
    }

    @Override
    public void remove(int thing, Filed.Words words) throws SQLException, IOException {
        forget.setInt(1, thing);
        forget.setString(2, words.text());
        forget.executeUpdate();
        beginnings.remove(thing, words.beginnings());
    }

    @Override
    public void endBatch() throws SQLException {
        insert.executeBatch();
    }

    @Override
    public void catchUp() {
        // It is never behind.
    }

    @Override
    public void finish() throws SQLException, IOException {
        beginnings.write();
    }

    @Override
    public void close() throws IOException {
        try (insert;
                forget) {
            // Closed in turn.
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }
}
