package app.custodex.cli;

import app.custodex.app.Custodex;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.Sizes;
import app.custodex.strongroom.StrongroomFinder;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Which strongroom is in use, and where it is. */
@Command(
        name = "strongroom",
        description = "Shows, finds, changes and moves the strongroom.",
        mixinStandardHelpOptions = true)
final class StrongroomCommand implements Runnable {
    @Spec
    private CommandSpec spec;

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }

    @Command(name = "show", description = "Says where it is and how much room it has.", mixinStandardHelpOptions = true)
    int show(@Mixin HomeOption home) throws IOException {
        try (var custodex = home.open()) {
            var strongroom = custodex.strongroom();
            spec.commandLine()
                    .getOut()
                    .printf(
                            "%s: %d phones, room for %s%n",
                            strongroom.root(),
                            strongroom.holdings().phones().size(),
                            Sizes.bytes(strongroom.room(), Locale.getDefault()));
            var problems = custodex.problems();
            Output.problems(spec.commandLine().getErr(), problems);
            return problems.isEmpty() ? ExitCode.DONE : ExitCode.LOSSES;
        }
    }

    @Command(
            name = "use",
            description = "Uses another strongroom from now on; makes one in an empty or new folder.",
            mixinStandardHelpOptions = true)
    int use(@Mixin HomeOption home, @Parameters(paramLabel = "FOLDER") Path folder) throws IOException {
        Custodex.choose(home.home(), folder);
        try (var custodex = home.open()) {
            spec.commandLine()
                    .getOut()
                    .println("The strongroom is " + custodex.strongroom().root() + " now.");
            return ExitCode.DONE;
        }
    }

    @Command(
            name = "mend",
            description =
                    "Makes damaged files again that layers need to be opened, as far as that can be done without the phone.",
            mixinStandardHelpOptions = true)
    int mend(@Mixin HomeOption home) throws IOException {
        try (var custodex = home.open()) {
            var told = custodex.strongroom().mend();
            if (told.isEmpty()) {
                spec.commandLine().getOut().println("Nothing to mend.");
            }
            Output.problems(spec.commandLine().getOut(), told);
            return told.stream().allMatch(problem -> problem.grade() == Problem.Grade.NOTE)
                    ? ExitCode.DONE
                    : ExitCode.LOSSES;
        }
    }

    @Command(
            name = "move",
            description = "Moves the strongroom to another folder and uses it there.",
            mixinStandardHelpOptions = true)
    int move(@Mixin HomeOption home, @Parameters(paramLabel = "FOLDER") Path folder) throws IOException {
        try (var custodex = home.open()) {
            custodex.moveStrongroom(folder, n -> {}, new CancelToken());
            spec.commandLine()
                    .getOut()
                    .println("The strongroom is " + custodex.strongroom().root() + " now.");
            return ExitCode.DONE;
        }
    }

    @Command(
            name = "find",
            description = "Looks for strongrooms on the drives of this computer.",
            mixinStandardHelpOptions = true)
    int find(
            @Parameters(paramLabel = "FOLDER", arity = "0..*", description = "Where to look instead") List<Path> places)
            throws IOException {
        var found = StrongroomFinder.find(places == null ? StrongroomFinder.drives() : places);
        found.forEach(place -> spec.commandLine().getOut().println(place));
        if (found.isEmpty()) {
            spec.commandLine().getOut().println("No strongroom was found.");
        }
        return ExitCode.DONE;
    }
}
