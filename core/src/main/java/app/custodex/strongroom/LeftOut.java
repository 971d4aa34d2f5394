package app.custodex.strongroom;

import app.custodex.link.Kind;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/**
 * A kind that a layer does not hold, or not all of, or not in files of its own.
 *
 * @param items that the phone has of it, as far as it says
 * @param bytes of those
 */
public record LeftOut(Kind kind, Why why, long items, long bytes) {
    /** Why it was left out. */
    public enum Why {
        NOT_CHOSEN("Not chosen this time"),
        PARTLY_CHOSEN("Only single items were chosen"),
        SEALED_ONLY("The phone gives it only for a sealed backup"),
        OUT_OF_REACH("Private to the apps; out of reach unless the owner has opened the phone"),
        NOT_WRITTEN("The app has not written a local copy"),
        SHARED("Shares a file with another kind, and comes with that one only"),
        NOTHING_THERE("Nothing there");

        private final String words;

        Why(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** Kinds of which a layer that leaves these out holds all that the phone had: what is not in it was not on the phone. */
    static Set<Kind> whole(List<LeftOut> left) {
        var whole = EnumSet.allOf(Kind.class);
        left.stream()
                .filter(kind -> kind.why() != Why.NOTHING_THERE && kind.why() != Why.SHARED)
                .forEach(kind -> whole.remove(kind.kind()));
        return whole;
    }
}
