package app.custodex.cli;

import app.custodex.app.Bay;
import app.custodex.app.Custodex;
import app.custodex.app.Mandate;
import app.custodex.base.ProblemException;
import app.custodex.docket.AutomaticRuns;
import java.io.IOException;
import java.time.ZoneId;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Carries out the runs that dockets ask for, without a window. */
@Command(
        name = "watch",
        description = "Backs up phones automatically, as their dockets say, until it is stopped.",
        mixinStandardHelpOptions = true)
final class WatchCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Option(names = "--once", description = "Run what is due now, wait for it and exit")
    private boolean once;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException, InterruptedException {
        try (var custodex = home.open()) {
            var automatic = new AutomaticRuns(custodex.clock(), ZoneId.systemDefault());
            do {
                custodex.bays().refresh();
                for (var bay : custodex.bays().all()) {
                    look(custodex, bay, automatic);
                }
                Thread.sleep(1_000);
            } while (!once || custodex.copying());
            return ExitCode.DONE;
        }
    }

    /** One bay's trouble is its own; the others are looked at all the same. */
    private void look(Custodex custodex, Bay bay, AutomaticRuns automatic) throws IOException {
        bay.askWhenDue(custodex.clock().instant());
        automatic.seen(bay.address(), bay.ready());
        var docket = custodex.dockets().at(bay.address());
        if (docket.isEmpty()
                || custodex.copying(bay)
                || !automatic.due(
                        docket.get(), custodex.runs().last(docket.get().number()))) {
            return;
        }
        var out = spec.commandLine().getOut();
        out.println("Docket " + docket.get().label() + ": backing up "
                + bay.source().name());
        try {
            custodex.backUp(bay, Mandate.ofDocket(docket.get().number()), Custodex.automaticRequest(), true)
                    .outcome()
                    .thenAccept(outcome -> out.println("Docket " + docket.get().label() + ": ended"));
        } catch (ProblemException e) {
            spec.commandLine().getErr().println(e.problem().sentence());
        }
    }
}
