package app.custodex.bench;

import app.custodex.base.CancelToken;
import app.custodex.base.PrivatePlace;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.CatalogueDraft;
import app.custodex.catalogue.CatalogueHead;
import app.custodex.catalogue.Filter;
import app.custodex.link.Family;
import app.custodex.link.FileSource;
import app.custodex.link.Kind;
import app.custodex.link.Layout;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhonePath;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.families.FamilyReaders;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;

/**
 * Reads a phone's messages into a catalogue, against {@code sqlite3} putting the same rows into a table with an FTS5 index; then the
 * next layer with 100 new ones, opening, and finding. Arguments: messages, rounds.
 */
public final class CatalogueBench {
    private static final String STORE = "store/messages/messages.db";

    private CatalogueBench() {}

    /** A phone's files in a folder. */
    private record Folder(Path root, String version) implements FileSource {
        @Override
        public boolean has(PhonePath path) {
            return Files.isRegularFile(root.resolve(path.text()));
        }

        @Override
        public List<PhonePath> in(PhonePath folder) {
            return List.of();
        }

        @Override
        public List<PhonePath> of(Kind kind) {
            return Layout.kindOf(Family.OSTREL, new PhonePath(STORE)) == kind
                    ? List.of(new PhonePath(STORE))
                    : List.of();
        }

        @Override
        public Facts facts(PhonePath path) throws IOException {
            var file = root.resolve(path.text());
            return new Facts(Files.size(file), Instant.EPOCH, version);
        }

        @Override
        public InputStream open(PhonePath path) throws IOException {
            return Files.newInputStream(root.resolve(path.text()));
        }

        @Override
        public void close() {
            // The folder is removed by whoever made it.
        }
    }

    public static void main(String[] args) throws Exception {
        int messages = Side.number(args, 0, 500_000);
        int rounds = Side.number(args, 1, 3);
        Side.inFolder(folder -> {
            var store = folder.resolve(STORE);
            Files.createDirectories(store.getParent());
            fill(store, 0, messages);
            for (int round = 1; round <= rounds; round++) {
                double baseline = baseline(store, folder.resolve("baseline.db"));
                var file = folder.resolve("catalogue-" + round + ".db");
                double built = Side.seconds(() -> build(folder, file, "one", 1));
                System.out.printf(
                        Locale.ROOT,
                        "round %d: sqlite3 %.1f s, catalogue %.1f s (%.2f times), %d MB%n",
                        round,
                        baseline,
                        built,
                        built / baseline,
                        Files.size(file) >> 20);
                open(file, messages);
                if (round == rounds) {
                    fill(store, messages, messages + 100);
                    System.out.printf(
                            Locale.ROOT,
                            "the next layer, 100 new: %.2f s%n",
                            Side.seconds(() -> build(folder, file, "two", 2)));
                    sealed(file);
                }
            }
            System.out.printf("heap at most %d MB%n", Runtime.getRuntime().totalMemory() >> 20);
        });
    }

    private static final String[] WORDS = words();

    private static String[] words() {
        var random = new Random(5);
        var words = new String[8_000];
        for (int i = 0; i < words.length; i++) {
            var word = new StringBuilder();
            for (int length = 2 + random.nextInt(8); length > 0; length--) {
                word.append((char) ('a' + random.nextInt(26)));
            }
            words[i] = word.toString();
        }
        return words;
    }

    private static String text(Random random) {
        var text = new StringBuilder();
        for (int n = 3 + random.nextInt(22); n > 0; n--) {
            text.append(WORDS[(int) (Math.abs(random.nextGaussian()) * 2_000) % WORDS.length])
                    .append(' ');
        }
        return text.toString();
    }

