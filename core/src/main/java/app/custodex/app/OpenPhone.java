package app.custodex.app;

import app.custodex.backup.PhoneNow;
import app.custodex.base.CancelToken;
import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.base.Suppliers;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Catalogue.Names;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.CatalogueDraft;
import app.custodex.catalogue.CatalogueHead;
import app.custodex.catalogue.Comparison;
import app.custodex.catalogue.Filter;
import app.custodex.catalogue.Growth;
import app.custodex.catalogue.SentIn;
import app.custodex.extract.Extraction;
import app.custodex.files.FolderTree.Item;
import app.custodex.link.FileSource;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhonePath;
import app.custodex.link.ZipsInside;
import app.custodex.media.MediaSource;
import app.custodex.media.StreamSource;
import app.custodex.model.App;
import app.custodex.model.Contact;
import app.custodex.model.KindGroup;
import app.custodex.model.MediaFile.Place;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.DatabaseRows;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Reader;
import app.custodex.readers.files.RouteFiles;
import app.custodex.search.ContactIndex;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.StoredLayer;
import app.custodex.twins.OnlyHere;
import app.custodex.twins.Twins;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.CancellationException;
import java.util.concurrent.locks.ReadWriteLock;
import java.util.concurrent.locks.ReentrantReadWriteLock;
import java.util.function.Function;
import java.util.function.IntConsumer;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * A phone's data, open for reading on somebody's behalf: one layer of it, or the phone itself. Closing it removes what was put on the
 * disk for it.
 */
public final class OpenPhone implements Closeable {
    /** Layers count from 1. */
    private static final int NO_LAYER = 0;

    private final ConsentGate gate;
    private final Mandate mandate;
    private final FileSource source;
    private final PhoneIdentity phone;
    private final Optional<LayerRecord> layer;
    private final List<Problem> left;
    private final PrivatePlace place;
    private final PhoneFiles files;
    private final List<Reader> readers;
    private final Catalogue catalogue;
    private final Supplier<Contacts> contacts;
    private final Supplier<Names> names;
    private final Supplier<SentIn> sentIn;
    private final Outgoing outgoing;
    /** Whoever takes something out holds it; closing waits for them. */
    private final ReadWriteLock inUse = new ReentrantReadWriteLock();

    private boolean closed;

    OpenPhone(
            ConsentGate gate,
            Mandate mandate,
            From from,
            PrivatePlace place,
            PhoneFiles files,
            List<Reader> readers,
            Catalogue catalogue,
            Locale locale) {
        this.gate = gate;
        this.mandate = mandate;
        this.source = from.source();
        this.phone = from.phone();
        this.layer = from.layer();
        this.left = from.left();
        this.place = place;
        this.files = files;
        this.readers = List.copyOf(readers);
        this.catalogue = catalogue;
        this.contacts = Suppliers.once(() -> contacts(locale));
        this.names = Suppliers.once(this::loadNames);
        this.sentIn = Suppliers.once(this::loadSentIn);
        this.outgoing = new Outgoing(this, gate, mandate, source, files);
    }

    /**
     * Where the data comes from.
     *
     * @param layer absent for the phone itself
     * @param left what the phone does not give this way
     */
    record From(FileSource source, PhoneIdentity phone, Optional<LayerRecord> layer, List<Problem> left) {
        static From layer(StoredLayer layer) {
            return new From(layer, layer.record().phone(), Optional.of(layer.record()), List.of());
        }

        /** The same, with archives that count as folders where files lie anywhere. */
        From lookingIntoZips(PrivatePlace place) {
            return phone.family().plain() ? new From(new ZipsInside(source, place), phone, layer, left) : this;
        }

        static From phone(PhoneNow now) {
            return new From(now, now.phone(), Optional.empty(), now.problems());
        }
    }

    /**
     * Reads what is to be kept nowhere: catalogue and databases lie in memory. The source is closed when that fails.
     *
     * @param locale of whoever looks; a source without a country is read in its
     * @param below a catalogue to go on from, of the same country
     */
    static OpenPhone inMemory(
            ConsentGate gate,
            Mandate mandate,
            From from,
            List<Reader> readers,
            Optional<byte[]> below,
            Locale locale,
            ReadingProgress progress,
            CancelToken cancel)
            throws IOException {
        try {
            var place = PrivatePlace.inMemory();
            try (var draft = CatalogueDraft.inMemory(below)) {
                var phone = gate.inCountry(mandate, from.phone()).in(locale);
                var zipped = from.lookingIntoZips(place);
                var files = new PhoneFiles(zipped.source(), phone, place);
                int number = from.layer().map(LayerRecord::number).orElse(NO_LAYER);
                Growth growth = growth(
                        progress,
                        locale,
                        early -> new OpenPhone(gate, mandate, zipped, place, files, readers, early, locale));
                draft.build(
                        CatalogueHead.of(phone.identifier(), number, phone.region()), files, readers, growth, cancel);
                return new OpenPhone(gate, mandate, zipped, place, files, readers, draft.handOver(), locale);
            } catch (IOException | RuntimeException e) {
                place.close();
                throw e;
            }
        } catch (IOException | RuntimeException e) {
            from.source().close();
            throw e;
        }
    }

