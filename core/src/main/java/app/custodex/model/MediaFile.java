package app.custodex.model;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * A picture, video, sound or document: a file whose content is the thing.
 *
 * @param kind one of PICTURE, VIDEO, TRACK, MEMO, RINGTONE, DOCUMENT, FILE
 * @param title its own, from its tags, or its file's name
 * @param moment when it was taken or made, as far as it says so itself, else when the file was last changed
 * @param bytes of the file
 * @param albums that it was put into by hand
 * @param facts what the file says of itself, by name, in the order in which they are shown
 * @param place where it was taken
 */
public record MediaFile(
        ThingId id,
        ThingKind kind,
        String account,
        String title,
        Optional<Moment> moment,
        long bytes,
        List<String> albums,
        Optional<Place> place,
        Optional<Duration> length,
        List<Fact> facts,
        List<Mark> marks)
        implements Thing {
    public MediaFile {
        albums = List.copyOf(albums);
        facts = List.copyOf(facts);
        marks = List.copyOf(marks);
    }

    /** Degrees north and east on WGS 84. */
    public record Place(double latitude, double longitude) {}

    /** @param name in English, such as "Camera" */
    public record Fact(String name, String value) {}

    /** What its owner or the phone has to say of it. */
    public enum Mark {
        FAVOURITE,
        SCREENSHOT,
        BURST,
        SHORT_CLIP,
        OUT_OF_SIGHT,
        WAITING_TO_BE_ERASED,
        IN_THE_CLOUD_ONLY
    }

    @Override
    public List<Party> people() {
        return List.of();
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(id.item());
        albums.forEach(to);
        facts.forEach(fact -> to.accept(fact.value()));
    }
}
