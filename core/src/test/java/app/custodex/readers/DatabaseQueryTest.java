package app.custodex.readers;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.ProblemException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

@SuppressWarnings("NullAway.Init") // opened before each test
final class DatabaseQueryTest {
    @TempDir
    private Path folder;

    private Connection connection;
    private DatabaseQuery query;

    @BeforeEach
    void open() throws SQLException {
        connection = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("phone.db"));
        try (var statement = connection.createStatement()) {
            statement.execute("CREATE TABLE people (id INTEGER PRIMARY KEY, name TEXT, photo BLOB)");
            statement.execute("CREATE TABLE \"odd name\" (x)");
            statement.execute("CREATE VIEW names AS SELECT name FROM people");
            statement.execute("INSERT INTO people VALUES (1, 'Noor', x'0102'), (2, NULL, NULL), (3, '灯塔', NULL)");
        }
        query = new DatabaseQuery("store/phone.db", connection);
    }

    @AfterEach
    void close() throws SQLException {
        connection.close();
    }

    @Test
    void tablesAndRowsAreRead() throws IOException {
        assertEquals(List.of("names", "odd name", "people"), query.tables());
        var rows = query.ask("SELECT * FROM people ORDER BY id", 10);
        assertEquals(List.of("id", "name", "photo"), rows.columns());
        assertEquals(
                List.of(List.of("1", "Noor", "2 bytes"), List.of("2", "", ""), List.of("3", "灯塔", "")), rows.rows());
        assertFalse(rows.more());
        assertEquals(
                List.of("number"),
                query.ask("SELECT count(*) AS number FROM names", 10).columns());
    }

    @Test
    void noMoreIsReadThanIsAskedFor() throws IOException {
        var two = query.ask("SELECT id FROM people", 2);
        assertEquals(2, two.rows().size());
        assertTrue(two.more());
        var longest = query.ask("SELECT printf('%.*c', 5000000, 'x')", 1)
                .rows()
                .getFirst()
                .getFirst();
        assertEquals(2_001, longest.length());
    }

    @Test
    void nothingIsChangedAndNoOtherFileIsOpened() throws Exception {
        var other = folder.resolve("other.db");
        for (var sql : List.of(
                "DELETE FROM people",
                "DROP TABLE people",
                "CREATE TABLE more (x)",
                "PRAGMA user_version = 7",
                "ATTACH DATABASE '" + other + "' AS other",
                "VACUUM INTO '" + other + "'",
                "INSERT INTO people (name) SELECT 'x' RETURNING name")) {
            assertThrows(ProblemException.class, () -> query.ask(sql, 10), sql);
        }
        // What switches it off holds for that question alone, and does nothing in it.
        query.ask("PRAGMA query_only = OFF", 10);
        assertThrows(ProblemException.class, () -> query.ask("DELETE FROM people", 10));
        assertEquals(
                "3",
                query.ask("SELECT count(*) FROM people", 1).rows().getFirst().getFirst());
        assertFalse(Files.exists(other));
    }

    @Test
    void aQuestionThatIsNotUnderstoodSaysSoInWords() {
        var e = assertThrows(ProblemException.class, () -> query.ask("SELECT nickname FROM people", 10));
        assertEquals("store/phone.db", e.problem().subject());
        assertTrue(
                e.problem().what().contains("no such column: nickname"),
                e.problem().what());
        assertFalse(e.problem().what().contains("SQLITE"), e.problem().what());
    }

    @Test
    void aQuestionWithoutAnEndEnds() {
        var e = assertThrows(
                ProblemException.class,
                () -> query.ask(
                        "WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) SELECT max(i) FROM n", 1));
        assertTrue(
                e.problem().what().contains("took longer than 10 seconds"),
                e.problem().what());
    }
}
