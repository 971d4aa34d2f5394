package app.custodex.desktop.ui;

import java.util.Arrays;
import java.util.BitSet;
import java.util.OptionalInt;

/** Which rows of a long list are selected, as sorted ranges apart from each other; all of them are one range. */
public final class Ranges {
    private static final int NONE = -1;

    /** From and until of each range, the lowest first. */
    private int[] edges = new int[8];

    private int used;
    /** Where a selection that is being extended began. */
    private int anchor = NONE;

    public boolean has(int row) {
        int found = Arrays.binarySearch(edges, 0, used, row);
        return found >= 0 ? found % 2 == 0 : (-found - 1) % 2 == 1;
    }

    /** How many rows are selected. */
    public int count() {
        int sum = 0;
        for (int i = 0; i < used; i += 2) {
            sum += edges[i + 1] - edges[i];
        }
        return sum;
    }

    /** The selected row that is nearest to another one, above it rather than as far below; empty when none is selected. */
    public OptionalInt nearest(int row) {
        var nearest = OptionalInt.empty();
        for (int i = 0; i < used; i += 2) {
            int here = Math.clamp(row, edges[i], edges[i + 1] - 1);
            if (nearest.isEmpty() || Math.abs(here - row) < Math.abs(nearest.getAsInt() - row)) {
                nearest = OptionalInt.of(here);
            }
        }
        return nearest;
    }

    /** The selected rows. */
    public BitSet rows() {
        var rows = new BitSet();
        for (int i = 0; i < used; i += 2) {
            rows.set(edges[i], edges[i + 1]);
        }
        return rows;
    }

    public Ranges copy() {
        var copy = new Ranges();
        copy.set(this);
        return copy;
    }

    public void set(Ranges other) {
        edges = other.edges.clone();
        used = other.used;
        anchor = other.anchor;
    }

    public void clear() {
        used = 0;
        anchor = NONE;
    }

    public void all(int rows) {
        used = 0;
        add(0, rows);
    }

    /** Only this row. */
    public void only(int row) {
        used = 0;
        add(row, row + 1);
        anchor = row;
    }

    public void toggle(int row) {
        if (has(row)) {
            remove(row, row + 1);
        } else {
            add(row, row + 1);
        }
        anchor = row;
    }

    /**
     * As a click or key on a row does it.
     *
     * @param extending with Shift: from where the selection began
     * @param keeping with Ctrl: what is selected elsewhere stays
     */
    public void select(int row, boolean extending, boolean keeping) {
        if (extending) {
            extend(row, keeping);
        } else if (keeping) {
            toggle(row);
        } else {
            only(row);
        }
    }

    /**
     * From where the selection began to this row.
     *
     * @param keeping what is selected elsewhere
     */
    public void extend(int row, boolean keeping) {
        if (!keeping) {
            used = 0;
        }
        int begin = anchor == NONE ? row : anchor;
        add(Math.min(begin, row), Math.max(begin, row) + 1);
        anchor = begin;
    }

    /** @param until is not part of it */
    public void add(int from, int until) {
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
