package app.custodex.desktop.reading;

import app.custodex.desktop.ui.Ranges;

/**
 * A rubber band over a contact sheet.
 *
 * @param anchorX where it began; vertically in the sheet, not in what is in sight
 * @param before what was selected when it began
 */
record RubberBand(double anchorX, double anchorY, double x, double y, Ranges before) {
    RubberBand to(double newX, double newY) {
        return new RubberBand(anchorX, anchorY, newX, newY, before);
    }

    double left() {
        return Math.min(anchorX, x);
    }

    double top() {
        return Math.min(anchorY, y);
    }

    double right() {
        return Math.max(anchorX, x);
    }

    double bottom() {
        return Math.max(anchorY, y);
    }
}
