package app.custodex.catalogue;

import app.custodex.catalogue.Catalogue.InTouch;
import app.custodex.catalogue.Catalogue.Person;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;

/** Who is in which things, and on which days: answered from memory, since to ask the rows takes a second with some hundred thousand. */
final class TouchDays {
    private final Spine spine;
    /** The number of the person, by that of an address; 0 for nobody. */
    private final int[] personOf;
    /** Who else is in things: an address each, ordered by the thing. */
    private final int[] addresses;
    /** Where those of a thing begin, by its number; they end where those of the next begin. */
    private final int[] begins;

    private TouchDays(Spine spine, int[] personOf, int[] addresses, int[] begins) {
        this.spine = spine;
        this.personOf = personOf;
        this.addresses = addresses;
        this.begins = begins;
    }

    static TouchDays load(Connection db, Spine spine) throws SQLException {
        var personOf = new int[last(db, "SELECT max(id) FROM address") + 1];
        var begins =
                new int[Math.max(last(db, "SELECT max(thing) FROM part"), last(db, "SELECT max(id) FROM thing")) + 2];
        var addresses = new int[last(db, "SELECT count(*) FROM part")];
        try (var statement = db.createStatement()) {
            try (var rows = statement.executeQuery("SELECT id, person FROM address WHERE person IS NOT NULL")) {
                while (rows.next()) {
                    personOf[rows.getInt(1)] = rows.getInt(2);
                }
            }
            try (var rows = statement.executeQuery("SELECT thing, address FROM part ORDER BY thing")) {
                for (int n = 0; rows.next(); n++) {
                    begins[rows.getInt(1) + 1] = n + 1;
                    addresses[n] = rows.getInt(2);
                }
            }
        }
        for (int i = 1; i < begins.length; i++) {
            begins[i] = Math.max(begins[i], begins[i - 1]); // things without any
        }
        return new TouchDays(spine, personOf, addresses, begins);
    }

    private static int last(Connection db, String select) throws SQLException {
        try (var statement = db.createStatement();
                var rows = statement.executeQuery(select)) {
            return rows.next() ? rows.getInt(1) : 0;
        }
    }

    /** The numbers of all things that somebody is in. */
    BitSet things(long person) {
        var things = new BitSet();
        for (int place = 0; place < spine.size(); place++) {
            int number = spine.number(place);
            boolean in = personOf[spine.who(place)] == person;
            for (int i = begins[number]; !in && i < begins[number + 1]; i++) {
                in = personOf[addresses[i]] == person;
            }
            if (in) {
                things.set(number);
            }
        }
        return things;
    }

    /** Counts of one person, which come in the order of time. */
    private static final class Days {
        private int lastPlace = -1;
        private int[] days = new int[8];
        private int[] things = new int[8];
        private int size;

        /** Once a thing, however many addresses of theirs are in it. */
        void add(int place, int day) {
            if (place == lastPlace) {
                return;
            }
            lastPlace = place;
            if (size > 0 && days[size - 1] == day) {
                things[size - 1]++;
                return;
            }
            if (size == days.length) {
                days = Arrays.copyOf(days, 2 * size);
                things = Arrays.copyOf(things, 2 * size);
            }
            days[size] = day;
            things[size++] = 1;
        }

        InTouch of(Person person) {
            return new InTouch(person, Arrays.copyOf(days, size), Arrays.copyOf(things, size));
        }
    }

    /** Everybody who is in something with a date, in the order of the people. */
    List<InTouch> of(List<Person> people) {
        var byPerson = new Days[Arrays.stream(personOf).max().orElse(0) + 1];
        Arrays.setAll(byPerson, person -> new Days());
        for (int place = spine.undated(); place < spine.size(); place++) {
            int day = spine.day(place).orElseThrow();
            int number = spine.number(place);
            byPerson[personOf[spine.who(place)]].add(place, day);
            for (int i = begins[number]; i < begins[number + 1]; i++) {
                byPerson[personOf[addresses[i]]].add(place, day);
            }
        }
        return people.stream()
                .filter(person -> person.id() < byPerson.length && byPerson[(int) person.id()].size > 0)
                .map(person -> byPerson[(int) person.id()].of(person))
                .toList();
    }
}
