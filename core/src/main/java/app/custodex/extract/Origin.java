package app.custodex.extract;

import java.time.Instant;
import java.util.List;

/**
 * Where what is written comes from, for those who have to rely on it.
 *
 * @param docket its number; empty for the shop's own
 * @param facts about the phone and the layer, as they are shown
 * @param tool name and version of the program that writes
 * @param written when it is written
 */
public record Origin(String docket, List<Fact> facts, String tool, Instant written) {
    public Origin {
        facts = List.copyOf(facts);
    }

    /** Something that is known. */
    public record Fact(String label, String value) {}
}
