package app.custodex.readers.files;

import com.github.mangstadt.vinnie.VObjectProperty;
import com.github.mangstadt.vinnie.io.Context;
import com.github.mangstadt.vinnie.io.SyntaxRules;
import com.github.mangstadt.vinnie.io.VObjectDataAdapter;
import com.github.mangstadt.vinnie.io.VObjectReader;
import com.github.mangstadt.vinnie.io.Warning;
import ezvcard.VCard;
import ezvcard.VCardDataType;
import ezvcard.VCardVersion;
import ezvcard.io.EmbeddedVCardException;
import ezvcard.io.ParseContext;
import ezvcard.io.SkipMeException;
import ezvcard.io.scribe.ScribeIndex;
import ezvcard.parameter.Encoding;
import ezvcard.parameter.VCardParameters;
import ezvcard.property.RawProperty;
import ezvcard.property.VCardProperty;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** One card in two forms: as the library understands it, and property by property as it is written, so that nothing it passes over is lost. */
final class VcardParse {
    private static final Pattern BASE64 = Pattern.compile("(?i);(?:ENCODING=)?(?:B|BASE64)(?:;|$)");

    /** How a picture in vCard 4.0 begins. */
    private static final Pattern DATA = Pattern.compile("(?i)data:[^,\r\n]*;base64,");

    private static final ScribeIndex SCRIBES = new ScribeIndex();

    static {
        VcardScribes.all().forEach(SCRIBES::register);
    }

    private static final String STAND_IN = "AAAA";

    /** Nothing asks the library for these: a picture is decoded when it is wanted, and XML is no business of a contact's. */
    private static final Set<String> ONLY_WRITTEN = Set.of("PHOTO", "XML");

    private final VCard card = new VCard(VCardVersion.V2_1); // of which one without a version is
    private final List<VObjectProperty> written = new ArrayList<>();
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
        try (var reader = new VObjectReader(new StringReader(text), SyntaxRules.vcard())) {
            var lines = new Lines();
            reader.parse(lines);
            losses.odd(lines.odd);
        } catch (IOException e) {
            throw new UncheckedIOException(e); // a string can be read
        }
    }

    /** Takes each line once, for both forms: the library's own reader of whole cards keeps none as it is written. */
    private final class Lines extends VObjectDataAdapter {
        private final ParseContext context = new ParseContext();
        /** Lines and values that are not as the standard asks. */
        private int odd;

        @Override
        public void onVersion(String value, Context at) {
            var version = VCardVersion.valueOfByStr(value);
            if (version != null && at.getParentComponents().size() <= 1) {
                card.setVersion(version);
            }
        }

        @Override
        public void onProperty(VObjectProperty property, Context at) {
            if (at.getParentComponents().size() > 1) {
                // A card inside the card: each of its lines is kept with the name of what it is in.
                written.add(new VObjectProperty(
                        property.getGroup(),
                        "X-AGENT-" + property.getName(),
                        property.getParameters(),
                        property.getValue()));
                return;
            }
            written.add(property);
            if (!ONLY_WRITTEN.contains(name(property))) {
                understood(property).ifPresent(of -> {
                    of.setGroup(property.getGroup());
                    card.addProperty(of);
                });
            }
        }

        @Override
        public void onWarning(Warning warning, VObjectProperty property, Exception thrown, Context at) {
            odd++;
        }

        /** Empty for what the standard says to pass over. */
        private Optional<VCardProperty> understood(VObjectProperty property) {
            var name = property.getName();
            var value = text(property.getValue());
            var scribe = SCRIBES.getPropertyScribe(name);
            var parameters = parameters(property);
            if (scribe == null) {
                var raw = new RawProperty(name, value);
                raw.setParameters(parameters);
                return Optional.of(raw);
            }
            var type = parameters.getValue();
            parameters.setValue(null);
            context.setVersion(card.getVersion());
            context.setPropertyName(name);
            context.getWarnings().clear();
            try {
                return Optional.of(scribe.parseText(
                        value, type == null ? scribe.defaultDataType(card.getVersion()) : type, parameters, context));
            } catch (SkipMeException e) {
                odd++;
                return Optional.empty();
            } catch (EmbeddedVCardException e) {
                return Optional.empty(); // it stands among what is written
            } catch (RuntimeException e) { // it can't be parsed, or the library met what its authors did not expect
                odd++;
                return Optional.of(new RawProperty(name, value));
            } finally {
                odd += context.getWarnings().size();
            }
        }

        /** Of its own, with names for those that vCard 2.1 writes without, and one type each. */
        private VCardParameters parameters(VObjectProperty property) {
            var parameters = new VCardParameters();
            property.getParameters().forEach(parameter -> {
                for (var value : parameter.getValue()) {
                    var name = parameter.getKey() == null ? guessed(value) : parameter.getKey();
                    if (name.equalsIgnoreCase(VCardParameters.TYPE) && card.getVersion() != VCardVersion.V2_1) {
                        List.of(value.split(",")).forEach(type -> parameters.put(name, type));
                    } else {
                        parameters.put(name, value);
                    }
                }
            });
            return parameters;
        }

        private static String guessed(String value) {
            if (VCardDataType.find(value) != null) {
                return VCardParameters.VALUE;
            }
            return Encoding.find(value) != null ? VCardParameters.ENCODING : VCardParameters.TYPE;
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
