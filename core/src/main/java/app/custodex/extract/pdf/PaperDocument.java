package app.custodex.extract.pdf;

import app.custodex.extract.Batch;
import app.custodex.extract.Clean;
import app.custodex.extract.ZoneText;
import java.io.Closeable;
import java.io.IOException;
import java.io.OutputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.apache.pdfbox.cos.COSArray;
import org.apache.pdfbox.cos.COSDictionary;
import org.apache.pdfbox.cos.COSName;
import org.apache.pdfbox.cos.COSStream;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDResources;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.graphics.image.JPEGFactory;

/**
 * A document that grows from top to bottom, page by page: A4, tagged, for the archive (PDF/A-2a). Lengths are in points. Whatever is
 * written stands in a part that was opened.
 */
public final class PaperDocument implements Closeable {
    private static final PDRectangle UPRIGHT = PDRectangle.A4;
    private static final double MARGIN = 48;
    private static final double TOP = 62;
    private static final double BOTTOM = 54;
    private static final int RULE = 0xcccccc;
    private static final double CELL_GAP = 8;
    private static final double RULE_ROOM = 6;

    private final PDDocument document = new PDDocument();
    private final PDResources resources = new PDResources();
    private final COSDictionary pictures = new COSDictionary();
    private final EmbeddedFonts fonts;
    private final StructureTree tree = new StructureTree();
    private final TextBreaker breaker;
    private final String title;
    private final PDRectangle size;
    private final List<PDPage> pages = new ArrayList<>();
    private final List<PDPage> front = new ArrayList<>();
    private boolean inFront;
    private Optional<Sheet> sheet = Optional.empty();
    private Optional<Headings> headings = Optional.empty();
    private double y;
    private long pictureBytes;

    /** The page that is being filled; what is drawn on it is packed once it is full. */
    private record Sheet(PDPage page, Canvas canvas) {}

    /** A picture that the document holds. */
    public record Picture(String name, double width, double height) {}

    /**
     * @param title stands on every page
     * @param wide whether its longer side lies below
     */
    public PaperDocument(TextBreaker breaker, String title, boolean wide) {
        this.breaker = breaker;
        this.title = title;
        size = wide ? new PDRectangle(UPRIGHT.getHeight(), UPRIGHT.getWidth()) : UPRIGHT;
        var fontResources = new COSDictionary();
        fonts = new EmbeddedFonts(fontResources);
        resources.getCOSObject().setItem(COSName.FONT, fontResources);
        resources.getCOSObject().setItem(COSName.XOBJECT, pictures);
    }

    /** Between the margins. */
    public double width() {
        return size.getWidth() - 2 * MARGIN;
    }

    /** Of all pictures so far, as they are stored. */
    public long pictureBytes() {
        return pictureBytes;
    }

    /** What follows, in one part, is put before everything else, on pages of its own. */
    public void front() throws IOException {
        finishSheet();
        inFront = true;
    }

    /**
     * What follows is inside a part of this sort.
     *
     * @param tag a standard structure type of ISO 32000-1, 14.8.4
     */
    public void open(String tag) {
        tree.open(tag);
    }

    /** Whether what is written next stands in such a part. */
    public boolean isIn(String tag) {
        return tree.current().tag().equals(tag);
    }

    public void close(String tag) {
        var current = tree.current().tag();
        if (!current.equals(tag)) {
            throw new IllegalStateException(tag + " is closed in " + current);
        }
        tree.close();
        if (tag.equals("Table")) {
            headings = Optional.empty();
        }
    }

    /** A part with nothing but text in it. */
    public void write(String tag, Ink ink, String text) throws IOException {
        open(tag);
        write(ink, 0, 0, text);
        close(tag);
    }

    /** What stands at the head of a list: what it is, how many are in it, and by which clock. */
    public void head(Batch of) throws IOException {
        write("H1", Ink.TITLE, Clean.line(of.title()));
        write(
                "P",
                Ink.LESSER,
                of.count() + " in all. Times in " + ZoneText.of(of.material().zone()) + ".");
        gap(6);
    }

    /**
     * Text in the part that is open.
     *
     * @param left how far from the left margin
     * @param right how far from the right margin
     */
    public void write(Ink ink, double left, double right, String text) throws IOException {
        double room = width() - left - right;
        var lines = breaker.lines(text, room * 1000 / ink.size(), ink.strong());
        int from = 0;
        while (from < lines.size()) {
            need(ink.leading());
            int fit = (int) Math.min(lines.size() - from, Math.max(1, Math.floor((y - BOTTOM) / ink.leading())));
            var canvas = current().canvas();
            canvas.begin(
                    tree.current().tag(), tree.piece(tree.current(), current().page()));
            for (var line : lines.subList(from, from + fit)) {
                draw(canvas, line, ink, MARGIN + left, room);
                y -= ink.leading();
            }
            canvas.end();
            from += fit;
        }
    }

