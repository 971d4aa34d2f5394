package app.custodex.desktop.reading;

import java.util.Arrays;
import java.util.BitSet;

/** Which rows of a long list are selected, as sorted ranges apart from each other; all of them are one range. */
final class Ranges {
    private static final int NONE = -1;

    /** From and until of each range, the lowest first. */
    private int[] edges = new int[8];

    private int used;
    /** Where a selection that is being extended began. */
    private int anchor = NONE;

    boolean has(int row) {
        int found = Arrays.binarySearch(edges, 0, used, row);
        return found >= 0 ? found % 2 == 0 : (-found - 1) % 2 == 1;
    }

    int count() {
        int sum = 0;
        for (int i = 0; i < used; i += 2) {
            sum += edges[i + 1] - edges[i];
        }
        return sum;
    }

    /** All selected rows. */
    BitSet rows() {
        var rows = new BitSet();
        for (int i = 0; i < used; i += 2) {
            rows.set(edges[i], edges[i + 1]);
        }
        return rows;
    }

    Ranges copy() {
        var copy = new Ranges();
        copy.set(this);
        return copy;
    }

    void set(Ranges other) {
        edges = other.edges.clone();
        used = other.used;
        anchor = other.anchor;
    }

    void clear() {
        used = 0;
        anchor = NONE;
    }

    void all(int rows) {
        used = 0;
        add(0, rows);
    }

    /** Only this row. */
    void only(int row) {
        used = 0;
        add(row, row + 1);
        anchor = row;
    }

    void toggle(int row) {
        if (has(row)) {
            remove(row, row + 1);
        } else {
            add(row, row + 1);
        }
        anchor = row;
    }

    /**
     * From where the selection began to this row.
     *
     * @param keeping what is selected elsewhere
     */
    void extend(int row, boolean keeping) {
        if (!keeping) {
            used = 0;
        }
        int begin = anchor == NONE ? row : anchor;
        add(Math.min(begin, row), Math.max(begin, row) + 1);
        anchor = begin;
    }

    void add(int from, int until) {
        if (from >= until) {
            return;
        }
        if (used == 0 || from > edges[used - 1]) { // behind all others, as a rubber band adds its rows
            append(from, until);
            return;
        }
        int first = from;
        int last = until;
        var before = Arrays.copyOf(edges, used);
        used = 0;
        boolean added = false;
        for (int i = 0; i < before.length; i += 2) {
            if (before[i + 1] < first) {
                append(before[i], before[i + 1]);
            } else if (before[i] > last) {
                if (!added) {
                    append(first, last);
                    added = true;
                }
                append(before[i], before[i + 1]);
            } else {
                first = Math.min(first, before[i]);
                last = Math.max(last, before[i + 1]);
            }
        }
        if (!added) {
            append(first, last);
        }
    }

    private void remove(int from, int until) {
        var before = Arrays.copyOf(edges, used);
        used = 0;
        for (int i = 0; i < before.length; i += 2) {
            if (before[i] < from) {
                append(before[i], Math.min(before[i + 1], from));
            }
            if (before[i + 1] > until) {
                append(Math.max(before[i], until), before[i + 1]);
            }
        }
    }

    private void append(int from, int until) {
        if (from >= until) {
            return;
        }
        if (used + 2 > edges.length) {
            edges = Arrays.copyOf(edges, 2 * used);
        }
        edges[used++] = from;
        edges[used++] = until;
    }
}
