package app.custodex.catalogue;

import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.model.Conversation;
import app.custodex.model.MediaFile.Place;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.search.Asked;
import com.fasterxml.jackson.core.type.TypeReference;
import java.io.Closeable;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.sqlite.SQLiteConfig;
import org.sqlite.SQLiteConnection;

/** The catalogue of one layer, open for reading. Safe for use by several threads. */
public final class Catalogue implements Closeable {
    private static final int PAGE = 512;

    private static final Logger LOG = LoggerFactory.getLogger(Catalogue.class);

    private final Connection db;
    /** Where the index of words is: in another database while it is being made. */
    private final Connection words;

    private final ReentrantLock lock;
    /** Whether it is still being made, by a thread that shares the connection. */
    private final boolean growing;

    private boolean ended;

    private final AtHand atHand = new AtHand();
    private final Once<Spine> spine = new Once<>();
    private final Once<TouchDays> touchDays = new Once<>();
    private final Once<Conversations> conversations = new Once<>();
    private final Once<List<Person>> people = new Once<>();

    Catalogue(Connection db) {
        this(db, db, new ReentrantLock(), false);
    }

    private Catalogue(Connection db, Connection words, ReentrantLock lock, boolean growing) {
        this.db = db;
        this.words = words;
        this.lock = lock;
        this.growing = growing;
    }

    /** @param lock is held by whoever uses the connection to the catalogue */
    static Catalogue growing(Connection db, Connection words, ReentrantLock lock) {
        return new Catalogue(db, words, lock, true);
    }

    /** Whoever still asks it is turned away: the connection goes on to another use. */
    void end() {
        lock.lock();
        ended = true;
        atHand.clear();
        lock.unlock();
    }

    /** Keeps things that will be asked for while it grows. */
    void keepAtHand(List<Entry> things) {
        lock.lock();
        try {
            atHand.keep(things);
        } finally {
            lock.unlock();
        }
    }

    /**
     * Opens one that lies in a file.
     *
     * @return empty when it is another one's, of another form, or torn
     */
    public static Optional<Catalogue> open(Path file, CatalogueHead of) {
        try {
            var config = new SQLiteConfig();
            config.setReadOnly(true);
            return checked(DriverManager.getConnection("jdbc:sqlite:" + file, config.toProperties()), of);
        } catch (SQLException torn) {
            LOG.info("a catalogue can't be opened", torn);
            return Optional.empty();
        }
    }

    /** Opens one from memory. */
    public static Optional<Catalogue> open(byte[] bytes, CatalogueHead of) {
        try {
            var db = DriverManager.getConnection("jdbc:sqlite::memory:");
            ((SQLiteConnection) db).deserialize("main", bytes);
            return checked(db, of);
        } catch (SQLException torn) {
            LOG.info("a catalogue can't be opened", torn);
            return Optional.empty();
        }
    }

    private static Optional<Catalogue> checked(Connection db, CatalogueHead of) throws SQLException {
        try {
            if (CatalogueHead.read(db).equals(Optional.of(of))) {
                return Optional.of(new Catalogue(db));
            }
        } catch (SQLException e) {
            db.close();
            throw e;
        }
        db.close();
        return Optional.empty();
    }

    private interface Question<T> {
        T ask() throws SQLException, IOException;
    }

    /** What is loaded once; of a catalogue that is still being made, each time. */
    private final class Once<T> {
        private Optional<T> loaded = Optional.empty();

        T get(Question<T> load) throws SQLException, IOException {
            if (growing) {
                return load.ask();
            }
            if (loaded.isEmpty()) {
                loaded = Optional.of(load.ask());
            }
            return loaded.get();
        }
    }

    private <T> T ask(Question<T> question) throws IOException {
        lock.lock();
        try {
            if (ended) {
                throw new CancellationException("the catalogue is closed, or made");
            }
            return question.ask();
        } catch (SQLException e) {
            throw new IOException("the catalogue can't be read", e);
        } finally {
            lock.unlock();
        }
    }

