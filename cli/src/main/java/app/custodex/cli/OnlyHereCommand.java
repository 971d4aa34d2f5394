package app.custodex.cli;

import app.custodex.base.CancelToken;
import app.custodex.base.Json;
import app.custodex.exchange.ThingLines;
import app.custodex.twins.OnlyHere.Verdict;
import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Says what would be lost with a phone. */
@Command(
        name = "only-here",
        description =
                "Says which files of a layer are only on the phone, given what its owner still has, each with the reason.",
        mixinStandardHelpOptions = true)
final class OnlyHereCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private LayerOption layer;

    @Parameters(index = "1", paramLabel = "ELSEWHERE", description = "A folder, or a playlist (M3U, XSPF)")
    private Path elsewhere = Path.of("");

    @Option(names = "--kept", description = "Say which are elsewhere too, and not which are only here")
    private boolean kept;

    @Option(names = "--json", description = "Print JSON, one file a line")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open();
                var open = layer.open(custodex)) {
            var result = open.onlyHere(elsewhere.toAbsolutePath(), done -> {}, new CancelToken());
            for (var verdict : result.verdicts()) {
                if (verdict.elsewhere() == kept) {
                    var thing =
                            open.catalogue().read(verdict.number()).getFirst().thing();
                    if (json) {
                        var line = new LinkedHashMap<String, Object>();
                        line.put("elsewhere", verdict.elsewhere());
                        line.put("reason", verdict.reason());
                        line.put("thing", ThingLines.tree(thing));
                        out.println(Json.LINE.writeValueAsString(line));
                    } else {
                        out.println(ThingLine.of(thing, open.phone().timeZone(), open.names()) + "\t"
                                + Output.oneLine(verdict.reason()));
                    }
                }
            }
            if (!json) {
                long there =
                        result.verdicts().stream().filter(Verdict::elsewhere).count();
                out.println((result.verdicts().size() - there) + " only here, " + there + " elsewhere too; "
                        + Output.items(result.files()) + " there");
            }
            out.flush();
            return FilterOption.losses(result.problems(), spec.commandLine().getErr());
        }
    }
}
