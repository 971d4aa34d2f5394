package app.custodex.link;

import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * What a phone still needs before it gives its files.
 *
 * @param family which steps there are, and their order
 * @param done the steps that the phone says are done; steps of another family are ignored
 */
public record Readiness(Family family, Set<ReadinessStep> done) {
    public Readiness {
        done = Set.copyOf(done);
    }

    public List<ReadinessStep> steps() {
        return family.steps();
    }

    /** The one next movement of the hand; empty when the phone is ready. */
    public Optional<ReadinessStep> next() {
        return steps().stream().filter(step -> !done.contains(step)).findFirst();
    }

    public boolean ready() {
        return next().isEmpty();
    }
}
