package app.custodex.media;

import java.nio.ByteBuffer;

/**
 * A picture, upright, as pixels.
 *
 * @param embedded whether it is the small one that the camera put into the file
 * @param damaged whether parts of it are missing or can't be trusted
 * @param fullWidth of the picture in the file, upright, before it was made smaller
 * @param bgra four bytes a pixel, blue first, the colours multiplied by the fourth; rows from the top, without gaps
 */
public record Picture(
        int width, int height, boolean embedded, boolean damaged, int fullWidth, int fullHeight, ByteBuffer bgra) {
    /** @param halvings how often its sides were halved while it was decoded */
    Picture withFull(int halvings) {
        return new Picture(width, height, embedded, damaged, fullWidth << halvings, fullHeight << halvings, bgra);
    }

    /** @param turned whether it was turned by a quarter since */
    Picture withFull(int newWidth, int newHeight, boolean turned) {
        return new Picture(
                width, height, embedded, damaged, turned ? newHeight : newWidth, turned ? newWidth : newHeight, bgra);
    }
}
