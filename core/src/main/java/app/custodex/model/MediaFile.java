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
    public record Place(double latitude, double longitude) {
        /** Mean radius of the earth in metres (IUGG 1980). */
        private static final double EARTH = 6_371_008.8;

        /** The same to a thousandth of a degree: a hundred metres. */
        public Place rounded() {
            return new Place(Math.round(latitude * 1000) / 1000.0, Math.round(longitude * 1000) / 1000.0);
        }

        /** How far away another place is along a great circle (haversine formula). */
        public double metresTo(Place other) {
            double lat1 = Math.toRadians(latitude);
            double lat2 = Math.toRadians(other.latitude);
            double half = Math.sin((lat2 - lat1) / 2);
            double across = Math.sin(Math.toRadians(other.longitude - longitude) / 2);
            double square = half * half + Math.cos(lat1) * Math.cos(lat2) * across * across;
            return 2 * EARTH * Math.asin(Math.sqrt(Math.min(1, square)));
        }
    }

    /** @param name in English, such as "Camera" */
    public record Fact(String name, String value) {}

    /** What it says under a name. */
    public Optional<String> fact(String name) {
        return facts.stream()
                .filter(fact -> fact.name().equals(name))
                .map(Fact::value)
                .findFirst();
    }

    @Override
    public void texts(Consumer<String> to) {
        to.accept(title);
        to.accept(id.item());
        facts.forEach(fact -> to.accept(fact.value()));
        to.accept(text);
    }
}
