package app.custodex.cli;

import app.custodex.base.Sizes;
import app.custodex.catalogue.Catalogue.Order;
import java.io.IOException;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Finds things in a layer by what stands in them. */
@Command(
        name = "find",
        description = {
            "Finds things in a layer by what stands in them.",
            "Every word has to be there, each may be the beginning of one; \"words in quotation marks\" follow one"
                    + " another; a telephone number is found in whatever way it is written."
        },
        mixinStandardHelpOptions = true)
final class FindCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private LayerOption layer;

    @Parameters(index = "1..*", arity = "1..*", paramLabel = "WORDS", description = "What to look for")
    private List<String> words = List.of();

    @Mixin
    private FilterOption filter;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open();
                var open = layer.open(custodex)) {
            var err = spec.commandLine().getErr();
            long[] found =
                    open.catalogue().find(String.join(" ", words), filter.of(open.catalogue()), Order.NEWEST_FIRST);
            filter.print(open, found, out);
            if (!filter.json()) {
                err.println(Sizes.count(found.length, Locale.getDefault()) + " found");
            }
            return FilterOption.losses(open, filter.kinds(), err);
        }
    }
}