    /** How many things of each kind there are; kinds without any are left out. */
    public Map<ThingKind, Long> counts() throws IOException {
        return ask(() -> {
            var counts = new EnumMap<ThingKind, Long>(ThingKind.class);
            try (var statement = db.createStatement();
                    var rows = statement.executeQuery("SELECT kind, count(*) FROM thing GROUP BY kind")) {
                while (rows.next()) {
                    counts.put(ThingKind.values()[rows.getInt(1)], rows.getLong(2));
                }
            }
            return counts;
        });
    }

    /**
     * What could not be read, or not in full.
     *
     * @param of tells by its name which readers' problems are asked for
     */
    public List<Problem> problems(Predicate<String> of) throws IOException {
        return ask(() -> {
            var problems = new ArrayList<Problem>();
            try (var statement = db.createStatement();
                    var rows = statement.executeQuery(
                            "SELECT reader, problems FROM store WHERE problems <> CAST('[]' AS BLOB) ORDER BY id")) {
                while (rows.next()) {
                    if (of.test(rows.getString(1))) {
                        problems.addAll(Json.LINE.readValue(rows.getBytes(2), new TypeReference<List<Problem>>() {}));
                    }
                }
            }
            return problems;
        });
    }

    /** All that could not be read, or not in full. */
    public List<Problem> problems() throws IOException {
        return problems(reader -> true);
    }

    /** In which order things come. */
    public enum Order {
        OLDEST_FIRST,
        NEWEST_FIRST,
        /** As the phone keeps them. */
        AS_KEPT
    }

    /** The numbers of all things that are wanted: what a list pages through. */
    public long[] find(Filter filter, Order order) throws IOException {
        return find("", filter, order);
    }

    /** The same, of those that hold what was typed. */
    public long[] find(String typed, Filter filter, Order order) throws IOException {
        return ask(() -> inOrder(wanted(typed, filter), order));
    }

    /** The same, in no order. */
    public BitSet matching(String typed, Filter filter) throws IOException {
        return ask(() -> {
            var wanted = wanted(typed, filter);
            if (wanted.isPresent()) {
                return wanted.get();
            }
            var all = new BitSet();
            Arrays.stream(byTime()).forEach(all::set);
            return all;
        });
    }

    /** Empty for everything. */
    private Optional<BitSet> wanted(String typed, Filter filter) throws SQLException, IOException {
        var asked = Asked.of(typed);
        if (asked.isEmpty() && !typed.isBlank()) {
            return Optional.of(new BitSet()); // signs only: they stand in no index
        }
        var wanted = asked.isEmpty()
                ? Optional.<BitSet>empty()
                : Optional.of(new WordSearch(db, words, !growing).holding(asked));
        if (filter.person().isPresent()) {
            var of = loadedTouchDays().things(filter.person().getAsLong());
            wanted = Optional.of(WordSearch.both(wanted, of));
        }
        var rest = filter.withoutPerson();
        if (!rest.equals(Filter.EVERYTHING)) {
            var where = new Conditions(db);
            where.filter(rest);
            wanted = Optional.of(WordSearch.both(wanted, where.numbers("SELECT group_concat(id) FROM thing")));
        }
        return wanted;
    }

    /** @param wanted everything when it is empty */
    private long[] inOrder(Optional<BitSet> wanted, Order order) throws SQLException, IOException {
        if (order == Order.AS_KEPT) {
            return wanted.isPresent()
                    ? wanted.get().stream().asLongStream().toArray()
                    : Arrays.stream(byTime()).sorted().asLongStream().toArray();
        }
        int[] all = byTime();
        var found = new long[wanted.map(BitSet::cardinality).orElse(all.length)];
        int n = 0;
        for (int i = 0; i < all.length; i++) {
            int number = all[order == Order.OLDEST_FIRST ? i : all.length - 1 - i];
            if (wanted.isEmpty() || wanted.get().get(number)) {
                found[n++] = number;
            }
        }
        return n == found.length ? found : Arrays.copyOf(found, n);
    }

    private int[] byTime() throws SQLException, IOException {
        return loadedSpine().numbers();
    }

    private Spine loadedSpine() throws SQLException, IOException {
        return spine.get(() -> growing ? Spine.read(db) : Spine.load(db));
    }

    private TouchDays loadedTouchDays() throws SQLException, IOException {
        return touchDays.get(() -> TouchDays.load(db, loadedSpine()));
    }

