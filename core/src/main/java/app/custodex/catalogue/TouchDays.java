package app.custodex.catalogue;

import app.custodex.catalogue.Catalogue.InTouch;
import app.custodex.catalogue.Catalogue.Person;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.stream.IntStream;

/** Who is in which things, and on which days: answered by the {@link Spine}, since to ask the rows takes a second with some hundred thousand. */
final class TouchDays {
    private final Connection db;
    private final Spine spine;

    TouchDays(Connection db, Spine spine) {
        this.db = db;
        this.spine = spine;
    }

    /** The numbers of all things that somebody is in. */
    BitSet things(long person) throws SQLException {
        var addresses = new BitSet();
        var things = new BitSet();
        try (var query = db.prepareStatement("SELECT id FROM address WHERE person = ?")) {
            query.setLong(1, person);
            try (var rows = query.executeQuery()) {
                while (rows.next()) {
                    addresses.set(rows.getInt(1));
                }
            }
        }
        for (int place = 0; place < spine.size(); place++) {
            if (addresses.get(spine.who(place))) {
                things.set(spine.number(place));
            }
        }
        var more = new Conditions(db);
        more.add("address IN (SELECT id FROM address WHERE person = ?)", person);
        things.or(more.numbers("SELECT group_concat(thing) FROM part"));
        return things;
    }

    /** Counts of one person, which come in the order of time. */
    private static final class Days {
        private int[] days = new int[8];
        private int[] things = new int[8];
        private int size;

        void add(int day) {
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
    List<InTouch> of(List<Person> people) throws SQLException {
        var byAddress = personByAddress(people);
        var parts = parts();
        var days = IntStream.range(0, people.size()).mapToObj(i -> new Days()).toList();
        var in = new BitSet(); // each person once a thing
        for (int place = spine.undated(); place < spine.size(); place++) {
            in.clear();
            add(in, byAddress, spine.who(place));
            for (int address : parts.getOrDefault(spine.number(place), new int[0])) {
                add(in, byAddress, address);
            }
            int day = spine.day(place).orElseThrow();
            in.stream().forEach(person -> days.get(person).add(day));
        }
        var touched = new ArrayList<InTouch>();
        for (int i = 0; i < people.size(); i++) {
            if (days.get(i).size > 0) {
                touched.add(days.get(i).of(people.get(i)));
            }
        }
        return touched;
    }

    private static void add(BitSet in, int[] byAddress, int address) {
        if (address < byAddress.length && byAddress[address] >= 0) {
            in.set(byAddress[address]);
        }
    }

    /** The place of a person in the list, by the number of an address; -1 where there is none. */
    private int[] personByAddress(List<Person> people) throws SQLException {
        var places = new HashMap<Long, Integer>();
        for (int i = 0; i < people.size(); i++) {
            places.put(people.get(i).id(), i);
        }
        try (var statement = db.createStatement();
                var rows = statement.executeQuery(
                        "SELECT id, person, (SELECT max(id) FROM address) FROM address WHERE person IS NOT NULL")) {
            var byAddress = new int[0];
            while (rows.next()) {
                if (byAddress.length == 0) {
                    byAddress = new int[rows.getInt(3) + 1];
                    Arrays.fill(byAddress, -1);
                }
                byAddress[rows.getInt(1)] = places.getOrDefault(rows.getLong(2), -1);
            }
            return byAddress;
        }
    }

    /** The addresses of everybody else in a thing, by its number. */
    private HashMap<Integer, int[]> parts() throws SQLException {
        var parts = new HashMap<Integer, int[]>();
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT thing, address FROM part ORDER BY thing")) {
            while (rows.next()) {
                int address = rows.getInt(2);
                parts.merge(rows.getInt(1), new int[] {address}, (before, one) -> {
                    var more = Arrays.copyOf(before, before.length + 1);
                    more[before.length] = address;
                    return more;
                });
            }
        }
        return parts;
    }
}
