package app.custodex.catalogue;

import app.custodex.model.ThingKind;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.List;

/** The tables of a catalogue. */
final class Schema {
    /** Raised whenever the tables, the model, or what readers and the index make of the data change. */
    static final int FORM = 18;

    private static final List<String> TABLES = List.of(
            "CREATE TABLE head (name TEXT PRIMARY KEY, value TEXT) WITHOUT ROWID",
            // What was read together, the version of it that was, and what it held, in one piece.
            "CREATE TABLE store (id INTEGER PRIMARY KEY, reader TEXT, name TEXT, version TEXT, problems BLOB, things BLOB,"
                    + " UNIQUE (name, reader))",
            // One row a thing, whatever its kind: by what it is filtered and sorted.
            "CREATE TABLE thing (id INTEGER PRIMARY KEY, store INTEGER, key TEXT, kind INTEGER, at INTEGER, day INTEGER,"
                    + " within INTEGER, account TEXT DEFAULT '', outgoing INTEGER, attached INTEGER, who INTEGER,"
                    + " title TEXT DEFAULT '', digest INTEGER, bytes INTEGER DEFAULT 0, seconds INTEGER DEFAULT 0,"
                    + " shelf TEXT DEFAULT '', traits INTEGER, shape INTEGER, place INTEGER)",
            // Sets of traits, each once; one trait a line.
            "CREATE TABLE trait_set (id INTEGER PRIMARY KEY, traits TEXT UNIQUE)",
            // All of it as JSON; apart, so that whoever looks through the rows above has little to read.
            "CREATE TABLE body (thing INTEGER PRIMARY KEY, json BLOB)",
            // A number, mail address or name in a chat service, and whose it is.
            "CREATE TABLE address (id INTEGER PRIMARY KEY, text TEXT UNIQUE, digits TEXT, person INTEGER)",
            "CREATE TABLE person (id INTEGER PRIMARY KEY, contact INTEGER, name TEXT)",
            // Everybody in a thing but the one in its own row.
            "CREATE TABLE part (thing INTEGER, address INTEGER, PRIMARY KEY (thing, address)) WITHOUT ROWID",
            // All things in the order of time, a column each in one piece, the lowest byte first.
            "CREATE TABLE spine (numbers BLOB, at BLOB, day BLOB, kind BLOB, bytes BLOB, traits BLOB, who BLOB)",
            // Things by the first one or two characters of their words, as sets of bits.
            "CREATE TABLE beginning (id INTEGER PRIMARY KEY, things BLOB)",
            // Of few things, so that nobody has to go through the rows of all others for them.
            "CREATE INDEX thing_contact ON thing (id, who, title) WHERE kind = " + ThingKind.CONTACT.ordinal(),
            "CREATE INDEX thing_shape ON thing (id, shape) WHERE shape > 0",
            "CREATE INDEX thing_place ON thing (id, place) WHERE place IS NOT NULL");

    /** Texts come folded and spaced, so that splitting them at what is no letter of ASCII is enough. */
    private static final String WORDS =
            "CREATE VIRTUAL TABLE words USING fts5(text, content='', columnsize=0, tokenize=ascii)";

    /** So much is gathered in memory before it is written, which saves merging. */
    private static final String GATHERED = "INSERT INTO words (words, rank) VALUES ('hashsize', 8388608)";

    /** What the index of words keeps in ordinary tables; see "FTS5 Data Structures" in SQLite's documents. */
    private static final List<String> KEPT_OF_WORDS = List.of("words_data", "words_idx", "words_config");

    private static final List<String> INDEXES = List.of(
            // Not unique: what a stranger's database says need not be so.
            "CREATE INDEX IF NOT EXISTS thing_key ON thing (store, key, digest, kind)",
            "CREATE INDEX IF NOT EXISTS part_address ON part (address)",
            "CREATE INDEX IF NOT EXISTS address_person ON address (person)");

    private Schema() {}

    /** All tables but the index of words, which comes when everything is in it. */
    static void create(Connection db) throws SQLException {
        execute(db, TABLES);
    }

    /** The index of words. */
    static void createWords(Connection db) throws SQLException {
        execute(db, List.of(WORDS, GATHERED));
    }

    /**
     * The index of words, as it is in another database.
     *
     * @param from the name under which that is attached
     */
    static void copyWords(Connection db, String from) throws SQLException {
        execute(db, List.of(WORDS)); // and nothing is written through it, because it would remember what it looked like
        // before
        try (var copy = db.createStatement()) {
            for (var table : KEPT_OF_WORDS) {
                copy.executeUpdate("DELETE FROM main." + table);
                copy.executeUpdate("INSERT INTO main." + table + " SELECT * FROM " + from + "." + table);
            }
        }
    }

    /** Once the tables are full: then it costs least. */
    static void index(Connection db) throws SQLException {
        execute(db, INDEXES);
    }

    private static void execute(Connection db, List<String> all) throws SQLException {
        try (var statement = db.createStatement()) {
            for (var sql : all) {
                statement.execute(sql);
            }
        }
    }
}