    private static void fill(Path store, int from, int to) throws SQLException {
        var random = new Random(from);
        try (var db = DriverManager.getConnection("jdbc:sqlite:" + store)) {
            db.setAutoCommit(false);
            try (var sql = db.createStatement()) {
                if (from == 0) {
                    for (var table : List.of(
                            "CREATE TABLE chat (id INTEGER PRIMARY KEY, name TEXT, is_group INTEGER, service TEXT)",
                            "CREATE TABLE handle (id INTEGER PRIMARY KEY, address TEXT, name TEXT)",
                            "CREATE TABLE chat_member (chat INTEGER, handle INTEGER)",
                            "CREATE TABLE message (id INTEGER PRIMARY KEY, guid TEXT, chat INTEGER, handle INTEGER,"
                                    + " at INTEGER, text TEXT, service TEXT, state INTEGER)")) {
                        sql.executeUpdate(table);
                    }
                    for (int i = 1; i <= 200; i++) {
                        sql.executeUpdate("INSERT INTO handle VALUES (" + i + ", '+44 7700 900" + (100 + i) + "', '')");
                        sql.executeUpdate("INSERT INTO chat VALUES (" + i + ", '', 0, 'SMS')");
                        sql.executeUpdate("INSERT INTO chat_member VALUES (" + i + ", " + i + ")");
                    }
                }
            }
            try (var insert = db.prepareStatement("INSERT INTO message VALUES (?,?,?,?,?,?,'SMS',3)")) {
                for (int i = from; i < to; i++) {
                    int chat = 1 + random.nextInt(200);
                    insert.setInt(1, i + 1);
                    insert.setString(2, "g" + i);
                    insert.setInt(3, chat);
                    insert.setObject(4, i % 2 == 0 ? null : (Integer) chat);
                    insert.setLong(5, 700_000_000_000_000L + i * 120_000_000L);
                    insert.setString(6, text(random));
                    insert.executeUpdate();
                }
            }
            db.commit();
        }
    }

    private static double baseline(Path store, Path into) throws Exception {
        Files.deleteIfExists(into);
        return Side.seconds(() -> Side.run(List.of(
                "sqlite3",
                into.toString(),
                "PRAGMA journal_mode=OFF; PRAGMA synchronous=OFF; ATTACH '" + store + "' AS s; BEGIN;"
                        + " CREATE TABLE message AS SELECT * FROM s.message;"
                        + " CREATE VIRTUAL TABLE f USING fts5(text, content='');"
                        + " INSERT INTO f(rowid, text) SELECT id, text FROM s.message; COMMIT;")));
    }

    private static void build(Path folder, Path file, String version, int layer) throws Exception {
        try (var place = PrivatePlace.open(folder.resolve("reading"));
                var phone = new PhoneFiles(new Folder(folder, version), identity(), place);
                var draft = CatalogueDraft.inFile(file)) {
            draft.build(
                    CatalogueHead.of("bench", layer, "GB"),
                    phone,
                    FamilyReaders.of(Family.OSTREL),
                    n -> {},
                    new CancelToken());
        }
    }

    private static PhoneIdentity identity() {
        return new PhoneIdentity(
                "bench", "Bench", Family.OSTREL, "m", "s", "i", "sys", "GB", ZoneId.of("Etc/GMT-1"), 1, 1);
    }

    private static void open(Path file, int messages) throws Exception {
        long start = System.nanoTime();
        try (var catalogue =
                Catalogue.open(file, CatalogueHead.of("bench", 1, "GB")).orElseThrow()) {
            var counts = catalogue.counts();
            double opened = (System.nanoTime() - start) / 1e9;
            System.out.printf(Locale.ROOT, "open with counts %.3f s: %s%n", opened, counts);
            var random = new Random(7);
            var times = new double[200];
            int most = 0;
            for (int i = 0; i < times.length; i++) {
                var word = WORDS[(int) (Math.abs(random.nextGaussian()) * 2_000) % WORDS.length];
                var typed = switch (i % 4) {
                    case 0 -> word;
                    case 1 -> word.substring(0, Math.min(2, word.length()));
                    case 2 -> word + " " + WORDS[random.nextInt(2_000)];
                    default -> word.substring(0, 1);
                };
                long asked = System.nanoTime();
                most = Math.max(most, catalogue.find(typed, Filter.EVERYTHING, Order.NEWEST_FIRST).length);
                times[i] = (System.nanoTime() - asked) / 1e6;
            }
            Arrays.sort(times);
            System.out.printf(
                    Locale.ROOT,
                    "find: median %.1f ms, 95th percentile %.1f ms, at most %.1f ms, at most %d of %d hits%n",
                    times[100],
                    times[190],
                    times[199],
                    most,
                    messages);
        }
    }

    private static void sealed(Path file) throws Exception {
        var bytes = Files.readAllBytes(file);
        System.out.printf(
                Locale.ROOT,
                "open from memory %.2f s%n",
                Side.seconds(() -> Optional.of(bytes)
                        .flatMap(image -> Catalogue.open(image, CatalogueHead.of("bench", 2, "GB")))
                        .orElseThrow()
                        .close()));
    }
}
