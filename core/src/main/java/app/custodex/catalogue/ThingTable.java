package app.custodex.catalogue;

import app.custodex.base.Json;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.exchange.ThingJson;
import app.custodex.model.Conversation;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import app.custodex.search.Asked;
import java.io.Closeable;
import java.io.IOException;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Types;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Writes things into a catalogue; those that are there already, and are as they were, are left alone. One thread uses it. */
final class ThingTable implements Closeable {
    private static final String INSERT = "INSERT INTO thing (id, store, key, kind, at, day, within, account, outgoing,"
            + " attached, who, title, digest, bytes, seconds, shelf, traits, shape, place) VALUES (?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?,?)";

    /** Rows read for one batch: far more than it has keys, so that a database which gives everything the same key costs no more. */
    private static final int MOST_AT_ONCE = 1_024;

    private final Connection db;
    private final Map<String, Long> addresses = new HashMap<>();
    private final Map<String, Long> traitSets = new HashMap<>();
    private final Set<Long> kept = new HashSet<>();
    private final PreparedStatement insert;
    private final PreparedStatement insertBody;
    private final PreparedStatement insertPart;
    private final PreparedStatement insertAddress;
    private final PreparedStatement putStore;
    private final PreparedStatement find;
    private final Map<StoreName, Stores.StoreRow> stores = new HashMap<>();
    private final WordIndex words;
    private final List<Spine.Row> added = new ArrayList<>();
    private final BitSet removed = new BitSet();
    private long lastThing;
    private long lastStore;
    private long lastAddress;

    private record StoreName(String reader, String name) {}

    /** A store that is being read. */
    static final class OpenStore {
        private final long id;
        private final StoreName name;
        /** Whether a layer below had it, so that each thing is looked for first. */
        private final boolean known;

        private final BitSet seen = new BitSet();
        private final Map<String, Long> conversations = new HashMap<>();
        private final Map<Long, Long> soleMembers = new HashMap<>();

        OpenStore(long id, StoreName name, boolean known) {
            this.id = id;
            this.name = name;
            this.known = known;
        }

        private void seen(long thing) {
            if (known) {
                seen.set((int) thing);
            }
        }
    }

