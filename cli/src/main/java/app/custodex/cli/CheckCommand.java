package app.custodex.cli;

import app.custodex.app.Checks;
import app.custodex.app.Custodex;
import app.custodex.base.CancelToken;
import app.custodex.base.Sizes;
import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.StoredPhone;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Reads layers back. */
@Command(
        name = "check",
        description =
                "Reads stored bytes back and compares their digests: of a layer, of a phone, or of everything that"
                        + " lies in the strongroom.",
        mixinStandardHelpOptions = true)
final class CheckCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Parameters(
            paramLabel = "PHONE",
            arity = "0..1",
            description = "Name, model, serial number or identifier of a phone in the strongroom (default: all phones)")
    private Optional<String> phone = Optional.empty();

    @Option(names = "--layer", paramLabel = "NUMBER", description = "Only this layer of the phone (default: all)")
    private Optional<Integer> layer = Optional.empty();

    @Option(names = "--overdue", description = "Only phones with a layer that was not read back for a week")
    private boolean overdue;

    @Option(names = "--decrypt", description = "Compare the content of sealed layers too; asks for the passphrase")
    private boolean decrypt;

    @Mixin
    private SecretOption secrets;

    @Option(names = "--json", description = "Print JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    /** What was found in one layer of a phone. */
    private record Found(StoredPhone phone, CheckReport report) {}

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open()) {
            var phones = phones(custodex);
            boolean everything = phone.isEmpty() && !overdue;
            var problems = custodex.checks().examine(everything ? List.of() : phones);
            var found = new ArrayList<Found>();
            for (var stored : phones) {
                unseal(custodex, stored);
                var numbers =
                        layer.isPresent() ? List.of(LayerOption.number(stored, layer.get())) : Checks.numbers(stored);
                custodex.checks()
                        .run(stored, numbers, n -> {}, new CancelToken())
                        .forEach(report -> found.add(new Found(stored, report)));
            }
            if (json) {
                Output.json(out, found.stream().map(Found::report).toList());
            } else {
                found.forEach(this::print);
            }
            // Of what is damaged a layer's own line tells, too; what its files need to be opened is told here.
            Output.problems(spec.commandLine().getErr(), problems);
            return problems.isEmpty() && found.stream().allMatch(f -> f.report().sound())
                    ? ExitCode.DONE
                    : ExitCode.LOSSES;
        }
    }

    private List<StoredPhone> phones(Custodex custodex) throws IOException {
        if (phone.isPresent()) {
            return List.of(PhoneFinder.stored(custodex, phone.get()));
        }
        return overdue
                ? custodex.checks().overdue()
                : custodex.strongroom().holdings().phones();
    }

    private void unseal(Custodex custodex, StoredPhone stored) throws IOException {
        if (decrypt && stored.seal() == StoredPhone.Seal.CLOSED) {
            try (var passphrase =
                    secrets.ask("Passphrase of " + stored.identity().name())) {
                custodex.strongroom().open(stored.identity(), passphrase);
            }
        }
    }

    private void print(Found found) {
        var out = spec.commandLine().getOut();
        var report = found.report();
        out.printf(
                "%s, layer %d: read %d stored files, %s%s: %s%n",
                found.phone().identity().name(),
                report.layer(),
                report.files(),
                Sizes.bytes(report.bytes(), Locale.getDefault()),
                report.decrypted() ? ", decrypted" : "",
                report.sound() ? "sound" : report.damage().size() + " damaged");
        Output.problems(out, report.damage());
        report.items().forEach(item -> out.println("hit: " + Output.oneLine(item.text())));
    }
}
