package app.custodex.tones;

import app.custodex.base.Problem;
import app.custodex.link.Family;
import app.custodex.media.SoundCut;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.Duration;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A tone that is to be made.
 *
 * @param title of the tone, and so of its file
 * @param family of the phone that is to play it
 */
public record Tone(String title, SoundCut cut, ToneUse use, Family family) {
    private static final Pattern TIME = Pattern.compile("(?:(\\d{1,4}):)?(\\d{1,6}(?:[.,]\\d{1,6})?)");

    /** Why its phone does not take it: it is too long, or fades for longer than it lasts; empty when it does. */
    public Optional<Problem> trouble(ToneRules rules) {
        var over = cut.length().minus(rules.longest(use));
        if (over.compareTo(Duration.ZERO) > 0) {
            return Optional.of(Problem.failure(
                    title,
                    "A phone of the family " + family.label() + " takes " + seconds(rules.longest(use))
                            + " at most for this use",
                    "Make it shorter by " + seconds(over)));
        }
        if (cut.fadeIn().plus(cut.fadeOut()).compareTo(cut.length()) > 0) {
            return Optional.of(Problem.failure(
                    title, "It fades for longer than it lasts", "Choose shorter fades, or a longer piece"));
        }
        return Optional.empty();
    }

    /** Reads a time in a recording, as "1:02.5", "62.5" or "62,5"; empty for what is none. */
    public static Optional<Duration> time(String typed) {
        var matcher = TIME.matcher(typed.strip());
        if (!matcher.matches()) {
            return Optional.empty();
        }
        long minutes =
                Optional.ofNullable(matcher.group(1)).map(Long::parseLong).orElse(0L);
        var seconds = new BigDecimal(matcher.group(2).replace(',', '.'));
        return Optional.of(Duration.ofMinutes(minutes)
                .plusMillis(seconds.movePointRight(3)
                        .setScale(0, RoundingMode.HALF_UP)
                        .longValueExact()));
    }

    /** A time in a recording as it is read again, to a hundredth of a second. */
    public static String text(Duration time) {
        long hundredths = Math.round(time.toMillis() / 10.0);
        return String.format(Locale.ROOT, "%d:%02d.%02d", hundredths / 6_000, hundredths / 100 % 60, hundredths % 100);
    }

    private static String seconds(Duration of) {
        return of.toMillisPart() == 0
                ? of.toSeconds() + " s"
                : String.format(Locale.ROOT, "%.2f s", of.toMillis() / 1000.0);
    }
}
