package app.custodex.cli;

import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.extract.ContactFormat;
import app.custodex.extract.ContactFormat.Version;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Writes contacts of a layer into open files. */
@Command(
        name = "extract",
        description = "Writes the contacts of a layer as vCard, CSV or HTML into a folder.",
        mixinStandardHelpOptions = true)
final class ExtractCommand implements Callable<Integer> {
    /** What can be asked for. */
    enum Format {
        VCARD4,
        VCARD3,
        CSV,
        HTML
    }

    @Mixin
    private HomeOption home;

    @Mixin
    private LayerOption layer;

    @Option(
            names = "--to",
            paramLabel = "FOLDER",
            required = true,
            description = "Where to write; nothing there is overwritten")
    private Path folder;

    @Option(
            names = "--format",
            defaultValue = "vcard4",
            description = "One of ${COMPLETION-CANDIDATES} (default: ${DEFAULT-VALUE})")
    private Format format;

    @Option(names = "--file-each", description = "vCard: one file a contact")
    private boolean fileEach;

    @Option(names = "--byte-order-mark", description = "CSV: mark as UTF-8, so that spreadsheets show accents")
    private boolean byteOrderMark;

    @Option(
            names = "--spreadsheet-safe",
            description = "CSV: put ' before text that a spreadsheet would run as a formula")
    private boolean spreadsheetSafe;

    @Option(
            names = "--find",
            paramLabel = "WORDS",
            defaultValue = "",
            description = "Only contacts that contain every word")
    private String find;

    @Option(names = "--json", description = "Print the result as JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        var out = spec.commandLine().getOut();
        try (var custodex = home.open()) {
            try (var open = layer.open(custodex)) {
                LayerOption.requireContacts(custodex, open);
                var result = open.extract(open.contacts().find(find), format(), folder, done -> {}, new CancelToken());
                if (json) {
                    Output.json(out, result);
                } else {
                    out.println(result.contacts() + " contacts");
                    result.files().forEach(out::println);
                }
                int read = FilterOption.losses(
                        open, Set.of(ThingKind.CONTACT), spec.commandLine().getErr());
                Output.problems(spec.commandLine().getErr(), result.problems());
                boolean whole = read == ExitCode.DONE
                        && result.problems().stream().allMatch(p -> p.grade() == Problem.Grade.NOTE);
                return whole ? ExitCode.DONE : ExitCode.LOSSES;
            }
        }
    }

    private ContactFormat format() {
        return switch (format) {
            case VCARD4 -> new ContactFormat.Vcard(Version.V4, fileEach);
            case VCARD3 -> new ContactFormat.Vcard(Version.V3, fileEach);
            case CSV -> new ContactFormat.Csv(byteOrderMark, spreadsheetSafe);
            case HTML -> new ContactFormat.Html();
        };
    }
}