    ThingTable(Connection db, WordIndex words) throws SQLException {
        this.db = db;
        this.words = words;
        lastThing = number("SELECT coalesce(max(id), 0) FROM thing");
        lastAddress = number("SELECT coalesce(max(id), 0) FROM address");
        if (lastThing > 0) {
            Schema.index(db);
        }
        insert = db.prepareStatement(INSERT);
        insertBody = db.prepareStatement("INSERT INTO body VALUES (?, ?)");
        insertPart = db.prepareStatement("INSERT OR IGNORE INTO part VALUES (?, ?)");
        insertAddress = db.prepareStatement("INSERT INTO address (id, text, digits) VALUES (?, ?, ?)");
        putStore = db.prepareStatement("INSERT INTO store (id, reader, name, version, problems) VALUES (?, ?, ?, ?, ?)"
                + " ON CONFLICT (id) DO UPDATE SET version = excluded.version, problems = excluded.problems");
        find = db.prepareStatement("SELECT key, id, digest, kind FROM thing"
                + " WHERE store = ? AND key IN (SELECT value FROM json_each(?)) ORDER BY key, digest, kind LIMIT "
                + MOST_AT_ONCE);
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

    /** Begins to take the things of a store. {@link #tell} writes its row, which has to be there before its things are looked up. */
    OpenStore begin(String reader, String name) {
        var of = new StoreName(reader, name);
        var there = stores.get(of);
        if (there != null) {
            return new OpenStore(there.id(), of, true);
        }
        long id = ++lastStore;
        kept.add(id);
        return new OpenStore(id, of, false);
    }

    /**
     * Writes what is known of a store, in place of what was known before.
     *
     * @param version empty while it is being read
     * @param problems as JSON
     */
    void tell(OpenStore store, String version, byte[] problems) throws SQLException {
        putStore.setLong(1, store.id);
        putStore.setString(2, store.name.reader());
        putStore.setString(3, store.name.name());
        putStore.setString(4, version);
        putStore.setBytes(5, problems);
        putStore.executeUpdate();
    }

    /**
     * Writes things of a store. Those that have not changed since the layer below are left alone.
     *
     * @return what is new
     */
    List<Entry> put(OpenStore store, List<Filed> things) throws SQLException, IOException {
        var written = new ArrayList<Entry>(things.size());
        var there = store.known ? there(store, things) : new HashMap<String, Row>();
        for (var filed : things) {
            var row = there.remove(filed.thing().id().key());
            if (row == null) {
                insert(store, filed, ++lastThing);
                written.add(new Entry(lastThing, filed.thing()));
                store.seen(lastThing);
                remember(store, filed.thing(), lastThing);
                continue;
            }
            if (row.digest() != filed.digest()
                    || row.kind() != filed.thing().kind().ordinal()) {
                remove(row.id());
                insert(store, filed, row.id());
            }
            store.seen(row.id());
            remember(store, filed.thing(), row.id());
        }
        for (var batch : List.of(insert, insertBody, insertPart)) {
            batch.executeBatch();
        }
        words.endBatch();
        return written;
    }

    /** What a layer below had under a key. */
    private record Row(long id, long digest, int kind) {}

    /**
     * What the layer below had under the keys of these things. One query for all of them, because a query for each takes longer than
     * everything else. Where a foreign database uses a key more than once, one row is found and the others are written again.
     */
    private Map<String, Row> there(OpenStore store, List<Filed> things) throws SQLException, IOException {
        var keys = things.stream().map(filed -> filed.thing().id().key()).toList();
        find.setLong(1, store.id);
        find.setString(2, Json.LINE.writeValueAsString(keys));
        var there = new HashMap<String, Row>();
        try (var rows = find.executeQuery()) {
            while (rows.next()) {
                if (!store.seen.get(rows.getInt(2))) {
                    there.putIfAbsent(rows.getString(1), new Row(rows.getLong(2), rows.getLong(3), rows.getInt(4)));
                }
            }
        }
        return there;
    }

    private void insert(OpenStore store, Filed filed, long id) throws SQLException, IOException {
        var thing = filed.thing();
        var columns = filed.columns();
        var people = addressIds(columns.addresses());
        var within = thing.within().flatMap(of -> Optional.ofNullable(store.conversations.get(of.key())));
        var who = people.isEmpty()
                ? within.flatMap(of -> Optional.ofNullable(store.soleMembers.get(of)))
                : Optional.of(people.getFirst());
        insert.setLong(1, id);
        insert.setLong(2, store.id);
        insert.setString(3, thing.id().key());
        insert.setInt(4, thing.kind().ordinal());
        setOrNull(insert, 5, columns.at());
        setOrNull(insert, 6, columns.day());
        setOrNull(insert, 7, within);
        insert.setString(8, thing.account());
        setOrNull(insert, 9, thing.outgoing().map(out -> out ? 1L : 0L));
        insert.setInt(10, thing.attachments().size());
        setOrNull(insert, 11, who);
        insert.setString(12, columns.title());
        insert.setLong(13, filed.digest());
        insert.setLong(14, thing.bytes());
        insert.setLong(15, columns.seconds());
        insert.setString(16, columns.shelf());
        long traits = traitSet(columns.traits());
        insert.setLong(17, traits);
        setOrNull(insert, 18, columns.shape());
        setOrNull(insert, 19, columns.place());
        insert.addBatch();
        insertBody.setLong(1, id);
        insertBody.setBytes(2, filed.body());
        insertBody.addBatch();
        words.add((int) id, columns.words());
        added.add(Spine.Row.of(
                (int) id, columns.at(), columns.day(), thing.kind().ordinal(), thing.bytes(), (int) traits, who));
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
    private void remove(long id) throws SQLException, IOException {
        removed.set((int) id);
        try (var query =
                db.prepareStatement("SELECT kind, store.name, json FROM thing JOIN body ON body.thing = thing.id"
                        + " JOIN store ON store.id = thing.store WHERE thing.id = ?")) {
            query.setLong(1, id);
            try (var rows = query.executeQuery()) {
                if (rows.next()) {
                    var thing = ThingJson.read(ThingKind.values()[rows.getInt(1)], rows.getString(2), rows.getBytes(3));
                    words.remove((int) id, Filed.Words.of(thing));
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

    /** Ends a store: what it no longer holds goes. */
    void end(OpenStore store) throws SQLException, IOException {
        if (store.known) {
            for (long id : things(store.id)) {
                if (!store.seen.get((int) id)) {
                    remove(id);
                }
            }
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
            for (long thing : things(store)) {
                remove(thing);
            }
            try (var statement = db.createStatement()) {
                statement.executeUpdate("DELETE FROM store WHERE id = " + store);
            }
        }
    }

    /** All things in the order of time. */
    Spine spine() throws SQLException {
        return Spine.changed(db, removed, added);
    }

    private List<Long> things(long store) throws SQLException {
        var things = new ArrayList<Long>();
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id FROM thing WHERE store = " + store)) {
            while (rows.next()) {
                things.add(rows.getLong(1));
            }
        }
        return things;
    }

    @Override
    public void close() throws IOException {
        try (insert;
                insertBody;
                insertPart;
                insertAddress;
                putStore;
                find) {
            // Closed in turn.
        } catch (SQLException e) {
            throw new IOException(e);
        }
    }
}
