package app.custodex.readers.files;

import com.github.mangstadt.vinnie.VObjectProperty;
import com.github.mangstadt.vinnie.io.Context;
import com.github.mangstadt.vinnie.io.SyntaxRules;
import com.github.mangstadt.vinnie.io.VObjectDataAdapter;
import com.github.mangstadt.vinnie.io.VObjectReader;
import ezvcard.VCard;
import ezvcard.VCardVersion;
import ezvcard.io.scribe.ScribeIndex;
import ezvcard.io.text.VCardReader;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** One card twice: as the library understands it, and property by property as it is written, so that nothing it passes over is lost. */
final class VcardParse {
    private static final Pattern BASE64 = Pattern.compile("(?i);(?:ENCODING=)?(?:B|BASE64)(?:;|$)");

    /** How a picture in vCard 4.0 begins. */
    private static final Pattern DATA = Pattern.compile("(?i)data:[^,\r\n]*;base64,");

    private static final ScribeIndex SCRIBES = new ScribeIndex();

    static {
        VcardScribes.all().forEach(SCRIBES::register);
    }

    private static final String STAND_IN = "AAAA";

    private final VCard card;
    private final List<VObjectProperty> written;
    private final String photo;

    /** @param whole text of one card, unfolded; an empty one gives an empty card */
    VcardParse(String whole, VcardLosses losses) {
        // A picture is by far the longest line of a card: neither parse needs to go through its signs.
        var text = whole;
        var inline = CardLine.first(whole, "PHOTO", line -> pictureAt(line) >= 0);
        if (inline.isPresent()) {
            int from = pictureAt(inline.get());
            int end = inline.get().end();
            photo = whole.substring(from, end);
            text = whole.substring(0, from) + (photo.isBlank() ? "" : STAND_IN) + whole.substring(end);
        } else {
            photo = "";
        }
        try (var reader = new VCardReader(text)) {
            reader.setScribeIndex(SCRIBES);
            var first = reader.readNext();
            card = first == null ? new VCard(VCardVersion.V3_0) : first;
            losses.odd(reader.getWarnings().size());
            written = written(text);
        } catch (IOException e) {
            throw new UncheckedIOException(e); // a string can be read
        }
    }

    /** Where its base64 begins; negative when the picture is elsewhere, at an address. */
    private static int pictureAt(CardLine line) {
        if (BASE64.matcher(line.parameters()).find()) {
            return line.value();
        }
        var data = DATA.matcher(line.text()).region(line.value(), line.end());
        return data.lookingAt() ? data.end() : -1;
    }

    private static List<VObjectProperty> written(String text) throws IOException {
        var properties = new ArrayList<VObjectProperty>();
        try (var reader = new VObjectReader(new StringReader(text), SyntaxRules.vcard())) {
            reader.parse(new VObjectDataAdapter() {
                @Override
                public void onProperty(VObjectProperty property, Context context) {
                    if (context.getParentComponents().size() <= 1) {
                        properties.add(property);
                    } else {
                        // A card inside the card: each of its lines is kept with the name of what it is in.
                        properties.add(new VObjectProperty(
                                property.getGroup(),
                                "X-AGENT-" + property.getName(),
                                property.getParameters(),
                                property.getValue()));
                    }
                }
            });
        }
        return properties;
    }

    VCard card() {
        return card;
    }

    /** All properties in their order; names in capitals are {@link #name}'s. */
    List<VObjectProperty> written() {
        return written;
    }

    static String name(VObjectProperty property) {
        return property.getName().toUpperCase(Locale.ROOT);
    }

    String uid() {
        return card.getUid() == null ? "" : text(card.getUid().getValue());
    }

    boolean hasPhoto() {
        return !photo.isBlank();
    }

    /** The picture of a card; empty when there is none inside it, or what is there is no base64. */
    static Optional<byte[]> photo(String whole) {
        return CardLine.first(whole, "PHOTO", line -> pictureAt(line) >= 0)
                .map(line -> whole.substring(pictureAt(line), line.end()))
                .filter(base64 -> !base64.isBlank())
                .flatMap(VcardParse::decoded);
    }

    private static Optional<byte[]> decoded(String base64) {
        try {
            return Optional.of(Base64.getMimeDecoder().decode(base64));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    static String text(@Nullable String value) {
        return value == null ? "" : value;
    }
}
