package app.custodex.places;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.model.MediaFile.Place;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

final class WorldMapTest {
    private static final double EQUATOR = 2 * Math.PI * 6_378_137;

    @TempDir
    Path own;

    /** IOGP Guidance Note 7-2, example of EPSG method 1024: 24°22'54.433"N 100°20'W is E −11,169,055.58, N 2,800,000.00 (from memory). */
    @Test
    void theMapIsThatOfTheStandard() {
        double latitude = 24 + 22 / 60.0 + 54.433 / 3600;
        double longitude = -(100 + 20 / 60.0);
        assertEquals(-11_169_055.58, (Mercator.x(longitude) - 0.5) * EQUATOR, 0.01);
        assertEquals(2_800_000.00, (0.5 - Mercator.y(latitude)) * EQUATOR, 0.01);
        assertEquals(latitude, Mercator.latitude(Mercator.y(latitude)), 1e-9);
        assertEquals(longitude, Mercator.longitude(Mercator.x(longitude)), 1e-9);
        assertEquals(1, Mercator.y(-90), 1e-9);
        assertEquals(0, Mercator.y(90), 1e-9);
    }

    /** The example of the TopoJSON specification, section 1.1, quantised. */
    @Test
    void sharedLinesAreReadAsTheirSpecificationSays() throws IOException {
        var example = """
                {"type":"Topology","transform":{"scale":[0.0005000500050005,0.00010001000100010001],"translate":[100,0]},
                "objects":{"example":{"type":"GeometryCollection","geometries":[
                {"type":"Point","properties":{"prop0":"value0"},"coordinates":[4000,5000]},
                {"type":"LineString","properties":{"prop0":"value0","prop1":0},"arcs":[0]},
                {"type":"Polygon","properties":{"prop0":"value0","prop1":{"this":"that"}},"arcs":[[1]]}]}},
                "arcs":[[[4000,0],[1999,9999],[2000,-9999],[2000,9999]],[[0,0],[0,9999],[2000,0],[0,-9999],[-2000,0]]]}
                """;
        var rings = TopoJson.read(new ByteArrayInputStream(example.getBytes(StandardCharsets.UTF_8)))
                .rings("example");
        assertEquals(1, rings.size());
        var ring = rings.getFirst();
        var expected = new double[][] {{100, 0}, {100, 1}, {101, 1}, {101, 0}, {100, 0}};
        for (int i = 0; i < expected.length; i++) {
            assertEquals(expected[i][0], Mercator.longitude(ring.x()[i]), 1e-3);
            assertEquals(expected[i][1], Mercator.latitude(ring.y()[i]), 1e-3);
        }
    }

    private static boolean isLand(WorldMap world, double latitude, double longitude) {
        double x = Mercator.x(longitude);
        double y = Mercator.y(latitude);
        boolean inside = false;
        for (var ring : world.land()) {
            for (int i = 1; i < ring.x().length; i++) {
                double y0 = ring.y()[i - 1];
                double y1 = ring.y()[i];
                if (y0 > y != y1 > y && x < ring.x()[i - 1] + (y - y0) / (y1 - y0) * (ring.x()[i] - ring.x()[i - 1])) {
                    inside = !inside;
                }
            }
        }
        return inside;
    }

    /** Towns of GeoNames lie on the land of Natural Earth, and oceans do not; both data sets are independent of each other. */
    @Test
    void townsLieOnLandAndOceansDoNot() throws IOException {
        var world = WorldMap.load(own.resolve("none"), problem -> {
            throw new AssertionError(problem);
        });
        var largest = world.towns().in(Bounds.WORLD).limit(500).toList();
        long wet = largest.stream()
                .filter(town ->
                        !isLand(world, town.place().latitude(), town.place().longitude()))
                .count();
        assertTrue(wet <= 10, wet + " of 500 lie in the sea"); // harbours, by the 400 m of the data
        // In the Atlantic, the Pacific beside the edge of the map, and the Indian Ocean.
        for (var ocean : new double[][] {{40, -40}, {0, 179}, {10, -179}, {-30, 80}}) {
            assertTrue(!isLand(world, ocean[0], ocean[1]), Arrays.toString(ocean));
        }
        // Land on both sides of the edge of the map, and at the pole.
        for (var land : new double[][] {{67, 179}, {67, -176}, {-80, 100}, {-80, -100}}) {
            assertTrue(isLand(world, land[0], land[1]), Arrays.toString(land));
        }
        assertTrue(world.borders().size() > 300);
    }

