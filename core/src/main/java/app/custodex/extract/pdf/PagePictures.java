package app.custodex.extract.pdf;

import app.custodex.media.Picture;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.rendering.ImageType;
import org.apache.pdfbox.rendering.PDFRenderer;

/** Draws the pages of a document, to be looked at before it is written. */
public final class PagePictures {
    private static final int OPAQUE = 0xff000000;
    private static final double POINTS_PER_INCH = 72;

    private PagePictures() {}

    /**
     * Draws the first pages.
     *
     * @param width of each in pixels
     * @throws IOException when it is no whole PDF file
     */
    public static List<Picture> of(byte[] pdf, int most, int width) throws IOException {
        try (var document = Loader.loadPDF(pdf)) {
            var renderer = new PDFRenderer(document);
            var pages = new ArrayList<Picture>();
            for (int i = 0; i < Math.min(most, document.getNumberOfPages()); i++) {
                double dpi = width
                        * POINTS_PER_INCH
                        / document.getPage(i).getMediaBox().getWidth();
                var image = renderer.renderImageWithDPI(i, (float) dpi, ImageType.RGB);
                int wide = image.getWidth();
                int high = image.getHeight();
                var bgra = ByteBuffer.allocate(4 * wide * high).order(ByteOrder.LITTLE_ENDIAN);
                for (int rgb : image.getRGB(0, 0, wide, high, null, 0, wide)) {
                    bgra.putInt(rgb | OPAQUE);
                }
                pages.add(new Picture(wide, high, false, false, wide, high, bgra.flip()));
            }
            return pages;
        }
    }
}
