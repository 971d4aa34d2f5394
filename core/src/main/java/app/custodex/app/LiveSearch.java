package app.custodex.app;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Catalogue.State;
import app.custodex.catalogue.Filter;
import app.custodex.catalogue.Meant;
import app.custodex.catalogue.Spine;
import app.custodex.catalogue.Spine.Seen;
import app.custodex.catalogue.Spine.View;
import app.custodex.model.ThingKind;
import app.custodex.strongroom.StoredPhone;
import java.io.Closeable;
import java.io.IOException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Finds things in several layers again and again, while somebody types: layers that were opened stay open until this is closed. Any
 * thread may ask; one question is answered at a time.
 */
public final class LiveSearch implements Closeable {
    /** Of more, the newest are listed. */
    public static final int MOST = 2_000;

    private static final Logger LOG = LoggerFactory.getLogger(LiveSearch.class);

    private final LayerReading reading;
    private final ConsentGate gate;
    private final Locale locale;
    private final ReentrantLock lock = new ReentrantLock();
    private final Map<Place, OpenPhone> opened = new HashMap<>();
    private boolean closed;

    LiveSearch(LayerReading reading, ConsentGate gate, Locale locale) {
        this.reading = reading;
        this.gate = gate;
        this.locale = locale;
    }

    /** A layer of a phone. */
    public record Place(String phone, int layer) {}

    /**
     * How many things were found in a layer.
     *
     * @param open stays open until the search is closed
     * @param spine all of its things in the order of time
     */
    public record InLayer(Place place, OpenPhone open, Spine spine, int found) {}

    /**
     * Something that was found.
     *
     * @param in the layers that have it as it is, the newest first; its number is that in the first one
     */
    public record Hit(Entry entry, List<Place> in) {}

    /**
     * What was found so far.
     *
     * @param hits the newest first; what has no time comes last
     * @param kinds how many there are of each kind, whichever kinds are asked for; at least so many when not all are listed
     * @param complete whether no more are there than are listed
     * @param notSearched what was not searched, and why
     * @param finished whether every layer was asked
     */
    public record Answer(
            List<Hit> hits,
            Map<ThingKind, Integer> kinds,
            List<InLayer> layers,
            boolean complete,
            List<Problem> notSearched,
            boolean finished) {}

    /**
     * What is asked.
     *
     * @param with only what somebody of this name or number is in; several people may be meant. Empty for whoever is in it
     * @param kinds empty for all
     * @param filter everything else that has to be so
     */
    public record Question(String typed, String with, Set<ThingKind> kinds, Filter filter) {}

    /**
     * Asks layers, the newest of each phone first.
     *
     * @param only a layer; empty for all of them
     * @param answers is told what there is so far whenever another layer has been asked
     * @param cancel ends it between two layers
     */
    public void find(
            Question question,
            List<StoredPhone> phones,
            Optional<Integer> only,
            Consumer<Answer> answers,
            CancelToken cancel)
            throws IOException {
        lock.lock();
        try {
            var found = new Gathered(question.kinds());
            for (var phone : phones) {
                if (phone.seal() == StoredPhone.Seal.CLOSED) {
                    found.notSearched.add(StrongroomSearch.sealed(phone));
                }
            }
            var readable = phones.stream()
                    .filter(phone -> phone.seal() != StoredPhone.Seal.CLOSED)
                    .toList();
            int most = readable.stream()
                    .mapToInt(phone -> phone.layers().size())
                    .max()
                    .orElse(0);
            for (int back = 0; back < most; back++) {
                for (var phone : readable) {
                    var layers = phone.layers();
                    int at = layers.size() - 1 - back;
                    if (at >= 0
                            && only.filter(n -> n != layers.get(at).number()).isEmpty()) {
                        cancel.check();
                        boolean waited = ask(question, phone, layers.get(at).number(), found);
                        if (waited) {
                            answers.accept(found.answer(false));
                        }
                    }
                }
            }
            cancel.check();
            answers.accept(found.answer(true));
        } finally {
            lock.unlock();
        }
    }

    /** @return whether the layer had to be opened first */
    private boolean ask(Question question, StoredPhone phone, int number, Gathered found) {
        var place = new Place(phone.identity().identifier(), number);
        var there = Optional.ofNullable(opened.get(place));
        try {
            found.add(place, there.isPresent() ? there.get() : open(phone, place), question);
        } catch (ProblemException e) {
            found.notSearched.add(e.problem());
        } catch (IOException damaged) {
            LOG.info("a layer can't be searched", damaged);
            found.notSearched.add(StrongroomSearch.damaged(phone, number));
        }
        return there.isEmpty();
    }

