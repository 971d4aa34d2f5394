package app.custodex.desktop.reading;

import java.util.Arrays;
import java.util.BitSet;

/**
 * The heights of many rows, each guessed until it is measured, with their sums at hand: a binary indexed tree (P. M. Fenwick, 1994), by
 * which a row is found and corrected in as many steps as its number has bits.
 */
final class Heights {
    private final int[] heights;
    private final int[] tree;
    private final BitSet measured = new BitSet();

    /** @param guess of each row, in pixels */
    Heights(int rows, int guess) {
        heights = new int[rows];
        tree = new int[rows + 1];
        guess(guess);
    }

    /** Forgets what was measured, as after a change of width. */
    void guess(int guess) {
        measured.clear();
        Arrays.fill(heights, guess);
        for (int i = 1; i < tree.length; i++) {
            tree[i] = guess * Integer.lowestOneBit(i);
        }
    }

    int rows() {
        return heights.length;
    }

    int of(int row) {
        return heights[row];
    }

    boolean isMeasured(int row) {
        return measured.get(row);
    }

    void measured(int row, int height) {
        measured.set(row);
        int more = height - heights[row];
        heights[row] = height;
        for (int i = row + 1; more != 0 && i < tree.length; i += Integer.lowestOneBit(i)) {
            tree[i] += more;
        }
    }

    /** Of the rows before this one, together. */
    int before(int row) {
        int sum = 0;
        for (int i = row; i > 0; i -= Integer.lowestOneBit(i)) {
            sum += tree[i];
        }
        return sum;
    }

    int all() {
        return before(heights.length);
    }

    /** The row at a place from the top; the last one below all. */
    int at(int place) {
        int row = 0;
        int left = place;
        for (int step = Integer.highestOneBit(Math.max(1, heights.length)); step > 0; step >>= 1) {
            if (row + step < tree.length && tree[row + step] <= left) {
                row += step;
                left -= tree[row];
            }
        }
        return Math.min(row, heights.length - 1);
    }
}
