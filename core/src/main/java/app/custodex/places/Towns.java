package app.custodex.places;

import app.custodex.model.MediaFile.Place;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;

/** Places with names, the largest first. */
public final class Towns {
    /** Metres; what is farther away from any of them is called by its degrees. */
    private static final double NEAR = 25_000;
    /** Degrees of latitude that are more than that. */
    private static final double NEAR_DEGREES = 0.25;

    /** On the map, so that a map that is moved does not work it out each time. */
    private record Spot(Town town, double x, double y) {}

    private final List<Spot> largestFirst;
    private final List<Town> fromSouth;

    Towns(List<Town> all) {
        largestFirst = all.stream()
                .sorted(Comparator.comparingLong(Town::people).reversed())
                .map(town -> new Spot(
                        town,
                        Mercator.x(town.place().longitude()),
                        Mercator.y(town.place().latitude())))
                .toList();
        fromSouth = all.stream()
                .sorted(Comparator.comparingDouble(town -> town.place().latitude()))
                .toList();
    }

    /** Reads a line each: name, country, degrees north, degrees east, people, apart by tabs. */
    static List<Town> read(InputStream in) throws IOException {
        var towns = new ArrayList<Town>();
        var lines = new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8));
        for (var line = lines.readLine(); line != null; line = lines.readLine()) {
            var parts = line.split("\t");
            towns.add(new Town(
                    parts[0],
                    new Place(Double.parseDouble(parts[2]), Double.parseDouble(parts[3])),
                    Long.parseLong(parts[4])));
        }
        return towns;
    }

    /** Those in a piece of the map, the largest first. */
    public Stream<Town> in(Bounds piece) {
        return largestFirst.stream()
                .filter(spot -> piece.has(spot.x(), spot.y()))
                .map(Spot::town);
    }

    /** The nearest one, if any is near. */
    public Optional<Town> near(Place place) {
        Optional<Town> nearest = Optional.empty();
        double shortest = NEAR;
        for (int i = firstFrom(place.latitude() - NEAR_DEGREES); i < fromSouth.size(); i++) {
            var town = fromSouth.get(i);
            if (town.place().latitude() > place.latitude() + NEAR_DEGREES) {
                break;
            }
            double metres = town.place().metresTo(place);
            if (metres < shortest) {
                shortest = metres;
                nearest = Optional.of(town);
            }
        }
        return nearest;
    }

    private int firstFrom(double latitude) {
        int low = 0;
        int high = fromSouth.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (fromSouth.get(middle).place().latitude() < latitude) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    /** What to call a place: after what is near, else by its degrees, to about ten kilometres. */
    public String nameOf(Place place) {
        return near(place)
                .map(town -> "Near " + town.name())
                .orElseGet(() -> String.format(
                        Locale.ROOT,
                        "%.1f° %s, %.1f° %s",
                        Math.abs(place.latitude()),
                        place.latitude() < 0 ? "S" : "N",
                        Math.abs(place.longitude()),
                        place.longitude() < 0 ? "W" : "E"));
    }
}
