package app.custodex.cli;

import app.custodex.app.OpenLayer;
import app.custodex.base.Json;
import app.custodex.base.Sizes;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Lists the things in a layer. */
@Command(
        name = "list",
        description = "Lists the things in a layer; how many of each kind there are when no kind is given.",
        mixinStandardHelpOptions = true)
final class ListCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private LayerOption layer;

    @Option(
            names = "--kind",
            paramLabel = "KIND",
            split = ",",
            converter = ThingKindOption.class,
            description = "Which kinds, such as message,call")
    private List<ThingKind> kinds = List.of();

    @Mixin
    private FilterOption filter;

    @Option(names = "--newest-first", description = "The newest first")
    private boolean newestFirst;

    @Option(names = "--json", description = "Print JSON, one thing a line")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open();
                var open = layer.open(custodex)) {
            if (kinds.isEmpty()) {
                counts(open, out);
            } else {
                things(open, out);
            }
            Output.problems(spec.commandLine().getErr(), open.problems());
            return open.problems().isEmpty() ? ExitCode.DONE : ExitCode.LOSSES;
        }
    }

    private void counts(OpenLayer open, PrintWriter out) throws IOException {
        var counts = open.catalogue().counts();
        if (json) {
            Output.json(out, counts);
            return;
        }
        for (Map.Entry<ThingKind, Long> count : counts.entrySet()) {
            out.println(Sizes.count(count.getValue(), Locale.getDefault()) + "\t"
                    + count.getKey().label());
        }
    }

    private void things(OpenLayer open, PrintWriter out) throws IOException {
        Filter wanted = filter.of(open.catalogue(), EnumSet.copyOf(kinds));
        var order = newestFirst ? Order.NEWEST_FIRST : Order.OLDEST_FIRST;
        print(open, open.catalogue().find(wanted, order), json, out);
    }

    /** Prints things as they come, so that no list is too long. */
    static void print(OpenLayer open, long[] numbers, boolean json, PrintWriter out) throws IOException {
        var zone = open.record().phone().timeZone();
        var names = open.catalogue().names();
        open.catalogue()
                .forEach(
                        numbers,
                        entry -> out.println(
                                json
                                        ? Json.LINE.writeValueAsString(entry.thing())
                                        : ThingLine.of(entry.thing(), zone, names)));
        out.flush();
    }
}
