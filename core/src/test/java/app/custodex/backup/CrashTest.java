package app.custodex.backup;

import static app.custodex.backup.Backups.assertHolds;
import static app.custodex.backup.Backups.backUp;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.base.RealDisk;
import app.custodex.link.PhonePath;
import app.custodex.strongroom.FaultyDisk;
import app.custodex.strongroom.OcflReferee;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Cuts the power at every single write, rename and sync of a backup, and looks at what is left. */
@Tag("long")
class CrashTest {
    @TempDir
    Path folder;

    private final RealDisk disk = new RealDisk();

    private static FakePhone phone(int largeSize) {
        var phone = new FakePhone("PB-CRASH");
        var random = new Random(5);
        for (int i = 0; i < 6; i++) {
            var bytes = new byte[1_000 + random.nextInt(3_000)];
            random.nextBytes(bytes);
            phone.put("files/" + i, bytes);
        }
        var large = new byte[largeSize];
        random.nextBytes(large);
        phone.put("files/large", large);
        return phone;
    }

    @Test
    @Fault(Of.PROCESS_KILLED)
    void aFirstBackupCutAnywhereLeavesNothingVisibleAndIsDoneLater() throws IOException {
        int cuts = cutEverywhere(phone(100_000), new TreeMap<>(), 0);
        assertTrue(cuts > 30, "only " + cuts + " cuts");
    }

    @Test
    @Fault(Of.PROCESS_KILLED)
    void aFurtherBackupCutAnywhereLeavesTheEarlierLayerWhole() throws IOException {
        var phone = phone(4_300_000);
        var seed = folder.resolve("seed");
        backUp(phone, seed, disk);
        Map<PhonePath, byte[]> before = phone.state();
        phone.put("files/1", new byte[] {1, 2, 3});
        phone.put("files/new", new byte[5_000_000]);
        phone.remove(new PhonePath("files/2"));
        int cuts = cutEverywhere(phone, before, 1);
        assertTrue(cuts > 20, "only " + cuts + " cuts");
    }

    /** @return how many different cuts there were before a run came through */
    private int cutEverywhere(FakePhone phone, Map<PhonePath, byte[]> before, int layersBefore) throws IOException {
        for (int cut = 1; ; cut++) {
            var root = folder.resolve("cut-" + cut);
            if (layersBefore > 0) {
                copy(folder.resolve("seed"), root);
            }
            var faulty = FaultyDisk.cutAt(cut);
            if (!runsInto(faulty, phone, root)) {
                return cut - 1;
            }
            var reopened = Strongroom.make(root, disk);
            int newest = reopened.newestLayer("PB-CRASH");
            assertTrue(newest == layersBefore || newest == layersBefore + 1, "cut " + cut + ": layer " + newest);
            if (layersBefore > 0) {
                assertHolds(reopened, phone, 1, before);
            }
            if (newest > layersBefore) {
                assertHolds(reopened, phone, newest, phone.state());
            }
            OcflReferee.assertValid(root, layersBefore == 0 && newest == 0, false);
            var result = backUp(phone, root, disk);
            assertTrue(result.check().orElseThrow().sound(), "cut " + cut);
            assertHolds(Strongroom.make(root, disk), phone, result.layer().number(), phone.state());
            OcflReferee.assertValid(root);
            assertNoLeftovers(root);
            disk.delete(root);
        }
    }

    private static boolean runsInto(FaultyDisk faulty, FakePhone phone, Path root) {
        try {
            backUp(phone, root, faulty);
        } catch (IOException e) {
            assertTrue(faulty.wasCut(), e.toString());
            return true;
        }
        return faulty.wasCut();
    }

    private static void assertNoLeftovers(Path root) throws IOException {
        try (var left = Files.list(root.resolve("work"))) {
            assertEquals(0, left.filter(f -> !f.toString().endsWith(".lock")).count());
        }
    }

    static void copy(Path from, Path to) throws IOException {
        try (var files = Files.walk(from)) {
            for (var file : files.toList()) {
                var target = to.resolve(from.relativize(file).toString());
                if (Files.isDirectory(file)) {
                    Files.createDirectories(target);
                } else {
                    Files.copy(file, target);
                }
            }
        }
    }

    @Test
    void theFaultyDiskReallyLosesWhatWasNotSynced() throws IOException {
        var seen = new TreeSet<String>();
        for (int cut = 4; cut < 60; cut++) {
            var faulty = FaultyDisk.cutAt(cut);
            var file = folder.resolve("file-" + cut);
            try (var out = faulty.create(file)) {
                for (int write = 2; write < cut; write++) {
                    out.write(ByteBuffer.wrap("0123456789".getBytes(StandardCharsets.US_ASCII)));
                }
                assertThrows(
                        FaultyDisk.PowerCut.class,
                        () -> out.write(ByteBuffer.wrap("0123456789".getBytes(StandardCharsets.US_ASCII))));
            }
            var bytes = Files.exists(file) ? Files.readString(file, StandardCharsets.US_ASCII) : "no name";
            int whole = (cut - 2) * 10;
            seen.add(
                    bytes.equals("no name")
                            ? "no name"
                            : bytes.indexOf('\0') >= 0
                                    ? "zeros"
                                    : bytes.isEmpty()
                                            ? "nothing"
                                            : bytes.length() < whole ? "a part" : "all and a part");
        }
        assertEquals(new TreeSet<>(List.of("a part", "all and a part", "no name", "nothing", "zeros")), seen);
    }
}
