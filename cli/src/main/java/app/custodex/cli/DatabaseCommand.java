package app.custodex.cli;

import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.link.PhonePath;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Takes out a database of a layer, or some of what stands in it. */
@Command(
        name = "database",
        description = {
            "Lists the tables of a database in a layer, or takes it out: as it is, as one file without its log, or a table or the answer to"
                    + " a question as CSV.",
            "",
            "Example: custodex database \"Ivo's phone\" store/calls/calls.db --ask \"SELECT count(*) FROM call\" --csv calls.csv"
        },
        mixinStandardHelpOptions = true)
final class DatabaseCommand implements Callable<Integer> {
    @Mixin
    private HomeOption home;

    @Mixin
    private LayerOption layer;

    @Parameters(index = "1", paramLabel = "ITEM", description = "The database's path on the phone")
    private String item = "";

    @Option(names = "--as-it-is", paramLabel = "FILE", description = "Write it byte for byte, and its log beside it")
    private Optional<Path> asItIs = Optional.empty();

    @Option(
            names = "--merged",
            paramLabel = "FILE",
            description = "Write it as one file with what stands in its log, once it has passed its own check")
    private Optional<Path> merged = Optional.empty();

    @Option(names = "--table", paramLabel = "NAME", description = "All rows of this table, for --csv")
    private Optional<String> table = Optional.empty();

    @Option(names = "--ask", paramLabel = "SQL", description = "The answer to this question, for --csv; it only reads")
    private Optional<String> question = Optional.empty();

    @Option(names = "--csv", paramLabel = "FILE", description = "Write the rows here (RFC 4180, UTF-8)")
    private Optional<Path> csv = Optional.empty();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var sql = question.or(() -> table.map(name -> "SELECT * FROM \"" + name.replace("\"", "\"\"") + "\""));
        if (sql.isPresent() != csv.isPresent() || question.isPresent() && table.isPresent()) {
            throw new ProblemException(Problem.failure(
                    "--csv", "It needs --table or --ask, and these need it", "Give one of them and the file"));
        }
        var path = PhonePath.parse(item)
                .orElseThrow(() -> new ProblemException(
                        Problem.failure(item, "This is not a path on a phone", "Take it as \"list\" prints it")));
        var out = spec.commandLine().getOut();
        try (var custodex = home.open();
                var open = layer.open(custodex)) {
            var outgoing = open.outgoing();
            if (asItIs.isPresent()) {
                outgoing.takeOutDatabase(path, asItIs.get())
                        .forEach(written -> out.println(Output.oneLine(written.toString())));
            }
            if (merged.isPresent()) {
                outgoing.takeOutMerged(path, merged.get());
                out.println(Output.oneLine(merged.get().toString()));
            }
            if (csv.isPresent()) {
                long rows = outgoing.takeOutRows(path, sql.orElseThrow(), csv.get());
                out.println(rows + (rows == 1 ? " row" : " rows") + " written");
            } else if (asItIs.isEmpty() && merged.isEmpty()) {
                open.tables(path).forEach(name -> out.println(Output.oneLine(name)));
            }
            out.flush();
            return ExitCode.DONE;
        }
    }
}
