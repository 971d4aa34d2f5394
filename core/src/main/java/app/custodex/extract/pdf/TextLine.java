package app.custodex.extract.pdf;

import java.util.List;

/**
 * One line of text.
 *
 * @param pieces from left to right
 * @param width in thousandths of the size at which it is drawn
 * @param rightToLeft whether it begins at the right
 */
record TextLine(List<Shaped> pieces, double width, boolean rightToLeft) {
    TextLine {
        pieces = List.copyOf(pieces);
    }
}
