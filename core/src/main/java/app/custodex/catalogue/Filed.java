package app.custodex.catalogue;

import app.custodex.exchange.ThingJson;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import app.custodex.search.Fold;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.ZoneId;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.zip.CRC32;
import java.util.zip.CRC32C;

/**
 * A thing made ready for the catalogue, beside the thread that writes.
 *
 * @param body the thing as JSON
 * @param key of its kind and of what it is known by in its store
 * @param digest changes with it
 * @param prepared where that is wanted for sure
 */
record Filed(Thing thing, byte[] body, long key, long digest, ZoneId zone, Optional<Columns> prepared) {
    /**
     * What a thing is found, filtered and sorted by.
     *
     * @param traits as {@link Traits#write}
     * @param at milliseconds since 1970, UTC
     * @param day as {@link java.time.LocalDate#toEpochDay}
     * @param addresses of everybody in it
     */
    record Columns(
            Words words,
            String traits,
            Optional<Long> at,
            Optional<Long> day,
            String title,
            long seconds,
            String shelf,
            Optional<Long> shape,
            Optional<Long> place,
            Set<String> addresses) {
        private static Columns of(Thing thing, ZoneId zone) {
            return new Columns(
                    Words.of(thing),
                    Traits.write(Trait.of(thing)),
                    thing.moment().map(moment -> moment.instant(zone).toEpochMilli()),
                    thing.moment().map(moment -> moment.day(zone).toEpochDay()),
                    thing.kind() == ThingKind.MESSAGE ? "" : oneLine(thing.title()), // of a message, its text
                    Lists.length(thing).toSeconds(),
                    Lists.shelf(thing),
                    Shape.of(thing).map(Shape::packed),
                    Places.of(thing).map(Places::packed),
                    Addresses.in(thing));
        }

        /** Whether it has anything that most things do not have. */
        boolean rare(Thing thing) {
            return !thing.account().isEmpty()
                    || !title.isEmpty()
                    || thing.bytes() != 0
                    || seconds != 0
                    || !shelf.isEmpty()
                    || shape.isPresent()
                    || place.isPresent();
        }
    }

    private static final int LONGEST_TITLE = 200;

    /**
     * @param text folded and spaced for the index
     * @param beginnings of the words in it
     */
    record Words(String text, long[] beginnings) {
        static Words of(Thing thing) {
            var text = words(thing);
            return new Words(text, Beginnings.of(text));
        }
    }

    /** @param isNew whether it can't be in the catalogue yet */
    static Filed of(Thing thing, ZoneId zone, boolean isNew) throws IOException {
        var body = ThingJson.write(thing);
        var prepared = isNew ? Optional.of(Columns.of(thing, zone)) : Optional.<Columns>empty();
        return new Filed(thing, body, key(thing), digest(0, body), zone, prepared);
    }

    private static long key(Thing thing) {
        return digest(thing.kind().ordinal(), thing.id().key().getBytes(StandardCharsets.UTF_8));
    }

    /** Tells one from another; nobody has to be kept from making two that look alike. */
    private static long digest(int first, byte[] rest) {
        var one = new CRC32C();
        one.update(first);
        one.update(rest);
        var other = new CRC32();
        other.update(first);
        other.update(rest);
        return one.getValue() << 32 | other.getValue();
    }

    Columns columns() {
        return prepared.orElseGet(() -> Columns.of(thing, zone));
    }

    /** As much of a title as a list shows. */
    private static String oneLine(String title) {
        int end = Math.min(title.length(), LONGEST_TITLE);
        return title.substring(0, end > 0 && Character.isHighSurrogate(title.charAt(end - 1)) ? end - 1 : end);
    }

    /** The words by which a thing is found. */
    private static String words(Thing thing) {
        var words = new StringBuilder();
        Consumer<String> add = text -> {
            if (!text.isEmpty()) {
                words.append(Fold.spaced(text)).append('\n');
            }
        };
        thing.texts(add);
        for (var party : thing.people()) {
            add.accept(party.name());
            add.accept(party.address());
        }
        return words.toString();
    }
}
