package app.custodex.desktop.reading;

import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.desktop.desk.Desk;
import app.custodex.desktop.ui.Parts;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.function.Predicate;
import javafx.geometry.Orientation;
import javafx.scene.AccessibleAttribute;
import javafx.scene.AccessibleRole;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollBar;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Region;
import javafx.scene.shape.Rectangle;
import org.jspecify.annotations.Nullable;

/**
 * A conversation as a running page, however long it is. Only the rows in sight are there. What is true is one row and where its top is;
 * the thumb follows from it and never leads, except while it is held: so a height that was guessed wrong moves the thumb by a hair when it
 * is put right, and never the text.
 */
final class ConversationPage extends Region {
    private static final int GUESS = 32;
    private static final double BAR = 9;
    private static final double MARGIN = 14;

    private final Desk desk;
    private final TrayModel tray;
    private final Consumer<Optional<Entry>> chosen;
    private final DateTimeFormatter dayFormat;
    private final DateTimeFormatter timeFormat;
    private final ScrollBar bar = new ScrollBar();
    private final MonthRail months;
    private final Rectangle clip = new Rectangle();
    private final Label empty = Parts.text("No message of this conversation matches.", "lesser");
    private final TreeMap<Integer, MessageRow> shown = new TreeMap<>();
    private final Deque<MessageRow> spare = new ArrayDeque<>();
    private Optional<RoomModel.Room> room = Optional.empty();
    private int[] places = new int[0];
    private int[] numbers = new int[0];
    private Optional<Pages> pages = Optional.empty();
    private Heights heights = new Heights(0, GUESS);
    private double width;
    /** The row that stays where it is, and where its top is. */
    private int anchor;

    private double top;
    private int present;
    /** Whether the row at which one is has to be put into its place, which can be told only when there is a height. */
    private boolean toPresent;

    private boolean atEnd;
    private boolean settingBar;

