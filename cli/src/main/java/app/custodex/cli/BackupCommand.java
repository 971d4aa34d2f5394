package app.custodex.cli;

import app.custodex.app.BackupJob;
import app.custodex.app.BackupJob.Outcome;
import app.custodex.backup.BackupProgress;
import app.custodex.backup.BackupResult;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.base.Sizes;
import java.io.IOException;
import java.io.PrintWriter;
import java.time.Duration;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Copies a phone into a new layer. */
@Command(
        name = "backup",
        description = "Copies a whole phone into a new layer and reads the layer back.",
        mixinStandardHelpOptions = true)
final class BackupCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Parameters(paramLabel = "PHONE", description = "Bay number, name, model, serial number or identifier")
    private String phone;

    @Option(
            names = "--wait",
            paramLabel = "SECONDS",
            defaultValue = "0",
            description = "How long to wait for a phone that is away or asks for a hand (default: ${DEFAULT-VALUE})")
    private int wait;

    @Option(names = "--no-check", negatable = true, description = "Don't read the layer back")
    private boolean check = true;

    @Option(names = "--quiet", description = "Print only the result")
    private boolean quiet;

    @Option(names = "--json", description = "Print the result as JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var err = spec.commandLine().getErr();
        try (var custodex = home.open()) {
            var patience = Duration.ofSeconds(wait);
            var bay = PhoneFinder.ready(custodex, phone, patience, err::println);
            var job = custodex.backUp(bay.link(), Optional.empty(), patience, check);
            var stopOnSignal = new Thread(job::stop);
            Runtime.getRuntime().addShutdownHook(stopOnSignal);
            return switch (await(job, err)) {
                case Outcome.Done done -> told(done.result());
                case Outcome.Stopped stopped ->
                    throw new ProblemException(Problem.failure(
                            phone, "The backup was stopped", "Start it again; it goes on where it stopped"));
                case Outcome.Failed failed -> throw new ProblemException(failed.problem());
            };
        }
    }

    private Outcome await(BackupJob job, PrintWriter err) {
        while (true) {
            try {
                return job.outcome().get(1, TimeUnit.SECONDS);
            } catch (TimeoutException e) {
                if (!quiet) {
                    err.println(line(job.progress()));
                }
            } catch (InterruptedException e) {
                job.stop();
                Thread.currentThread().interrupt();
                return new Outcome.Stopped();
            } catch (ExecutionException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    private static String line(BackupProgress p) {
        if (p.waiting().isPresent()) {
            return "waiting: " + p.waiting().get().sentence();
        }
        var locale = Locale.getDefault();
        return switch (p.phase()) {
            case LISTING -> "listing, " + Sizes.count(p.allItems(), locale) + " items so far";
            case COPYING, CHECKING ->
                "%s %s of %s, %s items, %s/s%s"
                        .formatted(
                                p.phase() == BackupProgress.Phase.COPYING ? "copying" : "reading back",
                                Sizes.bytes(p.doneBytes(), locale),
                                Sizes.bytes(p.allBytes(), locale),
                                Sizes.count(p.doneItems(), locale),
                                Sizes.bytes(p.bytesPerSecond(), locale),
                                p.left()
                                        .map(left -> ", " + Sizes.about(left) + " left")
                                        .orElse(""));
            case PUBLISHING -> "publishing the layer";
            case ENDED -> "done";
        };
    }

    private int told(BackupResult result) throws IOException {
        var out = spec.commandLine().getOut();
        var layer = result.layer();
        if (json) {
            Output.json(out, result);
        } else {
            var locale = Locale.getDefault();
            out.printf(
                    "%s, layer %d: %s items, %s; %s items, %s of it new; %s not saved in full%n",
                    layer.phone().name(),
                    layer.number(),
                    Sizes.count(layer.items(), locale),
                    Sizes.bytes(layer.bytes(), locale),
                    Sizes.count(layer.freshItems(), locale),
                    Sizes.bytes(layer.freshBytes(), locale),
                    Sizes.count(layer.missed(), locale));
            result.check()
                    .ifPresent(report -> out.println(
                            report.sound()
                                    ? "Read back " + Sizes.bytes(report.bytes(), locale) + ": sound"
                                    : "Read back: " + report.damage().size() + " stored files are damaged"));
            Output.problems(out, result.problems());
            result.check().ifPresent(report -> Output.problems(out, report.damage()));
        }
        boolean whole = layer.missed() == 0
                && result.check().filter(report -> !report.sound()).isEmpty();
        return whole ? ExitCode.DONE : ExitCode.LOSSES;
    }
}
