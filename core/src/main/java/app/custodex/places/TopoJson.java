package app.custodex.places;

import app.custodex.base.Json;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/**
 * Reads shapes that share their lines: TopoJSON 1.0 (github.com/topojson/topojson-specification), quantised, as the world ships with the
 * program.
 */
final class TopoJson {
    private final List<double[][]> lines;
    private final JsonNode objects;

    private TopoJson(List<double[][]> lines, JsonNode objects) {
        this.lines = lines;
        this.objects = objects;
    }

    @JsonIgnoreProperties(ignoreUnknown = true)
    private record Document(Transform transform, int[][][] arcs, JsonNode objects) {}

    private record Transform(double[] scale, double[] translate) {}

    static TopoJson read(InputStream in) throws IOException {
        var document = Json.LINE.readValue(in, Document.class);
        var lines = new ArrayList<double[][]>();
        for (var arc : document.arcs()) {
            lines.add(degrees(arc, document.transform()));
        }
        return new TopoJson(lines, document.objects());
    }

    /** Each point is written as its distance from the one before (section 2.1.3 and 2.1.4 of the specification). */
    private static double[][] degrees(int[][] arc, Transform by) {
        var line = new double[arc.length][2];
        long x = 0;
        long y = 0;
        for (int i = 0; i < arc.length; i++) {
            x += arc[i][0];
            y += arc[i][1];
            line[i][0] = x * by.scale()[0] + by.translate()[0];
            line[i][1] = y * by.scale()[1] + by.translate()[1];
        }
        return line;
    }

    /** The rings of all polygons of an object. One over the edge of the map is there once at each side. */
    List<Outline> rings(String object) {
        var rings = new ArrayList<Outline>();
        eachRing(objects.path(object), ring -> {
            var outline = joined(ring).goingOn().aroundPole();
            rings.add(outline);
            if (outline.bounds().left() < 0) {
                rings.add(outline.shifted(1));
            }
            if (outline.bounds().right() > 1) {
                rings.add(outline.shifted(-1));
            }
        });
        return rings;
    }

    /** The lines that two polygons of an object share. */
    List<Outline> shared(String object) {
        var uses = new int[lines.size()];
        eachRing(objects.path(object), ring -> ring.forEach(arc -> uses[index(arc.asInt())]++));
        return IntStream.range(0, uses.length)
                .filter(i -> uses[i] > 1)
                .mapToObj(i -> outline(lines.get(i)).goingOn())
                .toList();
    }

    private interface Ring {
        void take(JsonNode arcs);
    }

    private static void eachRing(JsonNode geometry, Ring to) {
        switch (geometry.path("type").asText()) {
            case "GeometryCollection" -> geometry.path("geometries").forEach(part -> eachRing(part, to));
            case "Polygon" -> geometry.path("arcs").forEach(to::take);
            case "MultiPolygon" -> geometry.path("arcs").forEach(polygon -> polygon.forEach(to::take));
            default -> {} // points and lines surround nothing
        }
    }

    /** A negative number means the line backwards. */
    private static int index(int arc) {
        return arc < 0 ? ~arc : arc;
    }

    private Outline joined(JsonNode arcs) {
        var points = new ArrayList<double[]>();
        for (var arc : arcs) {
            var line = lines.get(index(arc.asInt()));
            for (int i = 0; i < line.length; i++) {
                if (i > 0 || points.isEmpty()) { // lines meet in a point, which each of them has
                    points.add(line[arc.asInt() < 0 ? line.length - 1 - i : i]);
                }
            }
        }
        return outline(points.toArray(double[][]::new));
    }

    private static Outline outline(double[][] degrees) {
        var x = new double[degrees.length];
        var y = new double[degrees.length];
        for (int i = 0; i < degrees.length; i++) {
            x[i] = Mercator.x(degrees[i][0]);
            y[i] = Mercator.y(degrees[i][1]);
        }
        return Outline.of(x, y);
    }
}
