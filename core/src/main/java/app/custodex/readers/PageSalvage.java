package app.custodex.readers;

import java.io.IOException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Finds the rows that a damaged table still has in pages to which nothing leads any more: whole leaves whose way from the root is
 * torn ("Database File Format", §1.6 and §2). Pages that are free hold what was deleted, and are left alone.
 */
final class PageSalvage {
    private static final int INTERIOR = 0x05;
    private static final int LEAF = 0x0d;

    /** A row that says it is larger is no row. */
    private static final long MOST_BYTES = 64L << 20;

    private final DatabasePages pages;
    private final Set<Integer> reached = new HashSet<>();
    private final Map<String, Table> torn = new HashMap<>();

    /**
     * A table of the database.
     *
     * @param root its first page
     * @param kinds what its columns hold, in order
     */
    record Table(int root, List<Holds> kinds) {
        Table {
            kinds = List.copyOf(kinds);
        }
    }

    /** What a column is declared to hold; that a number lies in it is then to be expected, or text. */
    enum Holds {
        NUMBERS,
        TEXT,
        ANYTHING
    }

    /**
     * A row.
     *
     * @param values a Long, Double, String or byte[] each; absent for nothing
     */
    record Found(long number, List<Optional<Object>> values) {}

    PageSalvage(DatabasePages pages, Map<String, Table> tables) throws IOException {
        this.pages = pages;
        for (var table : tables.entrySet()) {
            if (!walk(table.getValue().root())) {
                torn.put(table.getKey(), table.getValue());
            }
        }
    }

    /** Goes from a root to every leaf; tells whether all of the way is whole. */
    private boolean walk(int root) throws IOException {
        boolean whole = true;
        var waiting = new ArrayList<>(List.of(root));
        int count = pages.count();
        while (!waiting.isEmpty()) {
            int number = waiting.removeLast();
            if (number < 1 || number > count || !reached.add(number)) {
                whole = false;
                continue;
            }
            var page = pages.page(number);
            int at = number == 1 ? 100 : 0;
            switch (page.get(at)) {
                case LEAF -> {}
                case INTERIOR -> {
                    int cells = Short.toUnsignedInt(page.getShort(at + 3));
                    for (int i = 0; i < cells && at + 14 + 2 * i <= page.limit(); i++) {
                        int cell = Short.toUnsignedInt(page.getShort(at + 12 + 2 * i));
                        waiting.add(cell + 4 <= page.limit() ? page.getInt(cell) : 0);
                    }
                    waiting.add(page.getInt(at + 8));
                }
                default -> whole = false;
            }
        }
        return whole;
    }

    interface Take {
        void row(Found found) throws IOException;
    }

    /** Gives the rows of a table that lie in lost pages and can be no other table's. */
    void rows(String table, Take take) throws IOException {
        if (!torn.containsKey(table)) {
            return;
        }
        var free = pages.free();
        int count = pages.count();
        for (int number = 2; number <= count; number++) {
            if (!reached.contains(number) && !free.contains(number)) {
                var found = leaf(pages.page(number));
                if (!found.isEmpty() && owners(found).equals(List.of(table))) {
                    for (var row : found) {
                        take.row(row);
                    }
                }
            }
        }
    }

    private List<String> owners(List<Found> rows) {
        return torn.entrySet().stream()
                .filter(table -> rows.stream().allMatch(row -> fits(row, table.getValue())))
                .map(Map.Entry::getKey)
                .toList();
    }

    private static boolean fits(Found row, Table table) {
        if (row.values().size() != table.kinds().size()) {
            return false;
        }
        for (int i = 0; i < table.kinds().size(); i++) {
            var value = row.values().get(i);
            boolean fits = switch (table.kinds().get(i)) {
                case NUMBERS -> value.isEmpty() || value.get() instanceof Number;
                case TEXT -> value.isEmpty() || value.get() instanceof String;
                case ANYTHING -> true;
            };
            if (!fits) {
                return false;
            }
        }
        return true;
    }

