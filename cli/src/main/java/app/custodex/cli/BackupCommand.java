package app.custodex.cli;

import app.custodex.app.BackupJob;
import app.custodex.app.BackupJob.Outcome;
import app.custodex.app.Bay;
import app.custodex.app.Custodex;
import app.custodex.backup.BackupRequest;
import app.custodex.backup.BackupResult;
import app.custodex.backup.Selection;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.Limits;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhonePath;
import app.custodex.link.PhoneStatus;
import app.custodex.seal.PassphraseStrength;
import java.io.IOException;
import java.io.PrintWriter;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Copies a phone into a new layer. */
@Command(
        name = "backup",
        description = "Copies a phone or another source into a new layer and reads the layer back.",
        mixinStandardHelpOptions = true)
final class BackupCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private BenchOption bench;

    @Mixin
    private MandateOption mandate;

    @Mixin
    private KindsOption kinds;

    @Option(
            names = "--item",
            paramLabel = "PATH",
            description = "Take only this item of its kind, named as the phone lists it; may be repeated")
    private List<String> items = List.of();

    @Option(
            names = "--read-everything",
            description =
                    "Read what looks unchanged too, and compare the content: finds changes that keep size and time")
    private boolean readEverything;

    @Option(
            names = "--beyond-limits",
            description = "Take what lists more items, deeper folders or larger unpacked sizes than phones have")
    private boolean beyondLimits;

    @Option(
            names = "--seal",
            description = "Seal the phone's stack, with its first layer; asks for a passphrase twice. A lost passphrase"
                    + " can't be recovered by anybody")
    private boolean seal;

    @Option(
            names = "--wait",
            paramLabel = "SECONDS",
            defaultValue = "0",
            description =
                    "How long to wait for a phone that is unplugged or needs someone to tap something on it (default: ${DEFAULT-VALUE})")
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
            var bay = bench.ready(custodex, patience, err::println);
            var behalf = mandate.of(custodex, bay);
            sealing(custodex, bay);
            var limits = beyondLimits ? Limits.NONE : Limits.USUAL;
            var request = new BackupRequest(selection(bay), readEverything, patience, check, limits, Custodex.TOOL);
            var job = custodex.backUp(bay, behalf, request, false);
            var stopOnSignal = new Thread(() -> {
                job.stop();
                job.outcome().join(); // what is read already is brought into safety first
            });
            Runtime.getRuntime().addShutdownHook(stopOnSignal);
            return switch (await(job, err)) {
                case Outcome.Done done -> told(done.result());
                case Outcome.Stopped stopped ->
                    throw new ProblemException(Problem.failure(
                            bench.words(), "The backup was stopped", "Start it again; it goes on where it stopped"));
                case Outcome.Failed failed -> throw new ProblemException(failed.problem());
            };
        }
    }

    private Selection selection(Bay bay) {
        var selection = kinds.selection();
        for (var item : items) {
            var path = new PhonePath(item);
            var kind = bay.link().kindOf(path);
            var chosen = new HashSet<PhonePath>();
            var before = selection.only().get(kind);
            if (before != null) {
                chosen.addAll(before);
            }
            chosen.add(path);
            selection = selection.withOnly(kind, chosen);
        }
        return selection;
    }

    /** Makes the seal for a first layer, or opens the one that is there. */
    private void sealing(Custodex custodex, Bay bay) throws IOException {
        var identity = bay.status().flatMap(PhoneStatus::identity).orElseThrow();
        var strongroom = custodex.strongroom();
        boolean hasLayers = strongroom.newestLayer(identity.identifier()) > 0;
        if (strongroom.sealed(identity.identifier()) && (hasLayers || !seal)) {
            if (!strongroom.readable(identity.identifier())) {
                try (var passphrase = bench.secrets().ask("Passphrase of " + identity.name())) {
                    strongroom.open(identity, passphrase);
                }
            }
        } else if (seal) {
            newSeal(custodex, identity);
        }
    }

    private void newSeal(Custodex custodex, PhoneIdentity identity) throws IOException {
        try (var passphrase = bench.secrets().ask("New passphrase of " + identity.name());
                var again = bench.secrets().ask("The same again")) {
            PassphraseStrength.require(identity.name(), passphrase, again, List.of(identity.name()));
            custodex.strongroom().seal(identity, passphrase);
        }
    }

    private Outcome await(BackupJob job, PrintWriter err) {
        while (true) {
            try {
                return job.outcome().get(1, TimeUnit.SECONDS);
            } catch (TimeoutException e) {
                if (!quiet) {
                    err.println(BackupOutput.line(job.progress()));
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

    private int told(BackupResult result) throws IOException {
        var out = spec.commandLine().getOut();
        if (json) {
            Output.json(out, result);
        } else {
            BackupOutput.result(out, result);
        }
        boolean whole = result.layer().missed() == 0
                && result.problems().stream().allMatch(problem -> problem.grade() == Problem.Grade.NOTE)
                && result.check().filter(report -> !report.sound()).isEmpty();
        return whole ? ExitCode.DONE : ExitCode.LOSSES;
    }
}
