package app.custodex.cli;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.Family;
import app.custodex.media.SoundCut;
import app.custodex.readers.families.FamilyTones;
import app.custodex.tones.Tone;
import app.custodex.tones.ToneUse;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.function.Function;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Cuts a tone for a phone out of a recording. */
@Command(
        name = "tone",
        description = {
            "Cuts a piece out of a recording and writes it as a tone that a phone takes.",
            "",
            "Example: custodex tone \"Ivo's phone\" sound/ring/Gannet.m4a --from 0:12.5 --until 0:40 --fade-out 2 --family pellow --to out"
        },
        mixinStandardHelpOptions = true)
final class ToneCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private LayerOption layer;

    @Parameters(index = "1", paramLabel = "ITEM", description = "The recording's path on the phone")
    private String item = "";

    @Option(names = "--from", paramLabel = "TIME", required = true, description = "Where it begins, as 1:02.5")
    private String from = "";

    @Option(names = "--until", paramLabel = "TIME", required = true, description = "Where it ends")
    private String until = "";

    @Option(
            names = "--fade-in",
            paramLabel = "SECONDS",
            defaultValue = "0",
            description = "How long it takes to become loud")
    private String fadeIn = "";

    @Option(
            names = "--fade-out",
            paramLabel = "SECONDS",
            defaultValue = "0",
            description = "How long it takes to become silent")
    private String fadeOut = "";

    @Option(names = "--even", description = "Bring it to -16 LUFS, as EBU R 128 measures loudness")
    private boolean even;

    @Option(names = "--for", paramLabel = "USE", defaultValue = "ring", description = "ring, message or alarm")
    private String use = "";

    @Option(names = "--family", paramLabel = "FAMILY", required = true, description = "Of the phone that plays it")
    private String family = "";

    @Option(names = "--title", paramLabel = "WORDS", defaultValue = "Tone", description = "The name of its file")
    private String title = "";

    @Option(names = "--to", paramLabel = "FOLDER", required = true, description = "Where to write it")
    private Path folder = Path.of("");

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var wanted = one(family, FamilyTones.families(), Family::code);
        var purpose = one(use, Arrays.asList(ToneUse.values()), ToneUse::code);
        var begin = time(from);
        var end = time(until);
        if (end.compareTo(begin) <= 0) {
            throw new ProblemException(
                    Problem.failure(until, "It ends before it begins", "Give a later time for --until"));
        }
        var cut = new SoundCut(begin, end, time(fadeIn), time(fadeOut), even);
        var out = spec.commandLine().getOut();
        try (var custodex = home.open();
                var open = layer.open(custodex)) {
            var written = open.outgoing().tone(item, new Tone(title, cut, purpose, wanted), folder);
            out.println(Output.oneLine(written.toString()));
            out.flush();
            return ExitCode.DONE;
        }
    }

    private static <T> T one(String typed, List<T> all, Function<T, String> code) throws ProblemException {
        return all.stream()
                .filter(each -> code.apply(each).equals(typed))
                .findFirst()
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        typed,
                        "There is none of this name",
                        "Choose among " + all.stream().map(code).collect(Collectors.joining(", ")))));
    }

    private static Duration time(String typed) throws ProblemException {
        return Tone.time(typed)
                .orElseThrow(() -> new ProblemException(
                        Problem.failure(typed, "This is not a time in a recording", "Write it as 1:02.5 or 62.5")));
    }
}
