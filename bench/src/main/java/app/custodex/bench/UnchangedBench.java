package app.custodex.bench;

import app.custodex.app.Custodex;
import app.custodex.app.Home;
import java.time.Clock;
import java.util.List;
import java.util.Locale;

/** A further backup of a folder in which nothing changed, against {@code find -ls} of it. Arguments: files, rounds. */
public final class UnchangedBench {
    private UnchangedBench() {}

    public static void main(String[] args) throws Exception {
        int files = Side.number(args, 0, 100_000);
        int rounds = Side.number(args, 1, 3);
        Side.inFolder(folder -> {
            var tree = Side.tree(folder.resolve("tree"), files, files * 1_000L);
            try (var custodex = Custodex.open(new Home(folder.resolve("home")), Clock.systemUTC())) {
                var bay = custodex.bays().add(tree.toString(), "");
                Side.backUp(custodex, bay, false);
                for (int round = 1; round <= rounds; round++) {
                    double find = Side.seconds(() -> Side.run(List.of("find", tree.toString(), "-ls")));
                    double backup = Side.seconds(() -> {
                        var result = Side.backUp(custodex, bay, false);
                        if (result.layer().freshItems() != 0) {
                            throw new IllegalStateException(
                                    "it copied " + result.layer().freshItems());
                        }
                    });
                    System.out.printf(
                            Locale.ROOT,
                            "round %d: find -ls %.2f s, backup of %d unchanged files %.2f s; allowed 3 times and a second: %.2f s%n",
                            round,
                            find,
                            files,
                            backup,
                            3 * find + 1);
                }
            }
        });
    }
}
