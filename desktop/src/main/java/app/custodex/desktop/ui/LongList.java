package app.custodex.desktop.ui;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.function.Supplier;
import javafx.css.PseudoClass;
import javafx.geometry.Orientation;
import javafx.scene.AccessibleAction;
import javafx.scene.AccessibleAttribute;
import javafx.scene.AccessibleRole;
import javafx.scene.Node;
import javafx.scene.control.ScrollBar;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.shape.Rectangle;
import org.jspecify.annotations.Nullable;

/**
 * Rows of one height, of which several can be selected. Only those in sight are there, and what it costs to move depends on them alone:
 * the toolkit's own list goes through the sizes of all rows above with every step. Interface thread only.
 */
public final class LongList extends Region {
    private static final PseudoClass SELECTED = PseudoClass.getPseudoClass("selected");
    private static final double BAR = 9;
    private static final int NONE = -1;
    /** Rows above one that was far away. */
    private static final int ABOVE = 4;

    /** A row in sight, which shows one thing after another. */
    public abstract static class Row extends Region {
        private int row = NONE;

        protected Row() {
            getStyleClass().add("long-row");
            setAccessibleRole(AccessibleRole.LIST_ITEM);
            setManaged(false);
        }

        /** Which row it is at the moment; negative for none. */
        public final int row() {
            return row;
        }

        /** Lets something fill the row. */
        protected final void fill(Region content) {
            double x = snappedLeftInset();
            double y = snappedTopInset();
            content.resizeRelocate(x, y, getWidth() - x - snappedRightInset(), getHeight() - y - snappedBottomInset());
        }

        /** Shows what stands in a row of the list. */
        protected abstract void show(int newRow);

