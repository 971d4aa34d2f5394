package app.custodex.readers;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.PrivatePlace;
import app.custodex.link.PhonePath;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is still found in damaged databases, against sqlite3's own ".recover", and against what was written. */
class SalvageTest {
    private static final int ROWS = 9_000;
    private static final int PAGE = 1_024;

    @TempDir
    Path folder;

    private Path file;
    private final Random random = new Random(5);

    @BeforeEach
    void write() throws SQLException {
        file = folder.resolve("whole.db");
        try (var db = DriverManager.getConnection("jdbc:sqlite:" + file);
                var sql = db.createStatement()) {
            sql.execute("PRAGMA page_size = " + PAGE);
            sql.execute("CREATE TABLE message (id INTEGER PRIMARY KEY, chat INTEGER, text TEXT)");
            sql.execute("CREATE TABLE visit (id INTEGER PRIMARY KEY, title TEXT, address TEXT, at INTEGER)");
            sql.execute("CREATE INDEX message_chat ON message (chat)");
            db.setAutoCommit(false);
            try (var message = db.prepareStatement("INSERT INTO message VALUES (?, ?, ?)");
                    var visit = db.prepareStatement("INSERT INTO visit VALUES (?, ?, 'https://example.org', ?)")) {
                for (int id = 1; id <= ROWS; id++) {
                    message.setInt(1, id);
                    message.setInt(2, id % 40);
                    message.setString(3, text(id));
                    message.executeUpdate();
                    visit.setInt(1, id);
                    visit.setString(2, "page " + id);
                    visit.setLong(3, id * 1_000_000_007L);
                    visit.executeUpdate();
                }
            }
            sql.execute("DELETE FROM message WHERE id > 3000 AND id <= 3400"); // leaves free pages behind
            db.commit();
        }
    }

    /** Every hundredth does not fit into a page. */
    private static String text(int id) {
        return "message no. " + id + " 🌊" + (id % 100 == 0 ? " and so on".repeat(300) : "");
    }

    private PhoneDatabase open(byte[] bytes) throws IOException {
        return open(Map.of("p.db", bytes));
    }

    private PhoneDatabase open(Map<String, byte[]> files) throws IOException {
        var there = new MemoryFiles(Map.of());
        files.forEach(there::with);
        return PhoneDatabase.open(there, new PhonePath("p.db"), PrivatePlace.open(folder.resolve("reading")));
    }

    private static Map<Long, String> messages(PhoneDatabase database) throws IOException {
        var found = new TreeMap<Long, String>();
        database.each("message", List.of("id", "text"), row -> found.put(row.number("id"), row.text("text")));
        return found;
    }

    /** Rows by their numbers, of the table itself and of what sqlite3 could assign to none. */
    private Map<Long, String> recovered(byte[] bytes) throws Exception {
        var damaged = Files.write(folder.resolve("damaged.db"), bytes);
        var script = folder.resolve("recover.sql");
        var process = new ProcessBuilder("sqlite3", damaged.toString(), ".recover")
                .redirectOutput(script.toFile())
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        assertTrue(process.waitFor(60, TimeUnit.SECONDS));
        var target = folder.resolve("recovered.db");
        Files.deleteIfExists(target);
        var into = new ProcessBuilder("sqlite3", target.toString())
                .redirectInput(script.toFile())
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        assertTrue(into.waitFor(60, TimeUnit.SECONDS));
        var rows = new TreeMap<Long, String>();
        try (var db = DriverManager.getConnection("jdbc:sqlite:" + target);
                var sql = db.createStatement()) {
            for (var query : List.of(
                    "SELECT id, text FROM message",
                    "SELECT id, c2 FROM lost_and_found WHERE nfield = 3 AND c2 LIKE 'message no. %'")) {
                try (var answer = sql.executeQuery(query)) {
                    while (answer.next()) {
                        rows.put(answer.getLong(1), String.valueOf(answer.getString(2)));
                    }
                } catch (SQLException noSuchTable) {
                    // Nothing was lost, or all of it.
                }
            }
        }
        return rows;
    }

    /** The pages that lead to others: by their first byte, as the format has it. */
    private static List<Integer> interior(byte[] bytes) {
        var interior = new ArrayList<Integer>();
        for (int page = 1; page < bytes.length / PAGE; page++) {
            if (bytes[page * PAGE] == 5) {
                interior.add(page);
            }
        }
        return interior;
    }

