package app.custodex.cli;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.drawer.PracticePhone;
import java.io.IOException;
import java.util.ServiceLoader;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Plugs practice phones in until it is interrupted. */
@Command(
        name = "practice",
        description = "Plugs the practice phones in, until it is interrupted.",
        mixinStandardHelpOptions = true)
final class PracticeCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Option(names = "--ready", description = "The phones do by themselves what a hand would do on them")
    private boolean ready;

    @Option(names = "--seed", defaultValue = "1", description = "The same seed gives the same phones")
    private long seed;

    @Option(names = "--files", defaultValue = "0", description = "Files on each phone beside its own")
    private int files;

    @Option(names = "--bytes", defaultValue = "0", description = "Bytes in those files, about")
    private long bytes;

    @Option(names = "--contacts", defaultValue = "0", description = "People on each phone (default: the demo's)")
    private int contacts;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException, InterruptedException {
        var provider = ServiceLoader.load(PracticeDrawer.Provider.class)
                .findFirst()
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        "practice", "This Custodex was built without practice phones", "Build all modules")));
        try (var drawer =
                provider.open(home.home().practice(), new PracticeDrawer.Contents(seed, files, bytes, contacts))) {
            Runtime.getRuntime().addShutdownHook(new Thread(drawer::close));
            for (var phone : drawer.phones()) {
                plugIn(phone);
            }
            new CountDownLatch(1).await();
        }
        return ExitCode.DONE;
    }

    private void plugIn(PracticePhone phone) throws IOException {
        if (ready) {
            phone.makeReady();
        }
        phone.plugIn();
        home.home().rememberAddress(phone.family().code(), phone.address());
        spec.commandLine().getOut().println(phone.model() + ", " + phone.name() + ": plugged in at " + phone.address());
    }
}
