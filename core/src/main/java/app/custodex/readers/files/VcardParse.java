package app.custodex.readers.files;

import com.github.mangstadt.vinnie.VObjectProperty;
import com.github.mangstadt.vinnie.io.Context;
import com.github.mangstadt.vinnie.io.SyntaxRules;
import com.github.mangstadt.vinnie.io.VObjectDataAdapter;
import com.github.mangstadt.vinnie.io.VObjectReader;
import ezvcard.VCard;
import ezvcard.VCardVersion;
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
    /** A picture inside the card, by far the longest line of it: neither parse needs to go through its signs. */
    private static final Pattern PHOTO = Pattern.compile(
            "(?i)(?:^|\n)((?:[A-Z0-9-]+\\.)?PHOTO(?:;[^:\r\n\"]*)?(?:;ENCODING=B|;BASE64|;ENCODING=BASE64)(?:;[^:\r\n\"]*)?:"
                    + "|(?:[A-Z0-9-]+\\.)?PHOTO(?:;[^:\r\n\"]*)?:data:[^,\r\n]*;base64,)");

    private static final String STAND_IN = "AAAA";

    private final VCard card;
    private final List<VObjectProperty> written;
    private final String photo;

    /** @param whole text of one card, unfolded; an empty one gives an empty card */
    VcardParse(String whole, VcardLosses losses) {
        var text = whole;
        var inline = PHOTO.matcher(whole);
        if (inline.find()) {
            int end = whole.indexOf('\r', inline.end());
            photo = whole.substring(inline.end(), end);
            text = whole.substring(0, inline.end()) + (photo.isBlank() ? "" : STAND_IN) + whole.substring(end);
        } else {
            photo = "";
        }
        try (var reader = new VCardReader(text)) {
            var first = reader.readNext();
            card = first == null ? new VCard(VCardVersion.V3_0) : first;
            losses.odd(reader.getWarnings().size());
            written = written(text);
        } catch (IOException e) {
            throw new UncheckedIOException(e); // a string can be read
        }
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

    /** Empty when there is none inside the card, or what is there is no base64. */
    Optional<byte[]> photo() {
        try {
            return hasPhoto() ? Optional.of(Base64.getMimeDecoder().decode(photo)) : Optional.empty();
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    static String text(@Nullable String value) {
        return value == null ? "" : value;
    }
}
