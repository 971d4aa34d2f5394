package app.custodex.readers.files;

import com.github.mangstadt.vinnie.io.VObjectPropertyValues;
import ezvcard.VCardDataType;
import ezvcard.io.ParseContext;
import ezvcard.io.scribe.TelephoneScribe;
import ezvcard.io.scribe.VCardPropertyScribe;
import ezvcard.parameter.VCardParameters;
import ezvcard.property.Telephone;
import java.util.List;

/** Read numbers the short way. The library tries each as a tel URI first, and makes a whole exception of each that is none. */
final class VcardScribes {
    private VcardScribes() {}

    static List<VCardPropertyScribe<?>> all() {
        return List.of(new PlainNumber());
    }

    private static final class PlainNumber extends TelephoneScribe {
        private static final String URI = "tel:";

        @Override
        protected Telephone _parseText(
                String value, VCardDataType type, VCardParameters parameters, ParseContext context) {
            return value.regionMatches(true, 0, URI, 0, URI.length()) || type == VCardDataType.URI
                    ? super._parseText(value, type, parameters, context)
                    : new Telephone(VObjectPropertyValues.unescape(value));
        }
    }
}
