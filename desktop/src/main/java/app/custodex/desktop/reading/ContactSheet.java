package app.custodex.desktop.reading;

import app.custodex.app.OpenPhone;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Folds;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.media.Thumbnails;
import app.custodex.desktop.reading.SheetPainter.Colours;
import app.custodex.desktop.reading.SheetPainter.Sight;
import app.custodex.desktop.ui.Ranges;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.animation.AnimationTimer;
import javafx.beans.Observable;
import javafx.css.CssMetaData;
import javafx.css.Styleable;
import javafx.css.StyleableProperty;
import javafx.css.StyleablePropertyFactory;
import javafx.geometry.Orientation;
import javafx.scene.AccessibleAttribute;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.Canvas;
import javafx.scene.control.ScrollBar;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.shape.Rectangle;

/**
 * Pictures and videos in rows that fill the width, under their days or whatever they stand together by. They are drawn on one canvas of
 * the size of what is in sight, however many there are.
 */
final class ContactSheet extends Region implements RowsView {
    private static final StyleablePropertyFactory<ContactSheet> STYLES =
            new StyleablePropertyFactory<>(Region.getClassCssMetaData());
    private static final int BAR = 14;
    /** Pixels a pulse. */
    private static final double EDGE_SPEED = 24;
    /** Heights of a row, from the smallest. */
    private static final int[] SIZES = {56, 84, 120, 168, 228};

    private static final float UNKNOWN_SHAPE = 4f / 3;
    private static final float FLATTEST = 4;

    private final StyleableProperty<Color> empty =
            STYLES.createStyleableColorProperty(this, "empty", "-sheet-empty", sheet -> sheet.empty, Color.LIGHTGRAY);
    private final StyleableProperty<Color> accent =
            STYLES.createStyleableColorProperty(this, "accent", "-sheet-accent", sheet -> sheet.accent, Color.TEAL);
    private final StyleableProperty<Color> ink =
            STYLES.createStyleableColorProperty(this, "ink", "-sheet-ink", sheet -> sheet.ink, Color.BLACK);
    private final StyleableProperty<Color> ground =
            STYLES.createStyleableColorProperty(this, "ground", "-sheet-ground", sheet -> sheet.ground, Color.WHITE);

    private final Desk desk;
    private final TrayModel tray;
    private final Consumer<Optional<Entry>> chosen;
    private final FullView.Opener large;
    private final Thumbnails thumbnails;
    private final SheetPainter painter;
    private final Canvas canvas;
    private final ScrollBar bar = new ScrollBar();
    private final Rectangle clip = new Rectangle();
    private final Ranges selection = new Ranges();

    private Optional<Arrangement> shown = Optional.empty();
    private Optional<float[]> shapes = Optional.empty();
    private boolean shapesAsked;
    private Optional<Folds> folds = Optional.empty();
    private Optional<SheetLayout> layout = Optional.empty();
    private int laidOutFor;
    private boolean byMonth;
    private int size = 2;
    private int present = -1;
    private double top;
    private boolean movingBar;
    private Optional<RubberBand> band = Optional.empty();
    private double pointerX;
    private double pointerY;
    /** Scrolls while the rubber band is held above or below what is in sight. */
    private final AnimationTimer beyondTheEdge = new AnimationTimer() {
        @Override
        public void handle(long now) {
            if (band.isPresent() && layout.isPresent() && (pointerY < 0 || pointerY > getHeight())) {
                stretch();
            }
        }
    };

