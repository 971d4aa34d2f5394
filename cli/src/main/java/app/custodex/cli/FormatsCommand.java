package app.custodex.cli;

import app.custodex.extract.formats.Formats;
import app.custodex.model.KindGroup;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Lists the formats in which things can be written. */
@Command(
        name = "formats",
        description =
                "Lists the formats in which \"custodex extract\" writes each group of things, the usual one first, with the choices"
                        + " that each leaves.",
        mixinStandardHelpOptions = true)
final class FormatsCommand implements Callable<Integer> {
    @Option(names = "--group", paramLabel = "GROUP", defaultValue = "", description = "Only of this group")
    private String group;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        var out = spec.commandLine().getOut();
        for (var each : KindGroup.values()) {
            if (group.isEmpty() || each.code().equals(group)) {
                for (var format : Formats.of(each)) {
                    out.println(each.code() + "=" + format.code() + "\t" + format.label()
                            + (format.leavesOut().isEmpty() ? "" : ". " + format.leavesOut()));
                    for (var choice : format.choices(each)) {
                        out.println("\t:" + choice.code() + "="
                                + (choice.isWords()
                                        ? "WORDS"
                                        : choice.values().stream()
                                                .map(value -> value.code())
                                                .collect(Collectors.joining(choice.several() ? "+" : "|")))
                                + "\t" + choice.label());
                    }
                }
            }
        }
        out.flush();
        return ExitCode.DONE;
    }
}
