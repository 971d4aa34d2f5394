package app.custodex.readers.files;

import com.github.mangstadt.vinnie.io.VObjectPropertyValues;
import ezvcard.VCardDataType;
import ezvcard.io.ParseContext;
import ezvcard.io.scribe.AnniversaryScribe;
import ezvcard.io.scribe.BirthdayScribe;
import ezvcard.io.scribe.RevisionScribe;
import ezvcard.io.scribe.TelephoneScribe;
import ezvcard.io.scribe.VCardPropertyScribe;
import ezvcard.parameter.VCardParameters;
import ezvcard.property.Anniversary;
import ezvcard.property.Birthday;
import ezvcard.property.Revision;
import ezvcard.property.Telephone;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

/**
 * Read the short way what nearly every card holds: the library tries each number as a tel URI first, and makes a whole exception of each
 * that is none; it looks for dates in every form that they may have.
 */
final class VcardScribes {
    private VcardScribes() {}

    static List<VCardPropertyScribe<?>> all() {
        return List.of(new PlainNumber(), new PlainRevision(), new PlainBirthday(), new PlainAnniversary());
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

    private static final class PlainRevision extends RevisionScribe {
        @Override
        protected Revision _parseText(
                String value, VCardDataType type, VCardParameters parameters, ParseContext context) {
            return instant(value)
                    .map(Revision::new)
                    .orElseGet(() -> super._parseText(value, type, parameters, context));
        }
    }

    private static final class PlainBirthday extends BirthdayScribe {
        @Override
        protected Birthday _parseText(
                String value, VCardDataType type, VCardParameters parameters, ParseContext context) {
            return day(value, type)
                    .map(Birthday::new)
                    .orElseGet(() -> super._parseText(value, type, parameters, context));
        }
    }

    private static final class PlainAnniversary extends AnniversaryScribe {
        @Override
        protected Anniversary _parseText(
                String value, VCardDataType type, VCardParameters parameters, ParseContext context) {
            return day(value, type)
                    .map(Anniversary::new)
                    .orElseGet(() -> super._parseText(value, type, parameters, context));
        }
    }

    /** A moment of ISO 8601 in UTC, with hyphens and colons; empty for everything else. */
    private static Optional<Instant> instant(String value) {
        if (!value.endsWith("Z") || value.indexOf('T') != "2024-05-06".length()) {
            return Optional.empty();
        }
        try {
            return Optional.of(Instant.parse(value));
        } catch (DateTimeException anotherForm) {
            return Optional.empty();
        }
    }

    /** A date of ISO 8601 with hyphens; empty for everything else. */
    private static Optional<LocalDate> day(String value, VCardDataType type) {
        if (type == VCardDataType.TEXT
                || value.length() != "2024-05-06".length()
                || value.charAt(4) != '-'
                || value.charAt(7) != '-') {
            return Optional.empty();
        }
        try {
            return Optional.of(LocalDate.parse(value));
        } catch (DateTimeException anotherForm) {
            return Optional.empty();
        }
    }
}