    /**
     * Two texts on one line where they fit, else below each other.
     *
     * @param second stands at the right
     */
    public void write(Ink ink, Ink secondInk, double left, double right, String first, String second)
            throws IOException {
        double room = width() - left - right;
        var one = breaker.line(first, ink.strong());
        var other = breaker.line(second, secondInk.strong());
        double needed = one.width() * ink.size() / 1000 + other.width() * secondInk.size() / 1000 + CELL_GAP;
        if (needed > room) {
            write(ink, left, right, first);
            write(secondInk, left, right, second);
            return;
        }
        need(ink.leading());
        var canvas = current().canvas();
        canvas.begin(tree.current().tag(), tree.piece(tree.current(), current().page()));
        canvas.text(one, MARGIN + left, y - ink.size(), ink.size(), ink.colour());
        double x = MARGIN + left + room - other.width() * secondInk.size() / 1000;
        canvas.text(other, x, y - ink.size(), secondInk.size(), secondInk.colour());
        canvas.end();
        y -= ink.leading();
    }

    private void draw(Canvas canvas, TextLine line, Ink ink, double x, double room) throws IOException {
        double from = line.rightToLeft() ? x + room - line.width() * ink.size() / 1000 : x;
        canvas.text(line, from, y - ink.size(), ink.size(), ink.colour());
    }

    /** Leaves room. */
    public void gap(double height) {
        y -= height;
    }

    /** Goes on over the page unless so much room is left. */
    public void need(double height) throws IOException {
        if (sheet.isEmpty() || y - height < BOTTOM) {
            newSheet();
        }
    }

    /** A thin line across the page; none at its end. */
    public void rule() {
        if (sheet.isEmpty() || y - RULE_ROOM < BOTTOM) {
            return;
        }
        var canvas = current().canvas();
        canvas.beginArtifact();
        canvas.fill(RULE, MARGIN, y - RULE_ROOM / 2, width(), 0.5);
        canvas.end();
        y -= RULE_ROOM;
    }

    /** Puts a picture into the document, as a JPEG file. */
    public Picture store(byte[] jpeg) throws IOException {
        var stored = JPEGFactory.createFromByteArray(document, jpeg);
        pictureBytes += jpeg.length;
        var name = "I" + pictures.size();
        pictures.setItem(COSName.getPDFName(name), stored.getCOSObject());
        return new Picture(name, stored.getWidth(), stored.getHeight());
    }

    /**
     * Shows a picture, as large as fits.
     *
     * @param shows in words
     */
    public void show(Picture picture, String shows, double indent, double mostWidth, double mostHeight)
            throws IOException {
        double scale = Math.min(
                1, Math.min(Math.min(mostWidth, width() - indent) / picture.width(), mostHeight / picture.height()));
        double height = picture.height() * scale;
        need(height + 4);
        open("Figure");
        place(picture, shows, MARGIN + indent, y - height, picture.width() * scale, height);
        close("Figure");
        y -= height + 4;
    }

    /**
     * A picture and what is written below it.
     *
     * @param picture empty when there is none to show
     */
    public record Captioned(Optional<Picture> picture, String caption) {}

    /** Pictures side by side, each as large as fits, with two lines of words below. */
    public void row(List<Captioned> pictures, int columns, double mostHeight) throws IOException {
        var ink = Ink.LESSER;
        double cell = width() / columns;
        double room = cell - CELL_GAP;
        double words = 2 * ink.leading();
        need(mostHeight + words + CELL_GAP);
        double top = y;
        for (int i = 0; i < pictures.size(); i++) {
            var each = pictures.get(i);
            double x = MARGIN + i * cell;
            if (each.picture().isPresent()) {
                var picture = each.picture().get();
                double scale = Math.min(room / picture.width(), mostHeight / picture.height());
                double height = picture.height() * scale;
                open("Figure");
                place(picture, each.caption(), x, top - height, picture.width() * scale, height);
                close("Figure");
            }
            y = top - mostHeight;
            open("P");
            var lines = breaker.lines(each.caption(), room * 1000 / ink.size(), false);
            var canvas = current().canvas();
            canvas.begin("P", tree.piece(tree.current(), current().page()));
            for (var line : lines.subList(0, Math.min(2, lines.size()))) {
                draw(canvas, line, ink, x, room);
                y -= ink.leading();
            }
            canvas.end();
            close("P");
        }
        y = top - mostHeight - words - CELL_GAP;
    }

    private void place(Picture picture, String shows, double x, double bottom, double width, double height) {
        var canvas = current().canvas();
        canvas.begin("Figure", tree.piece(tree.current(), current().page()));
        canvas.picture(picture.name(), x, bottom, width, height);
        canvas.end();
        tree.figure(shows, new PDRectangle((float) x, (float) bottom, (float) width, (float) height));
    }

