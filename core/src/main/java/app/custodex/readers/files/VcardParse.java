package app.custodex.readers.files;

import ezvcard.VCardVersion;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;

/** The properties of one card, each as it is written. */
final class VcardParse {
    private static final Pattern BASE64 = Pattern.compile("(?i);(?:ENCODING=)?(?:B|BASE64)(?:;|$)");

    /** How a picture in vCard 4.0 begins. */
    private static final Pattern DATA = Pattern.compile("(?i)data:[^,\r\n]*;base64,");

    private static final String STAND_IN = "AAAA";

    private final CardLines lines;
    private final String photo;

    /** @param whole text of one card, unfolded; an empty one gives an empty card */
    VcardParse(String whole, VcardLosses losses) {
        // A picture is by far the longest line of a card, and nobody needs to go through its signs.
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
        lines = new CardLines(text, losses);
    }

    /** Where its base64 begins; negative when the picture is elsewhere, at an address. */
    private static int pictureAt(CardLine line) {
        if (BASE64.matcher(line.parameters()).find()) {
            return line.value();
        }
        var data = DATA.matcher(line.text()).region(line.value(), line.end());
        return data.lookingAt() ? data.end() : -1;
    }

    VCardVersion version() {
        return lines.version();
    }

    /** All of them, in their order. */
    List<CardProperty> properties() {
        return lines.properties();
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
}
