package app.custodex.cli;

import app.custodex.app.OpenPhone;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.catalogue.Comparison;
import app.custodex.catalogue.Comparison.Change;
import app.custodex.catalogue.Comparison.Difference;
import app.custodex.exchange.ThingLines;
import app.custodex.model.Thing;
import java.io.IOException;
import java.io.PrintWriter;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Says which things are gone, new or changed between two states of a phone. */
@Command(
        name = "compare",
        description = "Says which things are gone, new or changed between two layers of a phone, or between a layer and"
                + " the phone now (--straight); a changed one in both of its states.",
        mixinStandardHelpOptions = true)
final class CompareCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private LayerOption layer;

    @Option(
            names = "--with",
            paramLabel = "NUMBER",
            description = "The older layer (default: the one below; with --straight the newest)")
    private Optional<Integer> with = Optional.empty();

    @Mixin
    private ThingKindsOption kinds = new ThingKindsOption();

    @Option(names = "--json", description = "Print JSON, one difference a line")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open();
                var newer = layer.open(custodex)) {
            var stored = PhoneFinder.stored(custodex, newer.phone().identifier());
            int number = with.orElseGet(() -> newer.layer()
                    .map(of -> of.number() - 1)
                    .orElse(stored.newest().number()));
            if (number < 1) {
                throw new ProblemException(Problem.failure(
                        newer.phone().name(), "There is no layer below", "Say with which layer, or make a second one"));
            }
            try (var older = layer.open(custodex, stored, OptionalInt.of(number))) {
                var comparison = newer.since(older, kinds.chosen());
                print(comparison, older, newer, out);
                // Two layers that follow one another have much the same to tell.
                var told = new LinkedHashSet<>(newer.problems(kinds.chosen()));
                told.addAll(older.problems(kinds.chosen()));
                return FilterOption.losses(List.copyOf(told), spec.commandLine().getErr());
            }
        }
    }

    private void print(Comparison comparison, OpenPhone older, OpenPhone newer, PrintWriter out) throws IOException {
        var before = new Side(older);
        var after = new Side(newer);
        for (var difference : comparison.differences()) {
            if (json) {
                out.println(Json.LINE.writeValueAsString(asJson(difference, before, after)));
            } else {
                line(difference, before, after, out);
            }
        }
        if (!json) {
            comparison
                    .counts()
                    .forEach((kind, counts) -> out.printf(
                            "%s: %d gone, %d new, %d changed%n",
                            kind.label(),
                            counts.getOrDefault(Change.GONE, 0),
                            counts.getOrDefault(Change.NEW, 0),
                            counts.getOrDefault(Change.CHANGED, 0)));
            if (comparison.differences().isEmpty()) {
                out.println("They are the same.");
            }
        }
        out.flush();
    }

    private static void line(Difference difference, Side before, Side after, PrintWriter out) throws IOException {
        var word = difference.change().name().toLowerCase(Locale.ROOT);
        switch (difference.change()) {
            case GONE -> out.println(word + "\t" + before.line(difference.before()));
            case NEW -> out.println(word + "\t" + after.line(difference.after()));
            case CHANGED -> {
                out.println(word + "\t" + before.line(difference.before()));
                out.println("  now\t" + after.line(difference.after()));
            }
        }
    }

    private static LinkedHashMap<String, Object> asJson(Difference difference, Side before, Side after)
            throws IOException {
        var json = new LinkedHashMap<String, Object>();
        json.put("change", difference.change().name().toLowerCase(Locale.ROOT));
        json.put("kind", difference.kind().code());
        if (difference.before().isPresent()) {
            json.put("before", ThingLines.tree(before.thing(difference.before())));
        }
        if (difference.after().isPresent()) {
            json.put("after", ThingLines.tree(after.thing(difference.after())));
        }
        return json;
    }

    /** One of the two states. */
    private static final class Side {
        private final OpenPhone open;

        Side(OpenPhone open) {
            this.open = open;
        }

        Thing thing(OptionalLong number) throws IOException {
            return open.catalogue().read(number.orElseThrow()).getFirst().thing();
        }

        String line(OptionalLong number) throws IOException {
            return ThingLine.of(thing(number), open.phone().timeZone(), open.names());
        }
    }
}
