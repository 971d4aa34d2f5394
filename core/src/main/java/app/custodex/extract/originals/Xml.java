package app.custodex.extract.originals;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import javax.xml.stream.XMLOutputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamWriter;

/** Writes XML, UTF-8, as it comes. */
final class Xml {
    private Xml() {}

    /** Writes what stands in a document. */
    interface Body {
        void writeTo(XMLStreamWriter xml) throws XMLStreamException;
    }

    static void write(OutputStream out, Body body) throws IOException {
        try {
            var xml = XMLOutputFactory.newFactory().createXMLStreamWriter(out, StandardCharsets.UTF_8.name());
            xml.writeStartDocument(StandardCharsets.UTF_8.name(), "1.0");
            body.writeTo(xml);
            xml.writeEndDocument();
            xml.flush();
        } catch (XMLStreamException e) {
            throw new IOException(e);
        }
    }

    static void element(XMLStreamWriter xml, String name, String text) throws XMLStreamException {
        xml.writeStartElement(name);
        xml.writeCharacters(text);
        xml.writeEndElement();
    }
}