    ContactSheet(Desk desk, TrayModel tray, Consumer<Optional<Entry>> chosen, FullView.Opener large) {
        this.desk = desk;
        this.tray = tray;
        this.chosen = chosen;
        this.large = large;
        thumbnails = new Thumbnails(desk.work(), this::requestLayout);
        painter = new SheetPainter(desk, tray, thumbnails);
        canvas = painter.canvas();
        setId("contact-sheet");
        getStyleClass().add("contact-sheet");
        bar.setOrientation(Orientation.VERTICAL);
        getChildren().addAll(canvas, painter.headings(), bar);
        getChildren().forEach(child -> child.setManaged(false));
        setClip(clip);
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.LIST_VIEW);
        bar.valueProperty().addListener((o, was, is) -> {
            if (!movingBar) {
                scrollTo(is.doubleValue());
            }
        });
        addEventHandler(ScrollEvent.SCROLL, this::scroll);
        canvas.addEventHandler(MouseEvent.MOUSE_PRESSED, this::press);
        canvas.addEventHandler(MouseEvent.MOUSE_DRAGGED, this::drag);
        canvas.addEventHandler(MouseEvent.MOUSE_RELEASED, event -> {
            band = Optional.empty();
            beyondTheEdge.stop();
            requestLayout();
        });
        addEventHandler(KeyEvent.KEY_PRESSED, this::press);
        focusedProperty().addListener((o, was, is) -> requestLayout());
        desk.veil().down().addListener((o, was, is) -> requestLayout());
        tray.picked().addListener((o, was, is) -> requestLayout());
        for (var colour : List.of(empty, accent, ink, ground)) {
            ((Observable) colour).addListener(o -> requestLayout());
        }
    }

    @Override
    public List<CssMetaData<? extends Styleable, ?>> getCssMetaData() {
        return STYLES.getCssMetaData();
    }

    @Override
    public Region node() {
        return this;
    }

    /** Marks pictures behind which others stand; who selects one selects those too. */
    void fold(Optional<Folds> newFolds) {
        folds = newFolds;
        painter.fold(newFolds);
    }

    /** Shows the pictures of another layer from now on. */
    void of(Optional<OpenPhone> phone) {
        shapes = Optional.empty();
        shapesAsked = false;
        fold(Optional.empty());
        thumbnails.of(phone.map(open -> open::media));
    }

    @Override
    public void show(Arrangement arrangement) {
        shown = Optional.of(arrangement);
        selection.clear();
        present = -1;
        top = 0;
        layOut();
        if (!shapesAsked) {
            shapesAsked = true;
            var catalogue = arrangement.room().phone().catalogue();
            desk.work().start("Pictures", catalogue::shapes, found -> {
                if (shown.filter(now -> now.room() == arrangement.room()).isPresent()) {
                    shapes = Optional.of(found);
                    keepPlace(() -> {});
                }
            });
        }
    }

    @Override
    public void clear() {
        shown = Optional.empty();
        layout = Optional.empty();
        selection.clear();
        present = -1;
        requestLayout();
    }

    @Override
    public void choose(int row) {
        selection.only(row);
        comeTo(row);
    }

    @Override
    public int present() {
        return present;
    }

    @Override
    public BitSet selected() {
        var numbers = shown.map(rows -> rows.numbersOf(selection.rows())).orElseGet(BitSet::new);
        folds.ifPresent(all -> ((BitSet) numbers.clone())
                .stream()
                        .forEach(number -> all.behind(number)
                                .ifPresent(fold -> fold.numbers().forEach(numbers::set))));
        return numbers;
    }

    @Override
    public void arrived() {
        requestLayout();
    }

    @Override
    public void focus() {
        requestFocus();
        if (present < 0 && shown.filter(rows -> rows.size() > 0).isPresent()) {
            choose(0);
        }
    }

    /** Goes to the next larger size, or the next smaller one. */
    void resizePictures(int by) {
        int next = Math.clamp((long) size + by, 0, SIZES.length - 1);
        if (next != size) {
            keepPlace(() -> size = next);
        }
    }

    private void layOut() {
        var rows = shown.orElseThrow();
        var ratios = new float[rows.size()];
        for (int i = 0; i < ratios.length; i++) {
            int number = rows.numbers()[i];
            float known = shapes.filter(all -> number < all.length)
                    .map(all -> all[number])
                    .orElse(0f);
            ratios[i] = known > 0 ? Math.clamp(known, 1 / FLATTEST, FLATTEST) : UNKNOWN_SHAPE;
        }
        laidOutFor = (int) getWidth();
        byMonth = rows.byMonth();
        int available = Math.max(80, laidOutFor - BAR - 2 * SheetPainter.MARGIN);
        layout = Optional.of(new SheetLayout(ratios, rows.groups(), hasHeadings(), available, SIZES[size]));
        requestLayout();
    }

    private boolean hasHeadings() {
        return shown.filter(rows -> rows.byTime() || !rows.sections().isEmpty()).isPresent();
    }

    /** What stands at the top stays there. */
    private void keepPlace(Runnable change) {
        var before = layout.filter(old -> old.rows() > 0);
        int picture = before.map(old -> old.firstOf(old.rowAt(top + SheetLayout.HEADING)))
                .orElse(-1);
        double within = before.map(old -> old.topOf(old.rowOf(picture)) - top).orElse(0.0);
        change.run();
        layOut();
        if (picture >= 0) {
            var now = layout.orElseThrow();
            scrollTo(now.topOf(now.rowOf(picture)) - within);
        }
    }

    private void scrollTo(double y) {
        double most = layout.map(all -> all.height() - getHeight()).orElse(0.0);
        top = Math.round(Math.clamp(y, 0, Math.max(0, most)));
        requestLayout();
    }

    private void scroll(ScrollEvent event) {
        if (event.isShortcutDown()) {
            resizePictures(event.getDeltaY() > 0 ? 1 : -1);
        } else {
            scrollTo(top - event.getDeltaY());
        }
        event.consume();
    }

    private void press(MouseEvent event) {
        requestFocus();
        if (layout.isEmpty() || event.getButton() != MouseButton.PRIMARY) {
            return;
        }
        int at = layout.get().pictureAt(event.getX() - SheetPainter.MARGIN, event.getY() + top);
        if (at < 0) {
            if (!event.isShortcutDown()) {
                selection.clear();
            }
            double y = event.getY() + top;
            band = Optional.of(new RubberBand(event.getX(), y, event.getX(), y, selection.copy()));
        } else if (event.getClickCount() == 2) {
            openLarge();
        } else {
            select(at, event.isShiftDown(), event.isShortcutDown());
        }
        requestLayout();
    }

    private void select(int picture, boolean extending, boolean keeping) {
        selection.select(picture, extending, keeping);
        comeTo(picture);
    }

    private void drag(MouseEvent event) {
        if (band.isPresent() && layout.isPresent()) {
            pointerX = event.getX();
            pointerY = event.getY();
            beyondTheEdge.start();
            stretch();
        }
    }

    /** The rubber band goes as far as the pointer, which may be above or below what is in sight. */
    private void stretch() {
        var all = layout.orElseThrow();
        double beyond = pointerY < 0 ? pointerY : Math.max(0, pointerY - getHeight());
        if (beyond != 0) {
            scrollTo(top + Math.clamp(beyond, -EDGE_SPEED, EDGE_SPEED));
        }
        var now = band.orElseThrow().to(pointerX, pointerY + top);
        band = Optional.of(now);
        selection.set(now.before());
        // Pictures of a row lie side by side, so each row gives one range.
        for (int row = all.rowAt(now.top()); row < all.rows() && all.topOf(row) < now.bottom(); row++) {
            if (all.topOf(row) + all.heightOf(row) > now.top()) {
                addTouched(all, row, now);
            }
        }
        requestLayout();
    }

    private void addTouched(SheetLayout all, int row, RubberBand by) {
        int from = all.firstOf(row);
        int until = all.endOf(row);
        while (from < until && SheetPainter.MARGIN + all.leftOf(from) + all.widthOf(from) <= by.left()) {
            from++;
        }
        while (until > from && SheetPainter.MARGIN + all.leftOf(until - 1) >= by.right()) {
            until--;
        }
        selection.add(from, until);
    }

    private void press(KeyEvent event) {
        if (layout.filter(all -> all.size() > 0).isEmpty()) {
            return;
        }
        var all = layout.get();
        int at = Math.max(0, present);
        int page = Math.max(1, (int) (getHeight() / (SIZES[size] + SheetLayout.GAP)) - 1);
        switch (event.getCode()) {
            case LEFT -> go(at - 1, event);
            case RIGHT -> go(at + 1, event);
            case UP -> go(all.neighbour(at, -1), event);
            case DOWN -> go(all.neighbour(at, 1), event);
            case PAGE_UP -> go(all.neighbour(at, -page), event);
            case PAGE_DOWN -> go(all.neighbour(at, page), event);
            case HOME -> go(0, event);
            case END -> go(all.size() - 1, event);
            case PLUS, ADD, EQUALS -> resizePictures(1);
            case MINUS, SUBTRACT -> resizePictures(-1);
            case SPACE, ENTER -> openLarge();
            case A -> {
                if (!event.isShortcutDown()) {
                    return;
                }
                selection.all(all.size());
                requestLayout();
            }
            case T -> {
                if (event.isShortcutDown()) {
                    return;
                }
                tray.toggle(selected());
            }
            default -> {
                return;
            }
        }
        event.consume();
    }

    private void go(int to, KeyEvent by) {
        int picture = Math.clamp(to, 0, layout.orElseThrow().size() - 1);
        select(picture, by.isShiftDown(), false);
    }

    /** Makes it the present one, in sight. */
    private void comeTo(int picture) {
        present = picture;
        layout.ifPresent(all -> {
            int row = all.rowOf(picture);
            double above = all.topOf(row) - (hasHeadings() ? SheetLayout.HEADING : 0);
            double below = all.topOf(row) + all.heightOf(row);
            if (above < top) {
                scrollTo(above);
            } else if (below > top + getHeight()) {
                scrollTo(below - getHeight());
            }
        });
        chosen.accept(shown.flatMap(rows -> rows.entry(picture)));
        notifyAccessibleAttributeChanged(AccessibleAttribute.TEXT);
        requestLayout();
    }

    private void openLarge() {
        if (present >= 0) {
            shown.ifPresent(rows -> large.open(rows.room().phone(), rows.numbers(), present));
        }
    }

    @Override
    protected void layoutChildren() {
        double width = getWidth();
        double height = getHeight();
        clip.setWidth(width);
        clip.setHeight(height);
        if (width < 1 || height < 1) {
            return;
        }
        if (canvas.getWidth() != width - BAR || canvas.getHeight() != height) {
            canvas.setWidth(width - BAR);
            canvas.setHeight(height);
        }
        if (shown.isPresent() && laidOutFor != (int) width) {
            keepPlace(() -> {});
        }
        double all = layout.map(SheetLayout::height).orElse(0);
        bar.resizeRelocate(width - BAR, 0, BAR, height);
        movingBar = true;
        bar.setMax(Math.max(0, all - height));
        bar.setVisibleAmount(bar.getMax() * height / Math.max(1, all));
        bar.setUnitIncrement(SIZES[size]);
        bar.setBlockIncrement(height);
        if (!bar.isPressed()) {
            bar.setValue(top);
        }
        movingBar = false;
        bar.setVisible(all > height);
        var colours = new Colours(empty.getValue(), accent.getValue(), ink.getValue(), ground.getValue());
        var sight = new Sight(
                shown, layout, top, selection, isFocused() ? present : -1, hasHeadings(), byMonth, band, colours);
        painter.paint(sight, width - BAR, height);
    }

    @Override
    public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        return switch (attribute) {
            case ITEM_COUNT -> shown.map(Arrangement::size).orElse(0);
            case TEXT -> spoken();
            default -> super.queryAccessibleAttribute(attribute, parameters);
        };
    }

    private String spoken() {
        if (shown.isEmpty()) {
            return "Pictures";
        }
        var rows = shown.get();
        var name = rows.entry(present)
                .map(entry -> desk.veil().words(entry.thing().title()))
                .orElse("");
        return (present < 0
                        ? rows.size() + " pictures"
                        : "Picture " + (present + 1) + " of " + rows.size() + ", " + name)
                + (selection.has(present) ? ", selected" : "")
                + (selection.count() > 1 ? ", " + selection.count() + " are selected" : "")
                + (present >= 0 && tray.has(rows.numbers()[present]) ? ", in the tray" : "");
    }
}