    /** @param opening opens what is there so far */
    static Growth growth(ReadingProgress progress, Locale locale, Function<Catalogue, OpenPhone> opening) {
        return new Growth() {
            @Override
            public void read(long things) {
                progress.read(things);
            }

            @Override
            public void contacts(List<Contact> contacts) {
                progress.contacts(() -> new ContactIndex(contacts, locale));
            }

            @Override
            public void usable(Catalogue growing) {
                progress.usable(opening.apply(growing));
            }
        };
    }

    /** Whose data it is. */
    public PhoneIdentity phone() {
        return phone;
    }

    /** Which layer it is; empty for the phone itself. */
    public Optional<LayerRecord> layer() {
        return layer;
    }

    /**
     * Compares with an older state of the same phone.
     *
     * @param kinds which are wanted; empty for all
     */
    public Comparison since(OpenPhone older, Set<ThingKind> kinds) throws IOException {
        return Comparison.of(older.catalogue, catalogue, kinds);
    }

    /** Everything in it that was read. */
    public Catalogue catalogue() {
        return catalogue;
    }

    /**
     * What could not be read, or not in full.
     *
     * @param kinds of which things; empty for all
     */
    public List<Problem> problems(Set<ThingKind> kinds) throws IOException {
        var names = readers.stream()
                .filter(reader -> kinds.isEmpty() || !Collections.disjoint(reader.kinds(), kinds))
                .map(Reader::name)
                .collect(Collectors.toSet());
        return Stream.concat(catalogue.problems(names::contains).stream(), left.stream())
                .toList();
    }

    /** All contacts, from A to Z. Takes up to a second the first time. */
    public ContactIndex contacts() {
        return contacts.get().index();
    }

    /** Those contacts, from A to Z. */
    public List<Contact> contacts(long[] numbers) {
        var wanted = new BitSet();
        Arrays.stream(numbers).forEach(number -> wanted.set((int) number));
        return contacts().ascending().stream()
                .filter(contact -> wanted.get(number(contact)))
                .toList();
    }

    /** The number of one of the contacts in the catalogue. */
    public int number(Contact contact) {
        return contacts.get().numbers().getOrDefault(contact.id(), 0);
    }

    private record Contacts(ContactIndex index, Map<ThingId, Integer> numbers) {}

    /** What to call people: by their names in the contacts, where they are there. */
    public Names names() {
        return names.get();
    }

