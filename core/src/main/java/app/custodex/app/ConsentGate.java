package app.custodex.app;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.docket.Docket;
import app.custodex.docket.DocketBook;
import app.custodex.docket.HandOut;
import app.custodex.docket.HandOutBook;
import app.custodex.link.PhoneIdentity;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Consumer;
import java.util.function.Supplier;

/**
 * The one gate through which everything goes that is done to a customer's data. It asks the docket as it is on the disk at that
 * moment, whoever may have changed it, and gives a permit or refuses with the reason.
 */
public final class ConsentGate {
    private final DocketBook dockets;
    private final Supplier<Set<String>> ownPhones;
    private final HandOutBook handOuts;
    private final Clock clock;
    private final List<Consumer<Permit>> listeners = new CopyOnWriteArrayList<>();

    /** @param ownPhones identifiers of phones and other sources that are the shop's own */
    ConsentGate(DocketBook dockets, Supplier<Set<String>> ownPhones, HandOutBook handOuts, Clock clock) {
        this.dockets = dockets;
        this.ownPhones = ownPhones;
        this.handOuts = handOuts;
        this.clock = clock;
    }

    /** By the clock of the shop. */
    Instant now() {
        return clock.instant();
    }

    /** Tells each permit that is given, on the thread that asked for it. */
    public void listen(Consumer<Permit> listener) {
        listeners.add(listener);
    }

    /**
     * Asks whether something may be done.
     *
     * @param phone whose data it is
     * @throws ProblemException when it may not
     */
    public Permit ask(Operation operation, Mandate mandate, PhoneIdentity phone) throws IOException {
        switch (mandate) {
            case Mandate.OfShop shop -> {}
            case Mandate.OfDocket of -> requireConsent(operation, of.number(), phone);
        }
        var permit = new Permit(operation, mandate, phone, clock.instant());
        listeners.forEach(listener -> listener.accept(permit));
        return permit;
    }

    /** Writes files of a phone's data. */
    interface Writing<T> {
        /** @param files gets every file that is complete, whatever comes after it */
        T write(Permit permit, List<HandOut.File> files) throws IOException;
    }

    /**
     * Lets data be written into ordinary files, and remembers on the docket which files these are, before it begins and when it ends, in
     * whatever way it ends.
     *
     * @param folder into which they go
     * @throws ProblemException when it may not be done
     */
    <T> T handOut(Mandate mandate, PhoneIdentity phone, Path folder, Writing<T> writing) throws IOException {
        var permit = ask(Operation.EXTRACT, mandate, phone);
        var docket = mandate instanceof Mandate.OfDocket of ? Optional.of(of.number()) : Optional.<Integer>empty();
        var begun = handOuts.begin(docket, phone.identifier(), permit.given(), folder);
        var files = new ArrayList<HandOut.File>();
        try {
            return writing.write(permit, files);
        } finally {
            handOuts.end(begun, files);
        }
    }

    private void requireConsent(Operation operation, int number, PhoneIdentity phone) throws IOException {
        var docket = dockets.find(number)
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        "Docket " + Docket.label(number), "There is no such docket", "List the dockets")));
        var subject = "Docket " + docket.label();
        if (!docket.mayBeWorkedOn()) {
            throw new ProblemException(Problem.failure(
                    subject,
                    "The customer's consent is not on it, so nothing may be " + operation.done(),
                    "Ask the customer, and write the consent on the docket"));
        }
        if (docket.phone().filter(known -> !isSame(known, phone)).isPresent()) {
            throw new ProblemException(Problem.failure(
                    subject,
                    "It is for another phone (" + docket.phone().get().name() + ") than this one (" + phone.name()
                            + ")",
                    "Open a docket for this phone"));
        }
    }

    /** Copies in one account are stacks of their own, under identifiers that begin with the account's. */
    private static boolean isSame(PhoneIdentity known, PhoneIdentity phone) {
        return known.identifier().equals(phone.identifier())
                || known.serial().isEmpty()
                        && phone.serial().isEmpty()
                        && account(known).equals(account(phone));
    }

    private static String account(PhoneIdentity copy) {
        return copy.system();
    }

    /**
     * On whose behalf a phone's layers are read when nobody says it: for the customer of its newest docket, or for the shop when the
     * phone is the shop's own.
     *
     * @throws ProblemException when there is no docket for it
     */
    public Mandate mandateFor(PhoneIdentity phone) throws IOException {
        var docket = dockets.of(phone.identifier());
        if (docket.isPresent()) {
            return Mandate.ofDocket(docket.get().number());
        }
        if (LooseFiles.are(phone) || ownPhones.get().contains(phone.identifier())) {
            return Mandate.ofShop();
        }
        throw new ProblemException(Problem.failure(
                phone.name(),
                "No docket says whose phone it is",
                "Open a docket for it with the customer's consent, or say that it is the shop's own"));
    }

    /** A phone that does not say in which country its numbers are dialled, in that of the docket, if it names one. */
    PhoneIdentity inCountry(Mandate mandate, PhoneIdentity phone) throws IOException {
        return phone.in(docket(mandate).map(Docket::country).orElse(""));
    }

    /** The docket that is worked on in a mandate; empty for the shop's own. */
    Optional<Docket> docket(Mandate mandate) throws IOException {
        return mandate instanceof Mandate.OfDocket of ? dockets.find(of.number()) : Optional.empty();
    }
}
