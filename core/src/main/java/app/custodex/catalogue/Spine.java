package app.custodex.catalogue;

import app.custodex.model.ThingKind;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * All things of a layer in the order of time, the earliest first, those without a time before them: what a timeline, counts and lists ask
 * of every row, in arrays, so that no question about a range or a kind goes to the database. Things are named by their place in
 * this order.
 */
public final class Spine {
    /** Stands for no time, and for no day. */
    private static final long NO_TIME = Long.MIN_VALUE;

    private static final int NO_DAY = Integer.MIN_VALUE;

    /** Milliseconds: of the years that ISO 8601 writes with four digits. What says another one has no place in a timeline. */
    private static final long EARLIEST = Instant.parse("0001-01-02T00:00:00Z").toEpochMilli();

    private static final long LATEST = Instant.parse("9999-12-30T00:00:00Z").toEpochMilli();

    private static final int KINDS = ThingKind.values().length;

    private final int[] numbers;
    private final long[] at;
    private final int[] day;
    private final byte[] kind;
    private final long[] bytes;
    private final int[] traits;
    /** The number of an address; 0 for nobody. */
    private final int[] who;
    /** The first place that has a time. */
    private final int firstDated;

    private Spine(int[] numbers, long[] at, int[] day, byte[] kind, long[] bytes, int[] traits, int[] who) {
        int size = numbers.length;
        if (at.length != size
                || day.length != size
                || kind.length != size
                || bytes.length != size
                || traits.length != size
                || who.length != size) {
            throw new IllegalArgumentException("not the same length");
        }
        this.traits = traits;
        this.who = who;
        this.numbers = numbers;
        this.at = at;
        this.day = day;
        this.kind = kind;
        this.bytes = bytes;
        int first = 0;
        while (first < at.length && at[first] == NO_TIME) {
            first++;
        }
        this.firstDated = first;
    }

    /**
     * What the row of a thing says.
     *
     * @param at as it counts in a timeline
     * @param written the same, as the thing has it
     */
    record Row(int number, long at, long written, int day, byte kind, long bytes, int traits, int who) {
        /**
         * @param written milliseconds since 1970, UTC
         * @param day as {@link java.time.LocalDate#toEpochDay}
         */
        static Row of(
                int number,
                Optional<Long> written,
                Optional<Long> day,
                int kind,
                long bytes,
                int traits,
                Optional<Long> who) {
            boolean inTime = written.isPresent() && written.get() >= EARLIEST && written.get() <= LATEST;
            return new Row(
                    number,
                    inTime ? written.get() : NO_TIME,
                    written.orElse(NO_TIME),
                    inTime ? day.orElse(0L).intValue() : NO_DAY,
                    (byte) kind,
                    Math.max(0, bytes),
                    traits,
                    who.orElse(0L).intValue());
        }
    }

    /** Earliest first; the same whatever order things come in. */
    private static final Comparator<Row> BY_TIME =
            Comparator.comparingLong(Row::at).thenComparingLong(Row::written).thenComparingInt(Row::number);

    /** Works it out from the rows. */
    static Spine read(Connection db) throws SQLException {
        var rows = new ArrayList<Row>();
        try (var statement = db.createStatement();
                var found =
                        statement.executeQuery("SELECT id, at, day, kind, bytes, traits, who FROM thing ORDER BY id")) {
            while (found.next()) {
                long at = found.getLong(2);
                var written = found.wasNull() ? Optional.<Long>empty() : Optional.of(at);
                rows.add(Row.of(
                        found.getInt(1),
                        written,
                        Optional.of(found.getLong(3)),
                        found.getInt(4),
                        found.getLong(5),
                        found.getInt(6),
                        Optional.of(found.getLong(7))));
            }
        }
        return of(rows);
    }

    /**
     * The one that was written down, after things have changed: to read the rows of all that have not would take longer than
     * everything else.
     *
     * @param gone numbers of what is no longer as it was
     * @param added what is new, or is as it is now
     */
    static Spine changed(Connection db, BitSet gone, List<Row> added) throws SQLException {
        var before = load(db);
        var outside = before.firstDated == 0 ? Map.<Integer, Long>of() : outside(db);
        var rows = new ArrayList<Row>(before.size() + added.size());
        for (int place = 0; place < before.size(); place++) {
            int number = before.numbers[place];
            if (!gone.get(number)) {
                long at = before.at[place];
                rows.add(new Row(
                        number,
                        at,
                        at == NO_TIME ? outside.getOrDefault(number, NO_TIME) : at,
                        before.day[place],
                        before.kind[place],
                        before.bytes[place],
                        before.traits[place],
                        before.who[place]));
            }
        }
        rows.addAll(added);
        return of(rows);
    }

