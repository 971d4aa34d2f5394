package app.custodex.seal;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import com.nulabinc.zxcvbn.Zxcvbn;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * How long a passphrase would stand, by zxcvbn (Wheeler, "zxcvbn: Low-Budget Password Strength Estimation", USENIX Security
 * 2016), for someone who has the strongroom and guesses on computers of their own.
 *
 * @param level 0 (falls at once) to 4 (stands)
 * @param time how long it would stand, in words, at ten guesses a second: one guess at a seal takes about a second of a core
 *     and a quarter of a GiB of memory (scrypt, N = 2^18), so this is someone with ten cores of their own
 * @param advice how to make it stronger; may be empty
 */
public record PassphraseStrength(int level, String time, List<String> advice) {
    /** The least that is accepted: "somewhat guessable" would fall to a patient thief. */
    public static final int ENOUGH = 3;

    private static final Zxcvbn ESTIMATOR = new Zxcvbn();

    public PassphraseStrength {
        advice = List.copyOf(advice);
    }

    /** @param known words that a guesser would try first: the customer's name, the phone's name */
    public static PassphraseStrength of(Passphrase passphrase, List<String> known) {
        var measured = ESTIMATOR.measure(passphrase.copy(), known);
        try {
            var advice = new ArrayList<String>();
            var feedback = measured.getFeedback();
            if (!feedback.getWarning(Locale.ENGLISH).isEmpty()) {
                advice.add(feedback.getWarning(Locale.ENGLISH));
            }
            advice.addAll(feedback.getSuggestions(Locale.ENGLISH));
            return new PassphraseStrength(
                    measured.getScore(), measured.getCrackTimesDisplay().getOnlineNoThrottling10perSecond(), advice);
        } finally {
            measured.wipe();
        }
    }

    /**
     * Asks for one that is worth something, typed twice.
     *
     * @param subject what it is for
     * @throws ProblemException when the two differ, or when it would soon be guessed
     */
    public static void require(String subject, Passphrase passphrase, Passphrase again, List<String> known)
            throws ProblemException {
        if (!passphrase.same(again)) {
            throw new ProblemException(
                    Problem.failure(subject, "The two passphrases differ", "Enter the same passphrase twice"));
        }
        var strength = of(passphrase, known);
        if (!strength.enough()) {
            throw new ProblemException(Problem.failure(
                    subject,
                    "This passphrase would fall in " + strength.time(),
                    String.join(" ", strength.advice()) + " Four unrelated words are a good one"));
        }
    }

    public boolean enough() {
        return level >= ENOUGH;
    }
}
