package app.custodex.cli;

import app.custodex.app.Custodex;
import app.custodex.app.StrongroomSearch.Query;
import app.custodex.app.StrongroomSearch.Reach;
import app.custodex.base.CancelToken;
import app.custodex.base.Sizes;
import app.custodex.catalogue.Catalogue.Order;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import java.util.concurrent.atomic.AtomicLong;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Finds things in a layer by what stands in them. */
@Command(
        name = "find",
        description = {
            "Finds things by what stands in them: in a layer, in all layers of a phone (--all-layers), or, with \"all\""
                    + " in place of a phone, in the whole strongroom.",
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

    @Option(names = "--all-layers", description = "Search every layer; what several layers share is listed once")
    private boolean allLayers;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        var err = spec.commandLine().getErr();
        try (var custodex = home.open()) {
            return allLayers || layer.everywhere() ? inSeveral(custodex, out, err) : inOne(custodex, out, err);
        }
    }

    private int inSeveral(Custodex custodex, PrintWriter out, PrintWriter err) throws IOException {
        var found = new AtomicLong();
        var query = new Query(
                String.join(" ", words),
                filter::in,
                allLayers ? Reach.ALL_LAYERS : Reach.NEWEST_LAYERS,
                phone -> layer.mandate(custodex, phone),
                Locale.getDefault());
        var told = custodex.search()
                .find(
                        query,
                        layer.phones(custodex),
                        (thing, in) -> {
                            found.incrementAndGet();
                            out.println(filter.line(thing, in));
                        },
                        new CancelToken());
        out.flush();
        if (!filter.json()) {
            err.println(Sizes.count(found.get(), Locale.getDefault()) + " found");
        }
        return FilterOption.losses(told, err);
    }

    private int inOne(Custodex custodex, PrintWriter out, PrintWriter err) throws IOException {
        try (var open = layer.open(custodex)) {
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