    @Test
    void aPlaceIsCalledAfterWhatIsNear() throws IOException {
        var harbour = new Place(61.932, -14.118);
        var towns = new Towns(List.of(
                new Town("Skerrow Harbour", harbour, 300), new Town("Nordvoe", new Place(61.975, -14.141), 40)));
        assertEquals("Near Skerrow Harbour", towns.nameOf(new Place(61.940, -14.12)));
        assertEquals("Near Nordvoe", towns.nameOf(new Place(61.99, -14.12)));
        assertEquals("61.9° N, 13.1° W", towns.nameOf(new Place(61.93, -13.1)));
        assertEquals("3.2° S, 0.5° E", towns.nameOf(new Place(-3.21, 0.46)));
        // A degree of latitude on a sphere of 6,371,008.8 m is 111,195 m.
        assertEquals(111_195, new Place(0, 0).metresTo(new Place(1, 0)), 1);
    }

    @Test
    void aShopAddsOutlinesAndPlaces() throws IOException {
        // RFC 7946, section 1.5, but a polygon at another place and the point with a name.
        Files.writeString(own.resolve("ours.geojson"), """
                {"type":"FeatureCollection","features":[
                {"type":"Feature","geometry":{"type":"Point","coordinates":[-40.5,40.5]},"properties":{"name":"Our rock"}},
                {"type":"Feature","geometry":{"type":"LineString","coordinates":[[102.0,0.0],[103.0,1.0]]},
                 "properties":{"prop0":"value0","prop1":0.0}},
                {"type":"Feature","geometry":{"type":"Polygon","coordinates":[[[-41.0,40.0],[-40.0,40.0],[-40.0,41.0],
                 [-41.0,41.0],[-41.0,40.0]]]},"properties":{"prop0":"value0","prop1":{"this":"that"}}}]}
                """);
        Files.writeString(own.resolve("torn.geojson"), "{\"type\":\"FeatureCollection\",\"features\":[");
        Files.writeString(own.resolve("readme.txt"), "no map");
        var told = new ArrayList<Problem>();
        var world = WorldMap.load(own, told::add);
        assertTrue(isLand(world, 40.5, -40.5));
        assertEquals("Near Our rock", world.towns().nameOf(new Place(40.51, -40.49)));
        assertEquals(1, told.size());
        assertTrue(told.getFirst().subject().endsWith("torn.geojson"), told.toString());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "[]",
                "{\"type\":\"Topology\"}",
                "{\"type\":\"Polygon\",\"coordinates\":[[[\"a\",1]]]}",
                "{\"type\":\"Polygon\",\"coordinates\":[[]]}",
                "{\"type\":\"Polygon\",\"coordinates\":[[[1],[2]]]}"
            })
    void whatIsNoOutlineSaysSo(String content) throws IOException {
        var file = Files.writeString(own.resolve("bad.geojson"), content);
        var told = assertThrows(ProblemException.class, () -> GeoJson.read(file));
        assertEquals(file.toString(), told.problem().subject());
    }

    @ParameterizedTest
    @CsvSource({"100, 40", "640, 480", "2560, 1440"})
    void oneDoesNotLookBeyondTheMap(double width, double height) {
        var view = MapView.world(width, height).moved(-1e6, 1e6).zoomed(1e-6, 0, 0);
        var sight = view.inSight(0);
        assertTrue(sight.left() >= -1e-9 && sight.right() <= 1 + 1e-9 && sight.top() >= -1e-9, view.toString());
        assertTrue(sight.bottom() <= 1 + 1e-9, view.toString());
        // What lies at a pixel stays there while the map grows.
        var here = MapView.of(new Bounds(0.4, 0.4, 0.5, 0.5), width, height);
        var nearer = here.zoomed(3, 30, 20);
        double x = (30 - width / 2) / here.scale() + here.x();
        assertEquals(30, nearer.screenX(x), 1e-6);
        assertArrayEquals(new double[] {width, height}, new double[] {nearer.width(), nearer.height()});
    }
}
