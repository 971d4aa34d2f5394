package app.custodex.places;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import java.util.zip.GZIPInputStream;

/**
 * The land of the world, its borders and its towns.
 *
 * <p>Coastlines and borders are those of Natural Earth at 1:10,000,000 (public domain, naturalearthdata.com), the towns those of GeoNames
 * with 15,000 people or more (CC BY 4.0, geonames.org).
 *
 * @param land rings; what lies in an even number of them is water
 */
public record WorldMap(List<Outline> land, List<Outline> borders, Towns towns) {
    /** Whose work is shown, which their terms ask to be said. */
    public static final String SOURCES = "Coastlines and borders: Natural Earth. Towns: GeoNames, CC BY 4.0.";

    public WorldMap {
        land = List.copyOf(land);
        borders = List.copyOf(borders);
    }

    /**
     * Loads it; takes about a second.
     *
     * @param own a folder with GeoJSON files that are added to it; it need not be there
     * @param told is told which of them could not be read
     */
    public static WorldMap load(Path own, Consumer<Problem> told) throws IOException {
        TopoJson world;
        try (var in = shipped("countries.topojson.gz")) {
            world = TopoJson.read(in);
        }
        var land = new ArrayList<>(world.rings("land"));
        var towns = new ArrayList<Town>();
        try (var in = shipped("towns.tsv.gz")) {
            towns.addAll(Towns.read(in));
        }
        for (var file : outlines(own)) {
            try {
                var added = GeoJson.read(file);
                land.addAll(added.land());
                towns.addAll(added.towns());
            } catch (ProblemException unreadable) {
                told.accept(unreadable.problem());
            }
        }
        return new WorldMap(land, world.shared("countries"), new Towns(towns));
    }

    private static InputStream shipped(String name) throws IOException {
        return new GZIPInputStream(Objects.requireNonNull(WorldMap.class.getResourceAsStream(name), name));
    }

    private static List<Path> outlines(Path own) throws IOException {
        if (!Files.isDirectory(own)) {
            return List.of();
        }
        try (var files = Files.list(own)) {
            return files.filter(file -> file.toString().endsWith(".geojson"))
                    .sorted()
                    .toList();
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }
}
