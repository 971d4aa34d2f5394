package app.custodex.catalogue;

import app.custodex.model.Thing;
import app.custodex.search.Fold;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.List;

/**
 * A thing made ready for the catalogue, on the thread that read it.
 *
 * @param body the thing as JSON
 * @param digest changes with it
 * @param words by which it is found
 */
record Filed(Thing thing, byte[] body, long digest, String words) {
    static Filed of(Thing thing) throws IOException {
        var body = ThingJson.write(thing);
        return new Filed(thing, body, digest(body), words(thing));
    }

    private static long digest(byte[] body) {
        try {
            return ByteBuffer.wrap(MessageDigest.getInstance("SHA-1").digest(body))
                    .getLong();
        } catch (NoSuchAlgorithmException e) {
            throw new AssertionError("every Java platform has SHA-1", e);
        }
    }

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
