package app.custodex.extract.pdf;

import app.custodex.media.Picture;
import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.ImageType;
import org.apache.pdfbox.rendering.PDFRenderer;

/** Draws the pages of a document, to be looked at or printed. Used by one thread at a time. */
public final class PagePictures implements Closeable {
    private static final int OPAQUE = 0xff000000;
    private static final double POINTS_PER_INCH = 72;

    private final PDDocument document;
    private final PDFRenderer renderer;

    private PagePictures(PDDocument document) {
        this.document = document;
        renderer = new PDFRenderer(document);
    }

    /** @throws IOException when it is no whole PDF file */
    public static PagePictures of(Path pdf) throws IOException {
        return new PagePictures(Loader.loadPDF(pdf.toFile()));
    }

    /**
     * Draws the first pages.
     *
     * @param width of each in pixels
     * @throws IOException when it is no whole PDF file
     */
    public static List<Picture> of(byte[] pdf, int most, int width) throws IOException {
        try (var drawn = new PagePictures(Loader.loadPDF(pdf))) {
            var pages = new ArrayList<Picture>();
            for (int i = 0; i < Math.min(most, drawn.count()); i++) {
                pages.add(drawn.page(i, width));
            }
            return pages;
        }
    }

    /** How many pages there are. */
    public int count() {
        return document.getNumberOfPages();
    }

    /** Whether the longer side of a page lies below. */
    public boolean wide(int number) {
        var box = document.getPage(number).getMediaBox();
        return box.getWidth() > box.getHeight();
    }

    /**
     * Draws one.
     *
     * @param number from 0
     * @param width in pixels
     */
    public Picture page(int number, int width) throws IOException {
        double dpi =
                width * POINTS_PER_INCH / document.getPage(number).getMediaBox().getWidth();
        var image = renderer.renderImageWithDPI(number, (float) dpi, ImageType.RGB);
        int wide = image.getWidth();
        int high = image.getHeight();
        var bgra = ByteBuffer.allocate(4 * wide * high).order(ByteOrder.LITTLE_ENDIAN);
        for (int rgb : image.getRGB(0, 0, wide, high, null, 0, wide)) {
            bgra.putInt(rgb | OPAQUE);
        }
        return new Picture(wide, high, false, false, wide, high, bgra.flip());
    }

    @Override
    public void close() throws IOException {
        document.close();
    }
}
