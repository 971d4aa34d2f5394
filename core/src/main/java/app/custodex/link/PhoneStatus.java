package app.custodex.link;

import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * What a phone answers when it is asked how it is.
 *
 * @param family told to anyone
 * @param model told to anyone
 * @param done steps of readiness that are done, as seen by the bench that asks
 * @param battery percent
 * @param identity only for a bench that the phone trusts
 * @param contents only for a bench that the phone trusts; in the order of {@link Kind}
 */
public record PhoneStatus(
        Family family,
        String model,
        Set<ReadinessStep> done,
        int battery,
        Optional<PhoneIdentity> identity,
        List<KindCount> contents) {
    public PhoneStatus {
        done = Set.copyOf(done);
        contents = List.copyOf(contents);
    }

    public Readiness readiness() {
        return new Readiness(family, done);
    }
}
