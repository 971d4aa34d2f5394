package app.custodex.link;

/**
 * How much a source may list before that is taken for a fault or a trap. A person may choose to go beyond.
 *
 * @param items files, folders and links in all
 * @param members of one folder
 * @param depth of folders within each other
 * @param pathLength characters of a whole path
 * @param unpacked how many times its own size an archive may unpack to, when that is more than a gigabyte
 */
public record Limits(long items, int members, int depth, int pathLength, int unpacked) {
    /** Ten times what the fullest phones hold. DEFLATE packs text about ten to one, and nothing more than 1,032 to one (RFC 1951). */
    public static final Limits USUAL = new Limits(5_000_000, 1_000_000, 200, 16_384, 200);

    /** For a person who knows better. */
    public static final Limits NONE =
            new Limits(Long.MAX_VALUE, Integer.MAX_VALUE, 10_000, Integer.MAX_VALUE, Integer.MAX_VALUE);

    /** What to advise when a limit is met. */
    public static final String ADVICE = "If it is meant to be so, choose to go beyond the limits";
}
