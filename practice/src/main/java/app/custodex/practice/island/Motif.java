package app.custodex.practice.island;

import java.util.Locale;

/** What is in a picture. */
public enum Motif {
    SEA(Spot.EASTER_GEO),
    KELP(Spot.NORDVOE),
    SEAL(Spot.SEAL_ROCKS),
    SNOW(Spot.LIGHTHOUSE),
    SUNSET(Spot.HARBOUR),
    AURORA(Spot.SCHOOL_HILL),
    NIGHT(Spot.HARBOUR),
    STORM(Spot.HARBOUR),
    BOAT(Spot.UPPER_SLIP),
    BREAD(Spot.HARBOUR),
    CLIFF(Spot.EASTER_GEO),
    DOG(Spot.NORDVOE),
    GATE(Spot.NORDVOE),
    HILL(Spot.SCHOOL_HILL),
    CHOIR(Spot.HALL),
    LIGHTHOUSE(Spot.LIGHTHOUSE),
    /** What stood on the screen of the phone itself. */
    SCREEN(Spot.HARBOUR);

    private final Spot spot;

    Motif(Spot spot) {
        this.spot = spot;
    }

    /** Where it is to be seen. */
    public Spot spot() {
        return spot;
    }

    static Motif of(String word) {
        return valueOf(word.toUpperCase(Locale.ROOT));
    }
}
