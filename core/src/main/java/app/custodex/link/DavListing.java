package app.custodex.link;

import app.custodex.base.Problem;
import java.io.InputStream;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/** Reads a WebDAV multistatus answer (RFC 4918 §13) about the members of one folder, without trusting its names. */
final class DavListing {
    static final String DAV = "DAV:";
    /** Properties that WebDAV has no word for: "modified" to the nanosecond, "link-target" of a symbolic link. */
    static final String OWN = "urn:custodex:link";

    private static final XMLInputFactory FACTORY = factory();

    private DavListing() {}

    private static XMLInputFactory factory() {
        var factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, true);
        return factory;
    }

    /**
     * @param base the decoded path under which the phone's root lies, ending in "/"
     * @param folder the folder that was asked about; the answer about itself is left out
     * @throws XMLStreamException when the answer is not XML, or stops in the middle
     */
    static List<Listed> read(InputStream in, String base, PhonePath folder, Limits limits)
            throws XMLStreamException, LinkException {
        var xml = FACTORY.createXMLStreamReader(in, StandardCharsets.UTF_8.name());
        var result = new ArrayList<Listed>();
        while (xml.hasNext()) {
            if (xml.next() == XMLStreamReader.START_ELEMENT && is(xml, DAV, "response")) {
                response(xml).flatMap(answer -> answer.listed(base, folder)).ifPresent(result::add);
                if (result.size() > limits.members()) {
                    throw new LinkException.Item(folder, "The listing of this folder never ends", Limits.ADVICE, null);
                }
            }
        }
        return result;
    }

    private static boolean is(XMLStreamReader xml, String namespace, String name) {
        return name.equals(xml.getLocalName()) && namespace.equals(xml.getNamespaceURI());
    }

    private static Optional<Answer> response(XMLStreamReader xml) throws XMLStreamException {
        var answer = new Answer();
        while (xml.hasNext()) {
            int event = xml.next();
            if (event == XMLStreamReader.END_ELEMENT && is(xml, DAV, "response")) {
                return Optional.of(answer);
            }
            if (event != XMLStreamReader.START_ELEMENT) {
                continue;
            }
            if (OWN.equals(xml.getNamespaceURI())) {
                switch (xml.getLocalName()) {
                    case "modified" -> answer.modified = instant(xml.getElementText());
                    case "link-target" -> answer.target = Optional.of(xml.getElementText());
                    default -> {}
                }
            } else if (DAV.equals(xml.getNamespaceURI())) {
                switch (xml.getLocalName()) {
                    case "href" -> answer.href = xml.getElementText().strip();
                    case "collection" -> answer.folder = true;
                    case "getcontentlength" -> answer.size = number(xml.getElementText());
                    case "getetag" -> answer.etag = xml.getElementText().strip();
                    case "getlastmodified" -> answer.httpModified = httpDate(xml.getElementText());
                    default -> {}
                }
            }
        }
        return Optional.empty();
    }

    private static long number(String text) {
        try {
            return Math.max(0, Long.parseLong(text.strip()));
        } catch (NumberFormatException e) {
            return 0;
        }
    }

    private static Optional<Instant> instant(String text) {
        try {
            return Optional.of(Instant.parse(text.strip()));
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    private static Optional<Instant> httpDate(String text) {
        try {
            return Optional.of(ZonedDateTime.parse(text.strip(), DateTimeFormatter.RFC_1123_DATE_TIME)
                    .toInstant());
        } catch (DateTimeException e) {
            return Optional.empty();
        }
    }

    private static final class Answer {
        private String href = "";
        private boolean folder;
        private long size;
        private String etag = "";
        private Optional<Instant> modified = Optional.empty();
        private Optional<Instant> httpModified = Optional.empty();
        private Optional<String> target = Optional.empty();

        Optional<Listed> listed(String base, PhonePath parent) {
            var raw = rawPath();
            var prefix = parent.text().isEmpty() ? base : base + parent.text() + "/";
            var decoded = new ArrayList<String>();
            for (var segment : raw.split("/", -1)) {
                decoded.add(RawName.decoded(segment));
            }
            if (decoded.getLast().isEmpty()) {
                decoded.removeLast();
            }
            if ((String.join("/", decoded) + "/").equals(prefix)) {
                return Optional.empty();
            }
            var name = decoded.isEmpty() ? "" : decoded.removeLast();
            if (!PhonePath.isName(name) || !(String.join("/", decoded) + "/").equals(prefix)) {
                return Optional.of(new Listed.Refused(
                        PhonePath.nearest(parent.text() + "/" + name),
                        Problem.failure(
                                parent.text().isEmpty() ? "/" : parent.text(),
                                "The phone lists \"" + raw + "\", which is not a file name in this folder",
                                "It was left out; look at the folder on the phone")));
            }
            var path = parent.child(name);
            if (target.isPresent()) {
                return Optional.of(new Listed.Link(path, target.get(), time()));
            }
            return Optional.of(folder ? new Listed.Folder(path, time()) : new Listed.File(path, size, time(), etag));
        }

        private Instant time() {
            return modified.or(() -> httpModified).orElse(Instant.EPOCH);
        }

        private String rawPath() {
            try {
                var uri = new URI(href);
                return uri.getRawPath() == null ? "" : uri.getRawPath();
            } catch (URISyntaxException e) {
                return href;
            }
        }
    }
}
