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
import java.io.InputStream;
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
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Reads where somebody went: GPX 1.1 (topografix.com/GPX/1/1). A file is one route, however many pieces it has. */
public final class RouteFiles extends FileReader {
    private static final Logger LOG = LoggerFactory.getLogger(RouteFiles.class);

    public RouteFiles() {
        super("gpx", Set.of(Kind.OTHER, Kind.BOOKS), Set.of(".gpx"), Set.of(ThingKind.ROUTE));
    }

    /** Takes in a route, point by point. */
    private interface Taker {
        /** Between two pieces nobody went. */
        void piece();

        /** @return whether more is wanted */
        boolean point(Place place);

        default void time(Instant time) {}

        default void name(String name) {}
    }

    /** What is gathered while the points go by. */
    private static final class Route implements Taker {
        private String name = "";
        private Optional<Place> first = Optional.empty();
        private Optional<Place> last = Optional.empty();
        private Optional<Instant> begun = Optional.empty();
        private Optional<Instant> ended = Optional.empty();
        private long points;
        private double metres;

        @Override
        public void piece() {
            last = Optional.empty();
        }

        @Override
        public boolean point(Place place) {
            points++;
            last.ifPresent(before -> metres += before.metresTo(place));
            last = Optional.of(place);
            first = first.or(() -> Optional.of(place));
            return true;
        }

        @Override
        public void time(Instant time) {
            begun = begun.or(() -> Optional.of(time));
            ended = Optional.of(time);
        }

        @Override
        public void name(String newName) {
            name = name.isEmpty() ? newName : name;
        }
    }

    /** The way itself. */
    private static final class Way implements Taker {
        private final int most;
        private final List<List<Place>> pieces = new ArrayList<>();
        private int points;

        Way(int most) {
            this.most = most;
        }

        @Override
        public void piece() {
            pieces.add(new ArrayList<>());
        }

        @Override
        public boolean point(Place place) {
            if (pieces.isEmpty()) {
                piece();
            }
            pieces.getLast().add(place);
            return ++points < most;
        }
    }

    /**
     * Where somebody went, piece by piece; of a damaged file as far as it can be read.
     *
     * @param most points that are read
     */
    public static List<List<Place>> way(InputStream in, int most) throws IOException {
        var way = new Way(most);
        try {
            walk(in, way);
        } catch (XMLStreamException | NumberFormatException damaged) {
            LOG.info("a route breaks off: {}", damaged.getClass().getSimpleName());
        }
        return way.pieces.stream().filter(piece -> !piece.isEmpty()).toList();
    }

    @Override
    protected void read(PhonePath path, PhoneFiles phone, Sink sink) throws IOException {
        var route = new Route();
        try (var in = phone.open(path)) {
            walk(in, route);
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

    private static void walk(InputStream in, Taker to) throws XMLStreamException {
        var xml = factory().createXMLStreamReader(in);
        try {
            walk(xml, to);
        } finally {
            xml.close();
        }
    }

    private static void walk(XMLStreamReader xml, Taker to) throws XMLStreamException {
        boolean inPoint = false;
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                switch (xml.getLocalName()) {
                    case "trkseg", "rte" -> to.piece();
                    case "trkpt", "rtept" -> {
                        inPoint = true;
                        if (!to.point(new Place(number(xml, "lat"), number(xml, "lon")))) {
                            return;
                        }
                    }
                    case "time" -> {
                        if (inPoint) {
                            time(xml.getElementText()).ifPresent(to::time);
                        }
                    }
                    case "name" -> {
                        if (!inPoint) {
                            to.name(xml.getElementText());
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
            return Optional.of(OffsetDateTime.parse(text.strip()).toInstant())
                    .filter(at -> at.isAfter(Moment.EARLIEST) && at.isBefore(Moment.LATEST));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }
}
