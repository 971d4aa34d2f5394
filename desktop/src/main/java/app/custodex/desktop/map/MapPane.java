package app.custodex.desktop.map;

import app.custodex.places.Bounds;
import app.custodex.places.Cluster;
import app.custodex.places.Drawn;
import app.custodex.places.MapView;
import app.custodex.places.Outline;
import app.custodex.places.WorldMap;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import javafx.beans.Observable;
import javafx.css.CssMetaData;
import javafx.css.Styleable;
import javafx.css.StyleableProperty;
import javafx.css.StyleablePropertyFactory;
import javafx.scene.AccessibleAttribute;
import javafx.scene.AccessibleRole;
import javafx.scene.canvas.Canvas;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.shape.Rectangle;

/**
 * Points and tracks on a map. What lies near together is one circle with its number; a click chooses it, a double click goes nearer. A drag
 * moves the map, the wheel makes it larger.
 */
public final class MapPane extends Region {
    private static final StyleablePropertyFactory<MapPane> STYLES =
            new StyleablePropertyFactory<>(Region.getClassCssMetaData());
    private static final double ZOOM = 1.25;
    private static final double NEARER = 2.5;
    /** Pixels a key moves the map. */
    private static final double STEP = 80;
    /** Pixels; what is moved less was a click. */
    private static final double CLICK = 4;

    private final StyleableProperty<Color> land =
            STYLES.createStyleableColorProperty(this, "land", "-map-land", map -> map.land, Color.BEIGE);
    private final StyleableProperty<Color> shore =
            STYLES.createStyleableColorProperty(this, "shore", "-map-shore", map -> map.shore, Color.GRAY);
    private final StyleableProperty<Color> water =
            STYLES.createStyleableColorProperty(this, "water", "-map-water", map -> map.water, Color.WHITE);
    private final StyleableProperty<Color> ink =
            STYLES.createStyleableColorProperty(this, "ink", "-map-ink", map -> map.ink, Color.BLACK);
    private final StyleableProperty<Color> accent =
            STYLES.createStyleableColorProperty(this, "accent", "-map-accent", map -> map.accent, Color.TEAL);
    private final StyleableProperty<Color> onAccent =
            STYLES.createStyleableColorProperty(this, "onAccent", "-map-on-accent", map -> map.onAccent, Color.WHITE);

    /** Told what one does with it. */
    public interface Listener {
        /** A cluster was chosen, or nothing. */
        void chosen(BitSet points);

        /** Another piece is in sight. */
        void moved();
    }

    private final Listener listener;
    private final Canvas ground = new Canvas();
    private final Canvas marks = new Canvas();
    private final MapPainter painter = new MapPainter();
    private final Rectangle clip = new Rectangle();
    private Optional<WorldMap> world = Optional.empty();
    private double[] x = new double[0];
    private double[] y = new double[0];
    private List<Outline> tracks = List.of();
    private Optional<MapView> view = Optional.empty();
    private List<Cluster> clusters = List.of();
    private BitSet chosen = new BitSet();
    private boolean groundIsStale = true;
    private boolean fitting = true;
    private double pressedX;
    private double pressedY;
    private double lastX;
    private double lastY;

    public MapPane(Listener listener) {
        this.listener = listener;
        setId("map");
        getStyleClass().add("map");
        getChildren().addAll(ground, marks);
        getChildren().forEach(child -> child.setManaged(false));
        setClip(clip);
        setFocusTraversable(true);
        setAccessibleRole(AccessibleRole.LIST_VIEW);
        for (var colour : List.of(land, shore, water, ink, accent, onAccent)) {
            ((Observable) colour).addListener(o -> redraw());
        }
        addEventHandler(MouseEvent.MOUSE_PRESSED, this::press);
        addEventHandler(MouseEvent.MOUSE_DRAGGED, this::drag);
        addEventHandler(MouseEvent.MOUSE_CLICKED, this::click);
        addEventHandler(ScrollEvent.SCROLL, event -> {
            if (event.getDeltaY() != 0) {
                go(seen().zoomed(event.getDeltaY() > 0 ? ZOOM : 1 / ZOOM, event.getX(), event.getY()));
            }
            event.consume();
        });
        addEventHandler(KeyEvent.KEY_PRESSED, this::press);
        focusedProperty().addListener((o, was, is) -> requestLayout());
    }

    @Override
    public List<CssMetaData<? extends Styleable, ?>> getCssMetaData() {
        return STYLES.getCssMetaData();
    }

    /** What the points and tracks lie on. */
    public void show(WorldMap newWorld) {
        world = Optional.of(newWorld);
        redraw();
    }

    /**
     * Shows other points; nothing of them is chosen yet. What is in sight stays so.
     *
     * @param newX in the units of {@link app.custodex.places.Mercator}, as the rest
     */
    public void show(double[] newX, double[] newY, List<Outline> newTracks) {
        x = newX.clone();
        y = newY.clone();
        tracks = List.copyOf(newTracks);
        chosen = new BitSet();
        recluster();
    }

    /** Brings all points into sight. */
    public void fit() {
        fitting = true;
        if (getWidth() > 1) {
            go(fitted());
            fitting = true; // as it grows, too
        }
    }

    /** The points in sight. */
    public BitSet inSight() {
        var points = new BitSet();
        var sight = seen().inSight(0);
        for (int i = 0; i < x.length; i++) {
            if (sight.has(x[i], y[i])) {
                points.set(i);
            }
        }
        return points;
    }

    /** What is shown as one circle each, the largest first. */
    public List<Cluster> clusters() {
        return clusters;
    }

    public MapView seen() {
        return view.orElseGet(this::fitted);
    }

