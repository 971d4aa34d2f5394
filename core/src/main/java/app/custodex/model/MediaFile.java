package app.custodex.model;

import java.time.Duration;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;

/**
 * A picture, video, sound or document: a file whose content is the thing.
 *
 * @param kind one of {@link #KINDS}
 * @param title its own, from its tags, or its file's name
 * @param moment when it was taken or made, as far as it says so itself, else when the file was last changed
 * @param bytes of the file; 0 when the phone only knows of it and does not have it
 * @param facts what the file says of itself, by name, in the order in which they are shown
 * @param text that stands in a document; empty for other files
 * @param place where it was taken
 */
public record MediaFile(
        ThingId id,
        ThingKind kind,
        String account,
        String title,
        Optional<Moment> moment,
        long bytes,
        Optional<Place> place,
        Optional<Duration> length,
        List<Fact> facts,
        String text)
        implements Thing {
    /** The kinds whose content is a file. */
    public static final Set<ThingKind> KINDS = Collections.unmodifiableSet(EnumSet.of(
            ThingKind.PICTURE,
            ThingKind.VIDEO,
            ThingKind.FILM,
            ThingKind.TRACK,
            ThingKind.PODCAST,
            ThingKind.MEMO,
            ThingKind.RINGTONE,
            ThingKind.DOCUMENT,
            ThingKind.ROUTE,
            ThingKind.FILE));

    public MediaFile {
        facts = List.copyOf(facts);
    }

    /** Degrees north and east on WGS 84. */
    public record Place(double latitude, double longitude) {}

    /** @param name in English, such as "Camera" */
    public record Fact(String name, String value) {}

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(id.item());
        facts.forEach(fact -> to.accept(fact.value()));
        to.accept(text);
    }
}