    /** The times that have no place in a timeline, by number. */
    private static Map<Integer, Long> outside(Connection db) throws SQLException {
        var times = new HashMap<Integer, Long>();
        try (var statement = db.createStatement();
                var found = statement.executeQuery(
                        "SELECT id, at FROM thing WHERE at < " + EARLIEST + " OR at > " + LATEST)) {
            while (found.next()) {
                times.put(found.getInt(1), found.getLong(2));
            }
        }
        return times;
    }

    /** Things are mostly in the order of time already, which this sort makes use of and the database's does not. */
    private static Spine of(List<Row> rows) {
        rows.sort(BY_TIME);
        int size = rows.size();
        var numbers = new int[size];
        var at = new long[size];
        var day = new int[size];
        var kind = new byte[size];
        var bytes = new long[size];
        var traits = new int[size];
        var who = new int[size];
        for (int i = 0; i < size; i++) {
            var row = rows.get(i);
            numbers[i] = row.number();
            at[i] = row.at();
            day[i] = row.day();
            kind[i] = row.kind();
            bytes[i] = row.bytes();
            traits[i] = row.traits();
            who[i] = row.who();
        }
        return new Spine(numbers, at, day, kind, bytes, traits, who);
    }

    /** Writes it down, so that nothing has to be sorted or read row by row later. */
    void write(Connection db) throws SQLException {
        try (var clear = db.createStatement();
                var write = db.prepareStatement("INSERT INTO spine VALUES (?, ?, ?, ?, ?, ?, ?)")) {
            clear.executeUpdate("DELETE FROM spine");
            write.setBytes(1, bytes(numbers));
            write.setBytes(2, bytes(at));
            write.setBytes(3, bytes(day));
            write.setBytes(4, kind);
            write.setBytes(5, bytes(bytes));
            write.setBytes(6, bytes(traits));
            write.setBytes(7, bytes(who));
            write.executeUpdate();
        }
    }

    private static byte[] bytes(int[] numbers) {
        var bytes = new byte[numbers.length * Integer.BYTES];
        buffer(bytes).asIntBuffer().put(numbers);
        return bytes;
    }

    private static byte[] bytes(long[] numbers) {
        var bytes = new byte[numbers.length * Long.BYTES];
        buffer(bytes).asLongBuffer().put(numbers);
        return bytes;
    }

    /** Loads what was written down. */
    static Spine load(Connection db) throws SQLException {
        try (var statement = db.createStatement();
                var rows = statement.executeQuery("SELECT numbers, at, day, kind, bytes, traits, who FROM spine")) {
            if (!rows.next()) {
                return new Spine(new int[0], new long[0], new int[0], new byte[0], new long[0], new int[0], new int[0]);
            }
            return new Spine(
                    ints(rows.getBytes(1)),
                    longs(rows.getBytes(2)),
                    ints(rows.getBytes(3)),
                    rows.getBytes(4),
                    longs(rows.getBytes(5)),
                    ints(rows.getBytes(6)),
                    ints(rows.getBytes(7)));
        } catch (IllegalArgumentException damaged) {
            throw new SQLException("the order of things is damaged", damaged);
        }
    }

    private static int[] ints(byte[] bytes) {
        var numbers = new int[bytes.length / Integer.BYTES];
        buffer(bytes).asIntBuffer().get(numbers);
        return numbers;
    }

    private static long[] longs(byte[] bytes) {
        var numbers = new long[bytes.length / Long.BYTES];
        buffer(bytes).asLongBuffer().get(numbers);
        return numbers;
    }

    private static ByteBuffer buffer(byte[] bytes) {
        return ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }

    int[] numbers() {
        return numbers;
    }

    public int size() {
        return numbers.length;
    }

    /** The number of a thing in the catalogue. */
    public int number(int place) {
        return numbers[place];
    }

    /** The numbers of all things. */
    public BitSet all() {
        var all = new BitSet();
        Arrays.stream(numbers).forEach(all::set);
        return all;
    }

    public ThingKind kind(int place) {
        return ThingKind.values()[kind[place]];
    }

