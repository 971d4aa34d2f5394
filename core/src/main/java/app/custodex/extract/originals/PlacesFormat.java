package app.custodex.extract.originals;

import app.custodex.base.Json;
import app.custodex.extract.Batch;
import app.custodex.extract.Chosen;
import app.custodex.extract.Clean;
import app.custodex.extract.Format;
import app.custodex.extract.OutFolder;
import app.custodex.model.KindGroup;
import app.custodex.model.MediaFile;
import app.custodex.model.Thing;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/** Where pictures and videos were taken, as points on a map. */
public enum PlacesFormat implements Format {
    GEOJSON("geojson", "Places as GeoJSON (RFC 7946)", ".geojson") {
        @Override
        void write(Iterable<Optional<Point>> points, String title, OutputStream out) throws IOException {
            JsonGenerator json = Json.LINE.createGenerator(out);
            json.writeStartObject();
            json.writeStringField("type", "FeatureCollection");
            json.writeArrayFieldStart("features");
            for (var any : points) {
                if (any.isPresent()) {
                    feature(any.get(), json);
                }
            }
            json.writeEndArray();
            json.writeEndObject();
            json.flush();
        }
    },
    GPX("gpx", "Places as GPX 1.1", ".gpx") {
        @Override
        void write(Iterable<Optional<Point>> points, String title, OutputStream out) throws IOException {
            Xml.write(out, xml -> {
                xml.writeStartElement("gpx");
                xml.writeDefaultNamespace("http://www.topografix.com/GPX/1/1");
                xml.writeAttribute("version", "1.1");
                xml.writeAttribute("creator", "Custodex");
                for (var any : points) {
                    if (any.isPresent()) {
                        var point = any.get();
                        xml.writeStartElement("wpt");
                        xml.writeAttribute("lat", point.latitude());
                        // The longitudeType of the schema of GPX 1.1 ends before 180, which is the same line as -180.
                        xml.writeAttribute("lon", point.longitude().replaceFirst("^180\\.0+$", "-$0"));
                        if (!point.time().isEmpty()) {
                            Xml.element(xml, "time", point.time());
                        }
                        Xml.element(xml, "name", point.name());
                        xml.writeEndElement();
                    }
                }
                xml.writeEndElement();
            });
        }
    },
    KML("kml", "Places as KML 2.2", ".kml") {
        @Override
        void write(Iterable<Optional<Point>> points, String title, OutputStream out) throws IOException {
            Xml.write(out, xml -> {
                xml.writeStartElement("kml");
                xml.writeDefaultNamespace("http://www.opengis.net/kml/2.2");
                xml.writeStartElement("Document");
                Xml.element(xml, "name", title);
                for (var any : points) {
                    if (any.isPresent()) {
                        var point = any.get();
                        xml.writeStartElement("Placemark");
                        Xml.element(xml, "name", point.name());
                        if (!point.time().isEmpty()) {
                            xml.writeStartElement("TimeStamp");
                            Xml.element(xml, "when", point.time());
                            xml.writeEndElement();
                        }
                        xml.writeStartElement("Point");
                        Xml.element(xml, "coordinates", point.longitude() + "," + point.latitude());
                        xml.writeEndElement();
                        xml.writeEndElement();
                    }
                }
                xml.writeEndElement();
                xml.writeEndElement();
            });
        }
    };

    private final String code;
    private final String label;
    private final String ending;

    PlacesFormat(String code, String label, String ending) {
        this.code = code;
        this.label = label;
        this.ending = ending;
    }

    /** Of every form. */
    public static List<Format> all() {
        return List.of(values());
    }

    /**
     * A point, in words and figures of all forms alike.
     *
     * @param time in UTC, RFC 3339; empty without one
     */
    private record Point(String name, String time, MediaFile.Place place) {
        String latitude() {
            return String.format(Locale.ROOT, "%.7f", place.latitude());
        }

        String longitude() {
            return String.format(Locale.ROOT, "%.7f", place.longitude());
        }
    }

    abstract void write(Iterable<Optional<Point>> points, String title, OutputStream out) throws IOException;

    @Override
    public String code() {
        return code;
    }

    @Override
    public String label() {
        return label;
    }

    @Override
    public String leavesOut() {
        return "Leaves out the pictures themselves, and those without a place";
    }

    @Override
    public Set<KindGroup> groups() {
        return Set.of(KindGroup.PICTURES);
    }

    @Override
    public void write(Batch batch, Chosen chosen, OutFolder out) throws IOException {
        var points = batch.each(thing -> point(thing, batch));
        out.file(batch.title(), ending, to -> write(points, Clean.line(batch.title()), to));
    }

    private static Optional<Point> point(Thing thing, Batch batch) {
        var place = thing instanceof MediaFile file ? file.place() : Optional.<MediaFile.Place>empty();
        if (place.isEmpty()) {
            batch.leftOut("pictures without a place");
        }
        var time = thing.moment()
                .map(at -> at.instant(batch.material().zone()).toString())
                .orElse("");
        return place.map(at -> new Point(Clean.line(thing.title()), time, at));
    }

    /** RFC 7946, section 3.1.1: the longitude comes first. */
    private static void feature(Point point, JsonGenerator json) throws IOException {
        json.writeStartObject();
        json.writeStringField("type", "Feature");
        json.writeObjectFieldStart("geometry");
        json.writeStringField("type", "Point");
        json.writeArrayFieldStart("coordinates");
        json.writeNumber(point.longitude());
        json.writeNumber(point.latitude());
        json.writeEndArray();
        json.writeEndObject();
        json.writeObjectFieldStart("properties");
        json.writeStringField("name", point.name());
        if (!point.time().isEmpty()) {
            json.writeStringField("time", point.time());
        }
        json.writeEndObject();
        json.writeEndObject();
    }
}
