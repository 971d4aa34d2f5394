package app.custodex.cli;

import app.custodex.app.Bay;
import app.custodex.base.Sizes;
import app.custodex.link.KindCount;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.ReadinessStep;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Lists the phones on the bench. */
@Command(
        name = "phones",
        description = "Lists the phones that are plugged in, and what each still needs.",
        mixinStandardHelpOptions = true)
final class PhonesCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Option(names = "--json", description = "Print JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    /** One line of the list. */
    private record Row(
            int bay,
            String family,
            String model,
            boolean ready,
            Optional<String> needs,
            Optional<PhoneIdentity> phone,
            List<KindCount> contents) {}

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open()) {
            custodex.bays().all().forEach(Bay::ask);
            var rows = custodex.bays().all().stream()
                    .flatMap(bay -> bay.status().stream()
                            .map(status -> new Row(
                                    bay.number(),
                                    status.family().label(),
                                    status.model(),
                                    status.readiness().ready(),
                                    status.readiness().next().map(ReadinessStep::instruction),
                                    status.identity(),
                                    status.contents())))
                    .toList();
            if (json) {
                Output.json(out, rows);
                return ExitCode.DONE;
            }
            if (rows.isEmpty()) {
                out.println("No phone is plugged in. \"custodex practice\" plugs practice phones in.");
            }
            for (var row : rows) {
                out.printf(
                        "Bay %d  %-12s  %s%n",
                        row.bay(),
                        row.model(),
                        row.needs().map(needs -> "needs your hand: " + needs).orElse("ready"));
                row.phone()
                        .ifPresent(phone -> out.printf(
                                "       %s, %s, serial %s, IMEI %s, %s of %s used%n",
                                phone.name(),
                                phone.system(),
                                phone.serial(),
                                phone.imei(),
                                Sizes.bytes(phone.used(), Locale.getDefault()),
                                Sizes.bytes(phone.capacity(), Locale.getDefault())));
                row.contents().stream()
                        .filter(count -> count.items() > 0)
                        .forEach(count -> out.printf(
                                "       %-26s %,9d  %s%n",
                                count.kind().label(), count.items(), Sizes.bytes(count.bytes(), Locale.getDefault())));
            }
            return ExitCode.DONE;
        }
    }
}
