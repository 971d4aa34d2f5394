package app.custodex.link;

import java.util.Optional;

/**
 * How much of one kind a phone holds, by its own count.
 *
 * @param items what its owner would count: people, messages, photos
 * @param files the files that they are kept in
 * @param bytes the size of those files
 * @param withheld why the phone does not give it, or gives it only on a condition
 */
public record KindCount(Kind kind, long items, long files, long bytes, Optional<Withheld> withheld) {
    public KindCount(Kind kind, long items, long files, long bytes) {
        this(kind, items, files, bytes, Optional.empty());
    }

    /** Whether its items lie in a file that counts as another kind. */
    public boolean shared() {
        return items > 0 && files == 0;
    }

    /** @param sealed whether the copy will be sealed */
    public boolean given(boolean sealed) {
        return withheld.filter(why -> why != Withheld.SEALED_ONLY || !sealed).isEmpty();
    }
}
