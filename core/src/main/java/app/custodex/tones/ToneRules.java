package app.custodex.tones;

import app.custodex.media.SoundCoding;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;

/**
 * What a family of phones takes as a tone.
 *
 * @param kilobits a second of stereo
 * @param ending of its files, with the dot
 * @param longest for each use
 */
public record ToneRules(SoundCoding coding, int kilobits, String ending, Map<ToneUse, Duration> longest) {
    public ToneRules {
        longest = Map.copyOf(longest);
    }

    /** How long a tone may be for a use; any length where nothing is said. */
    public Duration longest(ToneUse use) {
        return Optional.ofNullable(longest.get(use)).orElse(Duration.ofHours(1));
    }
}
