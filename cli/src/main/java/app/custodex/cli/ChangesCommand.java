package app.custodex.cli;

import app.custodex.link.Kind;
import app.custodex.strongroom.LayerChange;
import app.custodex.strongroom.LayerRecord.Change;
import java.io.IOException;
import java.util.EnumMap;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Says what a layer brought. */
@Command(
        name = "changes",
        description = "Lists what was added, changed and deleted in a layer, compared with the layers below.",
        mixinStandardHelpOptions = true)
final class ChangesCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private LayerOption layer;

    @Option(names = "--json", description = "Print JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open()) {
            layer.requireStored();
            var stored = layer.phone(custodex);
            layer.unseal(custodex, stored);
            var changes = custodex.strongroom().changes(stored.identity().identifier(), layer.number(stored));
            if (json) {
                Output.json(out, changes);
                return ExitCode.DONE;
            }
            var byKind = new EnumMap<Kind, Change>(Kind.class);
            for (var change : changes) {
                byKind.merge(change.kind(), change.counted(), Change::plus);
                out.println(change.what().name().toLowerCase(Locale.ROOT) + "\t" + Output.oneLine(line(change)));
            }
            byKind.forEach((kind, change) -> out.printf(
                    "%s: %d added, %d changed, %d gone%n",
                    kind.label(), change.added(), change.changed(), change.gone()));
            return ExitCode.DONE;
        }
    }

    private static String line(LayerChange change) {
        return change.path().text();
    }
}
