package app.custodex.app;

import app.custodex.app.OpenPhone.From;
import app.custodex.backup.PhoneNow;
import app.custodex.base.CancelToken;
import app.custodex.link.LinkException;
import app.custodex.link.PhoneStatus;
import app.custodex.readers.families.FamilyReaders;
import app.custodex.seal.Passphrase;
import java.io.IOException;
import java.time.Clock;
import java.util.Locale;
import java.util.Optional;

/** Reads a phone that is plugged in, for a customer who needs one number or one picture: no copy of it stays in the shop. */
public final class StraightReading {
    private final ShopStrongroom strongroom;
    private final ConsentGate gate;
    private final Clock clock;

    StraightReading(ShopStrongroom strongroom, ConsentGate gate, Clock clock) {
        this.strongroom = strongroom;
        this.gate = gate;
        this.clock = clock;
    }

    /**
     * Reads what the phone gives; whatever has to lie somewhere meanwhile lies in memory. The caller closes it.
     *
     * @param burrowKey the customer's key of Burrow, if it was given; it stays the caller's to destroy
     * @param progress is told how many things were read
     * @throws app.custodex.base.ProblemException when the customer has not consented, the phone is not ready, or goes away meanwhile
     */
    public OpenPhone open(
            Mandate mandate,
            Bay bay,
            Locale locale,
            Optional<Passphrase> burrowKey,
            ReadingProgress progress,
            CancelToken cancel)
            throws IOException {
        var phone = bay.status()
                .flatMap(PhoneStatus::identity)
                .orElseThrow(() -> new LinkException.NotReady(bay.source().name()));
        gate.ask(Operation.READ, mandate, phone);
        var now = PhoneNow.open(bay.link(), phone, strongroom.current(), clock, cancel);
        var readers = FamilyReaders.of(phone.family(), burrowKey);
        var open =
                OpenPhone.inMemory(gate, mandate, From.phone(now), readers, Optional.empty(), locale, progress, cancel);
        if (now.gone().isPresent()) {
            open.close(); // what came before is a part of the phone that looks like all of it
            throw now.gone().get();
        }
        return open;
    }
}
