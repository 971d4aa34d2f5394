package app.custodex.extract.pdf;

import app.custodex.extract.Batch;
import app.custodex.extract.UnreadableException;
import app.custodex.extract.pictures.PictureCoder;
import java.io.IOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** The pictures of a phone in one document, each of them once. */
public final class PaperPictures {
    /** Pixels along the longer side: sharp enough for print at the size at which they are shown. */
    private static final int SIDE = 640;

    private static final int QUALITY = 80;

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
                made = Optional.of(paper.store(PictureCoder.jpeg(picture.get(), QUALITY)));
            }
        } catch (UnreadableException e) {
            batch.unreadable(item, "so it is only named");
        }
        stored.put(item, made);
        return made;
    }
}
