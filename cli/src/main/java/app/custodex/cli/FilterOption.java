package app.custodex.cli;

import app.custodex.app.OpenPhone;
import app.custodex.base.Json;
import app.custodex.base.Problem;
import app.custodex.base.Problem.Grade;
import app.custodex.base.ProblemException;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.Filter;
import app.custodex.catalogue.Meant;
import app.custodex.exchange.ThingLines;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import app.custodex.strongroom.LayerRecord;
import java.io.IOException;
import java.io.PrintWriter;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/** Which things are wanted, and how they are printed. */
final class FilterOption {
    @Mixin
    private ThingKindsOption kinds = new ThingKindsOption();

    @Option(
            names = "--person",
            paramLabel = "NAME",
            description = "Only what this person is in: a name, number or mail address")
    private Optional<String> person = Optional.empty();

    @Option(names = "--account", paramLabel = "NAME", description = "Only what belongs to this account or app")
    private Optional<String> account = Optional.empty();

    @Option(names = "--from", paramLabel = "DAY", description = "Only from this day on, as 2026-01-31")
    private Optional<LocalDate> from = Optional.empty();

    @Option(names = "--until", paramLabel = "DAY", description = "Only up to this day")
    private Optional<LocalDate> until = Optional.empty();

    @Option(names = "--attached", description = "Only what has an attachment")
    private boolean attached;

    @Option(names = "--sent", description = "Only what the owner of the phone sent or made")
    private boolean sent;

    @Option(names = "--received", description = "Only what came to the owner of the phone")
    private boolean received;

    @Option(names = "--json", description = "Print JSON, one thing a line")
    private boolean json;

    /** Empty for all. */
    Set<ThingKind> kinds() {
        return kinds.chosen();
    }

    boolean json() {
        return json;
    }

    /** @throws ProblemException when nobody, or more than one person, is meant */
    Filter of(Catalogue catalogue) throws IOException {
        return in(catalogue)
                .orElseThrow(() -> new ProblemException(Problem.failure(
                        person.orElse(""),
                        "Nobody of this name or number is in the layer",
                        "Give the whole number or mail address")));
    }

    /**
     * The same where nobody needs be meant.
     *
     * @throws ProblemException when more than one person is
     */
    Optional<Filter> in(Catalogue catalogue) throws IOException {
        var who = OptionalLong.empty();
        if (person.isPresent()) {
            who = person(catalogue, person.get());
            if (who.isEmpty()) {
                return Optional.empty();
            }
        }
        return Optional.of(new Filter(
                kinds(), who, account, from, until, attached, sent == received ? Optional.empty() : Optional.of(sent)));
    }

    /** Prints things as they come, so that no list is too long. */
    void print(OpenPhone open, long[] numbers, PrintWriter out) throws IOException {
        print(open, numbers, json, out);
    }

    static void print(OpenPhone open, long[] numbers, boolean json, PrintWriter out) throws IOException {
        var zone = open.phone().timeZone();
        if (json) {
            out.println(ThingLines.head(open.phone().name(), zone.getId()));
            open.catalogue().forEach(numbers, entry -> Output.line(out, ThingLines.line(entry.thing())));
            out.println(ThingLines.end(numbers.length));
        } else {
            var names = open.names();
            open.catalogue().forEach(numbers, entry -> Output.line(out, ThingLine.of(entry.thing(), zone, names)));
        }
        out.flush();
    }

    /** One thing of several layers, behind whose and which it is. */
    String line(Thing thing, OpenPhone in) throws IOException {
        int layer = in.layer().map(LayerRecord::number).orElse(0);
        if (json) {
            var line = new LinkedHashMap<String, Object>();
            line.put("phone", in.phone().name());
            line.put("layer", layer);
            line.put("kind", thing.kind().code());
            line.put("thing", ThingLines.tree(thing));
            return Json.LINE.writeValueAsString(line);
        }
        return Output.oneLine(in.phone().name()) + "\t" + layer + "\t"
                + ThingLine.of(thing, in.phone().timeZone(), in.names());
    }

    /** What is missing is said, whatever was found. */
    static int losses(OpenPhone open, Set<ThingKind> of, PrintWriter err) throws IOException {
        return losses(open.problems(of), err);
    }

    /** Notes cost nothing. */
    static int losses(List<Problem> problems, PrintWriter err) {
        Output.problems(err, problems);
        return problems.stream().allMatch(problem -> problem.grade() == Grade.NOTE) ? ExitCode.DONE : ExitCode.LOSSES;
    }

    private static OptionalLong person(Catalogue catalogue, String typed) throws IOException {
        var found = catalogue.people().stream().filter(Meant.exactly(typed)).toList();
        if (found.size() > 1) {
            throw new ProblemException(
                    Problem.failure(typed, "More than one person is meant", "Give the whole number or mail address"));
        }
        return found.isEmpty()
                ? OptionalLong.empty()
                : OptionalLong.of(found.getFirst().id());
    }
}
