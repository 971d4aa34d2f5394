package app.custodex.catalogue;

import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.exchange.ThingJson;
import app.custodex.model.Conversation;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import app.custodex.search.Asked;
import java.io.Closeable;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Types;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/** Writes things into a catalogue; those that are there already, and are as they were, are left alone. One thread uses it. */
final class ThingTable implements Closeable {
    /** What is said of every thing, and what most do not have: to hand over each value takes about as long as to write it. */
    private static final List<String> COMMON = List.of(
            "id", "store", "key", "kind", "at", "day", "within", "outgoing", "attached", "who", "digest", "traits");

    private static final List<String> RARE = List.of("account", "title", "bytes", "seconds", "shelf", "shape", "place");

    private static final byte[] NO_PROBLEMS = "[]".getBytes(StandardCharsets.UTF_8);

    private final Connection db;
    private final Map<String, Long> addresses = new HashMap<>();
    private final Map<String, Long> traitSets = new HashMap<>();
    private final Set<Long> kept = new HashSet<>();
    private final PreparedStatement insertCommon;
    private final PreparedStatement insertAll;
    private final PreparedStatement insertBody;
    private final PreparedStatement insertPart;
    private final PreparedStatement insertAddress;
    private final PreparedStatement putStore;
    private final PreparedStatement knownThings;
    private final Map<StoreName, Stores.StoreRow> stores = new HashMap<>();
    private final WordIndex words;
    private final List<Spine.Row> added = new ArrayList<>();
    private final BitSet removed = new BitSet();
    private int lastThing;
    private long lastStore;
    private long lastAddress;

    private record StoreName(String reader, String name) {}

    /** A store that is being read. */
    static final class OpenStore {
        private final long id;
        private final StoreName name;
        /** What a layer below had in it. */
        private final KnownThings known;

        private final KnownThings.Writer holds = new KnownThings.Writer();
        private final Map<String, Long> conversations = new HashMap<>();
        private final Map<Long, Long> soleMembers = new HashMap<>();

        OpenStore(long id, StoreName name, KnownThings known) {
            this.id = id;
            this.name = name;
            this.known = known;
        }
    }

