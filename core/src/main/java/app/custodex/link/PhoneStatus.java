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
 * @param battery percent; empty for what has none
 * @param identity only for a bench that the phone trusts
 * @param contents only for a bench that the phone trusts; in the order of {@link Kind}
 * @param apps chat apps that keep their conversations elsewhere until they are made to write a copy on the phone
 */
public record PhoneStatus(
        Family family,
        String model,
        Set<ReadinessStep> done,
        Optional<Integer> battery,
        Optional<PhoneIdentity> identity,
        List<KindCount> contents,
        List<ChatApp> apps) {
    public PhoneStatus {
        done = Set.copyOf(done);
        contents = List.copyOf(contents);
        apps = List.copyOf(apps);
    }

    public Readiness readiness() {
        return new Readiness(family, done);
    }
}