    /** The size of its own file; 0 for what has none. */
    public long bytes(int place) {
        return bytes[place];
    }

    /** The number of the address that it is from or with; 0 for none. */
    int who(int place) {
        return who[place];
    }

    /** The number of its set of traits. */
    int traits(int place) {
        return traits[place];
    }

    /** Milliseconds since 1970, UTC; empty for what has no time. */
    public Optional<Long> at(int place) {
        return at[place] == NO_TIME ? Optional.empty() : Optional.of(at[place]);
    }

    /** The day in the phone's calendar, as {@link java.time.LocalDate#toEpochDay}; empty for what has no time. */
    public Optional<Integer> day(int place) {
        return day[place] == NO_DAY ? Optional.empty() : Optional.of(day[place]);
    }

    /** How many have no time. */
    public int undated() {
        return firstDated;
    }

    /** Time from the first to behind the last, in milliseconds since 1970; empty when nothing has a time. */
    public Optional<Span> span() {
        return firstDated == at.length
                ? Optional.empty()
                : Optional.of(new Span(at[firstDated], at[at.length - 1] + 1));
    }

    /**
     * A stretch of time, in milliseconds since 1970.
     *
     * @param until is not part of it
     */
    public record Span(long from, long until) {
        public Span {
            if (until <= from) {
                throw new IllegalArgumentException("no time from " + from + " to " + until);
            }
        }

        public long length() {
            return until - from;
        }
    }

    /** The first place that is not before a moment. */
    private int place(long moment) {
        int low = firstDated;
        int high = at.length;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (at[middle] < moment) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /**
     * What is looked at.
     *
     * @param within only what is of this time; empty for all, what has no time too
     * @param kinds by their ordinal; empty for all
     * @param numbers only what has one of these numbers; empty for all
     */
    public record View(Optional<Span> within, BitSet kinds, Optional<BitSet> numbers) {
        public static final View EVERYTHING = new View(Optional.empty(), new BitSet(), Optional.empty());
    }

    /**
     * What was found.
     *
     * @param places in the order of time
     * @param kinds how many of each kind there would be if no kind were left out, by ordinal
     * @param bytes the size of their files, by the ordinal of the kind
     */
    public record Seen(int[] places, int[] kinds, long[] bytes) {
        public int of(ThingKind kind) {
            return kinds[kind.ordinal()];
        }

        public long bytesOf(ThingKind kind) {
            return bytes[kind.ordinal()];
        }

        /**
         * The same with the counts of another question for all kinds but some.
         *
         * @param own the kinds whose counts stay, by ordinal
         */
        public Seen withOthers(Seen other, BitSet own) {
            var counts = other.kinds.clone();
            var sizes = other.bytes.clone();
            own.stream().forEach(kind -> {
                counts[kind] = kinds[kind];
                sizes[kind] = bytes[kind];
            });
            return new Seen(places, counts, sizes);
        }
    }

    /** Finds what is looked at; some milliseconds for a million things. */
    public Seen see(View view) {
        int from = view.within().map(span -> place(span.from())).orElse(0);
        int to = view.within().map(span -> place(span.until())).orElse(numbers.length);
        var counts = new int[KINDS];
        var sizes = new long[KINDS];
        var places = new int[to - from];
        int n = 0;
        boolean all = view.kinds().isEmpty();
        for (int i = from; i < to; i++) {
            if (view.numbers().isPresent() && !view.numbers().get().get(numbers[i])) {
                continue;
            }
            counts[kind[i]]++;
            sizes[kind[i]] += bytes[i];
            if (all || view.kinds().get(kind[i])) {
                places[n++] = i;
            }
        }
        return new Seen(n == places.length ? places : Arrays.copyOf(places, n), counts, sizes);
    }

    /**
     * Counts by kind in stretches of time.
     *
     * @param edges of the stretches, one more than there are
     * @param numbers only what has one of these numbers; empty for all
     * @return by stretch, and by the ordinal of the kind
     */
    public int[][] counts(long[] edges, Optional<BitSet> numbers) {
        var counts = new int[Math.max(0, edges.length - 1)][KINDS];
        for (int i = 0; i < counts.length; i++) {
            int to = place(edges[i + 1]);
            for (int place = place(edges[i]); place < to; place++) {
                if (numbers.isEmpty() || numbers.get().get(this.numbers[place])) {
                    counts[i][kind[place]]++;
                }
            }
        }
        return counts;
    }
}
