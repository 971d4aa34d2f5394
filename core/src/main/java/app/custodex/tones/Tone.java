package app.custodex.tones;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.Family;
import app.custodex.media.SoundCut;
import java.time.Duration;
import java.util.Locale;

/**
 * A tone that is to be made.
 *
 * @param title of the tone, and so of its file
 * @param family of the phone that is to play it
 */
public record Tone(String title, SoundCut cut, ToneUse use, Family family) {
    /**
     * Holds it against what its phone takes.
     *
     * @throws ProblemException when it is too long, or fades for longer than it lasts
     */
    public void check(ToneRules rules) throws ProblemException {
        var over = cut.length().minus(rules.longest(use));
        if (over.compareTo(Duration.ZERO) > 0) {
            throw new ProblemException(Problem.failure(
                    title,
                    "A phone of the family " + family.label() + " takes " + seconds(rules.longest(use))
                            + " at most for " + use.label().toLowerCase(Locale.ROOT),
                    "Make it shorter by " + seconds(over)));
        }
        if (cut.fadeIn().plus(cut.fadeOut()).compareTo(cut.length()) > 0) {
            throw new ProblemException(Problem.failure(
                    title, "It fades for longer than it lasts", "Choose shorter fades, or a longer piece"));
        }
    }

    private static String seconds(Duration of) {
        return of.toMillisPart() == 0
                ? of.toSeconds() + " s"
                : String.format(Locale.ROOT, "%.2f s", of.toMillis() / 1000.0);
    }
}
