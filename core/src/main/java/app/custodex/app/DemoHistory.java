package app.custodex.app;

import app.custodex.app.BackupJob.Outcome;
import app.custodex.backup.BackupRequest;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.docket.Docket;
import app.custodex.docket.RouteStep;
import app.custodex.drawer.PastVisit;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneStatus;
import app.custodex.seal.Passphrase;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.time.Clock;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Gives the home of a demo a past: dockets and layers of phones that were here in the months before. It is made behind the window,
 * as another program on the same home would, by the same rules.
 */
public final class DemoHistory implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(DemoHistory.class);

    private final CancelToken closing = new CancelToken();
    private final Thread maker;

    private DemoHistory(Home home, PracticeDrawer drawer, Runnable changed) {
        maker = Thread.ofPlatform()
                .name("demo history")
                .daemon()
                .priority(Thread.MIN_PRIORITY)
                .start(() -> make(home, drawer, changed));
    }

    /**
     * Begins to make what is not there yet; nothing in a home that is no demo's.
     *
     * @param changed is told after each visit
     */
    public static Optional<DemoHistory> start(Home home, PracticeDrawer drawer, Runnable changed) {
        return Files.exists(home.demoMark()) ? Optional.of(new DemoHistory(home, drawer, changed)) : Optional.empty();
    }

    private void make(Home home, PracticeDrawer drawer, Runnable changed) {
        try {
            var visits = drawer.history();
            for (int done = done(home); done < visits.size() && !closing.isCancelled(); done++) {
                visit(home, visits.get(done));
                Files.writeString(home.history(), Integer.toString(done + 1));
                changed.run();
            }
        } catch (CancellationException ended) {
            LOG.info("the demo's past is made at the next start");
        } catch (IOException | RuntimeException e) {
            LOG.warn("the demo's past could not be made in full", e);
        }
    }

    private static int done(Home home) throws IOException {
        return Files.exists(home.history())
                ? Integer.parseInt(Files.readString(home.history()).strip())
                : 0;
    }

    private void visit(Home home, PastVisit visit) throws IOException {
        var clock = Clock.offset(
                Clock.systemUTC(), Duration.between(Clock.systemUTC().instant(), visit.at()));
        try (var custodex = Custodex.open(home, clock)) {
            visit.bring(address -> back(custodex, visit, address));
        }
    }

    private void back(Custodex custodex, PastVisit visit, URI address) throws IOException {
        var key = "past";
        var source = new Source(1, key, key, visit.customer(), Source.Type.PHONE, address, Optional.empty());
        try (var link = source.link(custodex::strongroomPlace)) {
            var bay = new Bay(source, link);
            bay.ask();
            var phone = bay.status()
                    .flatMap(PhoneStatus::identity)
                    .orElseThrow(() -> new ProblemException(Problem.failure(
                            visit.customer(),
                            "The phone of an earlier visit does not answer",
                            "Start the demo again")));
            prepareSeal(custodex, visit, phone);
            var now = custodex.clock().instant();
            // No phone of today answers at the address of one that was here in the past.
            var docket = custodex.dockets()
                    .open(
                            new Docket.Form(
                                    visit.customer(),
                                    "",
                                    visit.reason(),
                                    Optional.of(new Docket.Consent(now, "Copy and keep for a year")),
                                    Optional.empty(),
                                    false),
                            URI.create("past:" + phone.identifier()));
            custodex.dockets().change(docket.number(), d -> d.withPhone(phone).withDone(RouteStep.CHECK_IN, now));
            var job = custodex.backUp(
                    bay,
                    Mandate.ofDocket(docket.number()),
                    BackupRequest.everything(Duration.ofSeconds(10), Custodex.TOOL),
                    false);
            closing.await("end of a past backup", () -> job.outcome().get());
            if (job.outcome().join() instanceof Outcome.Failed failed) {
                throw new ProblemException(failed.problem());
            }
        } catch (java.util.concurrent.ExecutionException e) {
            throw new IOException(e);
        }
    }

    private static void prepareSeal(Custodex custodex, PastVisit visit, PhoneIdentity phone) throws IOException {
        if (visit.passphrase().isEmpty()) {
            return;
        }
        var strongroom = custodex.strongroom();
        var passphrase = new Passphrase(visit.passphrase().get().toCharArray());
        try (passphrase) {
            if (strongroom.sealed(phone.identifier())) {
                strongroom.open(phone, passphrase);
            } else {
                custodex.seal(phone, passphrase);
            }
        }
    }

    /** Waits until all of it is made. */
    public void await() throws InterruptedException {
        maker.join();
    }

    /** Ends it soon; what is not made yet is made at the next start. */
    @Override
    public void close() {
        closing.cancel();
        try {
            maker.join();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
