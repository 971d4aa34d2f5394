package app.custodex.catalogue;

import app.custodex.catalogue.Catalogue.Person;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Works out who is who: contacts that share a number, a mail address or a name in a chat service are one person, and whoever has no
 * contact is a person too. Nobody is matched by a name alone.
 */
final class People {
    private final Connection db;
    private final Map<Long, Long> leaders = new HashMap<>();
    /** The first address of each contact that has any. */
    private final Map<Long, Long> contacts = new HashMap<>();

    People(Connection db) {
        this.db = db;
    }

    /** Everybody, as they were worked out. */
    static List<Person> load(Connection db) throws SQLException {
        var people = new ArrayList<Person>();
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT person.id, person.name, person.contact IS NOT NULL,"
                        + " group_concat(address.text, char(10)) FROM person"
                        + " LEFT JOIN address ON address.person = person.id GROUP BY person.id ORDER BY person.id")) {
            while (rows.next()) {
                var addresses = Optional.ofNullable(rows.getString(4)).orElse("");
                people.add(new Person(
                        rows.getLong(1),
                        rows.getString(2),
                        rows.getBoolean(3),
                        addresses.lines().toList()));
            }
        }
        return List.copyOf(people);
    }

    private long leader(long address) {
        long at = address;
        while (true) {
            long above = leaders.getOrDefault(at, at);
            if (above == at) {
                leaders.put(address, at);
                return at;
            }
            at = above;
        }
    }

    private void join(long one, long other) {
        leaders.put(leader(one), leader(other));
    }

    /** Writes what is not as it was written before. */
    void assign() throws SQLException {
        joinAddressesOfContacts();
        var people = new Found();
        addContacts(people);
        addOthers(people);
        writePeople(people);
        writeAddresses(people);
    }

    /**
     * A row.
     *
     * @param contact 0 for none
     */
    private record Row(long contact, String name) {}

    /** Everybody, numbered from 1; and their numbers by the addresses that lead. */
    private record Found(List<Row> rows, Map<Long, Long> byLeader) {
        Found() {
            this(new ArrayList<>(), new HashMap<>());
        }

        void add(long leader, Row row) {
            rows.add(row);
            byLeader.put(leader, (long) rows.size());
        }
    }

    private void joinAddressesOfContacts() throws SQLException {
        try (var statement = db.createStatement();
                var rows = statement.executeQuery(
                        "SELECT thing.id, thing.who, part.address FROM thing LEFT JOIN part ON part.thing = thing.id"
                                + " WHERE kind = 0 AND who IS NOT NULL ORDER BY thing.id")) {
            while (rows.next()) {
                long who = rows.getLong(2);
                contacts.put(rows.getLong(1), who);
                long more = rows.getLong(3);
                if (!rows.wasNull()) {
                    join(more, who);
                }
            }
        }
    }

    private void addContacts(Found people) throws SQLException {
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id, title FROM thing WHERE kind = 0 ORDER BY id")) {
            while (rows.next()) {
                var who = contacts.get(rows.getLong(1));
                if (who != null && people.byLeader().containsKey(leader(who))) {
                    continue; // the same person once more
                }
                people.add(who == null ? -rows.getLong(1) : leader(who), new Row(rows.getLong(1), rows.getString(2)));
            }
        }
    }

    private void addOthers(Found people) throws SQLException {
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id, text FROM address ORDER BY id")) {
            while (rows.next()) {
                long leader = leader(rows.getLong(1));
                if (!people.byLeader().containsKey(leader)) {
                    people.add(leader, new Row(0, rows.getString(2).replaceFirst("^name:[^:]*:", "")));
                }
            }
        }
    }

    private void writePeople(Found people) throws SQLException {
        var before = new ArrayList<Row>();
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT contact, name FROM person ORDER BY id")) {
            while (rows.next()) {
                before.add(new Row(rows.getLong(1), rows.getString(2)));
            }
        }
        if (before.equals(people.rows())) {
            return;
        }
        try (var statement = db.createStatement();
                var add = db.prepareStatement("INSERT INTO person (id, contact, name) VALUES (?, nullif(?, 0), ?)")) {
            statement.executeUpdate("DELETE FROM person");
            for (int i = 0; i < people.rows().size(); i++) {
                add.setLong(1, i + 1L);
                add.setLong(2, people.rows().get(i).contact());
                add.setString(3, people.rows().get(i).name());
                add.addBatch();
            }
            add.executeBatch();
        }
    }

    private void writeAddresses(Found people) throws SQLException {
        try (var statement = db.createStatement();
                var update = db.prepareStatement("UPDATE address SET person = ? WHERE id = ?");
                var rows = statement.executeQuery("SELECT id, person FROM address")) {
            while (rows.next()) {
                long address = rows.getLong(1);
                var person = people.byLeader().get(leader(address));
                if (person != null && person != rows.getLong(2)) {
                    update.setLong(1, person);
                    update.setLong(2, address);
                    update.addBatch();
                }
            }
            update.executeBatch();
        }
    }
}
