package app.custodex.cli;

import app.custodex.base.CancelToken;
import app.custodex.base.Sizes;
import app.custodex.link.Limits;
import app.custodex.link.PhoneStatus;
import java.io.IOException;
import java.time.Duration;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Says what a backup would take. */
@Command(
        name = "survey",
        description = "Lists what a phone holds, what of it is new, and the room that it needs. Copies nothing.",
        mixinStandardHelpOptions = true)
final class SurveyCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private BenchOption bench;

    @Mixin
    private KindsOption kinds;

    @Option(
            names = "--beyond-limits",
            description = "Take what lists more items, deeper folders or larger unpacked sizes than phones have")
    private boolean beyondLimits;

    @Option(names = "--items", description = "Name every item")
    private boolean items;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        var locale = Locale.getDefault();
        try (var custodex = home.open()) {
            var bay = bench.ready(custodex, Duration.ZERO, waiting -> {});
            var identifier =
                    bay.status().flatMap(PhoneStatus::identity).orElseThrow().identifier();
            var survey = custodex.survey(
                    bay,
                    custodex.strongroom().sealed(identifier),
                    beyondLimits ? Limits.NONE : Limits.USUAL,
                    new CancelToken());
            var selection = kinds.selection();
            survey.amounts(selection)
                    .forEach((kind, amount) -> out.printf(
                            "%-26s %14s  %10s   new: %,9d  %10s%n",
                            kind.label(),
                            Output.items(amount.items()),
                            Sizes.bytes(amount.bytes(), locale),
                            amount.newItems(),
                            Sizes.bytes(amount.newBytes(), locale)));
            if (items) {
                survey.files().stream()
                        .filter(found ->
                                selection.takes(found.kind(), found.file().path()))
                        .forEach(found -> out.println((found.stored() ? "stored  " : "new     ")
                                + Output.oneLine(found.file().path().text())));
            }
            Output.left(out, "Not given", survey.left());
            if (!survey.compared()) {
                out.println("Its layers are sealed and closed, so everything counts as new here.");
            }
            out.printf(
                    "Needs %s; the strongroom has room for %s%n",
                    Sizes.bytes(survey.need(selection), locale),
                    Sizes.bytes(custodex.strongroom().room(), locale));
            return ExitCode.DONE;
        }
    }
}
