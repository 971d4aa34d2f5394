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
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Finds things in several layers, of one phone or of the whole strongroom. */
public final class StrongroomSearch {
    private final LayerReading reading;

    StrongroomSearch(LayerReading reading) {
        this.reading = reading;
    }

    /** What is looked for; people have other numbers in each catalogue. */
    public interface Wanted {
        /** Empty when there can be nothing of it in this catalogue. */
        Optional<Filter> in(Catalogue catalogue) throws IOException;
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
     * What is asked of each layer.
     *
     * @param typed as in {@link Catalogue#find(String, Filter, Order)}
     * @param locale of whoever looks
     */
    public record Query(String typed, Wanted wanted, Reach reach, Mandates mandates, Locale locale) {}

    /**
     * Looks through phones, the newest layer of each first; what is in several layers as it is, is found once.
     *
     * @return what was not searched, and why; and what of the things that were looked for could not be read
     */
    public List<Problem> find(Query query, List<StoredPhone> phones, Found found, CancelToken cancel)
            throws IOException {
        var told = new LinkedHashSet<Problem>(); // layers that follow one another have much the same to tell
        for (var phone : phones) {
            if (phone.seal() == StoredPhone.Seal.CLOSED) {
                told.add(sealed(phone));
                continue;
            }
            try {
                var mandate = query.mandates().of(phone.identity());
                var seen = new HashSet<Thing>();
                int newest = phone.newest().number();
                int last = query.reach() == Reach.ALL_LAYERS ? 1 : newest;
                for (int number = newest; number >= last; number--) {
                    cancel.check();
                    told.addAll(search(query, phone, number, mandate, seen, found));
                }
            } catch (ProblemException refused) {
                told.add(refused.problem());
            }
        }
        return List.copyOf(told);
    }

    private List<Problem> search(
            Query query, StoredPhone phone, int number, Mandate mandate, Set<Thing> seen, Found found)
            throws IOException {
        var identifier = phone.identity().identifier();
        try (var open = reading.open(mandate, identifier, number, query.locale())) {
            var filter = query.wanted().in(open.catalogue());
            if (filter.isEmpty()) {
                return List.of();
            }
            var numbers = open.catalogue().find(query.typed(), filter.get(), Order.NEWEST_FIRST);
            open.catalogue().forEach(numbers, entry -> {
                if (seen.add(entry.thing())) {
                    found.thing(entry.thing(), open);
                }
            });
            return open.problems(filter.get().kinds());
        } catch (ProblemException e) {
            return List.of(e.problem());
        } catch (IOException damaged) {
            return List.of(damaged(phone, number));
        }
    }

    static Problem sealed(StoredPhone phone) {
        return Problem.loss(
                phone.identity().name(),
                "It is sealed and not open; it was not searched",
                "Open it with its passphrase");
    }

    static Problem damaged(StoredPhone phone, int number) {
        return Problem.loss(phone.identity().name(), "Layer " + number + " could not be searched", "Check the layer");
    }
}
