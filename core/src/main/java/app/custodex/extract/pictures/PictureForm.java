package app.custodex.extract.pictures;

import java.util.Locale;
import java.util.Set;

/**
 * In which form pictures are written.
 *
 * @param quality of JPEG, from 1 to 100
 * @param side the most pixels along the longer side
 */
public record PictureForm(Coding coding, int quality, int side, Facts facts) {
    /** Byte for byte. */
    public static final PictureForm UNCHANGED = new PictureForm(Coding.AS_THEY_ARE, 100, Integer.MAX_VALUE, Facts.ALL);

    private static final Set<String> JPEG = Set.of("jpg", "jpeg", "jpe");

    /** How the pixels are stored. */
    public enum Coding {
        /** As in the file itself. */
        AS_THEY_ARE,
        JPEG,
        PNG
    }

    /** What stays of that which the camera wrote into the file. */
    public enum Facts {
        ALL,
        /** All but where it was taken, and what else may tell it. */
        NO_PLACE,
        /** Nothing but the colour profile and which side is up. */
        NONE
    }

    /** Whether files are written byte for byte. */
    public boolean keepsFiles() {
        return coding == Coding.AS_THEY_ARE && facts == Facts.ALL;
    }

    /**
     * The ending of a file in this form, with the dot. Nothing can be taken out of other codings, so they become JPEG for that.
     *
     * @param own its ending so far, without the dot
     */
    String ending(String own) {
        if (coding == Coding.PNG) {
            return ".png";
        }
        return isJpeg(own) || keepsFiles() ? "." + own : ".jpg";
    }

    static boolean isJpeg(String ending) {
        return JPEG.contains(ending.toLowerCase(Locale.ROOT));
    }
}
