package app.custodex.link;

/**
 * How much of one kind a phone holds, by its own count.
 *
 * @param items what its owner would count: people, messages, photos
 * @param files the files that they are kept in
 * @param bytes the size of those files
 */
public record KindCount(Kind kind, long items, long files, long bytes) {}
