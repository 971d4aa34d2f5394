package app.custodex.places;

import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.model.MediaFile.Place;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** Reads what a shop adds to the map: polygons as land and named points as places (GeoJSON, RFC 7946). */
final class GeoJson {
    /** Larger than any region that one would draw by hand; a mistaken file is not read into memory. */
    private static final long LARGEST = 64L << 20;

    private final List<Outline> land = new ArrayList<>();
    private final List<Town> towns = new ArrayList<>();

    private GeoJson() {}

    /** @throws ProblemException when it is no such file */
    static GeoJson read(Path file) throws IOException {
        var read = new GeoJson();
        try {
            if (Files.size(file) > LARGEST) {
                throw new IllegalArgumentException("larger than " + LARGEST);
            }
            try (var in = Files.newInputStream(file)) {
                read.take(Json.LINE.readTree(in), "");
            }
        } catch (IOException | IllegalArgumentException damaged) {
            throw new ProblemException(
                    Problem.failure(
                            file.toString(),
                            "It is not an outline that can be drawn on the map",
                            "Put a GeoJSON file with degrees on WGS 84 in its place, or take it away"),
                    damaged);
        }
        return read;
    }

    List<Outline> land() {
        return land;
    }

    List<Town> towns() {
        return towns;
    }

    private void take(JsonNode of, String name) {
        switch (of.path("type").asText()) {
            case "FeatureCollection" -> of.path("features").forEach(feature -> take(feature, ""));
            case "Feature" ->
                take(of.path("geometry"), of.path("properties").path("name").asText());
            case "GeometryCollection" -> of.path("geometries").forEach(part -> take(part, name));
            case "Polygon" -> of.path("coordinates").forEach(ring -> land.add(outline(ring)));
            case "MultiPolygon" ->
                of.path("coordinates").forEach(polygon -> polygon.forEach(ring -> land.add(outline(ring))));
            case "Point" -> {
                if (!name.isBlank()) {
                    // Whoever adds a place wants to see its name.
                    towns.add(new Town(name.strip(), place(of.path("coordinates")), Long.MAX_VALUE));
                }
            }
            case "LineString", "MultiLineString", "MultiPoint" -> {} // neither land nor named
            default -> throw new IllegalArgumentException("no GeoJSON");
        }
    }

    private static Outline outline(JsonNode ring) {
        var places = new ArrayList<Place>();
        ring.forEach(position -> places.add(place(position)));
        if (places.isEmpty()) {
            throw new IllegalArgumentException("an empty ring");
        }
        return Outline.through(places);
    }

    /** Section 3.1.1 of the standard: longitude comes first. */
    private static Place place(JsonNode position) {
        if (!position.path(0).isNumber() || !position.path(1).isNumber()) {
            throw new IllegalArgumentException("no position");
        }
        return new Place(position.get(1).asDouble(), position.get(0).asDouble());
    }
}