    /** All things in the order of time, by what a timeline and a list ask of every row. */
    public Spine spine() throws IOException {
        return ask(this::loadedSpine);
    }

    /** Width by height of pictures and videos, by their numbers in the catalogue; 0 where it is not known, and for everything else. */
    public float[] shapes() throws IOException {
        return ask(() -> Shape.ratios(db));
    }

    /** Where pictures, videos and routes were taken, as far as they say so. */
    public Places places() throws IOException {
        return ask(() -> Places.load(db));
    }

    /** Which pictures can be shown as one. */
    public Folds folds() throws IOException {
        return Folds.of(this);
    }

    /** In which conversations files were sent or came. Takes about a second with many of them. */
    public SentIn sentIn() throws IOException {
        return SentIn.of(this);
    }

    /** To what lists of the things in a spine of this catalogue are narrowed. */
    public Traits traits(Spine of) throws IOException {
        return ask(() -> Traits.load(db, of));
    }

    private static long[] numbers(PreparedStatement query) throws SQLException {
        try (var rows = query.executeQuery()) {
            var ids = new long[1024];
            int n = 0;
            while (rows.next()) {
                if (n == ids.length) {
                    ids = Arrays.copyOf(ids, 2 * n);
                }
                ids[n++] = rows.getLong(1);
            }
            return Arrays.copyOf(ids, n);
        }
    }

    /** Somebody in the layer, with every address that is known to be theirs. */
    public record Person(long id, String name, boolean contact, List<String> addresses) {
        public Person {
            addresses = List.copyOf(addresses);
        }
    }

    public List<Person> people() throws IOException {
        return ask(() -> people.get(() -> People.load(db)));
    }

    /**
     * When somebody was in touch.
     *
     * @param days in the phone's calendar, as {@link java.time.LocalDate#toEpochDay}, the earliest first
     * @param things of each of these days
     */
    public record InTouch(Person person, int[] days, int[] things) {
        /** Things in all. */
        public long all() {
            return Arrays.stream(things).asLongStream().sum();
        }

        /** The last day; -1 when there is none. */
        public int last() {
            return days.length == 0 ? -1 : days[days.length - 1];
        }
    }

    /** Everybody who is in something with a date; in the order of {@link #people}. */
    public List<InTouch> inTouch() throws IOException {
        var people = people();
        return ask(() -> loadedTouchDays().of(people));
    }

    /** What to call somebody in a thing: the name in the contacts, where the number or address is known there. */
    public interface Names {
        String of(Party party, Thing in);

        /** The name of a conversation, or of everybody in it where it has none. */
        default String title(Conversation conversation) {
            return conversation.name().isBlank()
                    ? conversation.members().stream()
                            .map(party -> of(party, conversation))
                            .collect(Collectors.joining(", "))
                    : conversation.name();
        }
    }

    /** Loads the names of everybody who is a contact. */
    public Names names() throws IOException {
        var known = new HashMap<String, String>();
        for (var person : people()) {
            if (person.contact()) {
                person.addresses().forEach(address -> known.put(address, person.name()));
            }
        }
        return (party, in) -> known.getOrDefault(Addresses.of(party, in.account()), party.title());
    }

    /** A thing with its number in this catalogue. */
    public record Entry(long number, Thing thing) {}

    /** The things of these numbers, in this order; numbers that are not there are left out. */
    public List<Entry> read(long... numbers) throws IOException {
        var there = ask(() -> atHand.read(numbers));
        return there.isEmpty() ? Bodies.things(ask(() -> Bodies.read(db, numbers))) : there;
    }

    /** What tells whether a thing is in another catalogue of the same phone as it is in this one. */
    public record State(String item, String key, long digest) {}

    /** The states of things, in this order; numbers that are not there are left out. */
    public List<State> states(long... numbers) throws IOException {
        return ask(() -> {
            var states = new ArrayList<State>(numbers.length);
            // The database takes the numbers apart by itself: to ask for each takes several times as long.
            try (var query = db.prepareStatement(
                    "SELECT store.name, thing.key, digest FROM json_each(?) AS wanted"
                            + " JOIN thing ON thing.id = wanted.value JOIN store ON store.id = thing.store ORDER BY wanted.id")) {
                query.setString(1, Arrays.toString(numbers));
                try (var rows = query.executeQuery()) {
                    while (rows.next()) {
                        states.add(new State(rows.getString(1), rows.getString(2), rows.getLong(3)));
                    }
                }
            }
            return states;
        });
    }

