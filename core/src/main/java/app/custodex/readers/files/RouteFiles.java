package app.custodex.readers.files;

import app.custodex.base.Problem;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.MediaFile;
import app.custodex.model.MediaFile.Fact;
import app.custodex.model.MediaFile.Place;
import app.custodex.model.Moment;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.readers.FileReader;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.Sink;
import java.io.IOException;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** Reads where somebody went: GPX 1.1 (topografix.com/GPX/1/1). A file is one route, however many pieces it has. */
public final class RouteFiles extends FileReader {
    /** Mean radius in metres (IUGG 1980). */
    private static final double EARTH = 6_371_008.8;

    public RouteFiles() {
        super("gpx", Set.of(Kind.OTHER), Set.of(".gpx"), Set.of(ThingKind.ROUTE));
    }

    /** What is gathered while the points go by. */
    private static final class Route {
        private String name = "";
        private Optional<Place> first = Optional.empty();
        private Optional<Place> last = Optional.empty();
        private Optional<Instant> begun = Optional.empty();
        private Optional<Instant> ended = Optional.empty();
        private long points;
        private double metres;

        void piece() {
            last = Optional.empty(); // between two pieces nobody went
        }

        void point(Place place) {
            points++;
            last.ifPresent(before -> metres += distance(before, place));
            last = Optional.of(place);
            first = first.or(() -> Optional.of(place));
        }

        void time(Instant time) {
            begun = begun.or(() -> Optional.of(time));
            ended = Optional.of(time);
        }
    }

    /** Along a great circle (haversine formula). */
    static double distance(Place one, Place other) {
        double lat1 = Math.toRadians(one.latitude());
        double lat2 = Math.toRadians(other.latitude());
        double half = Math.sin((lat2 - lat1) / 2);
        double across = Math.sin(Math.toRadians(other.longitude() - one.longitude()) / 2);
        return 2
                * EARTH
                * Math.asin(Math.sqrt(Math.min(1, half * half + Math.cos(lat1) * Math.cos(lat2) * across * across)));
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        var route = new Route();
        try (var in = phone.open(path)) {
            var xml = factory().createXMLStreamReader(in);
            try {
                walk(xml, route);
            } finally {
                xml.close();
            }
        } catch (XMLStreamException | NumberFormatException damaged) {
            sink.problem(Problem.loss(
                    path.text(),
                    "The route breaks off or is damaged",
                    "Take it out as a file, and compare it with an older layer"));
        }
        if (route.points == 0) {
            return;
        }
        var facts = phone.files().facts(path);
        sink.thing(new MediaFile(
                new ThingId(path.text(), ""),
                ThingKind.ROUTE,
                "",
                route.name.isBlank() ? path.name() : route.name.strip(),
                route.begun.or(() -> Optional.of(facts.modified())).map(Moment::at),
                facts.bytes(),
                route.first,
                route.begun
                        .flatMap(b -> route.ended.map(e -> Duration.between(b, e)))
                        .filter(length -> !length.isNegative()),
                facts(route),
                ""));
    }

    private static List<Fact> facts(Route route) {
        var facts = new ArrayList<Fact>();
        facts.add(new Fact("Points", Long.toString(route.points)));
        facts.add(new Fact("Distance", String.format(Locale.ROOT, "%.2f km", route.metres / 1000)));
        return facts;
    }

    /** A file of a stranger may name other files and addresses: nothing of that is opened. */
    private static XMLInputFactory factory() {
        var factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        return factory;
    }

    private static void walk(XMLStreamReader xml, Route route) throws XMLStreamException {
        boolean inPoint = false;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                switch (xml.getLocalName()) {
                    case "trkseg", "rte" -> route.piece();
                    case "trkpt", "rtept" -> {
                        inPoint = true;
                        route.point(new Place(number(xml, "lat"), number(xml, "lon")));
                    }
                    case "time" -> {
                        if (inPoint) {
                            time(xml.getElementText()).ifPresent(route::time);
                        }
                    }
                    case "name" -> {
                        if (!inPoint && route.name.isEmpty()) {
                            route.name = xml.getElementText();
                        }
                    }
                    default -> {}
                }
            } else if (event == XMLStreamConstants.END_ELEMENT
                    && xml.getLocalName().matches("trkpt|rtept")) {
                inPoint = false;
            }
        }
    }

    private static double number(XMLStreamReader xml, String name) {
        var written = xml.getAttributeValue(null, name);
        return Double.parseDouble(written == null ? "" : written);
    }

    private static Optional<Instant> time(String text) {
        try {
            return Optional.of(OffsetDateTime.parse(text.strip()).toInstant());
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }
}
