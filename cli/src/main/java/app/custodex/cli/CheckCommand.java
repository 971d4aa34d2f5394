package app.custodex.cli;

import app.custodex.base.CancelToken;
import app.custodex.base.Sizes;
import java.io.IOException;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Reads a layer back. */
@Command(
        name = "check",
        description = "Reads every stored byte of a layer back and compares its digests.",
        mixinStandardHelpOptions = true)
final class CheckCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private LayerOption layer;

    @Option(names = "--json", description = "Print JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open()) {
            var stored = PhoneFinder.stored(custodex, layer.phone);
            var report =
                    custodex.check(stored.identity().identifier(), layer.number(stored), n -> {}, new CancelToken());
            if (json) {
                Output.json(out, report);
            } else {
                out.printf(
                        "%s, layer %d: read %d stored files, %s: %s%n",
                        stored.identity().name(),
                        report.layer(),
                        report.files(),
                        Sizes.bytes(report.bytes(), Locale.getDefault()),
                        report.sound() ? "sound" : report.damage().size() + " damaged");
                Output.problems(out, report.damage());
                report.items().forEach(item -> out.println("hit: " + item));
            }
            return report.sound() ? ExitCode.DONE : ExitCode.LOSSES;
        }
    }
}