    /**
     * The numbers of things that are known by what they are; those that are not there are left out.
     *
     * @param keys of an item's things
     */
    public BitSet numbers(String item, Collection<String> keys) throws IOException {
        return ask(() -> {
            try (var query =
                    db.prepareStatement("SELECT id FROM thing WHERE store IN (SELECT id FROM store WHERE name = ?)"
                            + " AND key IN (SELECT value FROM json_each(?))")) {
                query.setString(1, item);
                query.setString(2, Json.LINE.writeValueAsString(keys));
                var found = new BitSet();
                Arrays.stream(numbers(query)).forEach(number -> found.set((int) number));
                return found;
            }
        });
    }

    /**
     * Puts things of one kind into the order that suits it.
     *
     * @param numbers in the order of time
     * @param locale by which words are sorted
     */
    public Lists.Arranged arranged(int[] numbers, Lists.Sorting sorting, Locale locale) throws IOException {
        if (sorting == Lists.Sorting.MADE) {
            return Lists.byMade(read(Arrays.stream(numbers).asLongStream().toArray()));
        }
        return sorting.gathers()
                ? Gathering.of(this, sorting).arrange(numbers, locale)
                : ask(() -> Lists.arrange(db, numbers, sorting, locale));
    }

    /**
     * Puts things together by where they were taken.
     *
     * @param numbers in the order of time
     * @param name of a place
     */
    public Lists.Arranged byPlace(int[] numbers, Function<Place, String> name, Locale locale) throws IOException {
        return Gathering.byPlace(this, name).arrange(numbers, locale);
    }

    /** Takes one thing after the other. */
    public interface Each {
        void thing(Entry entry) throws IOException;
    }

    /** Gives the things of these numbers one after the other, however many they are. */
    public void forEach(long[] numbers, Each each) throws IOException {
        for (int from = 0; from < numbers.length; from += PAGE) {
            for (var entry : read(Arrays.copyOfRange(numbers, from, Math.min(from + PAGE, numbers.length)))) {
                each.thing(entry);
            }
        }
    }

    /** The number of a thing; empty when this layer does not have it. */
    public Optional<Entry> find(ThingId id) throws IOException {
        long[] numbers = ask(() -> {
            try (var query = db.prepareStatement("SELECT thing.id FROM thing JOIN store ON store.id = thing.store"
                    + " WHERE store.name = ? AND key = ?")) {
                query.setString(1, id.item());
                query.setString(2, id.key());
                return numbers(query);
            }
        });
        return numbers.length == 0
                ? Optional.empty()
                : read(numbers[0]).stream().findFirst();
    }

    /** The names of the readers that read this item. */
    public List<String> readersOf(String item) throws IOException {
        return ask(() -> {
            var names = new ArrayList<String>();
            try (var query = db.prepareStatement("SELECT reader FROM store WHERE name = ?")) {
                query.setString(1, item);
                try (var rows = query.executeQuery()) {
                    while (rows.next()) {
                        names.add(rows.getString(1));
                    }
                }
            }
            return names;
        });
    }

    Map<String, Stores.StoreRow> stores() throws IOException {
        return ask(() -> Stores.all(db));
    }

    List<Stores.Row> rows(long store) throws IOException {
        return ask(() -> Stores.rows(db, store));
    }

    /** The messages of a conversation, the oldest first. */
    public long[] within(ThingId conversation) throws IOException {
        var entry = find(conversation);
        return ask(() -> entry.isEmpty()
                ? new long[0]
                : conversations
                        .get(() -> Conversations.load(db, loadedSpine()))
                        .messages(entry.get().number()));
    }

    @Override
    public void close() throws IOException {
        if (growing) {
            return; // whoever makes it closes it
        }
        lock.lock();
        try {
            ended = true;
            db.close();
        } catch (SQLException e) {
            throw new IOException(e);
        } finally {
            lock.unlock();
        }
    }
}