    private OpenPhone open(StoredPhone phone, Place place) throws IOException {
        if (closed) {
            throw new IOException("the search was closed");
        }
        var mandate = gate.mandateFor(phone.identity());
        var open = reading.open(mandate, place.phone(), place.layer(), locale);
        opened.put(place, open);
        return open;
    }

    /** What was found, by what it is. */
    private static final class Gathered {
        private record Key(String phone, State state) {}

        private static final class Found {
            private final List<Place> in = new ArrayList<>();
            private final Catalogue catalogue;
            private final long number;
            private final ThingKind kind;
            private final long at;

            Found(Catalogue catalogue, long number, ThingKind kind, long at) {
                this.catalogue = catalogue;
                this.number = number;
                this.kind = kind;
                this.at = at;
            }
        }

        private final Set<ThingKind> kinds;
        private final Map<Key, Found> found = new LinkedHashMap<>();
        private final List<InLayer> layers = new ArrayList<>();
        private final Set<Problem> notSearched = new LinkedHashSet<>();
        private boolean complete = true;

        Gathered(Set<ThingKind> kinds) {
            this.kinds = kinds;
        }

        void add(Place place, OpenPhone open, Question question) throws IOException {
            var catalogue = open.catalogue();
            var spine = catalogue.spine();
            var numbers = matching(catalogue, question);
            var all = spine.see(new View(Optional.empty(), new BitSet(), Optional.of(numbers)));
            complete &= take(place, catalogue, spine, all);
            int wanted = all.places().length;
            if (!kinds.isEmpty()) { // the others are only counted; there may be more of these than the newest of all
                var ofKinds = spine.see(new View(Optional.empty(), bits(), Optional.of(numbers)));
                complete &= all.places().length <= MOST || take(place, catalogue, spine, ofKinds);
                wanted = ofKinds.places().length;
            }
            layers.add(new InLayer(place, open, spine, wanted));
        }

        private static BitSet matching(Catalogue catalogue, Question question) throws IOException {
            if (question.with().isBlank()) {
                return catalogue.matching(question.typed(), question.filter());
            }
            var numbers = new BitSet();
            var meant = Meant.perhaps(question.with());
            for (var person : catalogue.people().stream().filter(meant).toList()) {
                numbers.or(
                        catalogue.matching(question.typed(), question.filter().of(person)));
            }
            return numbers;
        }

        private BitSet bits() {
            var bits = new BitSet();
            kinds.forEach(kind -> bits.set(kind.ordinal()));
            return bits;
        }

        private boolean take(Place place, Catalogue catalogue, Spine spine, Seen seen) throws IOException {
            int[] places = seen.places();
            int first = Math.max(0, places.length - MOST);
            var numbers = new long[places.length - first];
            for (int i = first; i < places.length; i++) {
                numbers[i - first] = spine.number(places[i]);
            }
            var states = catalogue.states(numbers);
            for (int i = 0; i < states.size(); i++) {
                int at = places[first + i];
                long number = numbers[i];
                var there = found.computeIfAbsent(
                        new Key(place.phone(), states.get(i)),
                        key -> new Found(
                                catalogue, number, spine.kind(at), spine.at(at).orElse(Long.MIN_VALUE)));
                if (!there.in.contains(place)) {
                    there.in.add(place);
                }
            }
            return first == 0;
        }

        Answer answer(boolean finished) throws IOException {
            var counts = new EnumMap<ThingKind, Integer>(ThingKind.class);
            found.values().forEach(thing -> counts.merge(thing.kind, 1, Integer::sum));
            var listed = found.values().stream()
                    .filter(thing -> kinds.isEmpty() || kinds.contains(thing.kind))
                    .sorted(Comparator.comparingLong((Found thing) -> thing.at).reversed())
                    .toList();
            var hits = new ArrayList<Hit>();
            for (var thing : listed.subList(0, Math.min(MOST, listed.size()))) {
                thing.catalogue.read(thing.number).forEach(entry -> hits.add(new Hit(entry, List.copyOf(thing.in))));
            }
            return new Answer(
                    List.copyOf(hits),
                    counts,
                    List.copyOf(layers),
                    complete && listed.size() <= MOST,
                    List.copyOf(notSearched),
                    finished);
        }
    }

    /** Closes all layers. */
    @Override
    public void close() throws IOException {
        lock.lock();
        try {
            closed = true;
            for (var open : opened.values()) {
                open.close();
            }
            opened.clear();
        } finally {
            lock.unlock();
        }
    }
}
