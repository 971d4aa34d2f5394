package app.custodex.model;

import java.util.List;
import java.util.function.Consumer;

/**
 * Tracks in an order that somebody chose.
 *
 * @param tracks in that order; whose item is empty when the phone does not have it
 */
public record Playlist(ThingId id, String account, String title, List<Attachment> tracks) implements Thing {
    public Playlist {
        tracks = List.copyOf(tracks);
    }

    @Override
    public ThingKind kind() {
        return ThingKind.PLAYLIST;
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        tracks.forEach(track -> to.accept(track.title()));
    }
}
