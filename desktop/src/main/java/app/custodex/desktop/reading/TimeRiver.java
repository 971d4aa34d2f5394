package app.custodex.desktop.reading;

import app.custodex.catalogue.CalendarStep;
import app.custodex.catalogue.Spine.Span;
import app.custodex.desktop.ui.Parts;
import app.custodex.model.KindGroup;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.scene.AccessibleRole;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.text.Font;
import javafx.scene.text.Text;

/**
 * What there is by time, stacked by kind. A drag brushes a stretch; wheel and keys zoom; arrows move the brush by a bar, with Shift its end;
 * a double click and Escape look at all of it again.
 */
final class TimeRiver extends Pane {
    /** Pixels; finer bars can't be hit. */
    private static final int NARROWEST = 7;

    private static final double AXIS = 20;
    private static final double GAP = 14;
    private static final double ZOOM = 1.25;

    /** More would never fit. */
    private static final int MOST_NAMES = 200;

    /** The finest that one zooms to: a day. */
    private static final long SHORTEST = 24L * 3600 * 1000;

    private final Locale locale;
    private final Consumer<Optional<Span>> brushed;
    private final Pane bars = new Pane();
    /** All that were made, by their kind; those that are not needed at the moment are not seen. To make them is most of the work. */
    private final Map<KindGroup, List<Region>> made = new EnumMap<>(KindGroup.class);

    /** How many of each are shown. */
    private final Map<KindGroup, Integer> used = new EnumMap<>(KindGroup.class);

    private final Pane labels = new Pane();
    /** As wide as a label of the same text, without being shown. */
    private final Text measure = new Text();

    private final Region before = veil();
    private final Region after = veil();
    private final Region frame = new Region();
    private Optional<RoomModel.Room> room = Optional.empty();
    private Optional<RoomModel.Answer> answer = Optional.empty();
    private Span whole = new Span(0, 1);
    private Span view = new Span(0, 1);
    private long[] edges = new long[0];
    private Optional<Span> brush = Optional.empty();
    private double pressed;

