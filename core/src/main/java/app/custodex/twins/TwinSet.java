package app.custodex.twins;

import java.util.List;

/**
 * Things that may be one.
 *
 * @param reason in words; it may name what is private
 * @param numbers of the things in their catalogue, two or more
 */
public record TwinSet(Likeness likeness, String reason, List<Integer> numbers) {
    /** In what way. */
    public enum Likeness {
        ONE_PERSON("one person"),
        SAME_FILE("the same file"),
        SAME_SONG("the same song"),
        LOOK_ALIKE("pictures that look alike");

        private final String label;

        Likeness(String label) {
            this.label = label;
        }

        public String label() {
            return label;
        }
    }

    public TwinSet {
        numbers = List.copyOf(numbers);
    }
}