        @Override
        public @Nullable Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
            return switch (attribute) {
                case INDEX -> row;
                case SELECTED -> getPseudoClassStates().contains(SELECTED);
                default -> super.queryAccessibleAttribute(attribute, parameters);
            };
        }
    }

    private final double rowHeight;
    private final Supplier<? extends Row> maker;
    private final Node empty;
    private final ScrollBar bar = new ScrollBar();
    /** Holds the rows, of which the first and the last may be cut. */
    private final Pane sight = new Pane();

    private final Rectangle clip = new Rectangle();
    /** A row of the list is always shown by the same one of these, as long as their number stays. */
    private final List<Row> made = new ArrayList<>();

    private final Ranges selection = new Ranges();
    private Runnable chosen = () -> {};
    private int rows;
    private int present = NONE;
    /** How far what is in sight is from the first row, in pixels. */
    private double top;

    private boolean movingBar;

    /**
     * A list without any rows yet.
     *
     * @param rowHeight in pixels
     * @param maker makes rows that show what is in sight
     * @param empty is shown when there are none
     */
    public LongList(double rowHeight, Supplier<? extends Row> maker, Node empty) {
        this.rowHeight = rowHeight;
        this.maker = maker;
        this.empty = empty;
        getStyleClass().add("long-list");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.LIST_VIEW);
        bar.setOrientation(Orientation.VERTICAL);
        bar.setManaged(false);
        bar.valueProperty().addListener((o, was, is) -> {
            if (!movingBar) {
                scrollBy(is.doubleValue() - top);
            }
        });
        empty.setManaged(false);
        sight.setManaged(false);
        sight.setClip(clip);
        getChildren().addAll(empty, sight, bar);
        setOnScroll(event -> {
            scrollBy(-event.getDeltaY());
            event.consume();
        });
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::press);
        addEventHandler(KeyEvent.KEY_PRESSED, this::press);
    }

    /** @param newChosen is told when another row was chosen, or none any more */
    public void whenChosen(Runnable newChosen) {
        chosen = newChosen;
    }

    /** Shows other rows from the first on, none of them selected. */
    public void setRows(int newRows) {
        boolean was = present != NONE;
        rows = newRows;
        selection.clear();
        present = NONE;
        top = 0;
        refresh();
        if (was) {
            chosen.run();
        }
    }

    /** How many rows there are. */
    public int rows() {
        return rows;
    }

    /** Shows what is in sight anew. */
    public void refresh() {
        made.forEach(node -> node.row = NONE);
        requestLayout();
    }

    /** What shows the rows in sight. */
    public List<Row> inSight() {
        return made.stream().filter(node -> node.row != NONE).toList();
    }

    /** The row that was chosen last; negative for none. */
    public int present() {
        return present;
    }

    /** The rows that are selected. */
    public BitSet selected() {
        return selection.rows();
    }

    /** Chooses one row alone and brings it into sight. */
    public void choose(int row) {
        if (row >= 0 && row < rows) {
            if (!isInSight(row)) {
                scrollBy((row - ABOVE) * rowHeight - top);
            }
            select(row, false, false);
        }
    }

    private boolean isInSight(int row) {
        return row * rowHeight >= top && (row + 1) * rowHeight <= top + sight.getHeight();
    }

    private void select(int row, boolean extending, boolean keeping) {
        selection.select(row, extending, keeping);
        if (selection.has(row)) {
            present = row;
        } else if (!selection.has(present)) {
            present = selection.nearest(row).orElse(NONE);
        }
        bringIntoSight(row);
        showSelection();
        notifyAccessibleAttributeChanged(AccessibleAttribute.FOCUS_ITEM);
        chosen.run();
    }

    private void selectAll() {
        selection.all(rows);
        showSelection();
    }

    private void showSelection() {
        made.forEach(node -> node.pseudoClassStateChanged(SELECTED, node.row != NONE && selection.has(node.row)));
    }

    private void bringIntoSight(int row) {
        double above = row * rowHeight;
        if (above < top) {
            scrollBy(above - top);
        } else if (sight.getHeight() > 0 && above + rowHeight > top + sight.getHeight()) {
            scrollBy(above + rowHeight - sight.getHeight() - top);
        }
    }

    private void scrollBy(double by) {
        top += by; // what is too far is put right when it is laid out
        requestLayout();
    }

    private void press(MouseEvent event) {
        requestFocus();
        double y = event.getY() - sight.getLayoutY();
        int row = (int) ((y + top) / rowHeight);
        if (y < 0 || row >= rows || event.getX() > sight.getLayoutX() + sight.getWidth()) {
            return;
        }
        boolean menu = event.getButton() == MouseButton.SECONDARY;
        if (event.getButton() == MouseButton.PRIMARY || menu && !selection.has(row)) {
            select(row, event.isShiftDown(), event.isShortcutDown());
        }
    }

    private void press(KeyEvent event) {
        int page = Math.max(1, (int) (sight.getHeight() / rowHeight) - 1);
        switch (event.getCode()) {
            case DOWN -> go(present + 1, event);
            case UP -> go(present - 1, event);
            case PAGE_DOWN -> go(Math.max(0, present) + page, event);
            case PAGE_UP -> go(present - page, event);
            case HOME -> go(0, event);
            case END -> go(rows - 1, event);
            case A -> {
                if (!event.isShortcutDown()) {
                    return;
                }
                selectAll();
            }
            default -> {
                return;
            }
        }
        event.consume();
    }

    private void go(int to, KeyEvent by) {
        if (rows > 0) {
            select(Math.clamp(to, 0, rows - 1), by.isShiftDown(), false);
        }
    }

    @Override
    protected void layoutChildren() {
        double x = snappedLeftInset();
        double y = snappedTopInset();
        double width = Math.max(0, getWidth() - x - snappedRightInset() - BAR);
        double height = Math.max(0, getHeight() - y - snappedBottomInset());
        sight.resizeRelocate(x, y, width, height);
        clip.setWidth(width);
        clip.setHeight(height);
        empty.setVisible(rows == 0);
        double wide = Math.min(width, empty.prefWidth(-1));
        empty.resizeRelocate(
                x + Math.round((width - wide) / 2), y + Math.round(height / 3), wide, empty.prefHeight(wide));
        double all = rows * rowHeight;
        top = Math.clamp(Math.round(top), 0, Math.max(0, all - height));
        int first = (int) (top / rowHeight);
        int end = Math.min(rows, (int) Math.ceil((top + height) / rowHeight));
        make(end - first);
        for (int i = 0; i < made.size(); i++) {
            // The one row in sight that this one shows, if there is one.
            int row = first + Math.floorMod(i - first, made.size());
            place(made.get(i), row < end ? row : NONE, width);
        }
        bar.resizeRelocate(x + width, y, BAR, height);
        moveBar(height, all);
    }

    private void make(int inSight) {
        if (inSight > made.size()) {
            made.forEach(node -> node.row = NONE); // they stand for other rows now
        }
        while (made.size() < inSight) {
            var node = maker.get();
            made.add(node);
            sight.getChildren().add(node);
            node.applyCss();
        }
    }

    private void place(Row node, int row, double width) {
        node.setVisible(row != NONE);
        if (row != NONE && node.row != row) {
            node.row = row;
            node.show(row);
        }
        node.row = row;
        node.pseudoClassStateChanged(SELECTED, row != NONE && selection.has(row));
        if (row != NONE) {
            node.resizeRelocate(0, Math.round(row * rowHeight - top), width, rowHeight);
        }
    }

    private void moveBar(double height, double all) {
        movingBar = true;
        bar.setVisible(all > height);
        bar.setMax(Math.max(0, all - height));
        bar.setVisibleAmount(bar.getMax() * height / Math.max(1, all));
        bar.setUnitIncrement(rowHeight);
        bar.setBlockIncrement(height);
        if (!bar.isPressed()) {
            bar.setValue(top);
        }
        movingBar = false;
    }

    @Override
    public @Nullable Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        return switch (attribute) {
            case ITEM_COUNT -> rows;
            case ITEM_AT_INDEX -> node((Integer) parameters[0]);
            case FOCUS_ITEM -> node(present);
            case MULTIPLE_SELECTION -> true;
            case VERTICAL_SCROLLBAR -> bar;
            default -> super.queryAccessibleAttribute(attribute, parameters);
        };
    }

    private @Nullable Node node(int row) {
        return made.stream()
                .filter(node -> row != NONE && node.row == row)
                .findFirst()
                .orElse(null);
    }

    @Override
    public void executeAccessibleAction(AccessibleAction action, Object... parameters) {
        if (action == AccessibleAction.SHOW_ITEM && parameters.length > 0 && parameters[0] instanceof Row item) {
            bringIntoSight(item.row);
        } else {
            super.executeAccessibleAction(action, parameters);
        }
    }
}
