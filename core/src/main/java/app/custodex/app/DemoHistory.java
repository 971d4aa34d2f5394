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
import app.custodex.link.LinkException;
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
import java.util.concurrent.ExecutionException;
import java.util.function.Consumer;
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

    private DemoHistory(Home home, PracticeDrawer drawer, Runnable changed, Consumer<Problem> told) {
        maker = Thread.ofPlatform()
                .name("demo history")
                .daemon()
                .priority(Thread.MIN_PRIORITY)
                .start(() -> make(home, drawer, changed, told));
    }

    /**
     * Begins to make what is not there yet; nothing in a home that is no demo's.
     *
     * @param changed is told after each visit
     * @param told is told when it can't be made
     */
    public static Optional<DemoHistory> start(
            Home home, PracticeDrawer drawer, Runnable changed, Consumer<Problem> told) {
        return Files.exists(home.demoMark())
                ? Optional.of(new DemoHistory(home, drawer, changed, told))
                : Optional.empty();
    }

    private void make(Home home, PracticeDrawer drawer, Runnable changed, Consumer<Problem> told) {
        try {
            drawer.drawMap(home.maps());
            for (var visit : drawer.history()) {
                if (closing.isCancelled()) {
                    return;
                }
                if (visit(home, visit)) {
                    changed.run();
                }
            }
            drawer.leaveMakersBackups();
        } catch (CancellationException ended) {
            LOG.info("the demo's past is made at the next start");
        } catch (ProblemException e) {
            told.accept(e.problem());
        } catch (IOException | RuntimeException e) {
            LOG.warn("the demo's past could not be made", e);
            told.accept(Problem.failure(
                    "Demo", "The phones of earlier visits could not all be made", "Start the demo again with --fresh"));
        }
    }

    /** Makes a visit, unless it was made before; one that was cut short is made to its end. */
    private boolean visit(Home home, PastVisit visit) throws IOException {
        var clock = Clock.offset(
                Clock.systemUTC(), Duration.between(Clock.systemUTC().instant(), visit.at()));
        try (var custodex = Custodex.open(home, clock)) {
            var docket = docket(custodex, visit);
            if (!docket.layers().isEmpty()) {
                return false;
            }
            visit.bring(address -> backUp(custodex, visit, docket, address));
            return true;
        }
    }

    private static Docket docket(Custodex custodex, PastVisit visit) throws IOException {
        // No phone of today answers at the address of one that was here in the past.
        var address = URI.create("past:" + visit.at());
        var before = custodex.dockets().at(address);
        if (before.isPresent()) {
            return before.get();
        }
        var consent = new Docket.Consent(custodex.clock().instant(), "Copy and keep for a year");
        return custodex.dockets()
                .open(
                        new Docket.Form(
                                visit.customer(), "", visit.reason(), Optional.of(consent), Optional.empty(), false),
                        address);
    }

    private void backUp(Custodex custodex, PastVisit visit, Docket docket, URI address) throws IOException {
        var source = new Source(1, "past", "past", visit.customer(), Source.Type.PHONE, address, Optional.empty());
        try (var link = source.link(custodex::strongroomPlace)) {
            var bay = new Bay(source, link);
            bay.ask();
            var phone = bay.status()
                    .flatMap(PhoneStatus::identity)
                    .orElseThrow(() -> new LinkException.NotReady(visit.customer()));
            prepareSeal(custodex, visit, phone);
            var now = custodex.clock().instant();
            custodex.dockets().change(docket.number(), d -> d.withPhone(phone).withDone(RouteStep.CHECK_IN, now));
            var job = custodex.backUp(
                    bay,
                    Mandate.ofDocket(docket.number()),
                    BackupRequest.everything(Duration.ofSeconds(10), Custodex.TOOL),
                    false);
            try {
                closing.await("end of a past backup", () -> job.outcome().get());
            } catch (CancellationException | ExecutionException ended) {
                job.stop();
            }
            switch (job.outcome().join()) {
                case Outcome.Done done -> LOG.info("the past has one more layer");
                case Outcome.Stopped stopped -> throw new CancellationException("stopped on request");
                case Outcome.Failed failed -> throw new ProblemException(failed.problem());
            }
        }
    }

    private static void prepareSeal(Custodex custodex, PastVisit visit, PhoneIdentity phone) throws IOException {
        if (visit.passphrase().isEmpty()) {
            return;
        }
        var strongroom = custodex.strongroom();
        try (var passphrase = new Passphrase(visit.passphrase().get().toCharArray())) {
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
