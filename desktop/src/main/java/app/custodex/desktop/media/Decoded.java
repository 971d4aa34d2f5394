package app.custodex.desktop.media;

import app.custodex.media.MediaSource;
import app.custodex.media.MediaWorkers;
import app.custodex.media.Picture;
import app.custodex.media.UnplayableException;
import java.io.IOException;
import java.util.Optional;

/**
 * A picture, or why there is none.
 *
 * @param why in words; empty when there is a picture
 */
public record Decoded(Optional<Picture> picture, String why) {
    /**
     * Decodes a picture, or the first of a video; takes a while.
     *
     * @param media is closed
     * @param side the most pixels along the longer side
     * @throws IOException when the file can't be read
     */
    public static Decoded of(MediaSource media, int side) throws IOException {
        try (media) {
            return new Decoded(Optional.of(MediaWorkers.shared().picture(media, side, false)), "");
        } catch (UnplayableException e) {
            return new Decoded(Optional.empty(), words(e));
        }
    }

    /** Why it can't be shown or played, and what to do. */
    public static String words(UnplayableException e) {
        return e.why().words() + "; take it out as a file.";
    }
}
