package app.custodex.desktop.reading;

import java.util.BitSet;
import javafx.scene.layout.Region;

/** A way to look at an arrangement: as rows of words, or as pictures. */
interface RowsView {
    Region node();

    /** Shows it from its beginning. */
    void show(Arrangement arrangement);

    /** Shows nothing. */
    void clear();

    /** Chooses a row and brings it into sight. */
    void choose(int row);

    /** The only row that is selected, or the one that was selected last; -1 for none. */
    int present();

    /** The numbers of what is selected. */
    BitSet selected();

    /** More has been read. */
    void arrived();

    /** Takes the keyboard, with something chosen. */
    void focus();
}
