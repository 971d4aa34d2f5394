package app.custodex.extract.pdf;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import org.apache.pdfbox.cos.COSDictionary;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.pdmodel.PDDocument;

/** The fonts of one document. */
final class EmbeddedFonts {
    private final Map<Typeface, EmbeddedFont> fonts = new LinkedHashMap<>();
    private final COSDictionary resources;

    /** @param resources of the document, in which the fonts are found by name */
    EmbeddedFonts(COSDictionary resources) {
        this.resources = resources;
    }

    EmbeddedFont of(Typeface typeface) {
        return fonts.computeIfAbsent(typeface, wanted -> {
            var font = new EmbeddedFont(wanted, "F" + fonts.size());
            resources.setItem(COSName.getPDFName(font.name()), font.dictionary());
            return font;
        });
    }

    void embed(PDDocument document) throws IOException {
        for (var font : fonts.values()) {
            font.embed(document);
        }
    }
}
