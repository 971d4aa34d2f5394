package app.custodex.desktop.reading;

import java.util.Arrays;

/**
 * Where the pictures of a contact sheet stand: in rows that fill the width, under a heading for each group. It is worked out anew for every
 * width and size, which takes some milliseconds for 50,000 pictures.
 */
final class SheetLayout {
    /** Pixels between pictures. */
    static final int GAP = 4;
    /** The height of a heading in pixels. */
    static final int HEADING = 30;
    /** A row is not made flatter than this part of what is wished. */
    private static final double FLATTEST = 0.6;

    /** The first picture of each row, and the end of the last one. */
    private final int[] rowFirst;

    private final int[] rowTop;
    private final int[] rowHeight;
    private final int[] left;
    private final int[] width;
    private final int[] groupRow;
    private final int rows;
    private final int height;

    /**
     * Lays out.
     *
     * @param shapes width by height of each picture
     * @param groups of each picture; those of one group stand together
     * @param headings whether each group has one
     * @param available width
     * @param wished height of a row
     */
    SheetLayout(float[] shapes, int[] groups, boolean headings, int available, int wished) {
        int size = shapes.length;
        var first = new int[size + 1];
        var top = new int[size];
        var high = new int[size];
        var group = new int[size];
        left = new int[size];
        width = new int[size];
        int row = 0;
        int begun = 0;
        int y = 0;
        for (int from = 0; from < size; ) {
            if (from == 0 || groups[from] != groups[from - 1]) {
                group[begun++] = row;
                y += headings ? HEADING : 0;
            }
            double sum = 0;
            int until = from;
            boolean full = false;
            while (until < size && groups[until] == groups[from] && !full) {
                sum += shapes[until++];
                full = sum * wished + (until - from - 1.0) * GAP >= available;
            }
            int gaps = (until - from - 1) * GAP;
            int rowsHeight = full ? (int) Math.max(wished * FLATTEST, (available - gaps) / sum) : wished;
            int x = 0;
            for (int at = from; at < until; at++) {
                boolean atTheEdge = full && at == until - 1;
                left[at] = x;
                width[at] = Math.max(
                        1,
                        atTheEdge ? available - x : Math.min(available - x, (int) Math.round(shapes[at] * rowsHeight)));
                x += width[at] + GAP;
            }
            first[row] = from;
            top[row] = y;
            high[row] = rowsHeight;
            y += rowsHeight + GAP;
            row++;
            from = until;
        }
        rows = row;
        height = y;
        first[row] = size;
        rowFirst = Arrays.copyOf(first, row + 1);
        rowTop = Arrays.copyOf(top, row);
        rowHeight = Arrays.copyOf(high, row);
        groupRow = Arrays.copyOf(group, begun);
    }

    int size() {
        return left.length;
    }

    int rows() {
        return rows;
    }

    /** Of everything. */
    int height() {
        return height;
    }

    int firstOf(int row) {
        return rowFirst[row];
    }

    /** The end of a row is the first of the next one. */
    int endOf(int row) {
        return rowFirst[row + 1];
    }

    int topOf(int row) {
        return rowTop[row];
    }

    int heightOf(int row) {
        return rowHeight[row];
    }

    int leftOf(int picture) {
        return left[picture];
    }

    int widthOf(int picture) {
        return width[picture];
    }

    int groups() {
        return groupRow.length;
    }

    /** The row at which a group begins. */
    int firstRowOf(int group) {
        return groupRow[group];
    }

    /** The row at a height, or the last one before it. */
    int rowAt(double y) {
        return Math.clamp(before(rowTop, (int) y, rowTop.length), 0, Math.max(0, rows - 1));
    }

    int groupOf(int row) {
        return before(groupRow, row, groupRow.length);
    }

    int rowOf(int picture) {
        return before(rowFirst, picture, rows);
    }

    private static int before(int[] sorted, int value, int length) {
        int found = Arrays.binarySearch(sorted, 0, length, value);
        return found >= 0 ? found : -found - 2;
    }

    /** The picture at a place; -1 for none. */
    int pictureAt(double x, double y) {
        if (rows == 0) {
            return -1;
        }
        int row = rowAt(y);
        if (y < rowTop[row] || y >= rowTop[row] + rowHeight[row]) {
            return -1;
        }
        for (int picture = rowFirst[row]; picture < rowFirst[row + 1]; picture++) {
            if (x >= left[picture] && x < left[picture] + width[picture]) {
                return picture;
            }
        }
        return -1;
    }

    /** The picture some rows further down, or up: the one whose middle is nearest. */
    int neighbour(int picture, int down) {
        int row = Math.clamp((long) rowOf(picture) + down, 0, rows - 1);
        int best = rowFirst[row];
        for (int other = best; other < rowFirst[row + 1]; other++) {
            if (Math.abs(middle(other) - middle(picture)) < Math.abs(middle(best) - middle(picture))) {
                best = other;
            }
        }
        return best;
    }

    private int middle(int picture) {
        return left[picture] + width[picture] / 2;
    }
}