    /** @param chosen is told which message is chosen */
    ConversationPage(Desk desk, TrayModel tray, Consumer<Optional<Entry>> chosen) {
        this.desk = desk;
        this.tray = tray;
        tray.picked().addListener((o, was, is) -> shown.values().forEach(this::showPicked));
        this.chosen = chosen;
        var locale = desk.words().locale();
        dayFormat = DateTimeFormatter.ofLocalizedDate(FormatStyle.FULL).localizedBy(locale);
        timeFormat = DateTimeFormatter.ofLocalizedTime(FormatStyle.SHORT).localizedBy(locale);
        months = new MonthRail(locale, this::choose);
        setId("conversation");
        getStyleClass().add("conversation");
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.LIST_VIEW);
        setAccessibleText("Conversation");
        bar.setOrientation(Orientation.VERTICAL);
        bar.setManaged(false);
        bar.valueProperty().addListener((o, was, is) -> {
            if (!settingBar) {
                goTo(is.doubleValue());
            }
        });
        desk.veil().down().addListener((o, was, is) -> veiled());
        setClip(clip);
        empty.setManaged(false);
        getChildren().addAll(empty, bar, months);
        setOnScroll(event -> {
            scroll(-event.getDeltaY());
            event.consume();
        });
        setOnKeyPressed(this::key);
        setOnMouseClicked(this::click);
    }

    /**
     * Shows messages.
     *
     * @param seen in the order of time
     * @param number the one to begin with; the last one if it is not among them
     */
    void show(RoomModel.Room in, int[] seen, Optional<Long> number) {
        room = Optional.of(in);
        places = seen;
        numbers = new int[seen.length];
        present = Math.max(0, seen.length - 1);
        boolean there = false;
        for (int i = 0; i < seen.length; i++) {
            numbers[i] = in.spine().number(seen[i]);
            if (number.equals(Optional.of((long) numbers[i]))) {
                present = i;
                there = true;
            }
        }
        months.show(in.spine(), seen);
        pages = Optional.of(new Pages(in.phone().catalogue(), desk.work(), this::arrived));
        heights = new Heights(seen.length, GUESS);
        putAway(row -> true);
        anchor = present;
        atEnd = !there;
        toPresent = true;
        requestLayout();
        tellChosen();
    }

    /** The numbers of all messages, in their order. */
    int[] rows() {
        return numbers.clone();
    }

    /** The number of the message at which one is; empty when there is none. */
    Optional<Long> present() {
        return numbers.length == 0 ? Optional.empty() : Optional.of((long) numbers[present]);
    }

    private Optional<Entry> entry(int row) {
        return pages.flatMap(read -> read.get(row, numbers));
    }

    private void tellChosen() {
        chosen.accept(places.length == 0 ? Optional.empty() : entry(present));
    }

    private void arrived() {
        for (var row : shown.values()) {
            if (!row.isFilled()) {
                fill(row, row.row());
            }
        }
        requestLayout();
        tellChosen();
    }

    /** Rows are of another height when their words are hidden; the one that one looks at stays where it is. */
    private void veiled() {
        heights = new Heights(places.length, GUESS);
        putAway(row -> true);
        requestLayout();
    }

    private void scroll(double by) {
        top -= by;
        requestLayout();
    }

    private void goTo(double offset) {
        if (heights.rows() > 0) {
            anchor = heights.at((int) offset);
            top = heights.before(anchor) - offset;
            requestLayout();
        }
    }

    private void click(MouseEvent event) {
        requestFocus();
        for (var row : shown.values()) {
            if (row.getBoundsInParent().contains(event.getX(), event.getY())) {
                choose(row.row());
                return;
            }
        }
    }

    private void key(KeyEvent event) {
        double page = Math.max(GUESS, getHeight() - GUESS);
        switch (event.getCode()) {
            case DOWN -> choose(present + 1);
            case UP -> choose(present - 1);
            case PAGE_DOWN -> scroll(page);
            case PAGE_UP -> scroll(-page);
            case HOME -> choose(0);
            case END -> choose(places.length - 1);
            case T -> togglePick(event);
            default -> {
                return;
            }
        }
        event.consume();
    }

    private void togglePick(KeyEvent event) {
        if (places.length > 0 && !event.isShortcutDown()) {
            tray.toggle(numbers[present]);
        }
    }

    private void showPicked(MessageRow node) {
        node.pick(tray.has(numbers[node.row()]));
    }

    /** Chooses a row and brings it into sight. */
    private void choose(int row) {
        if (places.length == 0) {
            return;
        }
        present = Math.clamp(row, 0, places.length - 1);
        var there = shown.get(present);
        if (there == null) {
            anchor = present;
            top = Math.round(getHeight() / 3);
        } else if (there.getLayoutY() < 0) {
            scroll(there.getLayoutY());
        } else if (there.getLayoutY() + there.getHeight() > getHeight()) {
            scroll(there.getLayoutY() + there.getHeight() - getHeight());
        }
        shown.values().forEach(each -> each.choose(each.row() == present));
        requestLayout();
        notifyAccessibleAttributeChanged(AccessibleAttribute.FOCUS_ITEM);
        tellChosen();
    }

    @Override
    protected void layoutChildren() {
        double height = getHeight();
        clip.setWidth(getWidth());
        clip.setHeight(height);
        double rail = months.isVisible() ? MonthRail.WIDTH : 0;
        bar.resizeRelocate(getWidth() - BAR - rail, 0, BAR, height);
        months.resizeRelocate(getWidth() - MonthRail.WIDTH, 0, MonthRail.WIDTH, height);
        empty.setVisible(places.length == 0);
        bar.setVisible(places.length > 0);
        empty.resizeRelocate(MARGIN, MARGIN, Math.max(0, getWidth() - 2 * MARGIN), empty.prefHeight(-1));
        if (places.length == 0 || height <= 0) {
            putAway(row -> true);
            moveSpareAway(height);
            return;
        }
        if (width != getWidth() - BAR - rail) {
            width = getWidth() - BAR - rail;
            heights.guess(GUESS);
        }
        if (toPresent) {
            toPresent = false;
            top = atEnd ? height : Math.round(height / 3);
        }
        putAwayWhatMovedOut(height);
        place(height);
        moveSpareAway(height);
        moveBar(height);
    }

    /** Before other rows are filled, so that these can be used for them. */
    private void putAwayWhatMovedOut(double height) {
        var stays = shown.get(anchor);
        double by = stays == null ? 0 : top - stays.getLayoutY();
        putAway(row ->
                stays == null || row.getLayoutY() + by + row.getHeight() <= 0 || row.getLayoutY() + by >= height);
    }

    /** From the anchor upwards and downwards; then nothing is left above the first row and below the last. */
    private void place(double height) {
        int rows = places.length;
        while (anchor < rows - 1 && top + measure(anchor) <= 0) {
            top += heights.of(anchor++);
        }
        while (anchor > 0 && top >= height) {
            top -= measure(--anchor);
        }
        int first = anchor;
        double y = top;
        while (y > 0 && first > 0) {
            y -= measure(--first);
        }
        if (y > 0) {
            top -= y;
            y = 0;
        }
        int end = anchor;
        double bottom = top;
        while (bottom < height && end < rows) {
            bottom += measure(end++);
        }
        if (bottom < height && (first > 0 || y < 0)) {
            double down = height - bottom;
            top += down;
            y += down;
            while (y > 0 && first > 0) {
                y -= measure(--first);
            }
            if (y > 0) {
                top -= y;
                y = 0;
            }
        }
        int begin = first;
        int until = end;
        putAway(row -> row.row() < begin || row.row() >= until);
        for (int row = first; row < end; row++) {
            node(row).resizeRelocate(0, Math.round(y), width, heights.of(row));
            y += heights.of(row);
        }
    }

    private int measure(int row) {
        var node = node(row);
        if (node.isFilled() && !heights.isMeasured(row)) {
            heights.measured(row, (int) Math.ceil(node.prefHeight(width)));
        }
        return heights.of(row);
    }

    private MessageRow node(int row) {
        return shown.computeIfAbsent(row, this::filled);
    }

    private MessageRow filled(int row) {
        var node = spare.isEmpty() ? made() : spare.pop();
        fill(node, row);
        return node;
    }

    /** Has its style before it is measured; what changes in it later sees to that by itself. */
    private MessageRow made() {
        var node = new MessageRow(desk.veil());
        getChildren().addFirst(node);
        node.applyCss();
        return node;
    }

    private void fill(MessageRow node, int row) {
        var in = room.orElseThrow();
        int place = places[row];
        boolean begins = row == 0 || !in.spine().day(place).equals(in.spine().day(places[row - 1]));
        var day = begins
                ? in.spine().day(place).map(date -> dayFormat.format(LocalDate.ofEpochDay(date)))
                : Optional.<String>empty();
        ZoneId zone = in.phone().phone().timeZone();
        var time = in.spine()
                .at(place)
                .map(at -> timeFormat.format(Instant.ofEpochMilli(at).atZone(zone)))
                .orElse("");
        node.show(row, day, time, entry(row).map(Entry::thing), new ThingWords(in.names()));
        node.choose(row == present);
        showPicked(node);
    }

    /** These wait to be used again. */
    private void putAway(Predicate<MessageRow> rows) {
        shown.values().removeIf(row -> {
            boolean away = rows.test(row);
            if (away) {
                spare.push(row);
            }
            return away;
        });
    }

    /** Below what is in sight: to hide a row and show it again is dear, with all that is in it. */
    private void moveSpareAway(double height) {
        spare.forEach(row -> row.setLayoutY(height + 1));
    }

    private void moveBar(double height) {
        double all = heights.all();
        settingBar = true;
        bar.setMax(Math.max(0, all - height));
        bar.setVisibleAmount(Math.min(1, height / Math.max(1, all)) * bar.getMax());
        bar.setBlockIncrement(height);
        bar.setUnitIncrement(GUESS);
        var first = shown.firstEntry();
        if (!bar.isPressed() && first != null) {
            double above = heights.before(first.getKey()) - first.getValue().getLayoutY();
            bar.setValue(Math.clamp(above, 0, bar.getMax()));
        }
        settingBar = false;
    }

    @Override
    public @Nullable Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        return switch (attribute) {
            case ITEM_COUNT -> places.length;
            case ITEM_AT_INDEX -> shown.get((Integer) parameters[0]);
            case FOCUS_ITEM -> shown.get(present);
            case VERTICAL_SCROLLBAR -> bar;
            default -> super.queryAccessibleAttribute(attribute, parameters);
        };
    }
}
