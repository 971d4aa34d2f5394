package app.custodex.readers;

import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import java.io.Closeable;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * A phone's SQLite database, open for reading. The newest rows may still be in the write-ahead log beside it, and SQLite
 * writes when it folds that in, so both are first copied into a private place.
 */
final class PhoneDatabase implements Closeable {
    private final PrivatePlace place;
    private final Path folder;
    private final Connection connection;

    private PhoneDatabase(PrivatePlace place, Path folder, Connection connection) {
        this.place = place;
        this.folder = folder;
        this.connection = connection;
    }

    static PhoneDatabase open(FileSource files, PhonePath path, PrivatePlace place) throws IOException {
        var folder = place.folder();
        try {
            var file = folder.resolve("phone.db");
            copy(files, path, file);
            var log = new PhonePath(path.text() + "-wal");
            if (files.has(log)) {
                copy(files, log, folder.resolve("phone.db-wal"));
            }
            return new PhoneDatabase(place, folder, connect(file));
        } catch (SQLException e) {
            place.remove(folder);
            throw new ProblemException(
                    Problem.failure(path.text(), "The phone's database can't be opened", "Look into an older layer"),
                    e);
        } catch (IOException | RuntimeException e) {
            place.remove(folder);
            throw e;
        }
    }

    private static Connection connect(Path file) throws SQLException {
        var connection = DriverManager.getConnection("jdbc:sqlite:" + file);
        try (var statement = connection.createStatement()) {
            // The content is a stranger's: no schema tricks, checked cells.
            statement.execute("PRAGMA trusted_schema = OFF");
            statement.execute("PRAGMA cell_size_check = ON");
            statement.execute("PRAGMA temp_store = MEMORY");
        } catch (SQLException e) {
            connection.close();
            throw e;
        }
        return connection;
    }

    private static void copy(FileSource files, PhonePath from, Path to) throws IOException {
        try (var in = files.open(from)) {
            Files.copy(in, to);
        }
    }

    /** Takes one row. */
    interface Row {
        void read(ResultSet row) throws SQLException;
    }

    /** @throws SQLException where the database is torn; the rows before were handed out */
    synchronized void forEach(String sql, Row row) throws SQLException {
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery(sql)) {
            while (rows.next()) {
                row.read(rows);
            }
        }
    }

    /** The number that a query gives; empty when it gives none or can't be carried out. */
    synchronized OptionalLong number(String sql) {
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery(sql)) {
            return rows.next() && rows.getObject(1) != null ? OptionalLong.of(rows.getLong(1)) : OptionalLong.empty();
        } catch (SQLException e) {
            return OptionalLong.empty();
        }
    }

    synchronized Optional<byte[]> bytes(String sql, long id) throws SQLException {
        try (var statement = connection.prepareStatement(sql)) {
            statement.setLong(1, id);
            try (var rows = statement.executeQuery()) {
                return rows.next() ? Optional.ofNullable(rows.getBytes(1)) : Optional.empty();
            }
        }
    }

    @Override
    public void close() throws IOException {
        try {
            connection.close();
        } catch (SQLException e) {
            throw new IOException(e);
        } finally {
            place.remove(folder);
        }
    }
}
