package app.custodex.media;

import java.time.Duration;

/**
 * How loud a recording is over its length.
 *
 * @param loudness the loudest of each part of equal length, 0 to 255
 */
public record Peaks(byte[] loudness, Duration length) {
    /** The loudest of a part, 0 to 1. */
    public double at(int part) {
        return (loudness[part] & 0xff) / 255.0;
    }
}
