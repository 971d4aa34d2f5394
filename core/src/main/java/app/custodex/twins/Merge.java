package app.custodex.twins;

import app.custodex.model.ThingId;
import java.util.List;
import java.util.Set;

/**
 * How contacts are to be written as one; the contacts themselves stay as they are.
 *
 * @param leftOut the keys of the values that were left out; see {@link MergeProposal.Value#key}
 */
public record Merge(List<ThingId> of, Set<String> leftOut) {
    public Merge {
        of = List.copyOf(of);
        leftOut = Set.copyOf(leftOut);
    }
}
