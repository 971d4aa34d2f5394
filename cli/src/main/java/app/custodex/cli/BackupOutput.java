package app.custodex.cli;

import app.custodex.backup.BackupProgress;
import app.custodex.backup.BackupResult;
import app.custodex.base.Sizes;
import java.io.PrintWriter;
import java.util.Locale;

/** A backup in words: how far it is, and what came of it. */
final class BackupOutput {
    private BackupOutput() {}

    static String line(BackupProgress p) {
        if (p.waiting().isPresent()) {
            return "waiting: " + p.waiting().get().sentence();
        }
        var locale = Locale.getDefault();
        return switch (p.phase()) {
            case LISTING -> "listing, " + Output.items(p.allItems()) + " so far";
            case COPYING, CHECKING ->
                "%s %s of %s, %s, %s/s%s"
                        .formatted(
                                p.phase() == BackupProgress.Phase.COPYING ? "copying" : "reading back",
                                Sizes.bytes(p.doneBytes(), locale),
                                Sizes.bytes(p.allBytes(), locale),
                                Output.items(p.doneItems()),
                                Sizes.bytes(p.bytesPerSecond(), locale),
                                p.left()
                                        .map(left -> ", " + Sizes.about(left) + " left")
                                        .orElse(""));
            case PUBLISHING -> "publishing the layer";
            case ENDED -> "done";
        };
    }

    static void result(PrintWriter out, BackupResult result) {
        var layer = result.layer();
        var locale = Locale.getDefault();
        out.printf(
                "%s, layer %d%s: %s, %s; %s, %s of it new; %s not saved in full%n",
                layer.phone().name(),
                layer.number(),
                layer.sealed() ? " (sealed)" : "",
                Output.items(layer.items()),
                Sizes.bytes(layer.bytes(), locale),
                Output.items(layer.freshItems()),
                Sizes.bytes(layer.freshBytes(), locale),
                Sizes.count(layer.missed(), locale));
        if (layer.number() > 1) {
            var change = layer.change();
            out.printf(
                    "Since the layer below: %s added, %s changed, %s gone%n",
                    Sizes.count(change.added(), locale),
                    Sizes.count(change.changed(), locale),
                    Sizes.count(change.gone(), locale));
        }
        Output.left(out, "Not in it", layer.left());
        result.check()
                .ifPresent(report -> out.println(
                        report.sound()
                                ? "Read back " + Sizes.bytes(report.bytes(), locale) + ": sound"
                                : "Read back: " + report.damage().size() + " stored files are damaged"));
        Output.problems(out, result.problems());
        result.check().ifPresent(report -> Output.problems(out, report.damage()));
    }
}
