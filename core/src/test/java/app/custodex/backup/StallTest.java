package app.custodex.backup;

import static app.custodex.backup.Backups.assertHolds;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.RealDisk;
import app.custodex.strongroom.Strongroom;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StallTest {
    @TempDir
    Path root;

    private static Problem waitFor(BackupRun run) throws InterruptedException {
        while (true) {
            Optional<Problem> waiting = run.progress().waiting();
            if (waiting.isPresent()) {
                return waiting.get();
            }
            Thread.sleep(5);
        }
    }

    @Test
    @Fault(Of.STALL)
    void aStalledCopySaysSoAndWhatToLookAtAndGoesOnByItself() throws Exception {
        var phone = new FakePhone("PB-STALL");
        for (int i = 0; i < 8; i++) {
            phone.put("files/" + i, new byte[3_000_000]);
        }
        phone.stallAfter(9_000_000);
        var strongroom = Strongroom.make(root, new RealDisk());
        var run = new BackupRun(
                phone,
                strongroom,
                BackupRequest.everything(Duration.ofSeconds(30), "test").checking(false),
                Clock.systemUTC(),
                new CancelToken(),
                Duration.ofMillis(300),
                Duration.ofMillis(1_200));
        var told = CompletableFuture.supplyAsync(() -> {
            try {
                var problem = waitFor(run);
                phone.flow();
                return problem;
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        });

        run.run();

        var problem = told.get(1, TimeUnit.SECONDS);
        assertTrue(problem.what().startsWith("Nothing comes"), problem.sentence());
        assertTrue(problem.advice().contains("locked") && problem.advice().contains("cable"), problem.sentence());
        assertTrue(run.progress().waiting().isEmpty());
        assertHolds(strongroom, phone, 1, phone.state());
        assertTrue(StallWatch.TELL_AFTER.compareTo(Duration.ofSeconds(15)) < 0, "within fifteen seconds");
    }
}
