package app.custodex.bench;

import app.custodex.app.OpenPhone;
import app.custodex.model.KindGroup;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;

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
            Extracting.layer(folder, source, open -> {
                for (var how : List.of("page", "text", "csv", "xlsx", "json-lines", "pdf", "pdf:evidence")) {
                    time(open, KindGroup.MESSAGES, how, folder.resolve(how.replace(':', ' ')));
                }
                for (var how : List.of("vcard4", "csv", "ldif")) {
                    time(open, KindGroup.CONTACTS, how, folder.resolve("contacts " + how));
                }
            });
        });
        System.exit(0);
    }

    private static void time(OpenPhone open, KindGroup group, String how, Path to) throws Exception {
        var order = Extracting.order(open, group, how);
        double took = Extracting.seconds(open, order, to);
        var copy = to.resolveSibling(to.getFileName() + " copied");
        double copied = Side.seconds(() -> Side.run(List.of("cp", "-r", to.toString(), copy.toString())));
        System.out.printf(
                Locale.ROOT,
                "%d %s as %s: %.1f s, %.0f times as long as to copy what came out; heap %d MB in use%n",
                order.count(),
                group.code(),
                how,
                took,
                took / Math.max(0.01, copied),
                (Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory()) >> 20);
    }
}
