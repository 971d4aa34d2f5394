package app.custodex.model;

import java.util.Optional;
import java.util.function.Consumer;

/**
 * An address on the web that somebody kept.
 *
 * @param folder the names of the folders above it, the outermost first, joined by "/"; may be empty
 * @param later whether it is kept for reading later, rather than for good
 * @param moment when it was kept
 */
public record Bookmark(
        ThingId id, String account, String title, String address, String folder, boolean later, Optional<Moment> moment)
        implements Thing {
    @Override
    public ThingKind kind() {
        return ThingKind.BOOKMARK;
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(address);
        to.accept(folder);
    }
}