    ThingTable(Connection db, WordIndex words) throws SQLException {
        this.db = db;
        this.words = words;
        lastThing = (int) number("SELECT coalesce(max(id), 0) FROM thing");
        lastAddress = number("SELECT coalesce(max(id), 0) FROM address");
        insertCommon = db.prepareStatement(insertion(COMMON));
        insertAll = db.prepareStatement(
                insertion(Stream.concat(COMMON.stream(), RARE.stream()).toList()));
        insertBody = db.prepareStatement("INSERT INTO body VALUES (?, ?)");
        insertPart = db.prepareStatement("INSERT OR IGNORE INTO part VALUES (?, ?)");
        insertAddress = db.prepareStatement("INSERT INTO address (id, text, digits) VALUES (?, ?, ?)");
        putStore = db.prepareStatement(
                "INSERT INTO store (id, reader, name, version, problems, things) VALUES (?, ?, ?, ?, ?, ?) ON CONFLICT (id) DO"
                        + " UPDATE SET version = excluded.version, problems = excluded.problems, things = excluded.things");
        knownThings = db.prepareStatement("SELECT things FROM store WHERE id = ?");
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id, text FROM address")) {
            while (rows.next()) {
                addresses.put(rows.getString(2), rows.getLong(1));
            }
        }
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT reader, name, id, version FROM store")) {
            while (rows.next()) {
                stores.put(
                        new StoreName(rows.getString(1), rows.getString(2)),
                        new Stores.StoreRow(rows.getLong(3), rows.getString(4)));
                lastStore = Math.max(lastStore, rows.getLong(3));
            }
        }
    }

    private static String insertion(List<String> columns) {
        return "INSERT INTO thing (" + String.join(", ", columns) + ") VALUES ("
                + String.join(", ", Collections.nCopies(columns.size(), "?")) + ")";
    }

    private long number(String sql) throws SQLException {
        try (var statement = db.createStatement();
                var rows = statement.executeQuery(sql)) {
            rows.next();
            return rows.getLong(1);
        }
    }

    /** Whether there is nothing in it yet. */
    boolean isEmpty() {
        return lastThing == 0;
    }

    /** Whether a layer below had this store. */
    boolean isKnown(String reader, String name) {
        return stores.containsKey(new StoreName(reader, name));
    }

    /** Whether a store was read as it is now. */
    boolean isCurrent(String reader, String name, String version) {
        var there = stores.get(new StoreName(reader, name));
        if (there == null) {
            return false;
        }
        kept.add(there.id());
        return version.equals(there.version());
    }

    /** Begins to take the things of a store. Until it is ended it counts as not read. */
    OpenStore begin(String reader, String name) throws SQLException {
        var of = new StoreName(reader, name);
        var there = stores.get(of);
        if (there != null) {
            return new OpenStore(there.id(), of, knownThings(there.id()));
        }
        long id = ++lastStore;
        kept.add(id);
        return new OpenStore(id, of, KnownThings.none());
    }

    private KnownThings knownThings(long store) throws SQLException {
        knownThings.setLong(1, store);
        try (var rows = knownThings.executeQuery()) {
            return rows.next() ? KnownThings.read(rows.getBytes(1)) : KnownThings.none();
        }
    }

    /** Writes that a store is being read. */
    void tell(OpenStore store) throws SQLException {
        tell(store, "", NO_PROBLEMS, new byte[0]);
    }

    private void tell(OpenStore store, String version, byte[] problems, byte[] things) throws SQLException {
        putStore.setLong(1, store.id);
        putStore.setString(2, store.name.reader());
        putStore.setString(3, store.name.name());
        putStore.setString(4, version);
        putStore.setBytes(5, problems);
        putStore.setBytes(6, things);
        putStore.executeUpdate();
    }

    /**
     * Writes things of a store. Those that have not changed since the layer below are left alone.
     *
     * @return what is new
     */
    List<Entry> put(OpenStore store, List<Filed> things) throws SQLException, IOException {
        var written = new ArrayList<Entry>(things.size());
        for (var filed : things) {
            var place = store.known.take(filed);
            int number = place.isPresent() ? store.known.number(place.getAsInt()) : ++lastThing;
            if (place.isEmpty()) {
                insert(store, filed, number);
                written.add(new Entry(number, filed.thing()));
            } else if (!store.known.isAsItWas(place.getAsInt(), filed)) {
                remove(number);
                insert(store, filed, number);
            }
            store.holds.add(filed, number);
            remember(store, filed.thing(), number);
        }
        for (var batch : List.of(insertCommon, insertAll, insertBody, insertPart)) {
            batch.executeBatch();
        }
        words.endBatch();
        return written;
    }

    private void insert(OpenStore store, Filed filed, int id) throws SQLException, IOException {
        var thing = filed.thing();
        var columns = filed.columns();
        var people = addressIds(columns.addresses());
        var within = thing.within().flatMap(of -> Optional.ofNullable(store.conversations.get(of.key())));
        var who = people.isEmpty()
                ? within.flatMap(of -> Optional.ofNullable(store.soleMembers.get(of)))
                : Optional.of(people.getFirst());
        long traits = traitSet(columns.traits());
        boolean rare = columns.rare(thing);
        var insert = rare ? insertAll : insertCommon;
        insert.setLong(1, id);
        insert.setLong(2, store.id);
        insert.setString(3, thing.id().key());
        insert.setInt(4, thing.kind().ordinal());
        setOrNull(insert, 5, columns.at());
        setOrNull(insert, 6, columns.day());
        setOrNull(insert, 7, within);
        setOrNull(insert, 8, thing.outgoing().map(out -> out ? 1L : 0L));
        insert.setInt(9, thing.attachments().size());
        setOrNull(insert, 10, who);
        insert.setLong(11, filed.digest());
        insert.setLong(12, traits);
        if (rare) {
            insert.setString(13, thing.account());
            insert.setString(14, columns.title());
            insert.setLong(15, thing.bytes());
            insert.setLong(16, columns.seconds());
            insert.setString(17, columns.shelf());
            setOrNull(insert, 18, columns.shape());
            setOrNull(insert, 19, columns.place());
        }
        insert.addBatch();
        insertBody.setLong(1, id);
        insertBody.setBytes(2, filed.body());
        insertBody.addBatch();
        words.add(id, columns.words());
        added.add(Spine.Row.of(
                id, columns.at(), columns.day(), thing.kind().ordinal(), thing.bytes(), (int) traits, who));
        for (var more : people) {
            if (!who.equals(Optional.of(more))) {
                insertPart.setLong(1, id);
                insertPart.setLong(2, more);
                insertPart.addBatch();
            }
        }
    }

    /** @param traits as {@link Traits#write} */
    private long traitSet(String traits) throws SQLException {
        var known = traitSets.get(traits);
        if (known != null) {
            return known;
        }
        // A layer below may have had it.
        try (var add = db.prepareStatement("INSERT OR IGNORE INTO trait_set (traits) VALUES (?)");
                var find = db.prepareStatement("SELECT id FROM trait_set WHERE traits = ?")) {
            add.setString(1, traits);
            add.executeUpdate();
            find.setString(1, traits);
            try (var rows = find.executeQuery()) {
                rows.next();
                traitSets.put(traits, rows.getLong(1));
                return rows.getLong(1);
            }
        }
    }

    private static void setOrNull(PreparedStatement statement, int place, Optional<Long> number) throws SQLException {
        if (number.isPresent()) {
            statement.setLong(place, number.get());
        } else {
            statement.setNull(place, Types.INTEGER);
        }
    }

    /** Messages come behind the conversation that they are in. */
    private void remember(OpenStore store, Thing thing, long id) throws SQLException {
        if (thing instanceof Conversation conversation) {
            store.conversations.put(thing.id().key(), id);
            var members = Addresses.in(conversation);
            if (!conversation.group() && members.size() == 1) {
                store.soleMembers.put(id, addressId(members.iterator().next()));
            }
        }
    }

    private List<Long> addressIds(Set<String> texts) throws SQLException {
        var ids = new ArrayList<Long>(texts.size());
        for (var text : texts) {
            ids.add(addressId(text));
        }
        return ids;
    }

    private long addressId(String text) throws SQLException {
        var known = addresses.get(text);
        if (known != null) {
            return known;
        }
        long id = ++lastAddress;
        insertAddress.setLong(1, id);
        insertAddress.setString(2, text);
        insertAddress.setString(3, text.chars().anyMatch(Character::isLetter) ? "" : Asked.digits(text));
        insertAddress.executeUpdate();
        addresses.put(text, id);
        return id;
    }

    /** Removes what a layer below had. */
    private void remove(int id) throws SQLException, IOException {
        removed.set(id);
        try (var query =
                db.prepareStatement("SELECT kind, store.name, json FROM thing JOIN body ON body.thing = thing.id"
                        + " JOIN store ON store.id = thing.store WHERE thing.id = ?")) {
            query.setLong(1, id);
            try (var rows = query.executeQuery()) {
                if (rows.next()) {
                    var thing = ThingJson.read(ThingKind.values()[rows.getInt(1)], rows.getString(2), rows.getBytes(3));
                    words.remove(id, Filed.Words.of(thing));
                }
            }
        }
        for (var table : List.of("thing WHERE id", "body WHERE thing", "part WHERE thing")) {
            try (var delete = db.prepareStatement("DELETE FROM " + table + " = ?")) {
                delete.setLong(1, id);
                delete.executeUpdate();
            }
        }
    }

    /**
     * Ends a store: what it no longer holds goes.
     *
     * @param version in which it was read
     * @param problems what could not be read in it
     */
    void end(OpenStore store, String version, List<Problem> problems) throws SQLException, IOException {
        removeLeft(store.known);
        tell(
                store,
                version,
                problems.isEmpty() ? NO_PROBLEMS : Json.LINE.writeValueAsBytes(problems),
                store.holds.written());
    }

    private void removeLeft(KnownThings known) throws SQLException, IOException {
        for (int gone : known.left()) {
            remove(gone);
        }
    }

    /** Drops the things of stores that are no longer there. */
    void forgetOtherStores() throws SQLException, IOException {
        var gone = new ArrayList<Long>();
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id FROM store")) {
            while (rows.next()) {
                if (!kept.contains(rows.getLong(1))) {
                    gone.add(rows.getLong(1));
                }
            }
        }
        for (long store : gone) {
            removeLeft(knownThings(store));
            try (var statement = db.createStatement()) {
                statement.executeUpdate("DELETE FROM store WHERE id = " + store);
            }
        }
    }

    /** All things in the order of time. */
    Spine spine() throws SQLException {
        return Spine.changed(db, removed, added);
    }

    @Override
    public void close() throws IOException {
        try (insertCommon;
                insertAll;
                insertBody;
                insertPart;
                insertAddress;
                putStore;
                knownThings) {
            // Closed in turn.
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }
}
