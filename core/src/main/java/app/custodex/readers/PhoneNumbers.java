package app.custodex.readers;

import com.google.i18n.phonenumbers.NumberParseException;
import com.google.i18n.phonenumbers.PhoneNumberUtil;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/** Writes telephone numbers in the form of ITU-T E.164, read as they are dialled in the phone's region. */
final class PhoneNumbers {
    /** No number is longer (E.164 §6 allows 15 digits; the rest is punctuation and extensions). */
    private static final int MAX_CHARS = 64;

    private final PhoneNumberUtil library = PhoneNumberUtil.getInstance();
    private final String region;
    private final Map<String, String> known = new ConcurrentHashMap<>();

    /** @param region ISO 3166-1 alpha-2 */
    PhoneNumbers(String region) {
        this.region = region;
    }

    /** Empty when this is no number that could be dialled. */
    String e164(String written) {
        if (written.length() > MAX_CHARS) {
            return "";
        }
        return known.computeIfAbsent(written, this::parse);
    }

    private String parse(String written) {
        try {
            var number = library.parse(written, region);
            return library.isPossibleNumber(number)
                    ? library.format(number, PhoneNumberUtil.PhoneNumberFormat.E164)
                    : "";
        } catch (NumberParseException e) {
            return "";
        }
    }
}
