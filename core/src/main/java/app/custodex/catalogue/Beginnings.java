package app.custodex.catalogue;

import app.custodex.search.Fold;
import java.io.ByteArrayInputStream;
import java.io.DataInputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.roaringbitmap.RoaringBitmap;

/**
 * Which things hold a word that begins with a certain one or two characters. The full-text index would have to put together the lists
 * of a good part of all words for that, and whoever types a word has typed one and two characters of it first.
 */
final class Beginnings {
    /** The number of one character is that of two of which the second is none. */
    private static final int SHIFT = 21;

    private static final int MOST_A_THING = 1 << 14;

    private static final int ASCII = 1 << 7;

    private final Connection db;
    private final Map<Long, Things> changed = new HashMap<>();
    /** The ASCII ones among {@link #changed}, by both characters. A text has dozens of them, and a map would cost more than the bitmaps. */
    private final @Nullable Things[] plain = new Things[ASCII * ASCII];

    private final boolean anyBefore;

    /** A set that mostly grows at its end, for which it is cheaper to take some at once. */
    private static final class Things {
        private final RoaringBitmap set;
        private final int[] added = new int[16];
        private int n;

        Things(RoaringBitmap set) {
            this.set = set;
        }

        void add(int thing) {
            if (n == added.length) {
                whole();
            }
            added[n++] = thing;
        }

        RoaringBitmap whole() {
            set.addN(added, 0, n);
            n = 0;
            return set;
        }
    }

    /** @param anyBefore whether there are things in the catalogue already */
    Beginnings(Connection db, boolean anyBefore) {
        this.db = db;
        this.anyBefore = anyBefore;
    }

    /** The numbers of all beginnings in a text that was folded and spaced for the index; each once. */
    static long[] of(String words) {
        var found = new long[64];
        int n = 0;
        boolean inWord = false;
        for (int i = 0; i < words.length(); ) {
            int c = words.codePointAt(i);
            int next = i + Character.charCount(c);
            boolean part = isPart(c);
            if (part && !inWord && !Fold.isUnspaced(c)) {
                if (n + 2 > found.length) {
                    if (n >= MOST_A_THING) {
                        n = distinct(found, n);
                    }
                    found = Arrays.copyOf(found, 2 * found.length);
                }
                found[n++] = (long) c << SHIFT;
                int second = next < words.length() ? words.codePointAt(next) : ' ';
                if (isPart(second)) {
                    found[n++] = (long) c << SHIFT | second;
                }
            }
            inWord = part;
            i = next;
        }
        return Arrays.copyOf(found, distinct(found, n));
    }

    /** As the index splits: at what is ASCII and no letter or digit. */
    private static boolean isPart(int c) {
        return c >= 0x80 || c >= 'a' && c <= 'z' || c >= '0' && c <= '9' || c >= 'A' && c <= 'Z';
    }

    private static int distinct(long[] numbers, int n) {
        Arrays.sort(numbers, 0, n);
        int kept = 0;
        for (int i = 0; i < n; i++) {
            if (i == 0 || numbers[i] != numbers[kept - 1]) {
                numbers[kept++] = numbers[i];
            }
        }
        return kept;
    }

    /** Whether a word is short enough to be looked for here, and of a script whose words have beginnings. */
    static boolean covers(String word) {
        return word.codePointCount(0, word.length()) <= 2 && !Fold.isUnspaced(word.codePointAt(0));
    }

    /** The things that hold a word with this beginning. */
    static BitSet holding(Connection db, String beginning) throws SQLException, IOException {
        var things = new BitSet();
        stored(db, of(beginning)[beginning.codePointCount(0, beginning.length()) - 1])
                .forEach((int thing) -> things.set(thing));
        return things;
    }

    void add(int thing, long[] beginnings) throws SQLException, IOException {
        for (long beginning : beginnings) {
            things(beginning).add(thing);
        }
    }

    void remove(int thing, long[] beginnings) throws SQLException, IOException {
        for (long beginning : beginnings) {
            things(beginning).whole().remove(thing);
        }
    }

    private Things things(long beginning) throws SQLException, IOException {
        long first = beginning >> SHIFT;
        long second = beginning & (1 << SHIFT) - 1;
        if (first >= ASCII || second >= ASCII) {
            return anyThings(beginning);
        }
        int place = (int) (first * ASCII + second);
        var things = plain[place];
        if (things == null) {
            things = anyThings(beginning);
            plain[place] = things;
        }
        return things;
    }

    private Things anyThings(long beginning) throws SQLException, IOException {
        var things = changed.get(beginning);
        if (things == null) {
            things = new Things(anyBefore ? stored(db, beginning) : new RoaringBitmap());
            changed.put(beginning, things);
        }
        return things;
    }

    private static RoaringBitmap stored(Connection db, long beginning) throws SQLException, IOException {
        var things = new RoaringBitmap();
        try (var query = db.prepareStatement("SELECT things FROM beginning WHERE id = ?")) {
            query.setLong(1, beginning);
            try (var rows = query.executeQuery()) {
                if (rows.next()) {
                    things.deserialize(new DataInputStream(new ByteArrayInputStream(rows.getBytes(1))));
                }
            }
        }
        return things;
    }

    void write() throws SQLException, IOException {
        try (var put = db.prepareStatement("INSERT OR REPLACE INTO beginning VALUES (?, ?)")) {
            for (var entry : changed.entrySet()) {
                var things = entry.getValue().whole();
                things.runOptimize();
                var bytes = new byte[things.serializedSizeInBytes()];
                things.serialize(ByteBuffer.wrap(bytes));
                put.setLong(1, entry.getKey());
                put.setBytes(2, bytes);
                put.executeUpdate();
            }
        }
        changed.clear();
        Arrays.fill(plain, null);
    }
}
