package app.custodex.extract.pdf;

/**
 * How text looks on paper.
 *
 * @param size in points
 * @param colour in sRGB, a byte each for red, green and blue
 * @param strong whether in the weight of headings
 */
public record Ink(double size, int colour, boolean strong) {
    private static final int BLACK = 0x1a1a1a;
    private static final int GREY = 0x555555;
    private static final double LEADING = 1.38;

    public static final Ink TITLE = new Ink(18, BLACK, true);
    public static final Ink HEADING = new Ink(11, BLACK, true);
    public static final Ink TEXT = new Ink(9.5, BLACK, false);
    public static final Ink STRONG = new Ink(9.5, BLACK, true);
    /** Those of tables. */
    public static final Ink HEADINGS = new Ink(8, BLACK, true);

    public static final Ink CELL = new Ink(8, BLACK, false);
    public static final Ink LESSER = new Ink(7.5, GREY, false);

    /** From line to line. */
    double leading() {
        return size * LEADING;
    }
}
