package app.custodex.link;

import java.time.Duration;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** What sources without a phone's own folders have in common: no battery, no owner's counts, kinds by name and content. */
abstract class PlainLink implements PhoneLink {
    private final Family family;
    private final SourceName name;

    /**
     * Under which identifier and name a source's layers are filed.
     *
     * @param identifier lasting; given when the source is first added, since a folder has none of its own
     */
    public record SourceName(String identifier, String name) {}

    PlainLink(Family family, SourceName name) {
        this.family = family;
        this.name = name;
    }

    final SourceName name() {
        return name;
    }

    /** @param capacity bytes in all, 0 when that can't be told */
    final PhoneStatus status(Set<ReadinessStep> done, String place, long capacity, long used) {
        boolean ready = done.containsAll(family.steps());
        Optional<PhoneIdentity> identity = ready
                ? Optional.of(new PhoneIdentity(
                        name.identifier(),
                        name.name(),
                        family,
                        family.label(),
                        "",
                        "",
                        place,
                        "",
                        ZoneId.of("UTC"),
                        capacity,
                        used))
                : Optional.empty();
        return new PhoneStatus(family, name.name(), done, Optional.empty(), identity, List.of(), List.of());
    }

    static Set<ReadinessStep> none() {
        return EnumSet.noneOf(ReadinessStep.class);
    }

    /** What lies on this computer costs little to look at, and nobody waits for it with a cable in the hand. */
    @Override
    public Duration askEvery() {
        return Duration.ofSeconds(1);
    }

    @Override
    public Kind kindOf(PhonePath file) {
        return Recognition.byName(file);
    }

    @Override
    public Kind kindOf(PhonePath file, Kind byPlace, byte[] content) {
        return Recognition.byContent(file, content);
    }
}
