package app.custodex.facts;

import java.util.Set;
import org.apache.tika.sax.ContentHandlerDecorator;
import org.xml.sax.Attributes;
import org.xml.sax.ContentHandler;
import org.xml.sax.SAXException;

/** Marks where a page or a chapter of a document begins. */
final class PageMarks extends ContentHandlerDecorator {
    private static final char[] MARK = {FileFacts.PAGE};
    private static final Set<String> CHAPTERS = Set.of("h1", "h2");

    PageMarks(ContentHandler text) {
        super(text);
    }

    @Override
    public void startElement(String uri, String localName, String name, Attributes attributes) throws SAXException {
        super.startElement(uri, localName, name, attributes);
        boolean page = localName.equals("div") && "page".equals(attributes.getValue("class"));
        if (page || CHAPTERS.contains(localName)) {
            characters(MARK, 0, 1);
        }
    }
}
