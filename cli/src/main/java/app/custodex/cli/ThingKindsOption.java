package app.custodex.cli;

import app.custodex.model.ThingKind;
import java.util.List;
import java.util.Set;
import picocli.CommandLine.Option;

/** Which kinds of things. */
final class ThingKindsOption {
    @Option(
            names = "--kind",
            paramLabel = "KIND",
            split = ",",
            converter = ThingKindOption.class,
            description = "Only these kinds, such as message,call")
    private List<ThingKind> kinds = List.of();

    /** Empty for all. */
    Set<ThingKind> chosen() {
        return Set.copyOf(kinds);
    }
}