    /** @param brushed is told the stretch that was brushed; empty when all is looked at again */
    TimeRiver(Locale locale, Consumer<Optional<Span>> brushed) {
        this.locale = locale;
        this.brushed = brushed;
        setId("time-river");
        getStyleClass().add("river");
        setMinHeight(86);
        setPrefHeight(86);
        setMaxHeight(86);
        setPadding(new Insets(4, 10, 0, 10));
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.SLIDER);
        measure.setFont(Font.font("Hanken Grotesk", 12));
        frame.getStyleClass().add("river-brush");
        for (var overlay : List.of(bars, labels, before, after, frame)) {
            overlay.setMouseTransparent(true);
            overlay.setManaged(false);
        }
        getChildren().addAll(bars, labels, before, after, frame);
        setOnMousePressed(this::press);
        setOnMouseDragged(this::drag);
        setOnMouseClicked(event -> {
            if (event.getClickCount() == 2) {
                reset();
            }
        });
        setOnScroll(this::zoom);
        setOnKeyPressed(this::key);
        widthProperty().addListener((o, was, is) -> draw());
    }

    private static Region veil() {
        var veil = new Region();
        veil.getStyleClass().add("river-veil");
        return veil;
    }

    /** Shows another layer, all of it. */
    void show(Optional<RoomModel.Room> newRoom) {
        boolean zoomedIn = room.isPresent() && newRoom.isPresent() && !view.equals(whole);
        room = newRoom;
        answer = Optional.empty();
        brush = Optional.empty();
        whole = newRoom.flatMap(in -> in.spine().span()).orElse(new Span(0, 1));
        view = zoomedIn ? view : whole; // of a layer that grows one goes on to see the same stretch
        draw();
    }

    /** Shows what is looked at. */
    void show(RoomModel.Answer newAnswer) {
        boolean sameThings =
                answer.filter(old -> old.numbers().equals(newAnswer.numbers())).isPresent();
        answer = Optional.of(newAnswer);
        brush = newAnswer.asked().within();
        if (sameThings) {
            place();
        } else {
            draw();
        }
    }

    private ZoneId zone() {
        return room.map(in -> in.phone().phone().timeZone()).orElse(ZoneId.of("UTC"));
    }

    private double room() {
        return Math.max(1, getWidth() - getPadding().getLeft() - getPadding().getRight());
    }

    private double x(long at) {
        return getPadding().getLeft() + (double) (at - view.from()) / view.length() * room();
    }

    private long at(double x) {
        double share = Math.clamp((x - getPadding().getLeft()) / room(), 0, 1);
        return view.from() + Math.round(share * view.length());
    }

    private void draw() {
        labels.getChildren().clear();
        edges = new long[0];
        used.clear();
        if (room.isPresent() && getWidth() > 0 && whole.length() > 1) {
            drawBars();
        }
        made.forEach((group, all) -> {
            int shown = used.getOrDefault(group, 0);
            for (int i = 0; i < all.size(); i++) {
                all.get(i).setVisible(i < shown);
            }
        });
        place();
    }

    private void drawBars() {
        var step = CalendarStep.of(view, (int) (room() / NARROWEST));
        edges = step.edges(view, zone());
        var counts = room.orElseThrow().spine().counts(edges, answer.flatMap(RoomModel.Answer::numbers));
        int most = 1;
        for (var bar : counts) {
            int all = 0;
            for (int n : bar) {
                all += n;
            }
            most = Math.max(most, all);
        }
        double bottom = getPrefHeight() - AXIS;
        double height = bottom - getPadding().getTop();
        for (int i = 0; i < counts.length; i++) {
            double left = Math.max(getPadding().getLeft(), Math.round(x(edges[i])));
            double right = Math.min(getWidth() - getPadding().getRight(), Math.round(x(edges[i + 1])) - 1);
            bar(counts[i], left, Math.max(left + 1, right), bottom, height / most);
        }
        label(step);
    }

    private void bar(int[] counts, double left, double right, double bottom, double each) {
        double from = bottom;
        for (var group : KindGroup.values()) {
            int n = 0;
            for (var kind : group.kinds()) {
                n += counts[kind.ordinal()];
            }
            if (n > 0) {
                double to = from - n * each;
                part(group)
                        .resizeRelocate(
                                left, Math.round(to), right - left, Math.max(1, Math.round(from) - Math.round(to)));
                from = to;
            }
        }
    }

    /** The next part of a bar that is not in use. */
    private Region part(KindGroup group) {
        var all = made.computeIfAbsent(group, any -> new ArrayList<>());
        int next = used.merge(group, 1, Integer::sum) - 1;
        if (next == all.size()) {
            var part = new Region();
            part.getStyleClass().addAll("tint", "tint-" + group.code());
            part.setManaged(false);
            all.add(part);
            bars.getChildren().add(part);
        }
        return all.get(next);
    }

    /** The labels of the next coarser step that has room for them; none overlaps another or is cut. */
    private void label(CalendarStep bars) {
        for (var step : CalendarStep.values()) {
            if (step.compareTo(bars) >= 0) {
                var names = names(step);
                if (!names.isEmpty() && (fits(names) || step == CalendarStep.TEN_YEARS)) {
                    names.stream().filter(name -> name.right() <= right()).forEach(this::put);
                    return;
                }
            }
        }
    }

    private double right() {
        return getWidth() - getPadding().getRight();
    }

    private static boolean fits(List<Name> names) {
        for (int i = 1; i < names.size(); i++) {
            if (names.get(i).x() < names.get(i - 1).right() + GAP) {
                return false;
            }
        }
        return true;
    }

    private record Name(String text, double x, double right) {}

    private List<Name> names(CalendarStep step) {
        var format = format(step);
        var names = new ArrayList<Name>();
        for (long edge : step.edges(view, zone())) {
            double x = Math.round(x(edge));
            if (x >= getPadding().getLeft() && x < right() && names.size() <= MOST_NAMES) {
                var text = format.format(Instant.ofEpochMilli(edge).atZone(zone()));
                measure.setText(text);
                names.add(new Name(
                        text, x, x + Math.ceil(measure.getLayoutBounds().getWidth()) + 1));
            }
        }
        return names;
    }

    private void put(Name name) {
        var label = Parts.text(name.text(), "lesser");
        label.setManaged(false);
        label.resizeRelocate(name.x(), getPrefHeight() - AXIS + 1, name.right() - name.x(), AXIS - 2);
        labels.getChildren().add(label);
    }

    private DateTimeFormatter format(CalendarStep step) {
        return DateTimeFormatter.ofPattern(
                switch (step) {
                    case HOUR, QUARTER_DAY -> "d MMM, HH:mm";
                    case DAY, WEEK -> "d MMM";
                    case MONTH, QUARTER -> "MMM uuuu";
                    case YEAR, TEN_YEARS -> "uuuu";
                },
                locale);
    }

    /** Puts the brush where it belongs. */
    private void place() {
        boolean shown = brush.isPresent() && room.isPresent();
        for (var part : List.of(before, after, frame)) {
            part.setVisible(shown);
        }
        double left = getPadding().getLeft();
        double right = getWidth() - getPadding().getRight();
        double bottom = getPrefHeight() - AXIS;
        if (shown) {
            double from = Math.clamp(x(brush.get().from()), left, right);
            double to = Math.clamp(x(brush.get().until()), from, Math.max(from, right));
            before.resizeRelocate(left, 1, from - left, bottom);
            after.resizeRelocate(to, 1, right - to, bottom);
            frame.resizeRelocate(from - 1, 1, to - from + 2, bottom);
        }
        setAccessibleText(brush.map(span -> "Time, from " + day(span.from()) + " to " + day(span.until() - 1))
                .orElse("Time, the whole layer"));
    }

    private ZonedDateTime when(long at) {
        return Instant.ofEpochMilli(at).atZone(zone());
    }

    private String day(long at) {
        return when(at).toLocalDate().toString();
    }

    private void press(MouseEvent event) {
        requestFocus();
        pressed = event.getX();
    }

    private void drag(MouseEvent event) {
        if (event.getButton() == MouseButton.PRIMARY && edges.length > 1 && Math.abs(event.getX() - pressed) >= 3) {
            brush(snapped(at(Math.min(pressed, event.getX())), at(Math.max(pressed, event.getX()))));
        }
    }

    /** Whole bars. */
    private Span snapped(long from, long until) {
        long first = edges[0];
        long last = edges[edges.length - 1];
        for (long edge : edges) {
            if (edge <= from) {
                first = edge;
            }
        }
        for (int i = edges.length - 1; i >= 0; i--) {
            if (edges[i] > first && edges[i] >= until) {
                last = edges[i];
            }
        }
        return new Span(first, Math.max(last, first + 1));
    }

    private void brush(Span span) {
        if (!brush.equals(Optional.of(span))) {
            brush = Optional.of(span);
            place();
            brushed.accept(brush);
        }
    }

    private void reset() {
        view = whole;
        brush = Optional.empty();
        draw();
        brushed.accept(brush);
    }

    private void zoom(ScrollEvent event) {
        if (edges.length > 1 && event.getDeltaY() != 0) {
            zoom(event.getDeltaY() > 0 ? 1 / ZOOM : ZOOM, at(event.getX()));
            event.consume();
        }
    }

    private void zoom(double by, long around) {
        long length = Math.clamp(Math.round(view.length() * by), Math.min(SHORTEST, whole.length()), whole.length());
        double share = (double) (around - view.from()) / view.length();
        long from = Math.clamp(around - Math.round(share * length), whole.from(), whole.until() - length);
        view = new Span(from, from + length);
        draw();
    }

    private void key(KeyEvent event) {
        if (edges.length < 2) {
            return;
        }
        var span = brush.orElse(view);
        switch (event.getCode()) {
            case PLUS, ADD, EQUALS -> zoom(1 / ZOOM, span.from() + span.length() / 2);
            case MINUS, SUBTRACT -> zoom(ZOOM, span.from() + span.length() / 2);
            case LEFT, RIGHT -> move(event.getCode() == KeyCode.RIGHT, event.isShiftDown());
            case ESCAPE, HOME -> reset();
            default -> {
                return;
            }
        }
        event.consume();
    }

    /** By a bar; the first press puts the brush on the last bar. */
    private void move(boolean later, boolean endOnly) {
        if (brush.isEmpty()) {
            brush(new Span(edges[edges.length - 2], edges[edges.length - 1]));
            return;
        }
        int by = later ? 1 : -1;
        int first = nearest(brush.get().from()) + (endOnly ? 0 : by);
        int last = nearest(brush.get().until()) + by;
        if (first >= 0 && last < edges.length && first < last) {
            brush(new Span(edges[first], edges[last]));
        }
    }

    private int nearest(long at) {
        int nearest = 0;
        for (int i = 1; i < edges.length; i++) {
            if (Math.abs(edges[i] - at) < Math.abs(edges[nearest] - at)) {
                nearest = i;
            }
        }
        return nearest;
    }
}
