package app.custodex.app;

import app.custodex.app.OpenPhone.From;
import app.custodex.backup.PhoneNow;
import app.custodex.base.CancelToken;
import app.custodex.base.PrivatePlace;
import app.custodex.catalogue.CatalogueDraft;
import app.custodex.catalogue.CatalogueHead;
import app.custodex.link.LinkException;
import app.custodex.link.PhoneStatus;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.families.FamilyReaders;
import java.io.IOException;
import java.time.Clock;
import java.util.Locale;
import java.util.Optional;
import java.util.function.LongConsumer;

/** Reads a phone that is plugged in, for a customer who needs one number or one picture: no copy of it stays in the shop. */
public final class StraightReading {
    /** Layers count from 1. */
    private static final int NO_LAYER = 0;

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
     * @param progress is told how many things were read
     * @throws app.custodex.base.ProblemException when the customer has not consented, or the phone is not ready
     */
    public OpenPhone open(Mandate mandate, Bay bay, Locale locale, LongConsumer progress, CancelToken cancel)
            throws IOException {
        var phone = bay.status()
                .flatMap(PhoneStatus::identity)
                .orElseThrow(() -> new LinkException.NotReady(bay.source().name()));
        gate.ask(Operation.READ, mandate, phone);
        var now = PhoneNow.open(bay.link(), strongroom.current(), clock, cancel);
        try {
            return open(mandate, now, locale, progress, cancel);
        } catch (IOException | RuntimeException e) {
            now.close();
            throw e;
        }
    }

    private OpenPhone open(Mandate mandate, PhoneNow now, Locale locale, LongConsumer progress, CancelToken cancel)
            throws IOException {
        var place = PrivatePlace.inMemory();
        try (var draft = CatalogueDraft.inMemory(Optional.empty())) {
            var readers = FamilyReaders.of(now.phone().family());
            var phone = now.phone().in(locale);
            var files = new PhoneFiles(now, phone, place);
            draft.build(
                    CatalogueHead.of(phone.identifier(), NO_LAYER, phone.region()), files, readers, progress, cancel);
            return new OpenPhone(gate, mandate, From.phone(now), place, files, readers, draft.handOver(), locale);
        } catch (IOException | RuntimeException e) {
            place.close();
            throw e;
        }
    }
}
