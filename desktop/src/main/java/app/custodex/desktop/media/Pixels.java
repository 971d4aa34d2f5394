package app.custodex.desktop.media;

import app.custodex.media.Picture;
import javafx.scene.image.Image;
import javafx.scene.image.PixelBuffer;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;

/** Decoded pictures as those of the toolkit. */
public final class Pixels {
    private Pixels() {}

    /** The picture itself, without a copy of it. */
    public static Image image(Picture picture) {
        return new WritableImage(new PixelBuffer<>(
                picture.width(), picture.height(), picture.bgra(), PixelFormat.getByteBgraPreInstance()));
    }
}
