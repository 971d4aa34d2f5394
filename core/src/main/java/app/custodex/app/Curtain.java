package app.custodex.app;

import app.custodex.base.Disk;
import app.custodex.base.JsonLog;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.PhoneIdentity;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/**
 * Decides whether what is private in a customer's phone may stand on the screen: names, texts, numbers and pictures. It is down until
 * somebody lifts it, for one phone at a time, and each lifting is written down first. Any thread may ask.
 */
public final class Curtain {
    /** After so long without a hand it falls. */
    public static final Duration UNTOUCHED = Duration.ofMinutes(3);

    /**
     * That somebody lifted it.
     *
     * @param docket empty for a phone that is the shop's own
     * @param phone the identifier
     * @param who the user of this computer
     */
    public record Lifting(Instant at, Optional<Integer> docket, String phone, String who) {}

    private record Lifted(String phone, Instant touched) {}

    private final ConsentGate gate;
    private final JsonLog<Lifting> log;
    private final Clock clock;
    private final String who;
    private Optional<Lifted> lifted = Optional.empty();

    Curtain(ConsentGate gate, Path file, Disk disk, Clock clock, String who) {
        this.gate = gate;
        this.log = new JsonLog<>(file, disk, Lifting.class);
        this.clock = clock;
        this.who = who;
    }

    /**
     * Lifts it for one phone, on behalf of whoever the phone's docket names; for any other it is down from now on.
     *
     * @throws ProblemException when the customer has not consented, there is no docket, or it can't be written down; it stays as it
     *     was
     */
    public Lifting lift(PhoneIdentity phone) throws IOException {
        var mandate = gate.mandateFor(phone);
        gate.ask(Operation.READ, mandate, phone);
        var docket = mandate instanceof Mandate.OfDocket of ? Optional.of(of.number()) : Optional.<Integer>empty();
        var lifting = new Lifting(clock.instant(), docket, phone.identifier(), who);
        writeDown(lifting);
        synchronized (this) {
            lifted = Optional.of(new Lifted(phone.identifier(), clock.instant()));
        }
        return lifting;
    }

    private void writeDown(Lifting lifting) throws IOException {
        try {
            log.append(lifting);
        } catch (IOException e) {
            throw new ProblemException(
                    Problem.failure(
                            "The curtain",
                            "The lifting can't be recorded, so the curtain stays down",
                            "Check whether the disk is full or read-only"),
                    e);
        }
    }

    /** Lets it fall. */
    public synchronized void fall() {
        lifted = Optional.empty();
    }

    /** Notes that a hand is on the mouse or the keyboard; that does not lift what has fallen. */
    public synchronized void touched() {
        var now = clock.instant();
        lifted = lifted.filter(up -> !isOver(up, now)).map(up -> new Lifted(up.phone(), now));
    }

    /** Whether what is in a phone may be shown at this moment. */
    public synchronized boolean isLiftedFor(PhoneIdentity phone) {
        var now = clock.instant();
        return lifted.filter(up -> up.phone().equals(phone.identifier()) && !isOver(up, now))
                .isPresent();
    }

    /** A clock that was set back ends it too. */
    private static boolean isOver(Lifted up, Instant now) {
        return now.isBefore(up.touched()) || Duration.between(up.touched(), now).compareTo(UNTOUCHED) >= 0;
    }

    /** Every lifting, the earliest first. */
    public List<Lifting> liftings() throws IOException {
        return log.read().entries();
    }

    /** Lines that can't be read. */
    public List<Problem> problems() throws IOException {
        return log.read().problem("The list of when the curtain was lifted").stream()
                .toList();
    }
}
