package app.custodex.cli;

import app.custodex.app.DemoHistory;
import app.custodex.app.Sources;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.drawer.PracticeLoft;
import app.custodex.drawer.PracticePhone;
import java.io.IOException;
import java.util.List;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.concurrent.Callable;
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

    @Option(
            names = "--messages",
            defaultValue = "0",
            description = "Messages on each phone, about (default: the demo's)")
    private int messages;

    @Option(names = "--calls", defaultValue = "0", description = "Calls on each phone, about (default: the demo's)")
    private int calls;

    @Option(
            names = "--pictures",
            defaultValue = "0",
            description = "Pictures on each phone, about (default: the demo's)")
    private int pictures;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException, InterruptedException {
        var provider = ServiceLoader.load(PracticeDrawer.Provider.class)
                .findFirst()
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        "practice", "This Custodex was built without practice phones", "Build all modules")));
        if (home.isDemo()) {
            home.home().markAsDemoIfNew();
        }
        var contents = new PracticeDrawer.Contents(seed, files, bytes, contacts, messages, calls, pictures, false);
        try (var drawer = provider.open(home.home().practice(), contents)) {
            var history = DemoHistory.start(
                    home.home(),
                    drawer,
                    () -> {},
                    problem -> Output.problems(spec.commandLine().getErr(), List.of(problem)));
            Runtime.getRuntime().addShutdownHook(new Thread(() -> {
                history.ifPresent(DemoHistory::close);
                drawer.close();
            }));
            for (var phone : drawer.phones()) {
                plugIn(phone);
            }
            var loft = drawer.loft();
            var out = spec.commandLine().getOut();
            out.println("Loft, account " + loft.account() + ": at loft:" + loft.address());
            tellCodes(loft);
        }
        return ExitCode.DONE;
    }

    /** Shows each one-time code, as the customer's phone would, until the program is ended. */
    private void tellCodes(PracticeLoft loft) throws InterruptedException {
        Optional<String> told = Optional.empty();
        while (true) {
            var message = loft.message();
            if (message.isPresent() && !message.equals(told)) {
                spec.commandLine().getOut().println("Message on the customer's phone: Loft code " + message.get());
            }
            told = message;
            Thread.sleep(200);
        }
    }

    private void plugIn(PracticePhone phone) throws IOException {
        if (ready) {
            phone.makeReady();
        }
        phone.plugIn();
        Sources.of(home.home()).rememberPhone(phone.family().code(), phone.address());
        spec.commandLine().getOut().println(phone.model() + ", " + phone.name() + ": plugged in at " + phone.address());
    }
}
