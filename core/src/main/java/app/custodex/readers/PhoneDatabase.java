package app.custodex.readers;

import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.FileSource;
import app.custodex.link.PhonePath;
import app.custodex.readers.PageSalvage.Holds;
import java.io.Closeable;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * A phone's SQLite database, open for reading. The newest rows may still be in the log beside it, and SQLite writes when it folds
 * that in, so all of it is first copied into a private place. Tables are read row by row without their indices, so that damage costs
 * the rows that lie in it and nothing else.
 */
public final class PhoneDatabase implements Closeable {
    /** Rows up to this number are looked up one by one where a table is torn. */
    private static final int MAX_LOOKED_UP = 1_000_000;

    /** Nothing is looked for behind so many numbers in a row without a row that can be read. */
    private static final int LARGEST_GAP = 20_000;

    private static final List<String> LOGS = List.of("-wal", "-journal");
    private static final int HEADER = 100;
    private static final String FILE = "phone.db";

    private final PhonePath path;
    private final PrivatePlace place;
    private final Path folder;
    private final Connection connection;
    private final boolean cut;
    private final WriteAheadLog log;

    private PhoneDatabase(
            PhonePath path, PrivatePlace place, Path folder, Connection connection, boolean cut, WriteAheadLog log) {
        this.path = path;
        this.place = place;
        this.folder = folder;
        this.connection = connection;
        this.cut = cut;
        this.log = log;
    }

    /** The files that belong to a database: itself, and the logs beside it. */
    public static List<PhonePath> items(FileSource files, PhonePath path) throws IOException {
        var items = new ArrayList<PhonePath>(List.of(path));
        for (var log : LOGS) {
            var beside = new PhonePath(path.text() + log);
            if (files.has(beside)) {
                items.add(beside);
            }
        }
        return items;
    }

