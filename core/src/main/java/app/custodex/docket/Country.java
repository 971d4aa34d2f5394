package app.custodex.docket;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import java.util.Locale;
import java.util.Set;

/** Reads what somebody writes for a country. */
public final class Country {
    private static final Set<String> KNOWN = Set.of(Locale.getISOCountries());

    private Country() {}

    /**
     * The code of ISO 3166-1 alpha-2, in capitals; empty for nothing.
     *
     * @throws ProblemException when it is no country
     */
    public static String of(String written) throws ProblemException {
        var code = written.strip().toUpperCase(Locale.ROOT);
        if (!code.isEmpty() && !KNOWN.contains(code)) {
            throw new ProblemException(Problem.failure(
                    written, "This is not a country code", "Write two letters as ISO 3166 has them, such as GB or JP"));
        }
        return code;
    }
}
