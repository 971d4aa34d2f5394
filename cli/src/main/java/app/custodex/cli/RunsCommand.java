package app.custodex.cli;

import app.custodex.base.Problem;
import app.custodex.base.Sizes;
import app.custodex.docket.Run;
import java.io.IOException;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** The result list. */
@Command(
        name = "runs",
        description = "Lists every backup that was started, and what came of it.",
        mixinStandardHelpOptions = true)
final class RunsCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Option(names = "--json", description = "Print JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open()) {
            var runs = custodex.runs().all();
            if (json) {
                Output.json(out, runs);
                return ExitCode.DONE;
            }
            var time = DateTimeFormatter.ofLocalizedDateTime(FormatStyle.MEDIUM, FormatStyle.SHORT)
                    .withZone(ZoneId.systemDefault());
            for (var run : runs) {
                out.printf(
                        "%s  %-18s  %s%s%n",
                        time.format(run.begun()),
                        Output.oneLine(run.name()),
                        run.automatic() ? "by itself: " : "",
                        outcome(run));
            }
            return ExitCode.DONE;
        }
    }

    private static String outcome(Run run) {
        var locale = Locale.getDefault();
        return run.layer()
                .map(layer -> "layer %d, %s, %s new%s, %s"
                        .formatted(
                                layer,
                                Output.items(run.newItems()),
                                Sizes.bytes(run.newBytes(), locale),
                                run.missed() == 0 ? "" : ", " + Sizes.count(run.missed(), locale) + " not saved",
                                run.sound()
                                        .map(sound -> sound ? "read back: sound" : "read back: damaged")
                                        .orElse("not read back")))
                .orElseGet(() -> run.problem().map(Problem::sentence).orElse("no layer"));
    }
}
