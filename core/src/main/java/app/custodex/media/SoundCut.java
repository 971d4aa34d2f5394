package app.custodex.media;

import java.time.Duration;

/**
 * A piece of a recording, and how it begins, ends and sounds.
 *
 * @param from where it begins
 * @param until where it ends; later than the recording does for all that is left
 * @param fadeIn how long it takes to become loud
 * @param fadeOut how long it takes to become silent
 * @param even whether it is brought to the loudness of -16 LUFS, as EBU R 128 measures it, with peaks below -1.5 dB
 */
public record SoundCut(Duration from, Duration until, Duration fadeIn, Duration fadeOut, boolean even) {
    public SoundCut {
        if (from.isNegative() || until.compareTo(from) <= 0 || fadeIn.isNegative() || fadeOut.isNegative()) {
            throw new IllegalArgumentException("from " + from + " until " + until);
        }
    }

    public Duration length() {
        return until.minus(from);
    }
}
