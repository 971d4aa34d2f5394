package app.custodex.strongroom;

import static app.custodex.backup.Backups.assertHolds;
import static app.custodex.backup.Backups.run;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.backup.FakePhone;
import app.custodex.base.CancelToken;
import app.custodex.base.Disk;
import app.custodex.base.ProblemException;
import app.custodex.base.RealDisk;
import app.custodex.seal.Passphrase;
import java.io.Closeable;
import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mockito.Mockito;

/** A strongroom that is away, another one, one that moves, one that can only be read. */
class StrongroomPlaceTest {
    @TempDir
    Path folder;

    private final RealDisk disk = new RealDisk();
    private final FakePhone phone = new FakePhone("PB-PLACE");

    private Path root() {
        return folder.resolve("strongroom");
    }

    private static Passphrase words() {
        return new Passphrase("four unrelated words, honest".toCharArray());
    }

    private Strongroom filled() throws IOException {
        phone.put("a", FakePhone.bytes("first"));
        var strongroom = Strongroom.make(root(), disk);
        run(phone, strongroom).run();
        return strongroom;
    }

    private interface Use {
        void of(Strongroom strongroom) throws IOException;
    }

    /** Every use case, by name. */
    private Map<String, Use> uses() {
        return Map.of(
                "list", Strongroom::holdings,
                "examine", s -> s.examine(java.util.Set.of()),
                "mend", Strongroom::mend,
                "mend a phone", s -> s.mend(phone.identity()),
                "back up", s -> run(phone, s).run(),
                "read", s -> s.layer("PB-PLACE", 1).orElseThrow().close(),
                "compare", s -> s.changes("PB-PLACE", 1),
                "seal", s -> s.seal(new FakePhone("PB-NEW").identity(), words()),
                "open", s -> s.open(phone.identity(), words()),
                "below", s -> s.below("PB-PLACE"));
    }

    @Test
    @Fault(Of.PERMISSION)
    void whatIsNotThereIsRefusedByEveryUseAndNothingIsMadeInItsPlace() throws IOException {
        var strongroom = filled();
        Files.move(root(), folder.resolve("the drive, unplugged"));
        Files.createDirectories(root()); // its mount point
        for (var use : uses().entrySet()) {
            var away = assertThrows(ProblemException.class, () -> use.getValue().of(strongroom), use.getKey());
            assertTrue(away.problem().what().contains("not there"), use.getKey() + ": " + away.getMessage());
            assertTrue(away.problem().advice().contains("Plug in"), away.getMessage());
        }
        assertThrows(ProblemException.class, () -> Strongroom.open(root(), disk));
        try (var made = Files.list(root())) {
            assertEquals(0, made.count());
        }
    }

    @Test
    void anotherStrongroomInItsPlaceIsRefused() throws IOException {
        var strongroom = filled();
        var known = new Strongroom.Remembered(Optional.of(strongroom.identity().id()), strongroom.stacks());
        Files.move(root(), folder.resolve("away"));
        Strongroom.make(root(), disk);
        assertThrows(ProblemException.class, strongroom::holdings);
        var other = assertThrows(ProblemException.class, () -> Strongroom.open(root(), disk, known));
        assertTrue(other.problem().what().contains("Another strongroom"), other.getMessage());
    }

    @Test
    void aStackThatWasSealedIsNeverWrittenInTheClear() throws IOException {
        phone.put("a", FakePhone.bytes("secret"));
        var strongroom = Strongroom.make(root(), disk);
        strongroom.seal(phone.identity(), words());
        run(phone, strongroom).run();
        var stack = strongroom.stacks().keySet().iterator().next();
        var known = new Strongroom.Remembered(Optional.of(strongroom.identity().id()), strongroom.stacks());
        var traces = List.of("seals", "copies/" + stack, strongroomObject());
        for (var gone : traces) { // one after the other, until nothing is left but what is remembered
            disk.delete(root().resolve(gone));
            var opened = Strongroom.open(root(), disk, known);
            assertTrue(opened.sealed("PB-PLACE"), gone);
            var refused = assertThrows(
                    ProblemException.class, () -> run(phone, opened).run(), gone);
            assertTrue(refused.problem().what().contains("sealed"), refused.getMessage());
        }
        assertFalse(Strongroom.open(root(), disk, known).holdings().problems().isEmpty());
    }

