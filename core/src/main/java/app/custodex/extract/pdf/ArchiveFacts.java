package app.custodex.extract.pdf;

import java.awt.color.ColorSpace;
import java.awt.color.ICC_Profile;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.GregorianCalendar;
import java.util.Locale;
import org.apache.pdfbox.cos.COSDictionary;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.common.PDMetadata;
import org.apache.pdfbox.pdmodel.graphics.color.PDOutputIntent;

/** What makes a document one for the archive: PDF/A-2, level A (ISO 19005-2). */
final class ArchiveFacts {
    private static final String SRGB = "sRGB IEC61966-2.1";
    /** Extensible Metadata Platform (ISO 16684-1): the title, the time twice, the program. */
    private static final String XMP = """
            <?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>
            <x:xmpmeta xmlns:x="adobe:ns:meta/">
              <rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
                <rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmp="http://ns.adobe.com/xap/1.0/"
                    xmlns:pdf="http://ns.adobe.com/pdf/1.3/" xmlns:pdfaid="http://www.aiim.org/pdfa/ns/id/">
                  <dc:title><rdf:Alt><rdf:li xml:lang="x-default">%1$s</rdf:li></rdf:Alt></dc:title>
                  <xmp:CreateDate>%2$s</xmp:CreateDate>
                  <xmp:ModifyDate>%2$s</xmp:ModifyDate>
                  <pdf:Producer>%3$s</pdf:Producer>
                  <pdfaid:part>2</pdfaid:part>
                  <pdfaid:conformance>A</pdfaid:conformance>
                </rdf:Description>
              </rdf:RDF>
            </x:xmpmeta>
            <?xpacket end="w"?>
            """;

    private ArchiveFacts() {}

    /** @param tool the program that made it */
    static void embed(PDDocument document, String title, String tool, Instant written) throws IOException {
        var at = GregorianCalendar.from(written.truncatedTo(ChronoUnit.SECONDS).atZone(ZoneOffset.UTC));
        var info = document.getDocumentInformation();
        info.setTitle(title);
        info.setProducer(tool);
        info.setCreationDate(at);
        info.setModificationDate(at);

        var catalog = document.getDocumentCatalog();
        catalog.setLanguage("en");
        var view = new COSDictionary();
        view.setBoolean(COSName.getPDFName("DisplayDocTitle"), true);
        catalog.getCOSObject().setItem(COSName.VIEWER_PREFERENCES, view);
        var colours = new PDOutputIntent(
                document,
                new ByteArrayInputStream(
                        ICC_Profile.getInstance(ColorSpace.CS_sRGB).getData()));
        colours.setInfo(SRGB);
        colours.setOutputCondition(SRGB);
        colours.setOutputConditionIdentifier(SRGB);
        catalog.addOutputIntent(colours);

        var metadata = new PDMetadata(document);
        metadata.importXMPMetadata(
                String.format(Locale.ROOT, XMP, escaped(title), written.truncatedTo(ChronoUnit.SECONDS), escaped(tool))
                        .getBytes(StandardCharsets.UTF_8));
        catalog.setMetadata(metadata);
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }
}
