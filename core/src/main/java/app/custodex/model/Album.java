package app.custodex.model;

import java.util.List;
import java.util.function.Consumer;

/**
 * Pictures and videos that belong together.
 *
 * @param title that its owner gave it; empty when the phone made it
 * @param use what it is for
 * @param pictures in its order; whose item is empty when the phone does not have it
 */
public record Album(ThingId id, String account, String title, Use use, List<Attachment> pictures) implements Thing {
    public Album {
        title = title.isEmpty() ? use.label() : title;
        pictures = List.copyOf(pictures);
    }

    /** What pictures are put together for. */
    public enum Use {
        ALBUM("Album"),
        FAVOURITES("Favourites"),
        /** Put out of sight by the owner. */
        HIDDEN("Out of sight"),
        /** Thrown away; the phone erases them some weeks later. */
        BIN("Waiting to be erased"),
        /** Taken in one go. */
        BURST("Burst"),
        /** A picture and the short clip that was taken with it, in this order. */
        CLIP("Picture with its clip");

        private final String label;

        Use(String label) {
            this.label = label;
        }

        /** The words shown to people. */
        public String label() {
            return label;
        }
    }

    @Override
    public ThingKind kind() {
        return ThingKind.ALBUM;
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        pictures.forEach(picture -> to.accept(picture.title()));
    }
}
