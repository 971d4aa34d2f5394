package app.custodex.extract.pdf;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.apache.fontbox.ttf.TTFSubsetter;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.cos.COSArray;
import org.apache.pdfbox.cos.COSDictionary;
import org.apache.pdfbox.cos.COSInteger;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.cos.COSStream;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.common.PDRectangle;

/** A font in one document: which of its glyphs are drawn there and what they mean; only those are put into the file (ISO 32000-1, 9.7). */
final class EmbeddedFont {
    private static final List<String> TABLES =
            List.of("head", "hhea", "loca", "maxp", "cvt ", "prep", "glyf", "hmtx", "fpgm", "gasp");
    private static final HexFormat HEX = HexFormat.of().withUpperCase();
    private static final int MOST_IN_A_BLOCK = 100;
    private static final int SYMBOLIC = 4;

    private final Typeface typeface;
    private final String name;
    private final COSDictionary dictionary = new COSDictionary();
    private final SortedMap<Integer, String> meanings = new TreeMap<>();

    /** @param name among the resources of the document */
    EmbeddedFont(Typeface typeface, String name) {
        this.typeface = typeface;
        this.name = name;
    }

    String name() {
        return name;
    }

    COSDictionary dictionary() {
        return dictionary;
    }

    /**
     * Notes that a sign is drawn.
     *
     * @return whether its glyph alone tells what it says, on the line on which it stands; otherwise the text must be told beside it
     */
    boolean use(Shaped.Cluster sign) {
        boolean single = sign.glyphs().size() == 1 && sign.glyphs().getFirst().rise() == 0;
        boolean same = true;
        for (var glyph : sign.glyphs()) {
            var known = meanings.putIfAbsent(glyph.number(), single ? sign.text() : "");
            same = known == null || known.equals(sign.text());
        }
        return single && same;
    }

    /** Puts the font into the document; nothing more may be drawn with it then. */
    void embed(PDDocument document) throws IOException {
        var glyphs = new TreeMap<>(meanings);
        glyphs.putIfAbsent(0, "\ufffd");
        var subset = new TTFSubsetter(typeface.font(), TABLES);
        subset.addGlyphIds(glyphs.keySet());
        var newNumbers = new HashMap<Integer, Integer>();
        subset.getGIDMap().forEach((now, before) -> newNumbers.put(before, now));
        var tag = tag(glyphs.keySet().hashCode());
        subset.setPrefix(tag);
        var program = new ByteArrayOutputStream();
        subset.writeToStream(program);
        var fontName = tag + typeface.font().getName();

        var file = stream(document, program::writeTo);
        file.setInt(COSName.LENGTH1, program.size());
        var descendant = descendant(fontName, descriptor(fontName, file), glyphs);
        var places = ByteBuffer.allocate(2 * (glyphs.lastKey() + 1));
        glyphs.keySet().forEach(glyph -> places.putShort(2 * glyph, (short) (int) newNumbers.getOrDefault(glyph, 0)));
        descendant.setItem(COSName.CID_TO_GID_MAP, stream(document, out -> out.write(places.array())));

        dictionary.setItem(COSName.TYPE, COSName.FONT);
        dictionary.setItem(COSName.SUBTYPE, COSName.TYPE0);
        dictionary.setName(COSName.BASE_FONT, fontName);
        dictionary.setItem(COSName.ENCODING, COSName.IDENTITY_H);
        var descendants = new COSArray();
        descendants.add(descendant);
        dictionary.setItem(COSName.DESCENDANT_FONTS, descendants);
        dictionary.setItem(COSName.TO_UNICODE, stream(document, out -> toUnicode(glyphs, out)));
    }

