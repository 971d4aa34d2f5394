package app.custodex.backup;

import static app.custodex.backup.Backups.assertHolds;
import static app.custodex.backup.Backups.backUp;
import static app.custodex.backup.Backups.run;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.base.Disk;
import app.custodex.base.RealDisk;
import app.custodex.link.PhonePath;
import app.custodex.strongroom.FaultyDisk;
import app.custodex.strongroom.OcflReferee;
import app.custodex.strongroom.Strongroom;
import app.custodex.strongroom.StrongroomFinder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Kills the program and cuts the power two hundred times each, wherever that falls, and looks at what is left and what it costs. */
@Tag("long")
class KillTest {
    private static final int TIMES = 200;
    /** A kill may cost so much writing again. */
    private static final long COST = 8_000_000;

    /** Whether the phone's stack is sealed. */
    private enum Stored {
        PLAIN,
        SEALED
    }

    private final RealDisk disk = new RealDisk();
    private final FakePhone phone = new FakePhone("PB-KILL");
    private Path folder;
    private Map<PhonePath, byte[]> before = Map.of();

    /** In memory, since two hundred copies are written and written again. */
    @BeforeEach
    void fill() throws IOException {
        folder = Files.createTempDirectory(Path.of("/dev/shm"), "custodex-kill");
        var random = new Random(11);
        for (int i = 0; i < 40; i++) {
            put("small/" + i, random, 10_000 + random.nextInt(400_000));
        }
        backUp(phone, folder.resolve("seed/PLAIN"), disk);
        SealedPhone.seal(folder.resolve("seed/SEALED"), phone.identity());
        run(phone, open(Stored.SEALED, folder.resolve("seed/SEALED"), disk)).run();
        before = phone.state();
        for (int i = 0; i < 30; i++) {
            put("small/" + i, random, 10_000 + random.nextInt(600_000));
        }
        put("large/film", random, 17_000_000);
        put("large/song", random, 5_000_000);
    }

    private void put(String path, Random random, int size) {
        var bytes = new byte[size];
        random.nextBytes(bytes);
        phone.put(path, bytes);
    }

    @AfterEach
    void clear() throws IOException {
        disk.delete(folder);
    }

    private interface Cut {
        FaultyDisk at(int change, int seed);
    }

    private Path seeded(Stored stored, String name) throws IOException {
        var root = folder.resolve(name);
        CrashTest.copy(folder.resolve("seed").resolve(stored.name()), root);
        return root;
    }

    private Strongroom open(Stored stored, Path root, Disk on) throws IOException {
        return stored == Stored.SEALED ? SealedPhone.opened(root, on, phone.identity()) : Strongroom.make(root, on);
    }

    private BackupResult copy(Stored stored, Path root, Disk on) throws IOException {
        return run(phone, open(stored, root, on)).run();
    }

    private FaultyDisk whole(Stored stored) throws IOException {
        var whole = FaultyDisk.killedAt(Integer.MAX_VALUE, 1);
        var root = seeded(stored, "whole");
        copy(stored, root, whole);
        disk.delete(root);
        return whole;
    }

    private void cut(Stored stored, int times, Cut cut, long cost) throws IOException {
        var whole = whole(stored);
        for (int time = 0; time < times; time++) {
            int point = 2 + time % ((int) whole.changes() - 2);
            var root = seeded(stored, "cut-" + time);
            var faulty = cut.at(point, time);
            try {
                copy(stored, root, faulty);
            } catch (IOException e) {
                assertTrue(faulty.wasCut(), e.toString());
            }
            var what = "cut at " + point + " of " + whole.changes();
            assertTrue(StrongroomFinder.isStrongroom(root), what);
            var reopened = open(stored, root, disk);
            assertHolds(reopened, phone, 1, before); // nothing published is lost
            int newest = reopened.newestLayer("PB-KILL");
            if (newest == 2) { // nothing false is visible
                assertHolds(reopened, phone, 2, phone.state());
            }
            assertEquals(List.of(), reopened.holdings().problems(), what);
            if (newest == 1) {
                var again = FaultyDisk.killedAt(Integer.MAX_VALUE, 1);
                var result = copy(stored, root, again);
                assertTrue(result.check().orElseThrow().sound(), what);
                long twice = faulty.written() + again.written() - whole.written();
                assertTrue(twice <= cost, what + ": " + twice + " bytes were written again");
            }
            assertHolds(open(stored, root, disk), phone, 2, phone.state());
            OcflReferee.assertValid(root, false, false);
            disk.delete(root);
        }
    }

    @Test
    @Fault(Of.PROCESS_KILLED)
    void twoHundredKills() throws IOException {
        cut(Stored.PLAIN, TIMES, FaultyDisk::killedAt, COST);
    }

    @Test
    @Fault(Of.PROCESS_KILLED)
    void twoHundredPowerCuts() throws IOException {
        cut(Stored.PLAIN, TIMES, FaultyDisk::cutAt, Long.MAX_VALUE);
    }

    @Test
    @Fault(Of.PROCESS_KILLED)
    void killsOfASealedCopyCostNoMore() throws IOException {
        cut(Stored.SEALED, TIMES / 2, FaultyDisk::killedAt, COST);
    }

    @Test
    @Fault(Of.PROCESS_KILLED)
    void manyKillsInARowDoNotAddUp() throws IOException {
        var whole = whole(Stored.PLAIN);
        var root = seeded(Stored.PLAIN, "row");
        long written = 0;
        int kills = 0;
        while (true) {
            var faulty = FaultyDisk.killedAt(40, kills);
            kills++;
            try {
                backUp(phone, root, faulty);
            } catch (IOException e) {
                assertTrue(faulty.wasCut(), e.toString());
            }
            written += faulty.written();
            if (!faulty.wasCut() || Strongroom.open(root, disk).newestLayer("PB-KILL") == 2 || kills > 200) {
                break;
            }
        }
        assertTrue(kills > 2, kills + " kills");
        assertHolds(Strongroom.open(root, disk), phone, 2, phone.state());
        assertTrue(
                written - whole.written() < 4_000_000L * kills,
                (written - whole.written()) + " bytes were written again in " + kills + " kills");
    }

    @Test
    @Fault(Of.FULL_DISK)
    void aDiskThatIsFullInTheMidstOfAWriteCostsNothingThatWasThere() throws IOException {
        var root = seeded(Stored.PLAIN, "full");
        for (long room = 1_000_000; room < 60_000_000; room += 4_900_000) {
            var full = FaultyDisk.fullAfter(room);
            try {
                backUp(phone, root, full);
                break;
            } catch (IOException e) {
                assertTrue(e.toString().contains("disk"), e.toString());
            }
            assertHolds(Strongroom.open(root, disk), phone, 1, before);
        }
        backUp(phone, root, disk);
        assertHolds(
                Strongroom.open(root, disk), phone, Strongroom.open(root, disk).newestLayer("PB-KILL"), phone.state());
    }
}