    /** The rows of a leaf; none when it is no leaf, or not a whole one. */
    private List<Found> leaf(ByteBuffer page) throws IOException {
        var rows = new ArrayList<Found>();
        if (page.get(0) != LEAF) {
            return rows;
        }
        int cells = Short.toUnsignedInt(page.getShort(3));
        if (cells == 0 || 8 + 2 * cells > pages.usable()) {
            return rows;
        }
        for (int i = 0; i < cells; i++) {
            try {
                int at = Short.toUnsignedInt(page.getShort(8 + 2 * i));
                rows.add(cell(page.position(at)));
            } catch (IndexOutOfBoundsException
                    | IllegalArgumentException
                    | ArithmeticException
                    | BufferUnderflowException broken) {
                return List.of();
            }
        }
        return rows;
    }

    private Found cell(ByteBuffer page) throws IOException {
        long payload = number(page);
        long row = number(page);
        if (payload < 1 || payload > Math.min(MOST_BYTES, (long) pages.count() * pages.usable())) {
            throw new IllegalArgumentException("no row is of this size");
        }
        return new Found(row, values(ByteBuffer.wrap(payload(page, (int) payload))));
    }

    /** What does not fit into a leaf goes on in pages of its own (§1.6, "the payload of a cell"). */
    private byte[] payload(ByteBuffer page, int length) throws IOException {
        int usable = pages.usable();
        int most = usable - 35;
        if (length <= most) {
            var bytes = new byte[length];
            page.get(bytes);
            return bytes;
        }
        int least = (usable - 12) * 32 / 255 - 23;
        int here = least + (length - least) % (usable - 4);
        here = here > most ? least : here;
        var bytes = new byte[length];
        page.get(bytes, 0, here);
        int next = page.getInt();
        for (int done = here; done < length; ) {
            if (next < 2 || next > pages.count()) {
                throw new IllegalArgumentException("the row goes on nowhere");
            }
            var more = pages.page(next);
            next = more.getInt(0);
            int n = Math.min(length - done, usable - 4);
            more.get(4, bytes, done, n);
            done += n;
        }
        return bytes;
    }

    /** A variable-length integer (§1.6): seven bits a byte, all eight of the ninth. */
    private static long number(ByteBuffer bytes) {
        long number = 0;
        for (int i = 0; i < 8; i++) {
            byte b = bytes.get();
            number = number << 7 | b & 0x7f;
            if (b >= 0) {
                return number;
            }
        }
        return number << 8 | bytes.get() & 0xff;
    }

    /** §2.1: the header names the type of each value, the values follow. */
    private List<Optional<Object>> values(ByteBuffer row) {
        int end = Math.toIntExact(number(row));
        var types = new ArrayList<Long>();
        while (row.position() < end) {
            types.add(number(row));
        }
        var values = new ArrayList<Optional<Object>>();
        for (long type : types) {
            values.add(value(row, type));
        }
        if (row.hasRemaining()) {
            throw new IllegalArgumentException("a row is longer than it says");
        }
        return values;
    }

    private Optional<Object> value(ByteBuffer row, long type) {
        return switch ((int) Math.min(type, 12)) {
            case 0 -> Optional.empty();
            case 1, 2, 3, 4 -> Optional.of(whole(row, (int) type));
            case 5 -> Optional.of(whole(row, 6));
            case 6 -> Optional.of(row.getLong());
            case 7 -> Optional.of(row.getDouble());
            case 8 -> Optional.of(0L);
            case 9 -> Optional.of(1L);
            case 12 -> {
                long length = (type - 12) / 2;
                if (length > row.remaining()) {
                    throw new IllegalArgumentException("a value is longer than its row");
                }
                var bytes = new byte[(int) length];
                row.get(bytes);
                yield Optional.of(type % 2 == 0 ? bytes : new String(bytes, pages.charset()));
            }
            default -> throw new IllegalArgumentException("there is no such type");
        };
    }

    /** Big-endian, with its sign. */
    private static long whole(ByteBuffer row, int bytes) {
        long number = row.get();
        for (int i = 1; i < bytes; i++) {
            number = number << 8 | row.get() & 0xff;
        }
        return number;
    }
}
