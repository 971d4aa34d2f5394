package app.custodex.docket;

import app.custodex.base.Problem;
import java.time.Instant;
import java.util.Objects;
import java.util.Optional;

/**
 * One backup that was started, and what came of it: a line of the result list.
 *
 * @param begun UTC
 * @param ended UTC
 * @param docket the job that it belonged to, if any
 * @param phone identifier
 * @param name what the owner calls the phone
 * @param automatic whether it began by itself
 * @param layer the layer that it made, if it came to one
 * @param newItems items that the layer stores itself
 * @param newBytes of those
 * @param missed items that could not be saved
 * @param sound whether reading back found everything as written; empty when it was not read back
 * @param problem why it came to no layer
 */
public record Run(
        Instant begun,
        Instant ended,
        Optional<Integer> docket,
        String phone,
        String name,
        boolean automatic,
        Optional<Integer> layer,
        long newItems,
        long newBytes,
        long missed,
        Optional<Boolean> sound,
        Optional<Problem> problem) {
    public Run {
        Objects.requireNonNull(begun);
        Objects.requireNonNull(ended);
    }
}
