package app.custodex.catalogue;

import app.custodex.model.ThingKind;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;

/**
 * Which things are wanted; everything that is given has to be so.
 *
 * @param kinds empty for all
 * @param person one of {@link Catalogue#people}
 * @param account as the things have it
 * @param from the first day, in the phone's calendar
 * @param until the last day
 * @param attached only what something hangs on
 * @param outgoing only what the owner sent, or only what came
 */
public record Filter(
        Set<ThingKind> kinds,
        OptionalLong person,
        Optional<String> account,
        Optional<LocalDate> from,
        Optional<LocalDate> until,
        boolean attached,
        Optional<Boolean> outgoing) {
    public static final Filter EVERYTHING = new Filter(
            Set.of(),
            OptionalLong.empty(),
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            false,
            Optional.empty());

    public Filter {
        kinds = Set.copyOf(kinds);
    }

    /** The same, of what something hangs on only. */
    public Filter withAttachments() {
        return new Filter(kinds, person, account, from, until, true, outgoing);
    }

    /** The same, of one person only. */
    public Filter of(Catalogue.Person only) {
        return new Filter(kinds, OptionalLong.of(only.id()), account, from, until, attached, outgoing);
    }

    /** The same, whoever is in it. */
    Filter withoutPerson() {
        return new Filter(kinds, OptionalLong.empty(), account, from, until, attached, outgoing);
    }

    /** The same, of these kinds only. */
    public Filter of(ThingKind first, ThingKind... more) {
        return of(EnumSet.of(first, more));
    }

    /** The same, of these kinds only. */
    public Filter of(Set<ThingKind> only) {
        return new Filter(only, person, account, from, until, attached, outgoing);
    }
}