    private String strongroomObject() {
        var object = new StorageRoot(root().resolve("objects"), disk).objectFolder(Strongroom.OBJECT_ID + "PB-PLACE");
        return root().relativize(object).toString();
    }

    /** A move waits for nobody and lets nobody in: each use against each other one. */
    @Test
    @Fault(Of.TWO_PROGRAMS)
    void whileItIsUsedItCannotBeMovedAndWhileItIsMovedItCannotBeUsed() throws IOException {
        var strongroom = filled();
        var move = new StrongroomMove(strongroom, folder.resolve("elsewhere"), disk);
        var held = Map.<String, Closeable>of(
                "a copy that runs", strongroom.draft(phone.identity()),
                "a layer that is read or checked",
                        strongroom.layer("PB-PLACE", 1).orElseThrow());
        for (var use : held.entrySet()) {
            var refused = assertThrows(
                    ProblemException.class, () -> move.run(n -> {}, new CancelToken(), place -> {}), use.getKey());
            assertTrue(refused.problem().what().contains("in use"), refused.getMessage());
        }
        for (var use : held.values()) {
            use.close();
        }
        assertTrue(Files.exists(root()));
        try (var alone = strongroom.alone()) {
            for (var use : uses().entrySet()) {
                var refused = assertThrows(
                        ProblemException.class, () -> use.getValue().of(strongroom), use.getKey());
                assertTrue(refused.problem().what().contains("being moved"), use.getKey() + refused.getMessage());
            }
        }
        for (var one : uses().entrySet()) { // together they get on
            try (var layer = strongroom.layer("PB-PLACE", 1).orElseThrow()) {
                if (!one.getKey().equals("seal")) {
                    one.getValue().of(strongroom);
                }
            }
        }
        move.run(n -> {}, new CancelToken(), place -> {});
        assertHolds(
                Strongroom.open(folder.resolve("elsewhere"), disk),
                phone,
                1,
                Map.of(path("a"), FakePhone.bytes("first")));
    }

    private static app.custodex.link.PhonePath path(String text) {
        return new app.custodex.link.PhonePath(text);
    }

    @Test
    void whatAnEarlierMoveLeftIsNotTakenForTheStrongrooms() throws IOException {
        var strongroom = filled();
        var other = Files.createTempDirectory(Path.of("/dev/shm"), "custodex-move");
        try {
            var arriving = other.resolve("new.arriving");
            Files.createDirectories(arriving.resolve("objects/abc"));
            Files.writeString(arriving.resolve("objects/abc/old"), "of a layer that is not there any more");
            new StrongroomMove(strongroom, other.resolve("new"), disk).run(n -> {}, new CancelToken(), place -> {});
            assertFalse(Files.exists(other.resolve("new/objects/abc/old")));
            assertEquals(
                    List.of(),
                    Strongroom.open(other.resolve("new"), disk).holdings().problems());
        } finally {
            disk.delete(other);
        }
    }

    /** What a medium that can only be read says to every attempt to write. */
    private static Disk readOnly() throws IOException {
        return Mockito.mock(Disk.class, call -> {
            if (call.getMethod().getName().equals("room")) {
                return 0L;
            }
            throw new AccessDeniedException("read-only");
        });
    }

    @Test
    @Fault(Of.PERMISSION)
    void oneThatCanOnlyBeReadOpensForReading() throws IOException {
        filled();
        disk.delete(root().resolve("work"));
        var opened = Strongroom.open(root(), readOnly());
        assertEquals(1, opened.holdings().phones().size());
        assertHolds(opened, phone, 1, phone.state());
        assertThrows(IOException.class, () -> run(phone, opened).run());
    }

    @Test
    void nobodyElseCanLookIn() throws IOException {
        filled();
        run(phone, Strongroom.open(root(), disk)).run();
        try (var all = Files.walk(root())) {
            for (var path : all.toList()) {
                var permissions = PosixFilePermissions.toString(Files.getPosixFilePermissions(path));
                assertTrue(permissions.endsWith("------"), path + " " + permissions);
            }
        }
        Files.setPosixFilePermissions(root(), PosixFilePermissions.fromString("rwxr-xr-x"));
        Strongroom.open(root(), disk);
        assertEquals("rwx------", PosixFilePermissions.toString(Files.getPosixFilePermissions(root())));
    }
}
