package app.custodex.practice.content;

import app.custodex.practice.island.Spot;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Locale;

/** Walks over the island as a phone writes them down (GPX 1.1). */
final class Tracks {
    private static final List<Spot> OVER_THE_HILL =
            List.of(Spot.HARBOUR, Spot.SCHOOL, Spot.SCHOOL_HILL, Spot.EASTER_GEO, Spot.LIGHTHOUSE);
    /** From one spot to the next; a point a minute. */
    private static final int POINTS = 40;

    private Tracks() {}

    static String overTheHill(LocalDateTime begun) {
        var gpx = new StringBuilder("""
                <?xml version="1.0" encoding="UTF-8"?>
                <gpx version="1.1" creator="Skerrow Practice Works" xmlns="http://www.topografix.com/GPX/1/1">
                <trk><name>Over the hill</name><trkseg>
                """);
        int points = 0;
        for (int leg = 1; leg < OVER_THE_HILL.size(); leg++) {
            var from = OVER_THE_HILL.get(leg - 1);
            var to = OVER_THE_HILL.get(leg);
            for (int i = 0; i < POINTS; i++) {
                double share = (double) i / POINTS;
                // Nobody walks in straight lines.
                double aside = Math.sin(share * Math.PI) * Math.sin(share * 9 + leg) * 0.0014;
                gpx.append(String.format(
                        Locale.ROOT,
                        "<trkpt lat=\"%.6f\" lon=\"%.6f\"><time>%s</time></trkpt>%n",
                        from.latitude() + share * (to.latitude() - from.latitude()) + aside,
                        from.longitude() + share * (to.longitude() - from.longitude()) - 2 * aside,
                        begun.plusMinutes(points++).toInstant(ZoneOffset.ofHours(1))));
            }
        }
        return gpx.append("</trkseg></trk></gpx>\n").toString();
    }
}