    static PhoneDatabase open(FileSource files, PhonePath path, PrivatePlace place) throws IOException {
        var folder = place.folder();
        try {
            var file = folder.resolve(FILE);
            for (var item : items(files, path)) {
                try (var in = files.open(item)) {
                    place.copy(
                            in,
                            folder.resolve(
                                    FILE + item.text().substring(path.text().length())));
                }
            }
            boolean cut = fillUp(file);
            var log = WriteAheadLog.read(folder.resolve(FILE + "-wal"));
            return new PhoneDatabase(path, place, folder, connect(file), cut, log);
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

    /**
     * SQLite refuses a file that is shorter than its header says ("Database File Format", §1.3.8); filled up with zeros, it gives
     * the pages that are there.
     */
    private static boolean fillUp(Path file) throws IOException {
        try (var channel = FileChannel.open(file, StandardOpenOption.READ, StandardOpenOption.WRITE)) {
            var header = ByteBuffer.allocate(HEADER);
            if (channel.read(header, 0) < HEADER) {
                return false;
            }
            int page = Short.toUnsignedInt(header.getShort(16));
            long size = (page == 1 ? 65_536L : page) * Integer.toUnsignedLong(header.getInt(28));
            // A page count from the header is trusted only with the change counter that it was written with.
            if (channel.size() >= size
                    || header.getInt(24) != header.getInt(92)
                    || size > 4 * channel.size() + (1 << 20)) {
                return false;
            }
            channel.write(ByteBuffer.allocate(1), size - 1);
            return true;
        }
    }

    private static Connection connect(Path file) throws SQLException {
        var connection = DriverManager.getConnection("jdbc:sqlite:" + file);
        try (var statement = connection.createStatement()) {
            // The content is a stranger's: no tricks by its schema.
            statement.execute("PRAGMA trusted_schema = OFF");
            statement.execute("PRAGMA temp_store = MEMORY");
            statement.execute("SELECT count(*) FROM sqlite_schema"); // is it a database at all?
        } catch (SQLException e) {
            connection.close();
            throw e;
        }
        return connection;
    }

    /** The names of its tables and views. */
    public synchronized List<String> tableNames() throws IOException {
        return new DatabaseQuery(path.text(), connection).tables();
    }

    /**
     * Answers a question in SQL, which changes nothing and opens no other file.
     *
     * @param most rows that are read
     * @throws ProblemException when it is no question that the database understands, or the answer takes too long
     */
    public synchronized DatabaseRows ask(String sql, int most) throws IOException {
        return new DatabaseQuery(path.text(), connection).ask(sql, most);
    }

    /**
     * Answers a question in SQL row by row, with everything that stands in them.
     *
     * @return how many rows
     * @throws ProblemException when it is no question that the database understands, or the answer takes too long
     */
    public synchronized long ask(String sql, RowTaker taker) throws IOException {
        return new DatabaseQuery(path.text(), connection).ask(sql, taker);
    }

    /**
     * Writes the database with what stands in its log as one file, in which what was freed stays too.
     *
     * @throws ProblemException when it does not pass its own check then, or its log is not whole
     */
    public synchronized void merged(OutputStream out) throws IOException {
        if (log.torn()) {
            throw new ProblemException(Problem.failure(
                    path.text(),
                    "The log beside the database is not whole, so its newest rows would be missing",
                    "Take it out as it is, with its log"));
        }
        var copies = place.folder();
        try {
            var copy = copies.resolve(FILE);
            Files.copy(folder.resolve(FILE), copy);
            var beside = folder.resolve(FILE + "-wal");
            if (Files.exists(beside)) {
                Files.copy(beside, copies.resolve(FILE + "-wal"));
            }
            if (cut || !merge(copy)) {
                throw new ProblemException(Problem.failure(
                        path.text(),
                        "The database is damaged, so no merged copy of it is sound",
                        "Take it out as it is, with its log"));
            }
            Files.copy(copy, out);
        } finally {
            place.remove(copies);
        }
    }

    /** Gives whether the copy is sound. */
    private static boolean merge(Path copy) throws IOException {
        try (var merging = connect(copy);
                var statement = merging.createStatement()) {
            statement.execute("PRAGMA wal_checkpoint(TRUNCATE)");
            // With another mode than that of a log it is whole without one.
            statement.execute("PRAGMA journal_mode = DELETE");
            try (var rows = statement.executeQuery("PRAGMA integrity_check(1)")) {
                return rows.next() && "ok".equals(rows.getString(1));
            }
        } catch (SQLException e) {
            return false;
        }
    }

    /** Whether the file ended before the end that it promises. */
    public boolean cut() {
        return cut;
    }

    /** Whether the log beside it is not whole, so that the newest rows may be missing. */
    public boolean logTorn() {
        return log.torn();
    }

    /** Whether its pages are not all in order, so that rows may be missing that nothing else tells of. */
    public synchronized boolean damaged() {
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery("PRAGMA quick_check(1)")) {
            return !rows.next() || !"ok".equals(rows.getString(1));
        } catch (SQLException e) {
            return true;
        }
    }

    /** One row, by the names of its columns; a column that this version of the schema lacks is empty. */
    public static final class Row {
        private final ResultSet row;
        private final Map<String, Integer> columns;

        private Row(ResultSet row, Map<String, Integer> columns) {
            this.row = row;
            this.columns = columns;
        }

        private int column(String name) {
            var column = columns.get(name);
            if (column == null) {
                throw new IllegalArgumentException("not asked for: " + name);
            }
            return column;
        }

        /** Empty text for nothing. */
        public String text(String name) throws SQLException {
            var text = row.getString(column(name));
            return text == null ? "" : text;
        }

        /** Zero for nothing. */
        public long number(String name) throws SQLException {
            return row.getLong(column(name));
        }

        public OptionalLong numberIfAny(String name) throws SQLException {
            long number = row.getLong(column(name));
            return row.wasNull() ? OptionalLong.empty() : OptionalLong.of(number);
        }

        public boolean flag(String name) throws SQLException {
            return row.getLong(column(name)) != 0;
        }

        public byte[] bytes(String name) throws SQLException {
            var bytes = row.getBytes(column(name));
            return bytes == null ? new byte[0] : bytes;
        }
    }

    /** Takes one row. */
    public interface Take {
        void row(Row row) throws SQLException, IOException;
    }

    /**
     * What came of reading a table.
     *
     * @param there whether there is such a table
     * @param lost rows that lie in a torn part, as far as that can be told
     */
    public record Outcome(boolean there, long rows, long lost) {
        /** Whether nothing is missing that should be there. */
        public boolean whole() {
            return there && lost == 0;
        }
    }

    /** Whether there is a table with all of these columns. */
    public boolean has(String table, String... columns) {
        return names(table).containsAll(List.of(columns));
    }

    private Set<String> names(String table) {
        return columns(table).stream().map(Column::name).collect(Collectors.toSet());
    }

    /**
     * A column as the table describes it.
     *
     * @param name in small letters
     * @param numbersRows whether it is the number of the row itself, which is not written beside it
     */
    private record Column(String name, Holds holds, boolean numbersRows) {}

    /** In their order. A schema that can't be read has none. */
    private synchronized List<Column> columns(String table) {
        var columns = new ArrayList<Column>();
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery("PRAGMA table_info(" + quoted(table) + ")")) {
            while (rows.next()) {
                var type = String.valueOf(rows.getString(3)).toUpperCase(Locale.ROOT);
                columns.add(new Column(
                        rows.getString(2).toLowerCase(Locale.ROOT),
                        type.contains("INT")
                                ? Holds.NUMBERS
                                : type.contains("CHAR") || type.contains("TEXT") ? Holds.TEXT : Holds.ANYTHING,
                        rows.getInt(6) == 1 && type.equals("INTEGER")));
            }
        } catch (SQLException e) {
            return List.of();
        }
        return columns;
    }

