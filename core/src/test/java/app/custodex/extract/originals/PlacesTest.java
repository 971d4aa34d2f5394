package app.custodex.extract.originals;

import static org.junit.jupiter.api.Assertions.assertEquals;

import app.custodex.catalogue.WrittenReader;
import app.custodex.extract.Written;
import app.custodex.media.MediaSamples;
import app.custodex.model.KindGroup;
import app.custodex.model.MediaFile;
import app.custodex.model.Moment;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Places of pictures as the ogr2ogr program of GDAL reads them, whatever their pictures are called. */
class PlacesTest {
    private static final List<String> NAMES =
            List.of("a & b.jpg", "\"quoted\", 'twice'.jpg", "<kml>.jpg", "海岸 🌊.jpg", "مرفأ.jpg", "]]>.jpg");

    private static final double HALF_OF_THE_LAST_DIGIT = 0.5e-7 + 1e-12;

    @TempDir
    Path folder;

    /** @param east how the format writes the line where east and west meet */
    @ParameterizedTest
    @CsvSource({"geojson,'',name,time,180", "gpx,waypoints,name,time,-180", "kml,'',Name,timestamp,180"})
    void anotherReaderFindsEachWhereItWas(String format, String layer, String name, String time, double east)
            throws IOException {
        var phone = new WrittenReader(folder);
        var pictures = pictures();
        pictures.forEach(picture -> phone.write(picture.id().item(), picture));
        try (var catalogue = phone.catalogue(Optional.empty(), 1)) {
            var file = Written.all(KindGroup.PICTURES, format, catalogue, folder.resolve("out"))
                    .files()
                    .getFirst();
            var rows = rows(file, layer);
            assertEquals(pictures.size(), rows.size());
            for (var row : rows) {
                var picture = pictures.get(Integer.parseInt(row.get(name).split(" ")[0]));
                assertEquals(picture.title(), row.get(name));
                var place = picture.place().orElseThrow();
                double longitude = place.longitude() == 180 ? east : place.longitude();
                assertEquals(longitude, Double.parseDouble(row.get("X")), HALF_OF_THE_LAST_DIGIT);
                assertEquals(place.latitude(), Double.parseDouble(row.get("Y")), HALF_OF_THE_LAST_DIGIT);
                var at = picture.moment().orElseThrow().text();
                assertEquals(
                        at.substring(0, 19).replace('T', ' '),
                        row.get(time).replace('/', '-').substring(0, 19).replace('T', ' '));
            }
        }
    }

    private static List<CSVRecord> rows(Path file, String layer) throws IOException {
        var command = List.of("ogr2ogr", "-f", "CSV", "/vsistdout/", file.toString(), layer, "-lco", "GEOMETRY=AS_XY");
        var text = new String(
                MediaSamples.run(
                        command.stream().filter(word -> !word.isEmpty()).toArray(String[]::new)),
                StandardCharsets.UTF_8);
        return CSVFormat.DEFAULT
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get()
                .parse(new StringReader(text))
                .getRecords();
    }

    /** All over the world, the first ones on its edges; their names begin with their numbers. */
    private static List<MediaFile> pictures() {
        var random = new Random(12);
        var pictures = new ArrayList<MediaFile>();
        for (int i = 0; i < 100; i++) {
            var name = i + " " + NAMES.get(i % NAMES.size());
            double latitude = i < 4 ? (i % 2 == 0 ? 90 : -90) : random.nextDouble() * 180 - 90;
            double longitude = i < 4 ? (i < 2 ? 180 : -180) : random.nextDouble() * 360 - 180;
            pictures.add(new MediaFile(
                    new ThingId("roll/" + i + ".jpg", ""),
                    ThingKind.PICTURE,
                    "",
                    name,
                    Optional.of(Moment.at(Instant.ofEpochSecond(random.nextInt(2_000_000_000)))),
                    9,
                    Optional.of(new MediaFile.Place(latitude, longitude)),
                    Optional.empty(),
                    List.of(),
                    ""));
        }
        return pictures;
    }
}
