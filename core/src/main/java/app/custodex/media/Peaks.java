package app.custodex.media;

import java.time.Duration;

/**
 * How loud a recording is over its length.
 *
 * @param loudness the loudest of each part of equal length, 0 to 255
 * @param whole whether all of it was measured, and not only the start of each part
 */
public record Peaks(byte[] loudness, Duration length, boolean whole) {
    /** The loudest of a part, 0 to 1. */
    public double at(int part) {
        return (loudness[part] & 0xff) / 255.0;
    }
}
