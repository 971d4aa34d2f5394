package app.custodex.cli;

import app.custodex.app.Custodex;
import app.custodex.app.OpenPhone;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.ProblemException;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.extract.Chosen;
import app.custodex.extract.Delivery;
import app.custodex.extract.Delivery.Form;
import app.custodex.extract.ExtractResult;
import app.custodex.extract.Extraction;
import app.custodex.extract.Format;
import app.custodex.extract.formats.Formats;
import app.custodex.model.KindGroup;
import app.custodex.twins.Merge;
import app.custodex.twins.MergeProposal;
import java.io.IOException;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Writes what is in a layer into open files. */
@Command(
        name = "extract",
        description = {
            "Writes what is in a layer, or some of it, into open files. Each group of things is written in its usual format, unless"
                    + " --as says which groups are written and how. \"custodex formats\" lists them.",
            "",
            "Example: custodex extract \"Ivo's phone\" --to out --as contacts=vcard3:file-each --as calls=csv --from 2025-01-01"
        },
        mixinStandardHelpOptions = true)
final class ExtractCommand implements Callable<Integer> {
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
            names = "--as",
            paramLabel = "GROUP=FORMAT[:CHOICE...]",
            description = {
                "Write this group, in this format; may be given several times.",
                "Columns that were given a name are chosen by it, as in contacts=csv:columns=@NAME."
            })
    private List<String> wished = List.of();

    @Option(names = "--merged", description = "Write contacts as one where that was settled under Twins in the window")
    private boolean merged;

    @Option(names = "--find", paramLabel = "WORDS", defaultValue = "", description = "Only what contains every word")
    private String find;

    @Option(
            names = "--zone",
            paramLabel = "ZONE",
            description = "Write times in this zone, such as UTC or Europe/Oslo (default: the phone's)")
    private Optional<String> zone = Optional.empty();

    @Option(
            names = "--checksums",
            description = "Write a list of SHA-512 digests beside the files, as sha512sum checks it")
    private boolean checksums;

    @Option(
            names = "--package",
            paramLabel = "FORM",
            description =
                    "Hand all of it out as one package with a start page: bag (a folder), zip (one file), or sealed (one file"
                            + " under a passphrase, which is asked for)")
    private Optional<String> form = Optional.empty();

    @Option(
            names = "--mail-draft",
            paramLabel = "SUBJECT",
            description = "Write a mail beside the files on which all of them hang, to be looked through and sent")
    private Optional<String> mail = Optional.empty();

    @Mixin
    private FilterOption filter;

    @Spec
    private CommandSpec spec;

    /** What is to be written in which form. */
    private record Wish(KindGroup group, Format format, Chosen chosen) {
        private static final String NAMED = "columns=@";

        /** @param columnSets columns by the names that somebody gave them */
        static Wish of(String typed, Map<String, String> columnSets) throws ProblemException {
            int equals = typed.indexOf('=');
            var name = equals < 0 ? typed : typed.substring(0, equals);
            var parts = List.of((equals < 0 ? "" : typed.substring(equals + 1)).split(":"));
            var group = Arrays.stream(KindGroup.values())
                    .filter(each ->
                            each.code().equals(name) && !Formats.of(each).isEmpty())
                    .findFirst()
                    .orElseThrow(() -> unknown(typed, "There is no such group", codes()));
            var format = Formats.of(group, parts.getFirst())
                    .orElseThrow(() -> unknown(
                            typed,
                            "There is no such format for " + name,
                            Formats.of(group).stream().map(Format::code).collect(Collectors.joining(", "))));
            var choices = new ArrayList<String>();
            for (var choice : parts.subList(1, parts.size())) {
                choices.add(choice.startsWith(NAMED) ? named(choice, columnSets) : choice);
            }
            return new Wish(group, format, Chosen.of(format, group, choices));
        }

        private static String named(String choice, Map<String, String> columnSets) throws ProblemException {
            var columns = columnSets.get(choice.substring(NAMED.length()));
            if (columns == null) {
                throw unknown(choice, "No columns have this name", String.join(", ", columnSets.keySet()));
            }
            return "columns=" + columns;
        }

        private static String codes() {
            return Arrays.stream(KindGroup.values())
                    .filter(each -> !Formats.of(each).isEmpty())
                    .map(KindGroup::code)
                    .collect(Collectors.joining(", "));
        }

        private static ProblemException unknown(String typed, String what, String known) {
            return new ProblemException(Problem.failure(typed, what, "Choose among " + known));
        }
    }

    @Override
    public Integer call() throws IOException {
        try (var custodex = home.open()) {
            var wishes = new ArrayList<Wish>();
            for (var typed : wished) {
                wishes.add(Wish.of(typed, custodex.settings().columnSets()));
            }
            return write(wishes, custodex);
        }
    }

    private int write(List<Wish> wishes, Custodex custodex) throws IOException {
        var out = spec.commandLine().getOut();
        try (var open = layer.open(custodex)) {
            if (wishes.stream().anyMatch(wish -> wish.group() == KindGroup.CONTACTS)) {
                LayerOption.requireContacts(custodex, open);
            }
            var merges = merged ? custodex.trays().merges(open) : List.<Merge>of();
            var orders = orders(wishes, open).stream()
                    .map(order -> order.group() == KindGroup.CONTACTS && !merges.isEmpty()
                            ? order.with(MergeProposal.merged(open.contacts(order.numbers()), merges))
                            : order)
                    .toList();
            var result = delivered(delivery ->
                    open.outgoing().extract(orders, zone(open), delivery, folder, done -> {}, new CancelToken()));
            var draft = mail.isPresent()
                    ? Optional.of(open.outgoing().mailDraft(mail.get(), result.files(), folder))
                    : Optional.<Path>empty();
            if (filter.json()) {
                Output.json(out, result);
            } else {
                out.println(Output.items(result.things()) + " written");
                result.files().forEach(file -> out.println(Output.oneLine(file.toString())));
                draft.ifPresent(file -> out.println(Output.oneLine(file.toString())));
                result.leftOut().forEach(line -> out.println("left out: " + line));
            }
            out.flush();
            int read =
                    FilterOption.losses(open, filter.kinds(), spec.commandLine().getErr());
            int written =
                    FilterOption.losses(result.problems(), spec.commandLine().getErr());
            return Math.max(read, written);
        }
    }

    private interface Delivering {
        ExtractResult with(Delivery delivery) throws IOException;
    }

    private ExtractResult delivered(Delivering delivering) throws IOException {
        var wanted = form.isPresent() ? form(form.get()) : checksums ? Form.CHECKSUMS : Form.FILES;
        if (wanted != Form.SEALED) {
            return delivering.with(new Delivery(wanted, Optional.empty()));
        }
        try (var passphrase = layer.secrets().ask("Passphrase of the package");
                var again = layer.secrets().ask("The same again")) {
            return delivering.with(Delivery.sealed(passphrase, again));
        }
    }

    private static Form form(String typed) throws ProblemException {
        return Arrays.stream(Form.values())
                .filter(each -> each.isPackage() && each.code().equals(typed))
                .findFirst()
                .orElseThrow(() -> new ProblemException(
                        Problem.failure(typed, "There is no such package", "Choose among bag, zip, sealed")));
    }

    private List<Extraction.Order> orders(List<Wish> wishes, OpenPhone open) throws IOException {
        var picked = new BitSet();
        for (var number : open.catalogue().find(find, filter.of(open.catalogue()), Order.AS_KEPT)) {
            picked.set((int) number);
        }
        Map<KindGroup, long[]> groups = open.groups(picked);
        if (wishes.isEmpty()) {
            return groups.entrySet().stream()
                    .map(group -> Extraction.Order.of(
                            group.getKey(),
                            group.getValue(),
                            Formats.of(group.getKey()).getFirst(),
                            Chosen.USUAL))
                    .toList();
        }
        return wishes.stream()
                .map(wish -> Extraction.Order.of(
                        wish.group(), groups.getOrDefault(wish.group(), new long[0]), wish.format(), wish.chosen()))
                .toList();
    }

    private ZoneId zone(OpenPhone open) throws ProblemException {
        try {
            return zone.map(ZoneId::of).orElse(open.phone().timeZone());
        } catch (DateTimeException e) {
            throw new ProblemException(
                    Problem.failure(
                            zone.orElse(""), "There is no such time zone", "Give one such as UTC or Europe/Oslo"),
                    e);
        }
    }
}
