package app.custodex.app;

import static app.custodex.backup.Backups.assertHolds;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.app.Settings.CheckSchedule;
import app.custodex.backup.BackupRequest;
import app.custodex.backup.Backups;
import app.custodex.backup.FakePhone;
import app.custodex.base.CancelToken;
import app.custodex.base.ProblemException;
import app.custodex.base.RealDisk;
import app.custodex.strongroom.FaultyDisk;
import app.custodex.strongroom.OcflReferee;
import app.custodex.strongroom.Strongroom;
import app.custodex.strongroom.StrongroomFinder;
import app.custodex.strongroom.StrongroomMove;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a shop settles: where the strongroom is, when it is read back, what is on the bench. */
class ShopTest {
    @TempDir
    Path folder;

    private final RealDisk disk = new RealDisk();
    private final FakePhone phone = new FakePhone("PB-SHOP");

    private Custodex open() throws IOException {
        return Custodex.open(new Home(folder.resolve("home")), Clock.systemUTC());
    }

    private void fill(Path strongroom) throws IOException {
        phone.put("a", new byte[10_000]);
        phone.put("b", new byte[5_000_000]);
        Backups.backUp(phone, strongroom, disk);
    }

    @Test
    void theStrongroomIsMovedUsedAndRemembered() throws IOException {
        var target = folder.resolve("drive/kept here");
        try (var custodex = open()) {
            fill(custodex.strongroom().root());
            custodex.moveStrongroom(target, n -> {}, new CancelToken());
            assertEquals(target, custodex.strongroom().root());
            assertFalse(Files.exists(folder.resolve("home/strongroom/objects")));
        }
        OcflReferee.assertValid(target);
        try (var custodex = open()) {
            assertEquals(target, custodex.strongroom().root());
            assertHolds(custodex.strongroom(), phone, 1, phone.state());
            custodex.useStrongroom(folder.resolve("another"));
            assertTrue(custodex.strongroom().holdings().phones().isEmpty());
            custodex.useStrongroom(target);
            assertEquals(1, custodex.strongroom().holdings().phones().size());
        }
    }

    /** The shared memory is another file system, as a drive is. */
    @Test
    @Fault(Of.PROCESS_KILLED)
    void itIsMovedToAnotherDiskAndGoesOnAfterACut() throws IOException {
        var from = folder.resolve("strongroom");
        fill(from);
        var other = Files.createTempDirectory(Path.of("/dev/shm"), "custodex-move");
        try {
            var to = other.resolve("strongroom");
            for (int cut = 1; ; cut++) {
                var faulty = FaultyDisk.cutAt(cut);
                try {
                    new StrongroomMove(Strongroom.open(from, disk), to, faulty)
                            .run(n -> {}, new CancelToken(), place -> {});
                } catch (FaultyDisk.PowerCut e) {
                    assertHolds(
                            Strongroom.make(StrongroomFinder.isStrongroom(from) ? from : to, disk),
                            phone,
                            1,
                            phone.state());
                }
                if (!faulty.wasCut()) {
                    break;
                }
                if (StrongroomFinder.isStrongroom(to)) {
                    disk.delete(to); // it arrived, but that was not written down; the old one is whole
                    fillAnew(from);
                }
            }
            assertFalse(Files.exists(from));
            OcflReferee.assertValid(to);
            assertHolds(Strongroom.make(to, disk), phone, 1, phone.state());
        } finally {
            disk.delete(other);
        }
    }

    private void fillAnew(Path from) throws IOException {
        disk.delete(from);
        Backups.backUp(phone, from, disk);
    }

    @Test
    void aPlaceThatIsTakenOrWithinItIsRefusedAndNothingIsChanged() throws IOException {
        try (var custodex = open()) {
            var root = custodex.strongroom().root();
            fill(root);
            Files.createDirectories(folder.resolve("taken"));
            Files.writeString(folder.resolve("taken/a letter"), "hello");
            for (var place : List.of(folder.resolve("taken"), root.resolve("inside"))) {
                assertThrows(ProblemException.class, () -> custodex.moveStrongroom(place, n -> {}, new CancelToken()));
            }
            assertEquals(root, custodex.strongroom().root());
            assertHolds(custodex.strongroom(), phone, 1, phone.state());
        }
    }

    @Test
    void strongroomsAreFoundOnDrivesButNotInTheDepths() throws IOException {
        fill(folder.resolve("drive/shop"));
        Strongroom.make(folder.resolve("drive/backups/second"), disk);
        Strongroom.make(folder.resolve("drive/1/2/3/4/5/6/hidden"), disk);
        assertEquals(
                List.of(folder.resolve("drive/backups/second"), folder.resolve("drive/shop")),
                StrongroomFinder.find(List.of(folder)));
        assertFalse(StrongroomFinder.isStrongroom(folder));
    }