    private Names loadNames() {
        try {
            return catalogue.names();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** In which conversations its files were sent or came. Takes up to a second the first time. */
    public SentIn sentIn() {
        return sentIn.get();
    }

    private SentIn loadSentIn() {
        try {
            return catalogue.sentIn();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private Contacts contacts(Locale locale) {
        Thread.startVirtualThread(() -> ContactIndex.prepare(locale));
        try {
            var all = new ArrayList<Contact>();
            var numbers = new HashMap<ThingId, Integer>();
            catalogue.forEach(catalogue.find(Filter.EVERYTHING.of(ThingKind.CONTACT), Order.AS_KEPT), entry -> {
                all.add((Contact) entry.thing());
                numbers.put(entry.thing().id(), (int) entry.number());
            });
            return new Contacts(new ContactIndex(all, locale), numbers);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The picture that goes with a thing and lies in its store, such as a contact's photo; empty when there is none. */
    Optional<byte[]> picture(ThingId id) throws IOException {
        var names = catalogue.readersOf(id.item());
        for (var reader : readers) {
            if (names.contains(reader.name())) {
                var picture = reader.picture(id, files);
                if (picture.isPresent()) {
                    return picture;
                }
            }
        }
        return Optional.empty();
    }

    /**
     * A contact's photo, as it was stored; empty when there is none.
     *
     * @throws CancellationException when this was closed meanwhile
     */
    public Optional<byte[]> photo(Contact contact) throws IOException {
        return look(() -> contact.hasPhoto() ? picture(contact.id()) : Optional.empty());
    }

    /**
     * The beginning of an item, to look at; whoever opened this may read it.
     *
     * @param most bytes
     * @throws CancellationException when this was closed meanwhile
     */
    public byte[] beginning(String item, int most) throws IOException {
        return look(() -> {
            try (var in = source.open(new PhonePath(item))) {
                return in.readNBytes(most);
            }
        });
    }

    /**
     * An item to show or play; whoever opened this may look at it. Reading from it fails with a {@link CancellationException} when this was
     * closed meanwhile.
     */
    public MediaSource media(String item) throws IOException {
        var path = new PhonePath(item);
        long size = look(() -> source.facts(path).bytes());
        var content = new StreamSource(size, () -> source.open(path));
        return new MediaSource() {
            @Override
            public long size() {
                return size;
            }

            @Override
            public int read(long position, ByteBuffer into) throws IOException {
                return look(() -> content.read(position, into));
            }

            @Override
            public void close() throws IOException {
                content.close();
            }
        };
    }

    /** Where somebody went, by the item of a route; see {@link RouteFiles#way}. */
    public List<List<Place>> way(String item, int most) throws IOException {
        return look(() -> {
            try (var in = source.open(new PhonePath(item))) {
                return RouteFiles.way(in, most);
            }
        });
    }

    /** Looks for what is in it more than once; see {@link Twins#search}. */
    public void twins(Twins.Listener listener, CancelToken cancel) throws IOException {
        Twins.search(catalogue, this::content, this::media, listener, cancel);
    }

    /** Looks which of its files their owner still has elsewhere; see {@link OnlyHere#of}. */
    public OnlyHere.Result onlyHere(Path elsewhere, IntConsumer progress, CancelToken cancel) throws IOException {
        return OnlyHere.of(catalogue, this::content, elsewhere, progress, cancel);
    }

    private InputStream content(String item) throws IOException {
        return look(() -> source.open(new PhonePath(item)));
    }

    /** All files in it, in the order of their paths. */
    public List<Item> items() throws IOException {
        return look(() -> {
            var items = new ArrayList<Item>();
            for (var path : source.in(PhonePath.ROOT)) {
                var facts = source.facts(path);
                items.add(new Item(path, facts.bytes(), facts.modified()));
            }
            return items;
        });
    }

    /** The names of apps, by the folders in which their data lies. */
    public Map<PhonePath, String> appFolders() throws IOException {
        var folders = new TreeMap<PhonePath, String>();
        catalogue.forEach(catalogue.find(Filter.EVERYTHING.of(ThingKind.APP), Order.AS_KEPT), entry -> {
            if (entry.thing() instanceof App app) {
                PhonePath.parse(app.folder())
                        .filter(folder -> !folder.equals(PhonePath.ROOT))
                        .ifPresent(folder -> folders.put(folder, app.title()));
            }
        });
        return folders;
    }

    /** The names of the tables and views of a database. */
    public List<String> tables(PhonePath database) throws IOException {
        return look(() -> files.database(database).tableNames());
    }

    /**
     * Asks a database in SQL; see {@link app.custodex.readers.PhoneDatabase#ask}.
     *
     * @param most rows that are read
     */
    public DatabaseRows ask(PhonePath database, String sql, int most) throws IOException {
        return look(() -> files.database(database).ask(sql, most));
    }

    /** Looks at what is open. */
    interface Look<T> {
        T look() throws IOException;
    }

    /** Somebody who looks may be late: what is looked at may be closed by now; while they look it is not. */
    <T> T look(Look<T> look) throws IOException {
        inUse.readLock().lock();
        try {
            if (closed) {
                throw new CancellationException("it was closed meanwhile");
            }
            return look.look();
        } finally {
            inUse.readLock().unlock();
        }
    }

    /**
     * To be asked before anything in it goes on paper.
     *
     * @throws app.custodex.base.ProblemException when the customer's consent was withdrawn
     */
    public void askToPrint() throws IOException {
        gate.ask(Operation.PRINT, mandate, phone);
    }

    /** The groups in which things are written, and which things are in each; see {@link Extraction#groups}. */
    public Map<KindGroup, long[]> groups(BitSet picked) throws IOException {
        return Extraction.groups(catalogue, picked);
    }

    /** What leaves the strongroom. */
    public Outgoing outgoing() {
        return outgoing;
    }

    /** Waits until whatever is being taken out of it is out, or was stopped. */
    @Override
    public void close() throws IOException {
        inUse.writeLock().lock();
        try (source;
                place;
                files;
                catalogue) {
            closed = true; // then in the order catalogue, files, place, source
        } finally {
            inUse.writeLock().unlock();
        }
    }
}
