package app.custodex.practice.content;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;

/** How an Ostrel keeps a database, and how it writes times: in microseconds since 2000-01-01T00:00Z. */
final class OstrelDatabase {
    static final Instant EPOCH = Instant.parse("2000-01-01T00:00:00Z");

    private OstrelDatabase() {}

    static long micros(LocalDateTime time) {
        return micros(time.toInstant(ZoneOffset.ofHours(1)));
    }

    static long micros(Instant instant) {
        return Duration.between(EPOCH, instant).toNanos() / 1_000;
    }

    interface Fill {
        void into(Tables db) throws SQLException;
    }

    static void write(Path target, LocalDateTime now, Fill settled) throws IOException {
        write(target, now, settled, db -> {});
    }

    /**
     * Makes a database as a running phone has it: the newest rows are still in the write-ahead log beside it. SQLite
     * folds the log in when it closes, so the pair is copied while it is open.
     *
     * @param now when it was written last, by the island's clock
     */
    static void write(Path target, LocalDateTime now, Fill settled, Fill recent) throws IOException {
        Files.createDirectories(target.getParent());
        var work = Files.createTempDirectory("practice-phone");
        var file = work.resolve("work.db");
        var log = work.resolve("work.db-wal");
        try (var db = DriverManager.getConnection("jdbc:sqlite:" + file)) {
            pragma(db, "journal_mode=WAL");
            pragma(db, "wal_autocheckpoint=0");
            db.setAutoCommit(false);
            fill(db, settled);
            db.commit();
            db.setAutoCommit(true);
            pragma(db, "wal_checkpoint(TRUNCATE)");
            db.setAutoCommit(false);
            fill(db, recent);
            db.commit();
            Files.copy(file, target);
            Clips.stamp(target, now);
            if (Files.size(log) > 0) {
                var targetLog = target.resolveSibling(target.getFileName() + "-wal");
                Files.copy(log, targetLog);
                Clips.stamp(targetLog, now);
            }
        } catch (SQLException e) {
            throw new IOException(e);
        } finally {
            try (var left = Files.list(work)) {
                for (var path : left.toList()) {
                    Files.delete(path);
                }
            }
            Files.delete(work);
        }
    }

    private static void fill(Connection db, Fill fill) throws SQLException {
        try (var tables = new Tables(db)) {
            fill.into(tables);
        }
    }

    /** In a statement of its own, since an open answer would keep the transaction from ending. */
    private static void pragma(Connection db, String pragma) throws SQLException {
        try (var sql = db.createStatement()) {
            sql.execute("PRAGMA " + pragma);
        }
    }
}
