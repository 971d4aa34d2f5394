package app.custodex.catalogue;

import app.custodex.exchange.ThingJson;
import app.custodex.model.Thing;
import app.custodex.search.Fold;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.zip.CRC32;
import java.util.zip.CRC32C;

/**
 * A thing made ready for the catalogue, on the thread that read it.
 *
 * @param body the thing as JSON
 * @param digest changes with it
 * @param prepared by what it is found, where that is wanted for sure
 */
record Filed(Thing thing, byte[] body, long digest, Optional<Finding> prepared) {
    /** By what a thing is found. */
    record Finding(Words words, Set<Trait> traits) {
        private static Finding of(Thing thing) {
            return new Finding(Words.of(thing), Trait.of(thing));
        }
    }

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
    static Filed of(Thing thing, boolean isNew) throws IOException {
        var body = ThingJson.write(thing);
        return new Filed(thing, body, digest(body), isNew ? Optional.of(Finding.of(thing)) : Optional.empty());
    }

    /** Tells one state of a thing from another; nobody has to be kept from making two that look alike. */
    private static long digest(byte[] body) {
        var one = new CRC32C();
        one.update(body);
        var other = new CRC32();
        other.update(body);
        return one.getValue() << 32 | other.getValue();
    }

    Finding finding() {
        return prepared.orElseGet(() -> Finding.of(thing));
    }

    /** The words by which a thing is found. */
    private static String words(Thing thing) {
        List<String> texts = new ArrayList<>();
        thing.texts(texts::add);
        thing.people().forEach(party -> {
            texts.add(party.name());
            texts.add(party.address());
        });
        var words = new StringBuilder();
        for (var text : texts) {
            if (!text.isEmpty()) {
                words.append(Fold.spaced(text)).append('\n');
            }
        }
        return words.toString();
    }
}