    /**
     * A row of a table. One that is higher than a page goes on over the page.
     *
     * @param tag of its cells, TH or TD
     * @param widths of the columns
     */
    public void row(String tag, Ink ink, List<String> cells, double[] widths) throws IOException {
        var texts = new ArrayList<List<TextLine>>();
        for (int i = 0; i < cells.size(); i++) {
            texts.add(breaker.lines(cells.get(i), (widths[i] - CELL_GAP) * 1000 / ink.size(), ink.strong()));
        }
        int lines = texts.stream().mapToInt(List::size).max().orElse(0);
        open("TR");
        int from = 0;
        var open = new ArrayList<StructureTree.Element>();
        for (int i = 0; i < cells.size(); i++) {
            open.add(tree.add(tag));
        }
        if (tag.equals("TH")) {
            open.forEach(StructureTree::headsColumn);
        }
        while (from < lines) {
            boolean small = lines * ink.leading() < (size.getHeight() - TOP - BOTTOM) / 2;
            need(small && from == 0 ? lines * ink.leading() : ink.leading());
            int fit = (int) Math.min(lines - from, Math.max(1, Math.floor((y - BOTTOM) / ink.leading())));
            double top = y;
            double x = MARGIN;
            for (int i = 0; i < cells.size(); i++) {
                y = top;
                cell(open.get(i), texts.get(i), from, from + fit, ink, x, widths[i] - CELL_GAP);
                x += widths[i];
            }
            y = top - fit * ink.leading();
            from += fit;
        }
        close("TR");
        rule();
    }

    private void cell(
            StructureTree.Element element, List<TextLine> lines, int from, int until, Ink ink, double x, double room)
            throws IOException {
        var shown = lines.subList(Math.min(from, lines.size()), Math.min(until, lines.size()));
        if (shown.stream().allMatch(line -> line.pieces().isEmpty())) {
            return;
        }
        var canvas = current().canvas();
        canvas.begin(element.tag(), tree.piece(element, current().page()));
        for (var line : shown) {
            draw(canvas, line, ink, x, room);
            y -= ink.leading();
        }
        canvas.end();
    }

    /** The headings of a table; they stand on every page until it is closed. */
    public void headings(List<String> titles, double[] widths) throws IOException {
        row("TH", Ink.HEADINGS, titles, widths);
        headings = Optional.of(new Headings(titles, widths.clone()));
    }

    private record Headings(List<String> titles, double[] widths) {}

    private void repeat(Headings again) throws IOException {
        var canvas = current().canvas();
        canvas.beginArtifact();
        var ink = Ink.HEADINGS;
        double x = MARGIN;
        double top = y;
        double lowest = y;
        for (int i = 0; i < again.titles().size(); i++) {
            y = top;
            double room = again.widths()[i] - CELL_GAP;
            for (var line : breaker.lines(again.titles().get(i), room * 1000 / ink.size(), ink.strong())) {
                draw(canvas, line, ink, x, room);
                y -= ink.leading();
            }
            lowest = Math.min(lowest, y);
            x += again.widths()[i];
        }
        y = lowest;
        canvas.end();
        rule();
    }

    private Sheet current() {
        return sheet.orElseThrow();
    }

    private void newSheet() throws IOException {
        finishSheet();
        var page = new PDPage(size);
        page.setResources(resources);
        tree.begin(page);
        sheet = Optional.of(new Sheet(page, new Canvas(fonts)));
        (inFront ? front : pages).add(page);
        y = size.getHeight() - TOP;
        if (headings.isPresent()) {
            repeat(headings.get());
        }
    }

    private void finishSheet() throws IOException {
        if (sheet.isPresent()) {
            var contents = new COSArray();
            contents.add(packed(current().canvas()));
            current().page().getCOSObject().setItem(COSName.CONTENTS, contents);
            sheet = Optional.empty();
        }
    }

    private COSStream packed(Canvas canvas) throws IOException {
        var stream = document.getDocument().createCOSStream();
        try (var out = stream.createOutputStream(COSName.FLATE_DECODE)) {
            out.write(canvas.bytes());
        }
        return stream;
    }

    /**
     * Writes it; nothing can be added then.
     *
     * @param tool the program that made it
     */
    public void save(OutputStream out, String tool, Instant written) throws IOException {
        finishSheet();
        if (!front.isEmpty()) {
            tree.moveLastToFront();
        }
        var all = new ArrayList<>(front);
        all.addAll(pages);
        for (int i = 0; i < all.size(); i++) {
            var page = all.get(i);
            document.addPage(page);
            if (page.getCOSObject().getDictionaryObject(COSName.CONTENTS) instanceof COSArray contents) {
                contents.add(packed(edges(i + 1, all.size())));
            }
        }
        fonts.embed(document);
        tree.embed(document);
        ArchiveFacts.embed(document, title, tool, written);
        document.save(out);
    }

    /** What stands above and below the text of a page. */
    private Canvas edges(int page, int pages) throws IOException {
        var canvas = new Canvas(fonts);
        canvas.beginArtifact();
        var ink = Ink.LESSER;
        var above = breaker.lines(title, width() * 1000 / ink.size(), false).getFirst();
        canvas.text(above, MARGIN, size.getHeight() - 40, ink.size(), ink.colour());
        var below = breaker.line("Page " + page + " of " + pages, false);
        double x = MARGIN + width() - below.width() * ink.size() / 1000;
        canvas.text(below, x, 32, ink.size(), ink.colour());
        canvas.end();
        return canvas;
    }

    @Override
    public void close() throws IOException {
        document.close();
    }
}