    @Test
    void settingsAreKeptAndTornOnesAreToldAndKept() throws IOException {
        try (var custodex = open()) {
            assertEquals(CheckSchedule.WHEN_IDLE, custodex.settings().checks());
            custodex.checkSchedule(CheckSchedule.AT_NIGHT);
        }
        try (var custodex = open()) {
            assertEquals(CheckSchedule.AT_NIGHT, custodex.settings().checks());
        }
        Files.writeString(folder.resolve("home/settings.json"), "{\"strong");
        var torn = assertThrows(ProblemException.class, this::open);
        assertTrue(torn.problem().advice().contains("strongroom use"), torn.getMessage());
        Custodex.choose(new Home(folder.resolve("home")), folder.resolve("home/strongroom"));
        try (var custodex = open()) {
            assertEquals(
                    folder.resolve("home/strongroom"), custodex.strongroom().root());
        }
        assertEquals("{\"strong", Files.readString(folder.resolve("home/settings-damaged.json")));
    }

    @Test
    void layersAreReadBackWhenTheTimeHasComeAndThoseFirstThatWaitedLongest() throws IOException {
        var now = Instant.parse("2026-03-01T02:30:00Z");
        var strongroom = Strongroom.make(folder.resolve("strongroom"), disk);
        fill(strongroom.root());
        var checks = new Checks(() -> strongroom, Clock.fixed(now, ZoneOffset.UTC));

        assertTrue(checks.timeHasCome(CheckSchedule.AT_NIGHT, false, now, ZoneOffset.UTC));
        assertFalse(checks.timeHasCome(CheckSchedule.AT_NIGHT, false, now, ZoneOffset.ofHours(6)));
        assertFalse(checks.timeHasCome(CheckSchedule.WHEN_IDLE, false, now.minusSeconds(60), ZoneOffset.UTC));
        assertTrue(checks.timeHasCome(CheckSchedule.WHEN_IDLE, false, now.minusSeconds(601), ZoneOffset.UTC));
        assertFalse(checks.timeHasCome(CheckSchedule.WHEN_IDLE, true, now.minusSeconds(601), ZoneOffset.UTC));
        assertFalse(checks.timeHasCome(CheckSchedule.BY_HAND, false, now.minusSeconds(601), ZoneOffset.UTC));

        // It was read back by its backup just now, which is the future of this clock.
        assertEquals(List.of(), checks.overdue());
        var later = new Checks(() -> strongroom, Clock.fixed(Instant.now().plus(Duration.ofDays(8)), ZoneOffset.UTC));
        assertEquals(1, later.overdue().size());
        var stored = later.overdue().getFirst();
        var found = later.run(stored, Checks.numbers(stored), n -> {}, new CancelToken());
        assertTrue(found.size() == 1 && found.getFirst().sound());
        assertEquals(List.of(), later.overdue());
        var stopped = new CancelToken();
        stopped.cancel();
        assertThrows(CancellationException.class, () -> later.run(stored, List.of(1), n -> {}, stopped));
    }

    @Test
    void aSourceComesBackToItsLayersAndIsTakenOff() throws Exception {
        var card = folder.resolve("card");
        Files.createDirectories(card);
        Files.writeString(card.resolve("note.txt"), "hello");
        String identifier;
        try (var custodex = open()) {
            var bay = custodex.bays().add(card.toString(), "Card of Fenna");
            assertEquals(bay, custodex.bays().add(card.toString(), ""), "the same place is the same source");
            bay.ask();
            assertTrue(bay.ready());
            custodex.backUp(bay, Mandate.ofShop(), BackupRequest.everything(Duration.ZERO, "test"), false)
                    .outcome()
                    .get();
            identifier = bay.source().identifier();
            var run = custodex.runs().all().getFirst();
            assertEquals("Card of Fenna", run.name());
            assertEquals(Optional.of(1), run.layer());
            assertEquals(Optional.of(true), run.sound());
        }
        try (var custodex = open()) {
            var bay = custodex.bays().all().getFirst();
            assertEquals(identifier, bay.source().identifier());
            assertEquals(1, custodex.runs().all().size());
            custodex.bays().remove(bay);
            assertTrue(custodex.bays().all().isEmpty());
            assertEquals(1, custodex.strongroom().newestLayer(identifier), "its layers stay");
        }
    }
}