    private MapView fitted() {
        return x.length == 0
                ? MapView.world(getWidth(), getHeight())
                : MapView.of(Bounds.of(x, y), getWidth(), getHeight());
    }

    private void go(MapView to) {
        fitting = false;
        view = Optional.of(to);
        recluster();
        redraw();
        listener.moved();
    }

    private void recluster() {
        clusters = Cluster.of(x, y, seen());
        requestLayout();
    }

    private void redraw() {
        groundIsStale = true;
        requestLayout();
    }

    private void press(MouseEvent event) {
        requestFocus();
        pressedX = event.getX();
        pressedY = event.getY();
        lastX = pressedX;
        lastY = pressedY;
    }

    private void drag(MouseEvent event) {
        if (event.getButton() == MouseButton.PRIMARY && isDrag(event)) {
            go(seen().moved(lastX - event.getX(), lastY - event.getY()));
            lastX = event.getX();
            lastY = event.getY();
        }
    }

    private boolean isDrag(MouseEvent event) {
        return Math.hypot(event.getX() - pressedX, event.getY() - pressedY) > CLICK
                || lastX != pressedX
                || lastY != pressedY;
    }

    private void click(MouseEvent event) {
        if (event.getButton() != MouseButton.PRIMARY || isDrag(event)) {
            return;
        }
        var hit = clusters.stream()
                .filter(cluster -> MapPainter.covers(cluster, seen(), event.getX(), event.getY()))
                .findFirst();
        if (event.getClickCount() == 2) {
            hit.ifPresentOrElse(this::open, () -> go(seen().zoomed(NEARER, event.getX(), event.getY())));
        } else {
            choose(hit);
        }
    }

    private void choose(Optional<Cluster> cluster) {
        var points = new BitSet();
        cluster.ifPresent(one -> Arrays.stream(one.members()).forEach(points::set));
        chosen = (BitSet) points.clone();
        requestLayout();
        notifyAccessibleAttributeChanged(AccessibleAttribute.TEXT);
        listener.chosen(points);
    }

    /** Goes so near that what is in a circle comes apart. */
    private void open(Cluster cluster) {
        var nearer = MapView.of(cluster.bounds(), getWidth(), getHeight());
        go(
                nearer.scale() > seen().scale()
                        ? nearer
                        : seen().zoomed(NEARER, seen().screenX(cluster.x()), seen().screenY(cluster.y())));
    }

    private void press(KeyEvent event) {
        if (event.isShortcutDown() || event.isAltDown()) {
            return;
        }
        double middleX = getWidth() / 2;
        double middleY = getHeight() / 2;
        switch (event.getCode()) {
            case LEFT -> go(seen().moved(-STEP, 0));
            case RIGHT -> go(seen().moved(STEP, 0));
            case UP -> go(seen().moved(0, -STEP));
            case DOWN -> go(seen().moved(0, STEP));
            case PLUS, ADD, EQUALS -> go(seen().zoomed(ZOOM, middleX, middleY));
            case MINUS, SUBTRACT -> go(seen().zoomed(1 / ZOOM, middleX, middleY));
            case HOME, DIGIT0, NUMPAD0 -> fit();
            case PAGE_UP, PAGE_DOWN -> chooseNext(event.getCode() == KeyCode.PAGE_DOWN ? 1 : -1);
            case ENTER -> present().ifPresent(i -> open(clusters.get(i)));
            default -> {
                return;
            }
        }
        event.consume();
    }

    /** Where in {@link #clusters} the chosen points are. */
    private Optional<Integer> present() {
        for (int i = 0; i < clusters.size(); i++) {
            if (isChosen(clusters.get(i))) {
                return Optional.of(i);
            }
        }
        return Optional.empty();
    }

    private boolean isChosen(Cluster cluster) {
        return Arrays.stream(cluster.members()).anyMatch(chosen::get);
    }

    private void chooseNext(int by) {
        if (!clusters.isEmpty()) {
            int next =
                    present().map(i -> Math.floorMod(i + by, clusters.size())).orElse(0);
            choose(Optional.of(clusters.get(next)));
        }
    }

    @Override
    protected void layoutChildren() {
        double width = Math.max(1, getWidth());
        double height = Math.max(1, getHeight());
        if (ground.getWidth() != width || ground.getHeight() != height) {
            for (var canvas : List.of(ground, marks)) {
                canvas.setWidth(width);
                canvas.setHeight(height);
            }
            clip.setWidth(width);
            clip.setHeight(height);
            view = Optional.of(fitting ? fitted() : seen().sized(width, height));
            clusters = Cluster.of(x, y, seen());
            groundIsStale = true;
            listener.moved();
        }
        var colours = new MapPainter.Colours(
                land.getValue(),
                shore.getValue(),
                water.getValue(),
                ink.getValue(),
                accent.getValue(),
                onAccent.getValue());
        if (groundIsStale) {
            groundIsStale = false;
            painter.ground(ground.getGraphicsContext2D(), world, seen(), colours);
        }
        var g = marks.getGraphicsContext2D();
        painter.marks(
                g,
                tracks.stream()
                        .flatMap(track -> Drawn.line(track, seen()).stream())
                        .toList(),
                clusters,
                this::isChosen,
                seen(),
                colours);
        painter.names(g, world, clusters, seen(), colours);
        if (isFocused()) {
            MapPainter.focus(g, seen(), colours);
        }
    }

    @Override
    public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
        return switch (attribute) {
            case ITEM_COUNT -> clusters.size();
            case TEXT ->
                "Map, " + x.length + " in " + clusters.size() + " places"
                        + (chosen.isEmpty() ? "" : ", " + chosen.cardinality() + " are chosen");
            default -> super.queryAccessibleAttribute(attribute, parameters);
        };
    }
}
