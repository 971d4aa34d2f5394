package app.custodex.practice;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.concurrent.TimeUnit;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** Writes the answer to PROPFIND with depth 1 (RFC 4918 §9.1). */
final class Multistatus {
    private static final XMLOutputFactory FACTORY = XMLOutputFactory.newDefaultFactory();

    private Multistatus() {}

    static byte[] of(String href, Path folder) throws IOException {
        var bytes = new ByteArrayOutputStream();
        try {
            var xml = FACTORY.createXMLStreamWriter(bytes, "UTF-8");
            xml.writeStartDocument("UTF-8", "1.0");
            xml.writeStartElement("multistatus");
            xml.writeDefaultNamespace("DAV:");
            xml.writeNamespace("o", "urn:custodex:link");
            response(xml, href, folder);
            if (Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS)) {
                var prefix = href.endsWith("/") ? href : href + "/";
                try (var members = Files.list(folder)) {
                    for (var member : members.sorted().toList()) {
                        var name = URLEncoder.encode(member.getFileName().toString(), StandardCharsets.UTF_8)
                                .replace("+", "%20");
                        response(xml, prefix + name, member);
                    }
                }
            }
            xml.writeEndElement();
            xml.writeEndDocument();
            xml.close();
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
        return bytes.toByteArray();
    }

    static String etag(BasicFileAttributes attributes) {
        return "\"" + Long.toHexString(attributes.size()) + "-"
                + Long.toHexString(attributes.lastModifiedTime().to(TimeUnit.NANOSECONDS)) + "\"";
    }

    private static void response(XMLStreamWriter xml, String href, Path path) throws IOException, XMLStreamException {
        var attributes = Files.readAttributes(path, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
        xml.writeStartElement("response");
        text(xml, "href", attributes.isDirectory() && !href.endsWith("/") ? href + "/" : href);
        xml.writeStartElement("propstat");
        xml.writeStartElement("prop");
        xml.writeStartElement("resourcetype");
        if (attributes.isDirectory()) {
            xml.writeEmptyElement("collection");
        }
        xml.writeEndElement();
        if (attributes.isSymbolicLink()) {
            own(xml, "link-target", Files.readSymbolicLink(path).toString());
        } else if (attributes.isRegularFile()) {
            var modified = attributes.lastModifiedTime().toInstant();
            text(xml, "getcontentlength", Long.toString(attributes.size()));
            text(xml, "getetag", etag(attributes));
            text(
                    xml,
                    "getlastmodified",
                    DateTimeFormatter.RFC_1123_DATE_TIME.format(modified.atOffset(ZoneOffset.UTC)));
            own(xml, "modified", modified.toString());
        }
        xml.writeEndElement();
        text(xml, "status", "HTTP/1.1 200 OK");
        xml.writeEndElement();
        xml.writeEndElement();
    }

    private static void text(XMLStreamWriter xml, String name, String text) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeCharacters(text);
        xml.writeEndElement();
    }

    private static void own(XMLStreamWriter xml, String name, String text) throws XMLStreamException {
        xml.writeStartElement("o", name, "urn:custodex:link");
        xml.writeCharacters(text);
        xml.writeEndElement();
    }
}
