package app.custodex.readers;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.io.IOException;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.sqlite.SQLiteConnection;
import org.sqlite.SQLiteLimits;

/** What somebody asks of a phone's database in SQL. It only reads: neither the database nor any other file is changed or opened. */
final class DatabaseQuery {
    private static final int SECONDS = 10;
    private static final int SECONDS_FOR_ALL = 600;
    private static final int LONGEST = 2_000;
    private static final ScheduledExecutorService CLOCK = Executors.newSingleThreadScheduledExecutor(task -> {
        var thread = new Thread(task, "query-clock");
        thread.setDaemon(true);
        return thread;
    });

    private final String item;
    private final Connection connection;

    DatabaseQuery(String item, Connection connection) {
        this.item = item;
        this.connection = connection;
    }

    /** The names of its tables and views, in their order. */
    List<String> tables() throws IOException {
        var rows =
                ask("SELECT name FROM sqlite_schema WHERE type IN ('table', 'view') ORDER BY name", Integer.MAX_VALUE);
        return rows.rows().stream().map(List::getFirst).toList();
    }

    /** @param most rows that are read */
    DatabaseRows ask(String sql, int most) throws IOException {
        return reading(sql, SECONDS, found -> read(found, most)).orElse(new DatabaseRows(List.of(), List.of(), false));
    }

    /** Gives how many rows there are. */
    long ask(String sql, RowTaker taker) throws IOException {
        return reading(sql, SECONDS_FOR_ALL, found -> take(found, taker)).orElse(0L);
    }

    private interface Reading<T> {
        T read(ResultSet found) throws SQLException, IOException;
    }

    private <T> Optional<T> reading(String sql, int seconds, Reading<T> reading) throws IOException {
        try (var pragma = connection.createStatement()) {
            // Nothing may be opened beside it, nor written into it.
            connection.unwrap(SQLiteConnection.class).setLimit(SQLiteLimits.SQLITE_LIMIT_ATTACHED, 0);
            pragma.execute("PRAGMA query_only = ON");
            try {
                return answer(sql, seconds, reading);
            } finally {
                pragma.execute("PRAGMA query_only = OFF");
            }
        } catch (SQLException e) {
            throw new ProblemException(
                    Problem.note(
                            item, "The database does not answer this: " + words(e, seconds), "Change the question"),
                    e);
        }
    }

    private <T> Optional<T> answer(String sql, int seconds, Reading<T> reading) throws SQLException, IOException {
        try (var statement = connection.createStatement()) {
            var late = CLOCK.schedule(() -> cancel(statement), seconds, TimeUnit.SECONDS);
            try {
                if (!statement.execute(sql)) {
                    return Optional.empty();
                }
                try (var found = statement.getResultSet()) {
                    return Optional.of(reading.read(found));
                }
            } finally {
                late.cancel(false);
            }
        }
    }

    /** The library puts its code before what it says. */
    private static String words(SQLException e, int seconds) {
        var message = Optional.ofNullable(e.getMessage()).orElse("");
        return message.contains("SQLITE_INTERRUPT")
                ? "it took longer than " + seconds + " seconds"
                : message.replaceFirst("^\\[SQLITE[^]]*]\\s*", "").replaceFirst("^[^(]*\\((.*)\\)$", "$1");
    }

    private static void cancel(Statement statement) {
        try {
            statement.cancel();
        } catch (SQLException e) {
            // it has ended
        }
    }

    private static DatabaseRows read(ResultSet found, int most) throws SQLException {
        var names = names(found);
        int columns = names.size();
        var rows = new ArrayList<List<String>>();
        boolean more = false;
        while (found.next()) {
            if (rows.size() == most) {
                more = true;
                break;
            }
            var row = new ArrayList<String>(columns);
            for (int i = 1; i <= columns; i++) {
                row.add(value(found.getObject(i)));
            }
            rows.add(List.copyOf(row));
        }
        return new DatabaseRows(names, rows, more);
    }

    private static List<String> names(ResultSet found) throws SQLException {
        var names = new ArrayList<String>();
        for (int i = 1; i <= found.getMetaData().getColumnCount(); i++) {
            names.add(found.getMetaData().getColumnLabel(i));
        }
        return names;
    }

    private static long take(ResultSet found, RowTaker taker) throws SQLException, IOException {
        var names = names(found);
        taker.columns(names);
        long rows = 0;
        while (found.next()) {
            var row = new ArrayList<@Nullable Object>(names.size());
            for (int i = 1; i <= names.size(); i++) {
                row.add(found.getObject(i));
            }
            taker.row(row);
            rows++;
        }
        return rows;
    }

    private static String value(@Nullable Object value) {
        return switch (value) {
            case null -> "";
            case byte[] bytes -> bytes.length + " bytes";
            default -> {
                var text = value.toString();
                yield text.length() > LONGEST ? text.substring(0, LONGEST) + "…" : text;
            }
        };
    }
}
