package app.custodex.places;

/**
 * Which piece of the map one sees, and how large.
 *
 * @param x of what lies in the middle, in the units of {@link Mercator}
 * @param scale pixels that the whole map is wide
 * @param width pixels
 * @param height pixels
 */
public record MapView(double x, double y, double scale, double width, double height) {
    /** At this scale a pixel is about 20 cm at the equator. */
    private static final double LARGEST = 2e8;
    /** Of what is shown, at each side. */
    private static final double MARGIN = 0.12;
    /** What lies in one place is shown with this much around it: about ten kilometres at the equator. */
    private static final double SMALLEST = 10_000 / 40_075_017.0;

    /** The whole map, as large as it can be seen. */
    public static MapView world(double width, double height) {
        return new MapView(0.5, 0.42, Math.max(width, 1), width, height).within();
    }

    /** So that a piece is in sight, with some room around it. */
    public static MapView of(Bounds piece, double width, double height) {
        double room = 1 + 2 * MARGIN;
        double across = Math.max(piece.right() - piece.left(), SMALLEST) * room;
        double down = Math.max(piece.bottom() - piece.top(), SMALLEST) * room;
        double scale = Math.min(width / across, height / down);
        return new MapView((piece.left() + piece.right()) / 2, (piece.top() + piece.bottom()) / 2, scale, width, height)
                .within();
    }

    /** Not so small, nor so far aside, that one looks beyond the map. */
    private MapView within() {
        double in = Math.clamp(scale, Math.max(1, Math.max(width, height)), LARGEST);
        double across = Math.min(0.5, width / 2 / in);
        double down = Math.min(0.5, height / 2 / in);
        return new MapView(Math.clamp(x, across, 1 - across), Math.clamp(y, down, 1 - down), in, width, height);
    }

    public MapView sized(double newWidth, double newHeight) {
        return new MapView(x, y, scale, newWidth, newHeight).within();
    }

    /** Moved by pixels. */
    public MapView moved(double right, double down) {
        return new MapView(x + right / scale, y + down / scale, scale, width, height).within();
    }

    /** Larger by a factor; what lies at a pixel stays there. */
    public MapView zoomed(double by, double atX, double atY) {
        double newScale = new MapView(x, y, scale * by, width, height).within().scale;
        double ahead = 1 / scale - 1 / newScale;
        return new MapView(x + (atX - width / 2) * ahead, y + (atY - height / 2) * ahead, newScale, width, height)
                .within();
    }

    public double screenX(double mapX) {
        return (mapX - x) * scale + width / 2;
    }

    public double screenY(double mapY) {
        return (mapY - y) * scale + height / 2;
    }

    /** What is in sight, and some pixels around it. */
    public Bounds inSight(double around) {
        double across = (width / 2 + around) / scale;
        double down = (height / 2 + around) / scale;
        return new Bounds(x - across, y - down, x + across, y + down);
    }

    /** How many metres a pixel is in the middle. */
    public double metresPerPixel() {
        return 1 / (scale * Mercator.metre(Mercator.latitude(y)));
    }
}
