package app.custodex.backup;

import static app.custodex.backup.Backups.assertHolds;
import static app.custodex.backup.Backups.backUp;
import static app.custodex.backup.FakePhone.bytes;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doReturn;
import static org.mockito.Mockito.spy;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.RealDisk;
import app.custodex.link.LinkException;
import app.custodex.link.PhonePath;
import app.custodex.strongroom.FaultyDisk;
import app.custodex.strongroom.LayerDraft;
import app.custodex.strongroom.OcflReferee;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class BackupRunTest {
    @TempDir
    Path root;

    private final FakePhone phone = new FakePhone("PB-TEST");
    private final RealDisk disk = new RealDisk();

    private static byte[] random(int size, long seed) {
        var bytes = new byte[size];
        new Random(seed).nextBytes(bytes);
        return bytes;
    }

    @Test
    void savesEveryFileAndFindsItSound() throws IOException {
        phone.put("Shared/People/a.vcf", bytes("BEGIN:VCARD\r\nEND:VCARD\r\n"));
        phone.put("Pictures/empty.jpg", new byte[0]);
        phone.put("Pictures/large.mp4", random(LayerDraft.PACKED_UP_TO + 70_000, 1));
        phone.put("Pictures/just-packed.mp4", random(LayerDraft.PACKED_UP_TO, 2));

        var result = backUp(phone, root, disk);

        assertEquals(4, result.layer().items());
        assertEquals(0, result.layer().missed());
        assertTrue(result.check().orElseThrow().sound());
        assertHolds(Strongroom.make(root, disk), phone, 1, phone.state());
    }

    @Test
    void savesNamesThatNoFileSystemHereWouldTake() throws IOException {
        phone.put("x".repeat(300), bytes("long"));
        phone.put("Notes/line\nbreak", bytes("newline"));
        phone.put("Notes/back\\slash: and * ? \" < > |", bytes("signs"));
        phone.put("Notes/.hidden", bytes("dot"));
        phone.put("Notes/...", bytes("dots"));
        phone.put("Notes/CON", bytes("reserved elsewhere"));
        phone.put("Notes/a", bytes("lower"));
        phone.put("Notes/A", bytes("upper"));
        phone.put("मेरे नोट/海の写真 🌊.txt", bytes("scripts"));
        phone.put("Notes/e\u0301", bytes("decomposed"));
        phone.put("Notes/\u00e9", bytes("composed"));

        var result = backUp(phone, root, disk);

        assertEquals(0, result.layer().missed());
        assertHolds(Strongroom.make(root, disk), phone, 1, phone.state());
    }

    @Test
    void writesNothingOutsideTheStrongroomWhateverThePhoneLists() throws IOException {
        var strongroom = root.resolve("inner/strongroom");
        phone.put("ok.txt", bytes("ok"));
        phone.link("escape", "../../../../etc/passwd");
        phone.refuse(Problem.failure("/", "The phone lists \"..%2F..%2Fevil\"", "It was left out"));

        var result = backUp(phone, strongroom, disk);

        try (var files = Files.walk(root)) {
            assertTrue(files.filter(Files::isRegularFile).allMatch(f -> f.startsWith(strongroom)));
        }
        try (var layer = Strongroom.make(strongroom, disk).layer("PB-TEST", 1).orElseThrow()) {
            assertEquals(
                    "../../../../etc/passwd",
                    layer.find(new PhonePath("escape")).orElseThrow().target().orElseThrow());
        }
        assertEquals(2, result.problems().size());
        assertEquals(1, result.layer().missed(), "a link that was kept as a link is not missing, a refused name is");
    }

    @Test
    void onlyWhatIsNewIsReadAndStoredAgain() throws IOException {
        phone.put("a", random(50_000, 1));
        var changed = phone.put("b", random(60_000, 2));
        var gone = phone.put("c", random(70_000, 3));
        backUp(phone, root, disk);
        var first = phone.state();
        long readBefore = phone.bytesRead();
        phone.put("b", random(61_000, 4));
        phone.put("d", random(8_000, 5));
        phone.remove(gone);

        var result = backUp(phone, root, disk);

        assertEquals(69_000, phone.bytesRead() - readBefore);
        assertEquals(69_000, result.layer().freshBytes());
        assertEquals(2, result.layer().freshItems());
        var strongroom = Strongroom.make(root, disk);
        assertHolds(strongroom, phone, 1, first);
        assertHolds(strongroom, phone, 2, phone.state());
        assertTrue(first.containsKey(changed));
    }

    @Test
    void theSameContentIsStoredOnce() throws IOException {
        phone.put("one", random(30_000, 9));
        phone.put("two", random(30_000, 9));
        phone.put("large one", random(5_000_000, 8));
        phone.put("large two", random(5_000_000, 8));

        backUp(phone, root, disk);

        try (var files = Files.walk(root.resolve("objects"))) {
            long stored = files.filter(Files::isRegularFile)
                    .mapToLong(f -> f.toFile().length())
                    .sum();
            assertTrue(stored < 5_000_000 + 30_000 + 30_000, "stored " + stored);
        }
        assertHolds(Strongroom.make(root, disk), phone, 1, phone.state());
    }

    @Test
    void contentThatWentAndCameBackIsStoredOnceAndValid() throws IOException {
        var large = random(5_000_000, 8);
        var path = phone.put("large", large);
        phone.put("small", bytes("small"));
        backUp(phone, root, disk);
        phone.remove(path);
        phone.remove(new PhonePath("small"));
        backUp(phone, root, disk);
        phone.put("large", large);
        phone.put("small", bytes("small"), Instant.parse("2026-01-02T03:04:07Z"));

        backUp(phone, root, disk);

        OcflReferee.assertValid(root);
        assertHolds(Strongroom.make(root, disk), phone, 3, phone.state());
    }

    /** Whatever is done to a phone between backups, each layer gives back what it saw. */
    @Test
    void everyLayerRestoresExactlyTheStateThatItSaw() throws IOException {
        var random = new Random(42);
        Map<Integer, Map<PhonePath, byte[]>> states = new HashMap<>();
        for (int layer = 1; layer <= 12; layer++) {
            for (int change = 0; change < 15; change++) {
                var path = "f" + random.nextInt(6) + "/" + random.nextInt(8);
                if (random.nextInt(3) == 0) {
                    phone.remove(new PhonePath(path));
                } else {
                    phone.put(path, random(random.nextInt(4_000), random.nextInt(30)));
                }
            }
            backUp(phone, root, disk);
            states.put(layer, phone.state());
        }
        var strongroom = Strongroom.make(root, disk);
        for (var state : states.entrySet()) {
            assertHolds(strongroom, phone, state.getKey(), state.getValue());
        }
    }

    @Test
    @Fault(Of.CABLE)
    void aPulledCableIsToldAndTheNextRunGoesOnBehindIt() throws IOException {
        for (int i = 0; i < 40; i++) {
            phone.put("files/%03d".formatted(i), random(100_000, i));
        }
        phone.unplugAfter(2_500_000);

        var lost = assertThrows(LinkException.Lost.class, () -> backUp(phone, root, disk));

        assertTrue(lost.problem().advice().contains("cable"), lost.getMessage());
        assertTrue(Strongroom.make(root, disk).holdings().phones().isEmpty(), "no half layer is visible");
        phone.plugIn();
        long before = phone.bytesRead();
        backUp(phone, root, disk);
        assertTrue(phone.bytesRead() - before < 2_500_000, "read again: " + (phone.bytesRead() - before));
        assertHolds(Strongroom.make(root, disk), phone, 1, phone.state());
    }

    @Test
    @Fault(Of.CABLE)
    void waitsForAPhoneThatComesBackAndGoesOnByItself() throws Exception {
        for (int i = 0; i < 10; i++) {
            phone.put("files/" + i, random(6_000_000, i));
        }
        phone.unplugAfter(20_000_000);
        var run = new BackupRun(
                phone,
                Strongroom.make(root, disk),
                BackupRequest.everything(Duration.ofSeconds(30), "test").checking(false),
                Clock.systemUTC(),
                new CancelToken());
        var helper = Thread.ofVirtual().start(() -> {
            while (run.progress().waiting().isEmpty()) {
                Thread.onSpinWait();
            }
            phone.plugIn();
        });

        run.run();

        helper.join();
        assertTrue(phone.bytesRead() < 62_000_000, "a large file goes on where it broke: " + phone.bytesRead());
        assertHolds(Strongroom.make(root, disk), phone, 1, phone.state());
    }

    @Test
    @Fault(Of.READ_ERROR)
    void oneFileThatCantBeReadDoesNotKeepTheOthersOut() throws IOException {
        phone.put("good", bytes("good"));
        var bad = phone.put("bad", bytes("bad"));
        phone.unreadable(bad);

        var result = backUp(phone, root, disk);

        assertEquals(1, result.layer().missed());
        assertEquals("bad", result.problems().getFirst().subject());
        assertFalse(result.problems().getFirst().advice().isEmpty());
        var saved = phone.state();
        saved.remove(bad);
        assertHolds(Strongroom.make(root, disk), phone, 1, saved);
    }

    @Test
    @Fault(Of.FULL_DISK)
    void aFullDiskKeepsTheLayersThatAreThereAndTheRunGoesOnLater() throws IOException {
        phone.put("first", random(10_000, 1));
        backUp(phone, root, disk);
        var first = phone.state();
        for (int i = 0; i < 30; i++) {
            phone.put("more/" + i, random(5_000_000, 100 + i));
        }

        var full = assertThrows(ProblemException.class, () -> backUp(phone, root, FaultyDisk.fullAfter(60_000_000)));

        assertTrue(full.problem().advice().contains("goes on where it stopped"), full.getMessage());
        assertHolds(Strongroom.make(root, disk), phone, 1, first);
        assertEquals(1, Strongroom.make(root, disk).newestLayer("PB-TEST"));
        long before = phone.bytesRead();
        backUp(phone, root, disk);
        assertTrue(phone.bytesRead() - before < 110_000_000, "read again: " + (phone.bytesRead() - before));
        assertHolds(Strongroom.make(root, disk), phone, 2, phone.state());
    }

    @Test
    @Fault(Of.FULL_DISK)
    void aCopyThatCantFitIsRefusedWithTheFigures() throws IOException {
        phone.put("a", random(900_000, 1));
        var small = spy(disk);
        doReturn(500_000L).when(small).room(any());

        var refused = assertThrows(ProblemException.class, () -> backUp(phone, root, small));

        assertTrue(refused.toString().contains("901.5") && refused.toString().contains("500.0"), refused.getMessage());
        assertEquals(0, phone.bytesRead());
    }

    @Test
    void aStoppedCopyLeavesNoLayer() throws IOException {
        phone.put("a", random(900_000, 1));
        var cancel = new CancelToken();
        cancel.cancel();
        var run = new BackupRun(
                phone,
                Strongroom.make(root, disk),
                BackupRequest.everything(Duration.ZERO, "test"),
                Clock.systemUTC(),
                cancel);

        assertThrows(CancellationException.class, run::run);

        assertTrue(Strongroom.make(root, disk).holdings().phones().isEmpty());
        assertEquals(BackupProgress.Phase.ENDED, run.progress().phase());
    }

    @Test
    void aFileThatChangedWhileTheCableWasOutIsCopiedAnew() throws IOException {
        phone.put("a", random(3_000_000, 1), Instant.EPOCH);
        phone.put("b", random(3_000_000, 2), Instant.EPOCH);
        phone.unplugAfter(4_000_000);
        assertThrows(LinkException.Lost.class, () -> backUp(phone, root, disk));
        phone.plugIn();
        phone.put("a", random(3_000_000, 3), Instant.EPOCH);

        backUp(phone, root, disk);

        assertHolds(Strongroom.make(root, disk), phone, 1, phone.state());
    }

    @Test
    @Fault(Of.TWO_PROGRAMS)
    void twoCopiesOfOnePhoneAtOnceAreKeptApart() throws IOException {
        var strongroom = Strongroom.make(root, disk);
        try (var held = strongroom.draft(phone.identity())) {
            var busy = assertThrows(ProblemException.class, () -> backUp(phone, root, disk));
            assertTrue(busy.toString().contains("under way"), busy.getMessage());
            assertEquals(1, held.number());
        }
        phone.put("a", bytes("a"));
        backUp(phone, root, disk);
    }
}
