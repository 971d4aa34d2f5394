package app.custodex.practice.island;

/** A place on the island, which lies in open sea. Degrees on WGS 84. */
public enum Spot {
    HARBOUR("Skerrow Harbour", 61.932, -14.118),
    LIGHTHOUSE("the lighthouse", 61.968, -14.052),
    NORDVOE("Nordvoe", 61.975, -14.141),
    EASTER_GEO("Easter Geo", 61.944, -14.038),
    UPPER_SLIP("Upper Slip", 61.935, -14.126),
    SCHOOL("the school", 61.938, -14.112),
    SCHOOL_HILL("the school hill", 61.941, -14.106),
    SEAL_ROCKS("the seal rocks", 61.921, -14.087),
    HALL("the school hall", 61.9383, -14.1115),
    LAMPHOLM("Lampholm", 61.871, -14.262);

    private final String label;
    private final double latitude;
    private final double longitude;

    Spot(String label, double latitude, double longitude) {
        this.label = label;
        this.latitude = latitude;
        this.longitude = longitude;
    }

    public String label() {
        return label;
    }

    public double latitude() {
        return latitude;
    }

    public double longitude() {
        return longitude;
    }
}
