package app.custodex.facts;

import app.custodex.model.MediaFile.Fact;
import app.custodex.model.Moment;
import java.io.IOException;
import java.io.InputStream;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Optional;
import org.apache.tika.detect.DefaultDetector;
import org.apache.tika.exception.EncryptedDocumentException;
import org.apache.tika.exception.TikaException;
import org.apache.tika.exception.WriteLimitReachedException;
import org.apache.tika.io.TikaInputStream;
import org.apache.tika.metadata.Metadata;
import org.apache.tika.metadata.PagedText;
import org.apache.tika.metadata.TikaCoreProperties;
import org.apache.tika.parser.EmptyParser;
import org.apache.tika.parser.ParseContext;
import org.apache.tika.parser.Parser;
import org.apache.tika.parser.epub.EpubParser;
import org.apache.tika.parser.html.JSoupParser;
import org.apache.tika.parser.microsoft.OfficeParser;
import org.apache.tika.parser.microsoft.ooxml.OOXMLParser;
import org.apache.tika.parser.microsoft.rtf.RTFParser;
import org.apache.tika.parser.odf.OpenDocumentParser;
import org.apache.tika.parser.pdf.PDFParser;
import org.apache.tika.parser.txt.TXTParser;
import org.apache.tika.sax.BodyContentHandler;
import org.jspecify.annotations.Nullable;
import org.xml.sax.ContentHandler;
import org.xml.sax.SAXException;

/** Reads the text of a document, and what it says of itself. */
final class DocumentFacts {
    /** Larger documents are read as files only. */
    private static final int MOST_BYTES = 64 << 20;

    /** Of text: a thick book; what stands behind it is not found, and can be read in the file. */
    private static final int MOST_CHARS = 2_000_000;

    private DocumentFacts() {}

    /** @throws IOException when it is damaged, locked or too large */
    static FileFacts read(InputStream stream, String name) throws IOException {
        var bytes = stream.readNBytes(MOST_BYTES + 1);
        if (bytes.length > MOST_BYTES) {
            throw FileFacts.Unread.TOO_LARGE.exception();
        }
        var metadata = new Metadata();
        metadata.set(TikaCoreProperties.RESOURCE_NAME_KEY, name);
        var text = new BodyContentHandler(MOST_CHARS);
        try (var in = TikaInputStream.get(bytes, metadata)) {
            var parser = parser(
                    new DefaultDetector().detect(in, metadata).getBaseType().toString());
            if (parser.isEmpty()) {
                return FileFacts.NONE;
            }
            var context = new ParseContext();
            context.set(Parser.class, EmptyParser.INSTANCE); // what is inside a document stays there
            parse(parser.get(), in, new PageMarks(text), metadata, context);
        }
        var facts = new ArrayList<Fact>();
        text(metadata.get(PagedText.N_PAGES)).ifPresent(pages -> facts.add(new Fact("Pages", pages)));
        text(metadata.get(TikaCoreProperties.CREATOR)).ifPresent(author -> facts.add(new Fact("Author", author)));
        return new FileFacts(
                text(metadata.get(TikaCoreProperties.TITLE)).orElse(""),
                made(metadata),
                Optional.empty(),
                Optional.empty(),
                facts,
                text.toString().strip());
    }

    private static void parse(
            Parser parser, InputStream in, ContentHandler text, Metadata metadata, ParseContext context)
            throws IOException {
        try {
            parser.parse(in, text, metadata, context);
        } catch (WriteLimitReachedException enough) {
            // The text so far is what it is found by.
        } catch (SAXException e) {
            if (!WriteLimitReachedException.isWriteLimitReached(e)) {
                throw new IOException(e);
            }
        } catch (EncryptedDocumentException e) {
            throw FileFacts.Unread.LOCKED.exception();
        } catch (TikaException e) {
            throw new IOException(e);
        }
    }

    private static Optional<Parser> parser(String type) {
        if (type.startsWith("application/vnd.openxmlformats-officedocument.")) {
            return Optional.of(new OOXMLParser());
        }
        if (type.startsWith("application/vnd.oasis.opendocument.")) {
            return Optional.of(new OpenDocumentParser());
        }
        return switch (type) {
            case "application/pdf" -> Optional.of(new PDFParser());
            case "application/epub+zip" -> Optional.of(new EpubParser());
            case "application/msword", "application/vnd.ms-excel", "application/vnd.ms-powerpoint" ->
                Optional.of(new OfficeParser());
            case "application/rtf", "text/rtf" -> Optional.of(new RTFParser());
            case "text/html", "application/xhtml+xml" -> Optional.of(new JSoupParser());
            case "text/plain", "text/markdown", "text/x-web-markdown", "text/csv" -> Optional.of(new TXTParser());
            default -> Optional.empty();
        };
    }

    private static Optional<Moment> made(Metadata metadata) {
        return text(metadata.get(TikaCoreProperties.CREATED)).flatMap(written -> {
            try {
                return Optional.of(Moment.at(Instant.parse(written)));
            } catch (DateTimeException floating) {
                return Optional.empty();
            }
        });
    }

    private static Optional<String> text(@Nullable String value) {
        return value == null || value.isBlank() ? Optional.empty() : Optional.of(value.strip());
    }
}
