package app.custodex.cli;

import app.custodex.app.Custodex;
import app.custodex.base.Sizes;
import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.StoredPhone;
import java.io.IOException;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.format.FormatStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Lists what the strongroom holds. */
@Command(
        name = "layers",
        description = "Lists the phones in the strongroom and their layers.",
        mixinStandardHelpOptions = true)
final class LayersCommand implements Callable<Integer> {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofLocalizedDateTime(
                    FormatStyle.MEDIUM, FormatStyle.SHORT)
            .withZone(ZoneId.systemDefault());

    @Mixin
    private HomeOption home;

    @Option(names = "--json", description = "Print JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    private record Row(LayerRecord layer, Optional<CheckReport> lastCheck) {
        String state() {
            var checked = lastCheck
                    .map(report -> report.sound() ? "checked" : "damaged")
                    .orElse("never checked");
            return layer.sealed() ? "sealed, " + checked : checked;
        }
    }

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open()) {
            var holdings = custodex.strongroom().holdings();
            var rows = new ArrayList<Row>();
            for (var phone : holdings.phones()) {
                rows.addAll(rows(custodex, phone));
            }
            if (json) {
                Output.json(out, rows);
            } else if (rows.isEmpty() && holdings.problems().isEmpty()) {
                out.println("The strongroom at " + custodex.strongroom().root() + " is empty.");
            }
            if (!json) {
                for (var row : rows) {
                    out.printf(
                            "%-16s  %-20s  layer %2d  %s  %s  %s, %s new  %s%n",
                            Output.oneLine(row.layer().phone().name()),
                            Output.oneLine(row.layer().phone().identifier()),
                            row.layer().number(),
                            TIME.format(row.layer().begun()),
                            Output.items(row.layer().items()),
                            Sizes.bytes(row.layer().bytes(), Locale.getDefault()),
                            Sizes.bytes(row.layer().freshBytes(), Locale.getDefault()),
                            row.state());
                }
            }
            Output.problems(spec.commandLine().getErr(), holdings.problems());
            return holdings.problems().isEmpty() ? ExitCode.DONE : ExitCode.LOSSES;
        }
    }

    private static List<Row> rows(Custodex custodex, StoredPhone phone) throws IOException {
        var lasts = custodex.strongroom().checks().lasts(phone.identity().identifier());
        return phone.layers().stream()
                .map(layer -> new Row(layer, Optional.ofNullable(lasts.get(layer.number()))))
                .toList();
    }
}
