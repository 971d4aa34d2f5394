package app.custodex.desktop.reading;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

final class SheetLayoutTest {
    private static final int WIDTH = 640;
    private static final int WISHED = 120;

    private final float[] shapes = new float[2_000];
    private final int[] groups = new int[shapes.length];

    SheetLayoutTest() {
        var random = new Random(2);
        int group = 0;
        for (int i = 0; i < shapes.length; i++) {
            shapes[i] = 0.4f + 2 * random.nextFloat();
            group += random.nextInt(9) == 0 ? 1 : 0;
            groups[i] = group;
        }
    }

    private SheetLayout layOut() {
        return new SheetLayout(shapes, groups, true, WIDTH, WISHED);
    }

    @Test
    void everyPictureStandsOnceInItsOrderAndNoneOverAnother() {
        var layout = layOut();
        int next = 0;
        int bottom = 0;
        for (int row = 0; row < layout.rows(); row++) {
            assertEquals(next, layout.firstOf(row));
            assertTrue(layout.topOf(row) >= bottom, "row " + row + " begins above the end of the one before");
            bottom = layout.topOf(row) + layout.heightOf(row);
            int right = 0;
            for (int picture = layout.firstOf(row); picture < layout.endOf(row); picture++) {
                assertTrue(layout.leftOf(picture) >= right);
                assertTrue(layout.widthOf(picture) > 0);
                right = layout.leftOf(picture) + layout.widthOf(picture);
                assertEquals(row, layout.rowOf(picture));
                assertEquals(groups[layout.firstOf(row)], groups[picture], "one group a row");
            }
            assertTrue(right <= WIDTH, right + " of " + WIDTH);
            next = layout.endOf(row);
        }
        assertEquals(shapes.length, next);
        assertTrue(layout.height() >= bottom);
    }

    /** What a row of a group is followed by in the same group fills the width. */
    @Test
    void rowsFillTheWidthButTheLastOfAGroup() {
        var layout = layOut();
        int full = 0;
        for (int row = 0; row + 1 < layout.rows(); row++) {
            int last = layout.endOf(row) - 1;
            if (groups[last] == groups[last + 1]) {
                assertEquals(WIDTH, layout.leftOf(last) + layout.widthOf(last));
                assertTrue(layout.heightOf(row) <= WISHED);
                full++;
            }
        }
        assertTrue(full > 100, full + " full rows");
    }

    @Test
    void aPictureIsFoundWhereItStands() {
        var layout = layOut();
        for (int picture = 0; picture < layout.size(); picture++) {
            int row = layout.rowOf(picture);
            double x = layout.leftOf(picture) + layout.widthOf(picture) / 2.0;
            double y = layout.topOf(row) + layout.heightOf(row) / 2.0;
            assertEquals(picture, layout.pictureAt(x, y));
        }
        assertEquals(-1, layout.pictureAt(10, layout.topOf(0) - 5.0), "a heading is no picture");
        assertEquals(-1, layout.pictureAt(WIDTH + 50, layout.topOf(0) + 5.0));
    }

    @Test
    void headingsHaveTheirPlace() {
        var layout = layOut();
        assertEquals(Arrays.stream(groups).distinct().count(), layout.groups());
        for (int group = 0; group < layout.groups(); group++) {
            int row = layout.firstRowOf(group);
            assertEquals(group, layout.groupOf(row));
            int above = row == 0 ? 0 : layout.topOf(row - 1) + layout.heightOf(row - 1);
            assertTrue(layout.topOf(row) - above >= SheetLayout.HEADING);
        }
    }

    @Test
    void upAndDownGoToTheNearestOfTheNextRow() {
        var layout = layOut();
        int picture = layout.firstOf(10) + (layout.endOf(10) - layout.firstOf(10)) / 2;
        int below = layout.neighbour(picture, 1);
        assertEquals(11, layout.rowOf(below));
        assertEquals(0, layout.rowOf(layout.neighbour(picture, -1_000_000)));
        assertEquals(layout.rows() - 1, layout.rowOf(layout.neighbour(picture, 1_000_000)));
    }

    @Test
    void thereMayBeNone() {
        var layout = new SheetLayout(new float[0], new int[0], true, WIDTH, WISHED);
        assertEquals(0, layout.rows());
        assertEquals(0, layout.height());
        assertEquals(-1, layout.pictureAt(5, 5));
    }

    /** As wide as a row, or wider. */
    @Test
    void aPanoramaStaysInItsRow() {
        var layout = new SheetLayout(new float[] {4, 4, 4}, new int[3], false, 200, WISHED);
        for (int picture = 0; picture < 3; picture++) {
            assertTrue(layout.leftOf(picture) + layout.widthOf(picture) <= 200);
        }
    }
}
