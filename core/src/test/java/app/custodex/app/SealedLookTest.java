package app.custodex.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.backup.BackupRequest;
import app.custodex.backup.FakePhone;
import app.custodex.files.FolderTree;
import app.custodex.link.PhonePath;
import app.custodex.media.MediaWorkers;
import app.custodex.seal.Passphrase;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.DriverManager;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** While the files of a sealed layer are looked at, and after it, nothing of them lies on a disk. */
final class SealedLookTest {
    private static final String MARK = "herring-ladder-violet";

    @TempDir
    private Path folder;

    @TempDir
    private Path made;

    private final FakePhone phone = new FakePhone("PB-LOOK");
    /** What no file may hold: pieces of what is on the phone. */
    private final List<byte[]> secrets = new ArrayList<>();

    private void put(String path, Path file) throws IOException {
        var bytes = Files.readAllBytes(file);
        phone.put(path, bytes);
        int middle = bytes.length / 2;
        secrets.add(Arrays.copyOfRange(bytes, middle, middle + 48));
    }

    private Path ffmpeg(String name, String... options) throws Exception {
        var file = made.resolve(name);
        var command = new ArrayList<>(List.of("ffmpeg", "-v", "quiet", "-y", "-f", "lavfi"));
        command.addAll(List.of(options));
        command.add(file.toString());
        assertEquals(0, new ProcessBuilder(command).start().waitFor(), name);
        return file;
    }

    private void fill() throws Exception {
        put("roll/small.jpg", ffmpeg("small.jpg", "-i", "testsrc2=size=400x300", "-frames:v", "1"));
        // Larger than what is put into packs.
        put(
                "roll/large.png",
                ffmpeg("large.png", "-i", "nullsrc=s=1600x1200,geq=random(1)*255:128:128", "-frames:v", "1"));
        put("sound/tone.mp3", ffmpeg("tone.mp3", "-i", "sine=duration=3"));
        var database = made.resolve("talk.db");
        try (var connection = DriverManager.getConnection("jdbc:sqlite:" + database);
                var statement = connection.createStatement()) {
            statement.execute("CREATE TABLE talk (words TEXT)");
            statement.execute("INSERT INTO talk VALUES ('" + MARK + "')");
        }
        phone.put("store/talk.db", Files.readAllBytes(database));
        secrets.add(MARK.getBytes(StandardCharsets.UTF_8));
    }

    private static boolean holds(byte[] all, byte[] piece) {
        return new String(all, StandardCharsets.ISO_8859_1).contains(new String(piece, StandardCharsets.ISO_8859_1));
    }

    private void assertNothingOf(Path root) throws IOException {
        try (var files = Files.walk(root)) {
            for (var file : files.filter(Files::isRegularFile).toList()) {
                var bytes = Files.readAllBytes(file);
                for (var secret : secrets) {
                    assertFalse(holds(bytes, secret), file.toString());
                }
            }
        }
    }

    private static List<Path> temporary() throws IOException {
        try (var files = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            return files.sorted().toList();
        }
    }

    @Test
    void nothingOfASealedLayerIsOnTheDiskWhileItIsLookedAtOrAfter() throws Exception {
        fill();
        var before = temporary();
        try (var custodex = Custodex.open(new Home(folder), Clock.systemUTC())) {
            var source = new Source(
                    1, "look", "look", "Look", Source.Type.PHONE, URI.create("http://127.0.0.1:1/"), Optional.empty());
            var bay = new Bay(source, phone);
            bay.ask();
            custodex.seal(phone.identity(), new Passphrase("four unrelated words, honest".toCharArray()));
            custodex.backUp(bay, Mandate.ofShop(), BackupRequest.everything(Duration.ZERO, "test"), false)
                    .outcome()
                    .get(60, TimeUnit.SECONDS);
            var open = custodex.reading().open(Mandate.ofShop(), "PB-LOOK", 1, Locale.UK);
            try (open) {
                assertEquals(4, FolderTree.of(open.items()).items());
                try (var small = open.media("roll/small.jpg");
                        var large = open.media("roll/large.png");
                        var tone = open.media("sound/tone.mp3")) {
                    assertEquals(
                            320, MediaWorkers.shared().picture(small, 320, true).width());
                    assertEquals(
                            1600,
                            MediaWorkers.shared().picture(large, 2000, false).fullWidth());
                    assertEquals(
                            3,
                            MediaWorkers.shared()
                                            .peaks(tone, 20, false)
                                            .length()
                                            .toMillis()
                                    / 1000.0,
                            0.1);
                }
                var database = new PhonePath("store/talk.db");
                assertEquals(List.of("talk"), open.tables(database));
                assertEquals(
                        List.of(List.of(MARK)),
                        open.ask(database, "SELECT words FROM talk", 5).rows());
                assertTrue(holds(open.beginning("store/talk.db", 1 << 20), MARK.getBytes(StandardCharsets.UTF_8)));
                assertNothingOf(folder);
            }
            // What is closed gives nothing more, to nobody who is late.
            assertThrows(CancellationException.class, () -> open.media("roll/small.jpg"));
            assertThrows(CancellationException.class, open::items);
            assertNothingOf(folder);
        }
        assertNothingOf(folder);
        var left = new ArrayList<>(temporary());
        left.removeAll(before);
        left.removeIf(path -> path.startsWith(folder) || path.startsWith(made));
        for (var path : left) {
            if (Files.isDirectory(path) && Files.isReadable(path)) {
                assertNothingOf(path);
            }
        }
    }
}
