package app.custodex.extract;

import java.time.Duration;

/**
 * How quickly a format is written, as it was measured on a computer with two cores; another one may take half or twice as long.
 *
 * @param things a second
 * @param bytes a second, of the files that are written as they are
 */
public record Pace(double things, double bytes) {
    /** Tables, pages and text. */
    public static final Pace TEXT = new Pace(15_000, Double.MAX_VALUE);
    /** Paper, laid out line by line. */
    public static final Pace PAPER = new Pace(3_000, Double.MAX_VALUE);
    /** The same with sources that are read and digested once more. */
    public static final Pace EVIDENCE = new Pace(1_600, Double.MAX_VALUE);
    /** Pictures that are decoded, for an overview. */
    public static final Pace OVERVIEW = new Pace(10, Double.MAX_VALUE);
    /** Byte for byte. */
    public static final Pace AS_THEY_ARE = new Pace(5_000, 170e6);
    /** Pictures in another form. */
    public static final Pace PICTURES = new Pace(1, Double.MAX_VALUE);
    /** Songs of some minutes in another form. */
    public static final Pace SOUND = new Pace(0.3, Double.MAX_VALUE);

    Duration time(long howMany, long size) {
        return Duration.ofMillis(Math.round(1_000 * (howMany / things + size / bytes)));
    }
}
