package app.custodex.bench;

import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.app.Mandate;
import app.custodex.app.OpenPhone;
import app.custodex.base.CancelToken;
import app.custodex.docket.Docket;
import app.custodex.extract.Chosen;
import app.custodex.extract.Delivery;
import app.custodex.extract.Extraction;
import app.custodex.extract.formats.Formats;
import app.custodex.model.KindGroup;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * A layer of the load size into open files, format by format, and beside it how long the disk takes for as many bytes. Argument: messages.
 */
public final class ExtractBench {
    private ExtractBench() {}

    public static void main(String[] args) throws Exception {
        int messages = Side.number(args, 0, 100_000);
        Side.inFolder(folder -> {
            var source = Files.createDirectories(folder.resolve("phone"));
            Load.write(source.resolve("load.jsonl"), messages);
            try (var custodex = Custodex.open(new Home(folder.resolve("home")), Clock.systemUTC())) {
                var bay = custodex.bays().add(source.toString(), "Bench");
                Side.backUp(custodex, bay, false);
                var phone = custodex.strongroom().holdings().phones().getFirst().identity();
                var consent = Optional.of(new Docket.Consent(Instant.now(), "Take it out"));
                var form = new Docket.Form("Bench", "", "Bench", consent, Optional.empty());
                int number = custodex.dockets().open(form, bay.address()).number();
                custodex.dockets().change(number, docket -> docket.withPhone(phone));
                try (var open = custodex.reading().open(Mandate.ofShop(), phone.identifier(), 1, Locale.getDefault())) {
                    for (var how : List.of("page", "text", "csv", "xlsx", "json-lines", "pdf", "pdf:evidence")) {
                        time(open, KindGroup.MESSAGES, how, folder.resolve(how.replace(':', ' ')));
                    }
                    for (var how : List.of("vcard4", "csv", "ldif")) {
                        time(open, KindGroup.CONTACTS, how, folder.resolve("contacts " + how));
                    }
                }
            }
        });
        System.exit(0);
    }

    private static void time(OpenPhone open, KindGroup group, String how, Path to) throws Exception {
        var all = new BitSet();
        all.set(1, 10_000_000);
        var numbers = open.groups(all).getOrDefault(group, new long[0]);
        var parts = List.of(how.split(":"));
        var format = Formats.of(group, parts.getFirst()).orElseThrow();
        var order =
                Extraction.Order.of(group, numbers, format, Chosen.of(format, group, parts.subList(1, parts.size())));
        double took = Side.seconds(() -> open.outgoing()
                .extract(List.of(order), ZoneId.of("UTC"), Delivery.FILES, to, done -> {}, new CancelToken()));
        var copy = to.resolveSibling(to.getFileName() + " copied");
        double copied = Side.seconds(() -> Side.run(List.of("cp", "-r", to.toString(), copy.toString())));
        System.out.printf(
                Locale.ROOT,
                "%d %s as %s: %.1f s, %.0f times as long as to copy what came out; heap %d MB in use%n",
                numbers.length,
                group.code(),
                how,
                took,
                took / Math.max(0.01, copied),
                (Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory()) >> 20);
    }
}