    @Test
    void rowsToWhichNothingLeadsAreFound() throws Exception {
        var whole = Files.readAllBytes(file);
        var interior = interior(whole);
        assertTrue(interior.size() > 8, interior.size() + " pages lead to others");
        for (int trial = 0; trial < interior.size(); trial++) {
            var bytes = whole.clone();
            int from = interior.get(trial) * PAGE;
            var garbage = new byte[PAGE];
            random.nextBytes(garbage);
            garbage[0] = 0x77;
            System.arraycopy(garbage, 0, bytes, from, PAGE);
            try (var database = open(bytes)) {
                assertTrue(database.damaged());
                var found = messages(database);
                assertEquals(ROWS - 400, found.size(), "page " + interior.get(trial));
                found.forEach((id, text) -> assertEquals(text(Math.toIntExact(id)), text));
            }
        }
    }

    @Test
    void whateverAnotherSalvageFindsIsFoundHereToo() throws Exception {
        var whole = Files.readAllBytes(file);
        int torn = 0;
        for (int trial = 0; trial < 12; trial++) {
            var bytes = whole.clone();
            for (int i = 0; i < 6; i++) { // whole pages, so that the others are whole
                int page = 1 + random.nextInt(bytes.length / PAGE - 1);
                Arrays.fill(bytes, page * PAGE, (page + 1) * PAGE, (byte) 0x5a);
            }
            var theirs = recovered(bytes);
            try (var database = open(bytes)) {
                var ours = messages(database);
                for (var row : theirs.entrySet()) {
                    int id = Math.toIntExact(row.getKey());
                    // It also brings back what was deleted, and texts whose rest lies in a torn page.
                    if ((id <= 3000 || id > 3400) && row.getValue().equals(text(id))) {
                        assertEquals(row.getValue(), ours.get(row.getKey()), "trial " + trial + ", message " + id);
                    }
                }
                assertTrue(ours.keySet().stream().noneMatch(id -> id > 3000 && id <= 3400), "deleted stays deleted");
                torn += ours.size() < ROWS - 400 ? 1 : 0;
            }
        }
        assertTrue(torn > 3, torn + " lost something");
    }

    /** Cells and headers that promise what can't be: whatever comes out was written, and nothing ends the reading. */
    @Test
    void hostilePagesAreLeftOut() throws Exception {
        var whole = Files.readAllBytes(file);
        var root = interior(whole).getFirst() * PAGE;
        for (int trial = 0; trial < 40; trial++) {
            var bytes = whole.clone();
            bytes[root] = 0x77; // so that all leaves are looked for
            for (int i = 0; i < 300; i++) {
                int page = 1 + random.nextInt(bytes.length / PAGE - 1);
                bytes[page * PAGE + random.nextInt(i % 2 == 0 ? 24 : PAGE)] = (byte) (random.nextInt(3) - 1);
            }
            try (var database = open(bytes)) {
                long right = messages(database).entrySet().stream()
                        .filter(row -> row.getValue().equals(text((int) Math.clamp(row.getKey(), 0, ROWS))))
                        .count();
                assertTrue(right > 1_000, right + " rows came back as they were written");
            }
        }
    }

    @Test
    void aTornLogIsTold() throws Exception {
        var live = folder.resolve("live.db");
        byte[] main;
        byte[] log;
        var usedAgain = new byte[2][];
        try (var db = DriverManager.getConnection("jdbc:sqlite:" + live);
                var sql = db.createStatement()) {
            sql.execute("PRAGMA journal_mode = WAL");
            sql.execute("PRAGMA wal_autocheckpoint = 0");
            sql.execute("CREATE TABLE message (id INTEGER PRIMARY KEY, chat INTEGER, text TEXT)");
            for (int id = 1; id <= 60; id++) {
                sql.execute("INSERT INTO message VALUES (" + id + ", 1, '" + "x".repeat(200) + "')");
            }
            main = Files.readAllBytes(live);
            log = Files.readAllBytes(live.resolveSibling("live.db-wal"));
            sql.execute("PRAGMA wal_checkpoint(RESTART)"); // begins it anew, over what stands in it
            sql.execute("INSERT INTO message VALUES (61, 1, 'y')");
            usedAgain[0] = Files.readAllBytes(live);
            usedAgain[1] = Files.readAllBytes(live.resolveSibling("live.db-wal"));
            assertEquals(log.length, usedAgain[1].length);
        }
        assertFalse(torn(main, log), "as SQLite wrote it");
        assertFalse(torn(main, new byte[0]), "an empty one holds nothing");
        for (int trial = 0; trial < 200; trial++) {
            var bytes = log.clone();
            bytes[random.nextInt(bytes.length)] ^= (byte) (1 << random.nextInt(8));
            assertTrue(torn(main, bytes), "trial " + trial);
        }
        assertFalse(torn(usedAgain[0], usedAgain[1]), "frames of an earlier use of the log stand behind its end");
    }

    private boolean torn(byte[] main, byte[] log) throws IOException {
        try (var database = open(Map.of("p.db", main, "p.db-wal", log))) {
            return database.logTorn();
        }
    }
}
