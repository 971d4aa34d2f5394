package app.custodex.readers;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.PrivatePlace;
import app.custodex.base.ProblemException;
import app.custodex.extract.tables.DatabaseTable;
import app.custodex.link.PhonePath;
import app.custodex.media.MediaSamples;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A database taken out as one file, or as a table, looked at by sqlite3. */
class PhoneDatabaseOutTest {
    @TempDir
    private Path folder;

    private final MemoryFiles phone = new MemoryFiles(Map.of());

    /** Rows 1 and 2 are in the file, row 3 is in the log only. */
    @BeforeEach
    void write() throws SQLException, IOException {
        var file = folder.resolve("p.db");
        try (var db = DriverManager.getConnection("jdbc:sqlite:" + file);
                var sql = db.createStatement()) {
            sql.execute("CREATE TABLE t (id INTEGER PRIMARY KEY, name TEXT, n REAL, b BLOB)");
            sql.execute("INSERT INTO t VALUES (1, '=cmd()', -1.5, x'00ff'), (2, 'a \"b\"\n,c', NULL, NULL)");
            sql.execute("PRAGMA journal_mode = WAL");
            sql.execute("PRAGMA wal_autocheckpoint = 0");
            sql.execute("INSERT INTO t VALUES (3, '海', 1e300, NULL)");
            phone.with("p.db", Files.readAllBytes(file));
            phone.with("p.db-wal", Files.readAllBytes(folder.resolve("p.db-wal")));
        }
    }

    private PhoneDatabase open() throws IOException {
        return PhoneDatabase.open(phone, new PhonePath("p.db"), PrivatePlace.open(folder.resolve("reading")));
    }

    private static String sqlite(Path file, String sql) throws IOException {
        return new String(MediaSamples.run("sqlite3", file.toString(), sql), StandardCharsets.UTF_8).strip();
    }

    private Path merged() throws IOException {
        var out = new ByteArrayOutputStream();
        try (var database = open()) {
            database.merged(out);
            assertEquals(3, database.ask("SELECT * FROM t", 10).rows().size(), "it is as it was");
        }
        return Files.write(folder.resolve("merged.db"), out.toByteArray());
    }

    @Test
    void whatStandsInTheLogStandsInTheOneFile() throws IOException {
        var merged = merged();
        assertEquals("3", sqlite(merged, "SELECT count(*) FROM t"));
        assertEquals("ok", sqlite(merged, "PRAGMA integrity_check"));
        assertEquals("delete", sqlite(merged, "PRAGMA journal_mode"));
    }

    @Test
    void aDamagedOneIsNotMerged() throws IOException {
        var bytes = Files.readAllBytes(folder.resolve("p.db"));
        Arrays.fill(bytes, 4_096, bytes.length, (byte) 0x55);
        phone.with("p.db", bytes);
        phone.with("p.db-wal", new byte[0]);
        try (var database = open()) {
            var out = new ByteArrayOutputStream();
            assertThrows(ProblemException.class, () -> database.merged(out));
            assertEquals(0, out.size());
        }
    }

    @Test
    void aTornLogIsTold() throws IOException {
        try (var log = phone.open(new PhonePath("p.db-wal"))) {
            var bytes = log.readAllBytes();
            phone.with("p.db-wal", Arrays.copyOf(bytes, bytes.length - 100));
        }
        try (var database = open()) {
            var told = assertThrows(ProblemException.class, () -> database.merged(new ByteArrayOutputStream()));
            assertTrue(
                    told.problem().what().contains("newest rows"),
                    told.problem().what());
        }
    }

    @Test
    void anAnswerIsATableInWhichNothingRuns() throws IOException {
        var out = new ByteArrayOutputStream();
        try (var database = open();
                var table = new DatabaseTable(out)) {
            assertEquals(3, database.ask("SELECT * FROM t ORDER BY id", table));
            assertThrows(ProblemException.class, () -> database.ask("DELETE FROM t", table));
            assertThrows(ProblemException.class, () -> database.ask("SELECT nothing", table));
        }
        assertEquals(
                "id,name,n,b\r\n1,'=cmd(),-1.5,00ff\r\n2,\"a \"\"b\"\"\n,c\",,\r\n3,海,1.0E300,\r\n",
                out.toString(StandardCharsets.UTF_8));
    }
}
