package app.custodex.backup;

import static app.custodex.backup.Backups.assertHolds;
import static app.custodex.backup.Backups.run;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.base.RealDisk;
import app.custodex.strongroom.FaultyDisk;
import app.custodex.strongroom.OcflReferee;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Cuts the power at every write, rename and sync of a sealed backup: nothing published is lost, nothing lies in the clear. */
@Tag("long")
class SealedCrashTest {
    private static final String MARK = "plain words of the owner";

    @TempDir
    Path folder;

    private final RealDisk disk = new RealDisk();
    private final FakePhone phone = new FakePhone("PB-SEALED-CRASH");

    private void fill() {
        var random = new Random(8);
        for (int i = 0; i < 5; i++) {
            var bytes = new byte[2_000];
            random.nextBytes(bytes);
            System.arraycopy(MARK.getBytes(StandardCharsets.UTF_8), 0, bytes, 100, MARK.length());
            phone.put("files/" + i, bytes);
        }
        phone.put("files/large", new byte[4_200_000]);
    }

    @Test
    @Fault(Of.PROCESS_KILLED)
    void aSealedBackupCutAnywhereIsDoneLater() throws IOException {
        fill();
        var seed = SealedPhone.seal(folder.resolve("seed"), phone.identity());
        int cuts = 0;
        for (int cut = 1; ; cut++) {
            var root = folder.resolve("cut");
            CrashTest.copy(seed, root);
            var faulty = FaultyDisk.cutAt(cut);
            boolean was = cutIn(root, faulty);
            assertNoPlaintext(root);
            if (!was) {
                break;
            }
            cuts++;
            var again = SealedPhone.opened(root, disk, phone.identity());
            int newest = again.newestLayer("PB-SEALED-CRASH");
            if (newest > 0) {
                assertHolds(again, phone, newest, phone.state());
            }
            var result = run(phone, again).run();
            assertTrue(result.check().orElseThrow().sound(), "cut " + cut);
            assertHolds(again, phone, result.layer().number(), phone.state());
            OcflReferee.assertValid(root);
            disk.delete(root);
        }
        assertTrue(cuts > 30, "only " + cuts + " cuts");
    }

    private boolean cutIn(Path root, FaultyDisk faulty) {
        try {
            run(phone, SealedPhone.opened(root, faulty, phone.identity())).run();
        } catch (IOException e) {
            assertTrue(faulty.wasCut(), e.toString());
        }
        return faulty.wasCut();
    }

    private static void assertNoPlaintext(Path root) throws IOException {
        try (var files = Files.walk(root)) {
            for (var file : files.filter(Files::isRegularFile).toList()) {
                var text = new String(Files.readAllBytes(file), StandardCharsets.ISO_8859_1);
                assertFalse(text.contains(MARK) || text.contains("files/"), file.toString());
            }
        }
    }
}