    private static String quoted(String name) {
        return '"' + name.replace("\"", "\"\"") + '"';
    }

    /**
     * Reads every row of a table that can be read, in the order of their numbers.
     *
     * @param columns those that are read; which of them there are is asked first
     * @throws IOException of whoever takes them
     */
    public synchronized Outcome each(String table, List<String> columns, Take take) throws IOException {
        var there = names(table);
        if (there.isEmpty()) {
            return new Outcome(false, 0, 0);
        }
        var places = new HashMap<String, Integer>();
        for (int i = 0; i < columns.size(); i++) {
            places.put(columns.get(i), i + 2);
        }
        var sql = "SELECT rowid, "
                + columns.stream()
                        .map(c -> there.contains(c) ? quoted(c) : "NULL")
                        .collect(Collectors.joining(", "))
                + " FROM " + quoted(table) + " NOT INDEXED";
        var reading = new TableReading(places, take);
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery(sql + " ORDER BY rowid")) {
            while (rows.next()) {
                reading.take(rows);
            }
        } catch (SQLException torn) {
            salvage(table, columns, reading);
            lookUpTheRest(table, sql, reading);
        }
        return new Outcome(true, reading.rows, reading.lost);
    }

    /** Takes the rows of pages to which no other page leads any more. */
    private void salvage(String table, List<String> columns, TableReading reading) throws IOException {
        var file = folder.resolve(FILE);
        var there = columns(table);
        try (var pages = new DatabasePages(file, folder.resolve(FILE + "-wal"), log);
                var query = connection.prepareStatement(
                        "SELECT ?" + ", ?".repeat(columns.size()))) { // so that a row is a row, wherever it comes from
            new PageSalvage(pages, tables()).rows(table, found -> {
                try {
                    query.setLong(1, found.number());
                    for (int i = 0; i < columns.size(); i++) {
                        query.setObject(i + 2, value(found, there, columns.get(i)));
                    }
                    try (var rows = query.executeQuery()) {
                        if (rows.next()) {
                            reading.take(rows);
                        }
                    }
                } catch (SQLException e) {
                    reading.lost++;
                }
            });
        } catch (SQLException e) {
            // Nothing can be made of it; what is found by number is all there is.
        }
    }

    private static @Nullable Object value(PageSalvage.Found found, List<Column> columns, String name) {
        for (int i = 0; i < columns.size(); i++) {
            if (columns.get(i).name().equals(name)) {
                return found.values().get(i).orElse(columns.get(i).numbersRows() ? found.number() : null);
            }
        }
        return null;
    }

    /** The tables, as far as their description can be read. */
    private Map<String, PageSalvage.Table> tables() throws SQLException {
        var roots = new HashMap<String, Integer>();
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery(
                        "SELECT name, rootpage FROM sqlite_schema WHERE type = 'table' AND rootpage > 0")) {
            while (rows.next()) {
                roots.put(rows.getString(1), rows.getInt(2));
            }
        }
        var tables = new HashMap<String, PageSalvage.Table>();
        for (var root : roots.entrySet()) {
            tables.put(
                    root.getKey(),
                    new PageSalvage.Table(
                            root.getValue(),
                            columns(root.getKey()).stream().map(Column::holds).toList()));
        }
        return tables;
    }

    /** Behind a torn page the others are still found by their numbers. */
    private void lookUpTheRest(String table, String sql, TableReading reading) throws IOException {
        long end = number("SELECT max(rowid) FROM " + quoted(table) + " NOT INDEXED")
                .orElse(MAX_LOOKED_UP);
        for (int id = reading.taken.nextClearBit(1);
                id <= Math.min(end, MAX_LOOKED_UP) && id - reading.taken.previousSetBit(id) < LARGEST_GAP;
                id = reading.taken.nextClearBit(id + 1)) {
            // A statement of its own each time: one that met a torn page is of no use afterwards.
            try (var statement = connection.createStatement();
                    var rows = statement.executeQuery(sql + " WHERE rowid = " + id)) {
                if (rows.next()) {
                    reading.take(rows);
                }
            } catch (SQLException lost) {
                reading.lost++;
            }
        }
        reading.lost = Math.max(reading.lost, 1);
    }

    private static final class TableReading {
        private final Map<String, Integer> places;
        private final Take take;
        /** The numbers of rows that were taken: a torn page may show one twice, or with another's number. */
        private final BitSet taken = new BitSet();

        private long rows;
        private long lost;

        TableReading(Map<String, Integer> places, Take take) {
            this.places = places;
            this.take = take;
        }

        void take(ResultSet row) throws SQLException, IOException {
            long number = row.getLong(1);
            if (number >= 0 && number <= MAX_LOOKED_UP) {
                if (taken.get((int) number)) {
                    return;
                }
                taken.set((int) number);
            }
            try {
                take.row(new Row(row, places));
                rows++;
            } catch (SQLException e) {
                throw e;
            } catch (RuntimeException e) { // this row holds what nobody expected
                lost++;
            }
        }
    }

    private OptionalLong number(String sql) {
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery(sql)) {
            return rows.next() && rows.getObject(1) != null ? OptionalLong.of(rows.getLong(1)) : OptionalLong.empty();
        } catch (SQLException e) {
            return OptionalLong.empty();
        }
    }

    /** The bytes in one cell; empty when there is no such row. */
    public synchronized Optional<byte[]> bytes(String table, String column, String key, long id) throws IOException {
        var sql = "SELECT " + quoted(column) + " FROM " + quoted(table) + " WHERE " + quoted(key) + " = ?";
        try (var statement = connection.prepareStatement(sql)) {
            statement.setLong(1, id);
            try (var rows = statement.executeQuery()) {
                return rows.next() ? Optional.ofNullable(rows.getBytes(1)) : Optional.empty();
            }
        } catch (SQLException e) {
            throw new ProblemException(
                    Problem.failure(path.text(), "This part of the database is torn", "Look into an older layer"), e);
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
