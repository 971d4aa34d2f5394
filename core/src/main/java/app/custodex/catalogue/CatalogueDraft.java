package app.custodex.catalogue;

import app.custodex.base.CancelToken;
import app.custodex.base.Disk;
import app.custodex.base.PlaceFailure;
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
import java.util.UUID;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConnection;

/** A catalogue that is being made. */
public final class CatalogueDraft implements Closeable {
    private static final String MAIN = "main";

    private final Connection db;
    /** Where it lies. */
    private final Path place;
    /** Of a database beside it, for SQLite. */
    private final String beside;

    private boolean handedOver;

    private CatalogueDraft(Connection db, Path place, String beside) {
        this.db = db;
        this.place = place;
        this.beside = beside;
    }

    /**
     * Begins one in a file.
     *
     * @param file holds the catalogue of a layer below, or nothing
     */
    public static CatalogueDraft inFile(Path file) throws IOException {
        return begin(file.toString(), Disk.parent(file), file + "-words", Optional.empty());
    }

    /** Begins one that touches no disk. */
    public static CatalogueDraft inMemory(Optional<byte[]> below) throws IOException {
        // In memory too, under a name by which the catalogue can be told of it; it goes with its last connection.
        return begin(":memory:", Path.of("memory"), "file:/words-" + UUID.randomUUID() + "?vfs=memdb", below);
    }

    private static CatalogueDraft begin(String address, Path place, String beside, Optional<byte[]> below)
            throws IOException {
        try {
            var db = connect(address);
            try {
                if (below.isPresent()) {
                    ((SQLiteConnection) db).deserialize(MAIN, below.get());
                }
                return new CatalogueDraft(db, place, beside);
            } catch (SQLException e) {
                db.close();
                throw e;
            }
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }

    /** What is written can be made anew, so nothing is lost by a cut; it counts only once its head says whose it is. */
    private static Connection connect(String address) throws SQLException {
        var config = new SQLiteConfig();
        config.setGetGeneratedKeys(false); // it would ask for them behind every row
        var db = DriverManager.getConnection("jdbc:sqlite:" + address, config.toProperties());
        try (var statement = db.createStatement()) {
            statement.execute("PRAGMA journal_mode = OFF");
            statement.execute("PRAGMA synchronous = OFF");
            statement.execute("PRAGMA temp_store = MEMORY");
            statement.execute("PRAGMA cache_size = -32768");
        } catch (SQLException e) {
            db.close();
            throw e;
        }
        return db;
    }

    /**
     * Brings it up to what a layer holds.
     *
     * @param of whose it is then
     * @param growth is told how it goes
     * @throws PlaceFailure when there is no room for it, or for what is put down to be read
     */
    public void build(CatalogueHead of, PhoneFiles phone, List<Reader> readers, Growth growth, CancelToken cancel)
            throws IOException {
        try {
            try (var words = words()) {
                new CatalogueBuilder(db, words, phone, readers, growth, cancel).build();
            }
            of.write(db);
        } catch (SQLException | IOException e) {
            var full = PlaceFailure.behind(e, place);
            throw full.isPresent() ? full.get() : new IOException("the catalogue can't be written", e);
        }
    }

    /** Makes the tables ready, and says where the words go. */
    private WordIndex words() throws SQLException {
        if (CatalogueHead.read(db).isPresent()) {
            CatalogueHead.remove(db);
            return new WordTable(db, new Beginnings(db, true));
        }
        Schema.create(db);
        var own = connect(beside);
        try {
            return new WordsBeside(db, own, beside);
        } catch (SQLException e) {
            own.close();
            throw e;
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
