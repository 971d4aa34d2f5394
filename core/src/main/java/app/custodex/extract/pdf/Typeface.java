package app.custodex.extract.pdf;

import app.custodex.base.FontFiles;
import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.font.FontRenderContext;
import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentHashMap;
import java.util.regex.Pattern;
import org.apache.fontbox.ttf.CmapLookup;
import org.apache.fontbox.ttf.TTFParser;
import org.apache.fontbox.ttf.TrueTypeFont;
import org.apache.pdfbox.io.RandomAccessReadBuffer;

/** A font of which text can be made; it does not know the document. Used by one thread. */
final class Typeface implements Closeable {
    /** From here on the toolkit means a glyph that is not drawn. */
    private static final int NOT_DRAWN = 0xfffe;

    private static final Pattern SIGN = Pattern.compile("\\X");
    private static final FontRenderContext EXACT = new FontRenderContext(null, true, true);
    /** The toolkit's view of the fonts; each is loaded once, since it makes a file of it. */
    private static final Map<String, Font> SHAPERS = new ConcurrentHashMap<>();

    private final TrueTypeFont font;
    private final CmapLookup drawn;
    private final Font shaper;
    private final int unitsPerEm;

    private Typeface(TrueTypeFont font, Font shaper) throws IOException {
        this.font = font;
        this.drawn = font.getUnicodeCmapLookup();
        this.unitsPerEm = font.getUnitsPerEm();
        this.shaper = shaper.deriveFont((float) unitsPerEm);
    }

    static Typeface load(String file) throws IOException {
        try (var in = FontFiles.open(file)) {
            return new Typeface(
                    new TTFParser().parse(new RandomAccessReadBuffer(in)),
                    SHAPERS.computeIfAbsent(file, Typeface::shaper));
        }
    }

    private static Font shaper(String file) {
        try (var in = FontFiles.open(file)) {
            return Font.createFont(Font.TRUETYPE_FONT, in);
        } catch (FontFormatException e) {
            throw new IllegalStateException("the font " + file + " is damaged", e);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    TrueTypeFont font() {
        return font;
    }

    boolean draws(int codePoint) {
        return drawn.getGlyphId(codePoint) != 0;
    }

    /** In thousandths of an em. */
    double advance(int glyph) throws IOException {
        return font.getAdvanceWidth(glyph) * 1000.0 / unitsPerEm;
    }

    /** In thousandths of an em. */
    double scaled(double fontUnits) {
        return fontUnits * 1000.0 / unitsPerEm;
    }

    /** Makes glyphs of text that runs in one direction. */
    Shaped shape(String text, boolean rightToLeft) {
        var signs = text.toCharArray();
        var made = shaper.layoutGlyphVector(
                EXACT, signs, 0, signs.length, rightToLeft ? Font.LAYOUT_RIGHT_TO_LEFT : Font.LAYOUT_LEFT_TO_RIGHT);
        int count = made.getNumGlyphs();
        var places = made.getGlyphPositions(0, count + 1, null);
        var starts = starts(text);
        var order = new ArrayList<Integer>();
        var glyphs = new HashMap<Integer, List<Shaped.Glyph>>();
        for (int i = 0; i < count; i++) {
            int number = made.getGlyphCode(i);
            if (number != 0 && number < NOT_DRAWN) { // the others say how their neighbours join
                int start = Objects.requireNonNull(starts.floor(made.getGlyphCharIndex(i)));
                if (!glyphs.containsKey(start)) {
                    order.add(start);
                }
                glyphs.computeIfAbsent(start, none -> new ArrayList<>())
                        .add(new Shaped.Glyph(number, scaled(places[2 * i]), scaled(-places[2 * i + 1])));
            }
        }
        return new Shaped(this, clusters(text, order, glyphs), scaled(places[2 * count]));
    }

    /** What has no glyph of its own belongs to what stands before it. */
    private static List<Shaped.Cluster> clusters(
            String text, List<Integer> order, Map<Integer, List<Shaped.Glyph>> glyphs) {
        var starts = new TreeSet<>(order);
        return order.stream()
                .map(start -> {
                    int from = start.equals(starts.first()) ? 0 : start;
                    int until = Optional.ofNullable(starts.higher(start)).orElse(text.length());
                    return new Shaped.Cluster(text.substring(from, until), glyphs.getOrDefault(start, List.of()));
                })
                .toList();
    }

    /** Where what readers see as single signs begins. */
    private static NavigableSet<Integer> starts(String text) {
        var starts = new TreeSet<Integer>();
        var sign = SIGN.matcher(text);
        while (sign.find()) {
            starts.add(sign.start());
        }
        return starts;
    }

    @Override
    public void close() throws IOException {
        font.close();
    }
}
