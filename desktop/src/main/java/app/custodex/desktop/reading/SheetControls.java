package app.custodex.desktop.reading;

import app.custodex.desktop.ui.Parts;
import javafx.css.PseudoClass;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.layout.HBox;

/** Whether pictures are looked at as a sheet or as rows, and how large. */
final class SheetControls extends HBox {
    private static final PseudoClass PRESENT = PseudoClass.getPseudoClass("present");

    private final Runnable changed;
    private final Button asPictures =
            Parts.button("sheet-pictures", "Pictures", "", () -> look(true), "row-button", "scope");
    private final Button asRows = Parts.button("sheet-rows", "Rows", "", () -> look(false), "row-button", "scope");
    private final HBox sizes;
    private final Button fold = Parts.button("sheet-fold", "Unfold", "", this::fold, "row-button", "scope");
    private boolean asSheet = true;
    private boolean folding = true;

    /** @param changed is told that the other view is wanted */
    SheetControls(ContactSheet sheet, Runnable changed) {
        super(6);
        this.changed = changed;
        var smaller = Parts.button("sheet-smaller", "−", "", () -> sheet.resizePictures(-1), "row-button");
        smaller.setAccessibleText("Smaller pictures");
        var larger = Parts.button("sheet-larger", "+", "", () -> sheet.resizePictures(1), "row-button");
        larger.setAccessibleText("Larger pictures");
        fold.setAccessibleText("Show every picture of a burst, and the clips of pictures");
        sizes = new HBox(2, fold, smaller, larger);
        sizes.setAlignment(Pos.CENTER_LEFT);
        setAlignment(Pos.CENTER_RIGHT);
        getChildren().addAll(sizes, asPictures, asRows);
        offer(false);
        mark();
    }

    /** Whether bursts, and pictures with their clips, are shown as one. */
    boolean folding() {
        return folding;
    }

    /** @param offered whether there is anything to fold */
    void offerFolding(boolean offered) {
        fold.setVisible(offered);
        fold.setManaged(offered);
    }

    private void fold() {
        folding = !folding;
        mark();
        changed.run();
    }

    boolean asSheet() {
        return asSheet;
    }

    void offer(boolean offered) {
        setVisible(offered);
        setManaged(offered);
    }

    private void look(boolean sheet) {
        if (asSheet != sheet) {
            asSheet = sheet;
            mark();
            changed.run();
        }
    }

    private void mark() {
        asPictures.pseudoClassStateChanged(PRESENT, asSheet);
        asRows.pseudoClassStateChanged(PRESENT, !asSheet);
        fold.setText(folding ? "Unfold" : "Fold");
        sizes.setVisible(asSheet);
    }
}
