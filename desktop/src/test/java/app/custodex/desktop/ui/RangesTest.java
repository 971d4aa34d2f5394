package app.custodex.desktop.ui;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.BitSet;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** A selection by ranges is the same as one by single rows. */
final class RangesTest {
    private static final int ROWS = 200;

    private final Ranges ranges = new Ranges();
    private final BitSet rows = new BitSet();

    private void same() {
        assertEquals(rows, ranges.rows());
        assertEquals(rows.cardinality(), ranges.count());
        for (int row = 0; row < ROWS; row++) {
            assertEquals(rows.get(row), ranges.has(row), "row " + row);
        }
    }

    @Test
    void whateverIsDoneItIsTheSameAsRowByRow() {
        var random = new Random(11);
        int anchor = 0;
        for (int i = 0; i < 3_000; i++) {
            int row = random.nextInt(ROWS);
            switch (random.nextInt(6)) {
                case 0 -> {
                    ranges.only(row);
                    rows.clear();
                    rows.set(row);
                    anchor = row;
                }
                case 1, 2 -> {
                    ranges.toggle(row);
                    rows.flip(row);
                    anchor = row;
                }
                case 3 -> {
                    boolean keeping = random.nextBoolean();
                    if (i == 0) {
                        continue; // there is no beginning yet
                    }
                    ranges.extend(row, keeping);
                    if (!keeping) {
                        rows.clear();
                    }
                    rows.set(Math.min(anchor, row), Math.max(anchor, row) + 1);
                }
                default -> {
                    int until = Math.min(ROWS, row + random.nextInt(12));
                    ranges.add(row, until);
                    rows.set(row, Math.max(row, until));
                }
            }
            same();
        }
    }

    @Test
    void allOfThemAreOne() {
        ranges.all(ROWS);
        rows.set(0, ROWS);
        same();
        ranges.toggle(7);
        rows.clear(7);
        same();
    }

    @Test
    void aCopyIsItsOwn() {
        ranges.only(3);
        var copy = ranges.copy();
        ranges.clear();
        assertTrue(copy.has(3));
        assertFalse(ranges.has(3));
        ranges.set(copy);
        ranges.extend(5, false);
        rows.set(3, 6);
        same();
    }

    @Test
    void theNearestIsASelectedOne() {
        assertTrue(ranges.nearest(5).isEmpty());
        ranges.add(2, 4);
        ranges.add(10, 20);
        assertEquals(2, ranges.nearest(0).orElseThrow());
        assertEquals(3, ranges.nearest(6).orElseThrow());
        assertEquals(10, ranges.nearest(7).orElseThrow());
        assertEquals(15, ranges.nearest(15).orElseThrow());
        assertEquals(19, ranges.nearest(1_000).orElseThrow());
    }
}
