package app.custodex.media;

import java.io.Closeable;
import java.time.Duration;
import java.util.Optional;

/** A recording that plays, stops and is moved about in; the clock that a video follows. Safe for use by several threads. */
public interface Playback extends Closeable {
    /** The place that is heard now. */
    Duration place();

    boolean isPlaying();

    /** Whether it came to its end by itself. */
    boolean hasEnded();

    /** Plays from a place on; returns at once. */
    void play(Duration from);

    void pause();

    /** Goes to a place, and goes on playing if it was. */
    void goTo(Duration to);

    /** @param times 0.5 to 2; the pitch stays */
    void speed(double times);

    /** @param loudness 0 to 1 */
    void volume(double loudness);

    /** Why nothing is heard; empty when it is. */
    Optional<String> silentBecause();
}
