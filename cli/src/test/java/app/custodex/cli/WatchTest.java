package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.app.Sources;
import app.custodex.base.RealDisk;
import app.custodex.docket.Docket;
import app.custodex.docket.DocketBook;
import app.custodex.drawer.PracticeDrawer;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** "watch" beside another program on the same home. */
class WatchTest {
    @TempDir
    Path folder;

    private static void until(String what, BooleanSupplier condition) throws InterruptedException {
        for (int i = 0; i < 600 && !condition.getAsBoolean(); i++) {
            Thread.sleep(100);
        }
        assertTrue(condition.getAsBoolean(), what);
    }

    /** What watch sees while it runs: a source, a docket and a consent that came after it was started. */
    @Test
    void whatAnotherProgramWritesIsSeenWhileItRuns() throws Exception {
        var home = new Home(folder.resolve("home"));
        var out = new StringWriter();
        var book = DocketBook.open(home.dockets(), new RealDisk(), Clock.systemUTC());
        try (var drawer = PracticeHome.drawer(home);
                var threads = Executors.newSingleThreadExecutor();
                var window = Custodex.open(home, Clock.systemUTC())) {
            var watching = threads.submit(() -> Main.run(
                    new PrintWriter(out, true),
                    new PrintWriter(out, true),
                    "watch",
                    "--home",
                    home.root().toString()));
            try {
                addWhatIsDue(home, drawer, book);
                until(
                        "it is seen that consent is missing",
                        () -> layers(window) == 0 && watching.state() == java.util.concurrent.Future.State.RUNNING);
                book.change(1, d -> d.withConsent(Optional.of(new Docket.Consent(Instant.now(), "a copy"))));
                until("it is backed up: " + out, () -> layers(window) == 1);
                until("it is written down", () -> runs(window) == 1);
                var docket = book.find(1).orElseThrow();
                assertTrue(docket.consent().isPresent() && docket.automatic().isPresent(), "nothing was undone");
                assertTrue(out.toString().contains("Docket 0001: backing up"), out.toString());
                assertFalse(out.toString().contains("Exception"), out.toString());
            } finally {
                watching.cancel(true);
            }
            threads.shutdownNow();
            assertTrue(threads.awaitTermination(20, TimeUnit.SECONDS));
        }
    }

    private static void addWhatIsDue(Home home, PracticeDrawer drawer, DocketBook book) throws IOException {
        var phone = drawer.phones().getFirst();
        phone.makeReady();
        var form = new Docket.Form("Fenna Rook", "", "a copy each day", Optional.empty(), Optional.empty());
        var docket = book.open(form, phone.address());
        book.change(
                docket.number(),
                d -> d.withAutomatic(Optional.of(new Docket.Automatic(Optional.empty(), Instant.now()))));
        phone.plugIn();
        Sources.of(home).rememberPhone("ostrel", phone.address());
    }

    private static int layers(Custodex custodex) {
        try {
            return custodex.strongroom().holdings().phones().size();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private static int runs(Custodex custodex) {
        try {
            return custodex.runs().all().size();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void onlyTheHomeOfADemoIsMarkedAsOne() throws IOException {
        var fresh = new Home(folder.resolve("fresh"));
        fresh.markAsDemoIfNew();
        assertTrue(Files.exists(fresh.demoMark()));
        var used = new Home(Files.createDirectory(folder.resolve("used")));
        Files.writeString(used.root().resolve("precious"), "kept");
        used.markAsDemoIfNew();
        assertFalse(Files.exists(used.demoMark()), "a folder that held anything is never a demo's");
        assertEquals("kept", Files.readString(used.root().resolve("precious")));
    }
}
