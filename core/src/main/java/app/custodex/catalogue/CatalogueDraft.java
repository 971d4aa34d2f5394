package app.custodex.catalogue;

import app.custodex.base.CancelToken;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import java.io.Closeable;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConnection;

/** A catalogue that is being made. */
public final class CatalogueDraft implements Closeable {
    private static final String MAIN = "main";

    private final Connection db;
    private boolean handedOver;

    private CatalogueDraft(Connection db) {
        this.db = db;
    }

    /**
     * Begins one in a file.
     *
     * @param file holds the catalogue of a layer below, or nothing
     */
    public static CatalogueDraft inFile(Path file) throws IOException {
        return begin("jdbc:sqlite:" + file, Optional.empty());
    }

    /** Begins one that touches no disk. */
    public static CatalogueDraft inMemory(Optional<byte[]> below) throws IOException {
        return begin("jdbc:sqlite::memory:", below);
    }

    private static CatalogueDraft begin(String address, Optional<byte[]> below) throws IOException {
        try {
            var config = new SQLiteConfig();
            config.setGetGeneratedKeys(false); // it would ask for them behind every row
            var db = DriverManager.getConnection(address, config.toProperties());
            try {
                if (below.isPresent()) {
                    ((SQLiteConnection) db).deserialize(MAIN, below.get());
                }
                try (var statement = db.createStatement()) {
                    // It can be made anew, so nothing is lost by a cut; it counts only once its head says whose it is.
                    statement.execute("PRAGMA journal_mode = OFF");
                    statement.execute("PRAGMA synchronous = OFF");
                    statement.execute("PRAGMA temp_store = MEMORY");
                    statement.execute("PRAGMA cache_size = -32768");
                }
                return new CatalogueDraft(db);
            } catch (SQLException e) {
                db.close();
                throw e;
            }
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    /**
     * Brings it up to what a layer holds.
     *
     * @param of whose it is then
     * @param growth is told how it goes
     */
    public void build(CatalogueHead of, PhoneFiles phone, List<Reader> readers, Growth growth, CancelToken cancel)
            throws IOException {
        try {
            if (CatalogueHead.read(db).isEmpty()) {
                Schema.create(db);
            } else {
                CatalogueHead.remove(db);
            }
            new CatalogueBuilder(db, phone, readers, growth, cancel).build();
            of.write(db);
        } catch (SQLException e) {
            throw new IOException("the catalogue can't be written", e);
        }
    }

    /** The whole of it, as SQLite keeps it in a file. */
    public byte[] bytes() throws IOException {
        try {
            return ((SQLiteConnection) db).serialize(MAIN);
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    /** Ends the making; the catalogue is the caller's to close. */
    public Catalogue handOver() {
        handedOver = true;
        return new Catalogue(db);
    }

    @Override
    public void close() throws IOException {
        if (!handedOver) {
            try {
                db.close();
            } catch (SQLException e) {
                throw new IOException(e);
            }
        }
    }
}
