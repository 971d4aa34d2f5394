package app.custodex.catalogue;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;

/**
 * The things of one store that a catalogue holds, in the order in which they were read: by what each is known again, and whether it is as
 * it was. They mostly come in the same order again, so the next one is looked at first.
 */
final class KnownThings {
    private static final int BYTES_EACH = 2 * Long.BYTES + Integer.BYTES;
    /** How far is looked ahead before all others are looked through: things in between may have been deleted. */
    private static final int AHEAD = 16;

    private static final long UPPER_HALF = 0xFFFFFFFF_00000000L;

    private final long[] keys;
    private final long[] digests;
    private final int[] numbers;
    private final BitSet taken = new BitSet();
    /** How many were not taken. */
    private int count;

    private int next;
    /** Made when things come in another order. */
    private Optional<ByKey> byKey = Optional.empty();

    private KnownThings(int size) {
        keys = new long[size];
        digests = new long[size];
        numbers = new int[size];
        count = size;
    }

    static KnownThings none() {
        return new KnownThings(0);
    }

    /** @param written by a {@link Writer} */
    static KnownThings read(byte[] written) throws SQLException {
        if (written.length % BYTES_EACH != 0) {
            throw new SQLException("the list of a store's things is torn");
        }
        var known = new KnownThings(written.length / BYTES_EACH);
        var buffer = ByteBuffer.wrap(written).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < known.keys.length; i++) {
            known.keys[i] = buffer.getLong();
            known.digests[i] = buffer.getLong();
            known.numbers[i] = buffer.getInt();
        }
        return known;
    }

    /** Writes such a list. */
    static final class Writer {
        private ByteBuffer things = ByteBuffer.allocate(BYTES_EACH).order(ByteOrder.LITTLE_ENDIAN);

        /** @param number in the catalogue */
        void add(Filed filed, int number) {
            if (!things.hasRemaining()) {
                things = ByteBuffer.allocate(Math.multiplyExact(2, things.capacity()))
                        .order(ByteOrder.LITTLE_ENDIAN)
                        .put(things.flip());
            }
            things.putLong(filed.key()).putLong(filed.digest()).putInt(number);
        }

        byte[] written() {
            return Arrays.copyOf(things.array(), things.position());
        }
    }

    /**
     * Looks for a thing by its key, and takes it out. Where a foreign database uses a key more than once, each is taken once.
     *
     * @return where it is
     */
    OptionalInt take(Filed filed) {
        int place = count == 0 ? -1 : find(filed.key());
        if (place < 0) {
            return OptionalInt.empty();
        }
        taken.set(place);
        count--;
        next = place + 1;
        return OptionalInt.of(place);
    }

    private int find(long key) {
        int end = Math.min(keys.length, next + AHEAD);
        for (int place = next; place < end; place++) {
            if (keys[place] == key && !taken.get(place)) {
                return place;
            }
        }
        if (byKey.isEmpty()) {
            byKey = Optional.of(new ByKey());
        }
        return byKey.get().find(key);
    }

    /** Whether a thing is as it was. */
    boolean isAsItWas(int place, Filed filed) {
        return digests[place] == filed.digest();
    }

    int number(int place) {
        return numbers[place];
    }

    /** The numbers in the catalogue of those that were not taken. */
    int[] left() {
        return places().map(this::number).toArray();
    }

    /** Of those that were not taken. */
    private IntStream places() {
        return IntStream.range(0, keys.length).filter(place -> !taken.get(place));
    }

    /** Those that were not taken when it was made, in the order of their keys. */
    private final class ByKey {
        /** The upper half of each key, and the place. */
        private final long[] sorted;
        /** By place in that order: from where on the next that is not taken can be looked for. */
        private final int[] onwards;

        ByKey() {
            sorted = places().mapToLong(place -> keys[place] & UPPER_HALF | place)
                    .sorted()
                    .toArray();
            onwards = IntStream.range(0, sorted.length).toArray();
        }

        int find(long key) {
            int first = Arrays.binarySearch(sorted, key & UPPER_HALF);
            for (int at = notTaken(first < 0 ? -first - 1 : first);
                    at < sorted.length && (sorted[at] & UPPER_HALF) == (key & UPPER_HALF);
                    at = notTaken(at + 1)) {
                if (keys[(int) sorted[at]] == key) {
                    return (int) sorted[at];
                }
            }
            return -1;
        }

        /** Remembers how far it looked, so that a key that is used a hundred thousand times takes no longer. */
        private int notTaken(int from) {
            int at = from;
            while (at < sorted.length && taken.get((int) sorted[at])) {
                at = Math.max(onwards[at], at + 1);
            }
            for (int passed = from; passed < at; ) {
                int following = Math.max(onwards[passed], passed + 1);
                onwards[passed] = at;
                passed = following;
            }
            return at;
        }
    }
}