    private COSDictionary descriptor(String fontName, COSStream file) throws IOException {
        TrueTypeFont font = typeface.font();
        var box = font.getHeader();
        var descriptor = new COSDictionary();
        descriptor.setItem(COSName.TYPE, COSName.FONT_DESC);
        descriptor.setName(COSName.FONT_NAME, fontName);
        descriptor.setInt(COSName.FLAGS, SYMBOLIC);
        descriptor.setItem(
                COSName.FONT_BBOX,
                new PDRectangle(
                        scaled(box.getXMin()),
                        scaled(box.getYMin()),
                        scaled(box.getXMax() - box.getXMin()),
                        scaled(box.getYMax() - box.getYMin())));
        descriptor.setInt(COSName.ITALIC_ANGLE, 0);
        descriptor.setFloat(COSName.ASCENT, scaled(font.getHorizontalHeader().getAscender()));
        descriptor.setFloat(COSName.DESCENT, scaled(font.getHorizontalHeader().getDescender()));
        descriptor.setFloat(
                COSName.CAP_HEIGHT, scaled(font.getHorizontalHeader().getAscender()));
        descriptor.setFloat(
                COSName.STEM_V, 80); // the fonts do not say; readers use it for a substitute, which they never need
        descriptor.setItem(COSName.FONT_FILE2, file);
        return descriptor;
    }

    private float scaled(double fontUnits) {
        return (float) typeface.scaled(fontUnits);
    }

    private COSDictionary descendant(String fontName, COSDictionary descriptor, SortedMap<Integer, String> glyphs)
            throws IOException {
        var font = new COSDictionary();
        font.setItem(COSName.TYPE, COSName.FONT);
        font.setItem(COSName.SUBTYPE, COSName.CID_FONT_TYPE2);
        font.setName(COSName.BASE_FONT, fontName);
        var system = new COSDictionary();
        system.setString(COSName.REGISTRY, "Adobe");
        system.setString(COSName.ORDERING, "Identity");
        system.setInt(COSName.SUPPLEMENT, 0);
        font.setItem(COSName.CIDSYSTEMINFO, system);
        font.setItem(COSName.FONT_DESC, descriptor);
        font.setInt(COSName.DW, 1000);
        var widths = new COSArray();
        for (int glyph : glyphs.keySet()) {
            var width = new COSArray();
            width.add(COSInteger.get(width(glyph)));
            widths.add(COSInteger.get(glyph));
            widths.add(width);
        }
        font.setItem(COSName.W, widths);
        return font;
    }

    /** As the document states it: whole thousandths. */
    long width(int glyph) throws IOException {
        return Math.round(typeface.advance(glyph));
    }

    /** Six letters that name the choice of glyphs. */
    private static String tag(int hash) {
        var letters = new StringBuilder();
        long rest = Integer.toUnsignedLong(hash);
        for (int i = 0; i < 6; i++) {
            letters.append((char) ('A' + rest % 26));
            rest /= 26;
        }
        return letters.append('+').toString();
    }

    private static void toUnicode(SortedMap<Integer, String> glyphs, OutputStream out) throws IOException {
        var map = new StringBuilder("""
                /CIDInit /ProcSet findresource begin
                12 dict begin
                begincmap
                /CIDSystemInfo <</Registry (Adobe)/Ordering (UCS)/Supplement 0>> def
                /CMapName /Adobe-Identity-UCS def
                /CMapType 2 def
                1 begincodespacerange
                <0000> <FFFF>
                endcodespacerange
                """);
        var all = new ArrayList<Map.Entry<Integer, String>>(glyphs.entrySet());
        for (int from = 0; from < all.size(); from += MOST_IN_A_BLOCK) {
            var block = all.subList(from, Math.min(all.size(), from + MOST_IN_A_BLOCK));
            map.append(block.size()).append(" beginbfchar\n");
            for (var glyph : block) {
                // Each glyph must mean something (ISO 19005-2, 6.2.11.7); one that says nothing by itself is a space of
                // no width.
                var meaning = glyph.getValue().isEmpty() ? "\u200b" : glyph.getValue();
                map.append(String.format(Locale.ROOT, "<%04X> <", glyph.getKey()))
                        .append(HEX.formatHex(meaning.getBytes(StandardCharsets.UTF_16BE)))
                        .append(">\n");
            }
            map.append("endbfchar\n");
        }
        map.append("endcmap\nCMapName currentdict /CMap defineresource pop\nend\nend\n");
        out.write(map.toString().getBytes(StandardCharsets.US_ASCII));
    }

    private interface Content {
        void writeTo(OutputStream out) throws IOException;
    }

    private static COSStream stream(PDDocument document, Content content) throws IOException {
        var stream = document.getDocument().createCOSStream();
        try (var out = stream.createOutputStream(COSName.FLATE_DECODE)) {
            content.writeTo(out);
        }
        return stream;
    }
}
