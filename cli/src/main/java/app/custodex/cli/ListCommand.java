package app.custodex.cli;

import app.custodex.app.OpenPhone;
import app.custodex.base.Sizes;
import app.custodex.catalogue.Catalogue.Order;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.Locale;
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

    @Mixin
    private FilterOption filter;

    @Option(names = "--newest-first", description = "The newest first")
    private boolean newestFirst;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open();
                var open = layer.open(custodex)) {
            if (filter.kinds().isEmpty()) {
                counts(open, out);
            } else {
                var order = newestFirst ? Order.NEWEST_FIRST : Order.OLDEST_FIRST;
                filter.print(open, open.catalogue().find(filter.of(open.catalogue()), order), out);
            }
            return FilterOption.losses(open, filter.kinds(), spec.commandLine().getErr());
        }
    }

    private void counts(OpenPhone open, PrintWriter out) throws IOException {
        var counts = open.catalogue().counts();
        if (filter.json()) {
            Output.json(out, counts);
            return;
        }
        for (var count : counts.entrySet()) {
            out.println(Sizes.count(count.getValue(), Locale.getDefault()) + "\t"
                    + count.getKey().label());
        }
    }
}
