package app.custodex.places;

/**
 * Puts places on a square map: 0 to 1 from west to east, 0 to 1 from north to south. It is the spherical Mercator projection of
 * web maps (EPSG method 1024, "Popular Visualisation Pseudo Mercator").
 */
public final class Mercator {
    /** Degrees; beyond them the square ends. */
    private static final double FARTHEST = Math.toDegrees(Math.atan(Math.sinh(Math.PI)));
    /** Metres; the semi-major axis of WGS 84, on which the method is based. */
    private static final double RADIUS = 6_378_137;

    private Mercator() {}

    /** @param longitude degrees east */
    public static double x(double longitude) {
        return longitude / 360 + 0.5;
    }

    /** @param latitude degrees north; what lies beyond the map is put on its edge */
    public static double y(double latitude) {
        double within = Math.toRadians(Math.clamp(latitude, -FARTHEST, FARTHEST));
        return 0.5 - Math.log(Math.tan(Math.PI / 4 + within / 2)) / (2 * Math.PI);
    }

    public static double longitude(double x) {
        return (x - 0.5) * 360;
    }

    public static double latitude(double y) {
        return Math.toDegrees(Math.atan(Math.sinh((0.5 - y) * 2 * Math.PI)));
    }

    /** How long a metre is on the map at a latitude. */
    public static double metre(double latitude) {
        return 1 / (2 * Math.PI * RADIUS * Math.cos(Math.toRadians(Math.clamp(latitude, -FARTHEST, FARTHEST))));
    }
}
