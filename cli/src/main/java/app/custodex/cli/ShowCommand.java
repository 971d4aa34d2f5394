package app.custodex.cli;

import app.custodex.app.OpenPhone;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.calendar.Occurrences;
import app.custodex.catalogue.Catalogue.Entry;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.exchange.ThingLines;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Shows one thing of a layer in full. */
@Command(
        name = "show",
        description = "Shows one thing of a layer in full; a conversation with its messages.",
        mixinStandardHelpOptions = true)
final class ShowCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    /** As many times of a series as anybody reads. */
    private static final int OCCURRENCES = 60;

    @Mixin
    private LayerOption layer;

    @Parameters(index = "1", paramLabel = "ID", description = "The last column of \"list\" and \"find\"")
    private String id = "";

    @Option(
            names = "--file-to",
            paramLabel = "FILE",
            description = "Write the item that it was read from, or its picture, into this file as it is")
    private Optional<Path> file = Optional.empty();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open();
                var open = layer.open(custodex)) {
            var entry = found(open.catalogue()::find);
            Output.json(
                    out,
                    entry.thing() instanceof Event event
                            ? withOccurrences(event, open)
                            : ThingLines.tree(entry.thing()));
            if (entry.thing() instanceof Conversation) {
                FilterOption.print(open, open.catalogue().within(entry.thing().id()), false, out);
            }
            if (file.isPresent()) {
                open.outgoing().takeOut(entry.thing().id(), file.get());
            }
            return FilterOption.losses(
                    open, Set.of(entry.thing().kind()), spec.commandLine().getErr());
        }
    }

    /** An event with the first of the times at which it takes place. */
    private static JsonNode withOccurrences(Event event, OpenPhone open) throws IOException {
        if (!Occurrences.severalOf(event)) {
            return ThingLines.tree(event);
        }
        var others = new ArrayList<Event>();
        var catalogue = open.catalogue();
        catalogue.forEach(
                catalogue.find(Filter.EVERYTHING.of(ThingKind.EVENT), Order.AS_KEPT),
                each -> others.add((Event) each.thing()));
        var zone = open.phone().timeZone();
        ObjectNode series = ThingLines.tree(event);
        var times = series.putArray("occurrences");
        new Occurrences(event, zone)
                .between(Instant.EPOCH, Instant.MAX, OCCURRENCES, others)
                .forEach(moment -> times.add(moment.text()));
        return series;
    }

    private interface Find {
        Optional<Entry> find(ThingId id) throws IOException;
    }

    /** A path may hold the sign itself, so both readings of it are tried. */
    private Entry found(Find find) throws IOException {
        int sign = id.lastIndexOf('#');
        var tries = sign < 0
                ? List.of(new ThingId(id, ""))
                : List.of(new ThingId(id.substring(0, sign), id.substring(sign + 1)), new ThingId(id, ""));
        for (var each : tries) {
            var found = find.find(each);
            if (found.isPresent()) {
                return found.get();
            }
        }
        throw new ProblemException(
                Problem.failure(id, "There is no such thing in this layer", "Take the id as \"list\" prints it"));
    }
}
