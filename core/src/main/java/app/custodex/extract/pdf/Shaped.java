package app.custodex.extract.pdf;

import java.util.List;

/**
 * Text as glyphs, from left to right. Lengths are in thousandths of the size at which it is drawn.
 *
 * @param clusters what readers see as single signs, from left to right
 */
record Shaped(Typeface typeface, List<Cluster> clusters, double width) {
    Shaped {
        clusters = List.copyOf(clusters);
    }

    /**
     * One sign as readers see it.
     *
     * @param text what it says, as it was written
     */
    record Cluster(String text, List<Glyph> glyphs) {
        Cluster {
            glyphs = List.copyOf(glyphs);
        }
    }

    /**
     * A shape of a font.
     *
     * @param x from the start of the text
     * @param rise above the line on which the text stands
     */
    record Glyph(int number, double x, double rise) {}
}
