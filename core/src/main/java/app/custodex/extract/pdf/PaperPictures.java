package app.custodex.extract.pdf;

import app.custodex.base.Problem;
import app.custodex.extract.Batch;
import app.custodex.extract.UnreadableException;
import app.custodex.media.Picture;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.ByteOrder;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** The pictures of a phone in one document, each of them once. */
public final class PaperPictures {
    /** Pixels along the longer side: sharp enough for print at the size at which they are shown. */
    private static final int SIDE = 640;

    private final Batch batch;
    private final Map<String, Optional<PaperDocument.Picture>> stored = new HashMap<>();

    public PaperPictures(Batch batch) {
        this.batch = batch;
    }

    /** A picture, or the first of a video, in the document; empty when the item holds none that can be decoded. */
    public Optional<PaperDocument.Picture> of(PaperDocument paper, String item) throws IOException {
        var known = stored.get(item);
        if (known != null) {
            return known;
        }
        Optional<PaperDocument.Picture> made = Optional.empty();
        try {
            var picture = batch.material().picture(item, SIDE);
            if (picture.isPresent()) {
                made = Optional.of(paper.store(image(picture.get())));
            }
        } catch (UnreadableException e) {
            batch.problem(Problem.loss(
                    item, "It can't be read, so it is only named", "Check the layer; look into an older one"));
        }
        stored.put(item, made);
        return made;
    }

    /** On white, since paper has no transparency. */
    private static BufferedImage image(Picture picture) {
        var pixels = new int[picture.width() * picture.height()];
        picture.bgra().duplicate().order(ByteOrder.LITTLE_ENDIAN).asIntBuffer().get(pixels);
        for (int i = 0; i < pixels.length; i++) {
            int white = 255 - (pixels[i] >>> 24); // the colours are multiplied by what remains
            pixels[i] += white << 16 | white << 8 | white;
        }
        var image = new BufferedImage(picture.width(), picture.height(), BufferedImage.TYPE_INT_RGB);
        image.setRGB(0, 0, picture.width(), picture.height(), pixels, 0, picture.width());
        return image;
    }
}
