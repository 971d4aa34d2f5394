package app.custodex.cli;

import app.custodex.app.OpenPhone;
import app.custodex.base.CancelToken;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.exchange.ThingLines;
import app.custodex.twins.TwinSet;
import app.custodex.twins.Twins;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.CopyOnWriteArrayList;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Says what is in a layer more than once. */
@Command(
        name = "twins",
        description =
                "Says what is in a layer more than once, with the reason: contacts that are one person, files that are the"
                        + " same, songs and pictures that nearly are.",
        mixinStandardHelpOptions = true)
final class TwinsCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private LayerOption layer;

    @Option(names = "--json", description = "Print JSON, one set a line")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open();
                var open = layer.open(custodex)) {
            var sets = new ArrayList<TwinSet>();
            var problems = new CopyOnWriteArrayList<Problem>(); // told by more than one thread
            open.twins(
                    new Twins.Listener() {
                        @Override
                        public void found(List<TwinSet> more) {
                            sets.addAll(more);
                        }

                        @Override
                        public void problem(Problem problem) {
                            problems.add(problem);
                        }
                    },
                    new CancelToken());
            for (var set : sets) {
                print(set, open, out);
            }
            if (sets.isEmpty() && !json) {
                out.println("Nothing is there twice.");
            }
            out.flush();
            return FilterOption.losses(problems, spec.commandLine().getErr());
        }
    }

    private void print(TwinSet set, OpenPhone open, PrintWriter out) throws IOException {
        var entries = open.catalogue()
                .read(set.numbers().stream().mapToLong(number -> number).toArray());
        if (json) {
            var line = new LinkedHashMap<String, Object>();
            line.put("likeness", set.likeness().label());
            line.put("reason", set.reason());
            line.put(
                    "things",
                    entries.stream()
                            .map(entry -> ThingLines.tree(entry.thing()))
                            .toList());
            out.println(Json.LINE.writeValueAsString(line));
            return;
        }
        out.println(set.likeness().label() + ": " + Output.oneLine(set.reason()));
        entries.forEach(entry ->
                out.println("\t" + ThingLine.of(entry.thing(), open.phone().timeZone(), open.names())));
    }
}
