package app.custodex.app;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.link.PhoneIdentity;
import app.custodex.model.Thing;
import app.custodex.strongroom.StoredPhone;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** Finds things in several layers, of one phone or of the whole strongroom. */
public final class StrongroomSearch {
    private final LayerReading reading;

    StrongroomSearch(LayerReading reading) {
        this.reading = reading;
    }

    /** What is looked for; people and accounts have other numbers in each catalogue. */
    public interface Wanted {
        /** @throws ProblemException when there can be nothing of it in this catalogue */
        Filter in(Catalogue catalogue) throws IOException;
    }

    /** On whose behalf a phone is read. */
    public interface Mandates {
        Mandate of(PhoneIdentity phone) throws IOException;
    }

    /** Takes what was found, while the layer that it was found in is open. */
    public interface Found {
        void thing(Thing thing, OpenPhone in) throws IOException;
    }

    /** How far back to look. */
    public enum Reach {
        NEWEST_LAYERS,
        ALL_LAYERS
    }

    /**
     * Looks through phones, the newest layer of each first; what is in several layers as it is, is found once.
     *
     * @return what was not searched, and why
     */
    public List<Problem> find(
            String typed,
            Wanted wanted,
            List<StoredPhone> phones,
            Reach reach,
            Mandates mandates,
            Locale locale,
            Found found,
            CancelToken cancel)
            throws IOException {
        var skipped = new ArrayList<Problem>();
        for (var phone : phones) {
            if (phone.seal() == StoredPhone.Seal.CLOSED) {
                skipped.add(Problem.loss(
                        phone.identity().name(),
                        "It is sealed and not open; it was not searched",
                        "Open it with its passphrase"));
                continue;
            }
            try {
                var mandate = mandates.of(phone.identity());
                var seen = new HashSet<Thing>();
                int newest = phone.newest().number();
                for (int number = newest; number > 0 && (reach == Reach.ALL_LAYERS || number == newest); number--) {
                    cancel.check();
                    search(typed, wanted, phone, number, mandate, locale, seen, found, skipped);
                }
            } catch (ProblemException refused) {
                skipped.add(refused.problem());
            }
        }
        return skipped;
    }

    private void search(
            String typed,
            Wanted wanted,
            StoredPhone phone,
            int number,
            Mandate mandate,
            Locale locale,
            Set<Thing> seen,
            Found found,
            List<Problem> skipped)
            throws IOException {
        try (var open = reading.open(mandate, phone.identity().identifier(), number, locale)) {
            long[] numbers;
            try {
                numbers = open.catalogue().find(typed, wanted.in(open.catalogue()), Order.NEWEST_FIRST);
            } catch (ProblemException nothingOfIt) {
                return;
            }
            open.catalogue().forEach(numbers, entry -> {
                if (seen.add(entry.thing())) {
                    found.thing(entry.thing(), open);
                }
            });
        } catch (ProblemException e) {
            skipped.add(e.problem());
        } catch (IOException damaged) {
            skipped.add(Problem.loss(
                    phone.identity().name(), "Layer " + number + " could not be searched", "Check the layer"));
        }
    }
}
