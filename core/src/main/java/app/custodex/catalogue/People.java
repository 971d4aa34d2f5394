package app.custodex.catalogue;

import app.custodex.catalogue.Catalogue.Person;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Types;
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

    void assign() throws SQLException {
        var contacts = new HashMap<Long, Long>();
        try (var statement = db.createStatement()) {
            // Addresses of one contact are one person's.
            try (var rows = statement.executeQuery(
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
            statement.executeUpdate("DELETE FROM person");
            statement.executeUpdate("UPDATE address SET person = NULL");
        }
        var persons = new HashMap<Long, Long>();
        try (var add = db.prepareStatement("INSERT INTO person (id, contact, name) VALUES (?, ?, ?)")) {
            addContacts(persons, contacts, add);
            addOthers(persons, add);
        }
        assignAddresses(persons);
    }

    private void addContacts(Map<Long, Long> persons, Map<Long, Long> contacts, PreparedStatement add)
            throws SQLException {
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id, title FROM thing WHERE kind = 0 ORDER BY id")) {
            while (rows.next()) {
                var who = contacts.get(rows.getLong(1));
                if (who != null && persons.containsKey(leader(who))) {
                    continue; // the same person once more
                }
                long person = persons.size() + 1L;
                persons.put(who == null ? -rows.getLong(1) : leader(who), person);
                add.setLong(1, person);
                add.setLong(2, rows.getLong(1));
                add.setString(3, rows.getString(2));
                add.executeUpdate();
            }
        }
    }

    private void addOthers(Map<Long, Long> persons, PreparedStatement add) throws SQLException {
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT id, text FROM address ORDER BY id")) {
            while (rows.next()) {
                long leader = leader(rows.getLong(1));
                if (persons.containsKey(leader)) {
                    continue;
                }
                long person = persons.size() + 1L;
                persons.put(leader, person);
                add.setLong(1, person);
                add.setNull(2, Types.INTEGER);
                add.setString(3, rows.getString(2).replaceFirst("^name:[^:]*:", ""));
                add.executeUpdate();
            }
        }
    }

    private void assignAddresses(Map<Long, Long> persons) throws SQLException {
        try (var statement = db.createStatement();
                var update = db.prepareStatement("UPDATE address SET person = ? WHERE id = ?");
                var rows = statement.executeQuery("SELECT id FROM address")) {
            while (rows.next()) {
                var person = persons.get(leader(rows.getLong(1)));
                if (person != null) {
                    update.setLong(1, person);
                    update.setLong(2, rows.getLong(1));
                    update.executeUpdate();
                }
            }
        }
    }
}
