package app.custodex.bench;

import app.custodex.app.BackupJob.Outcome;
import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.app.Mandate;
import app.custodex.backup.BackupRequest;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Locale;

/** Kills a backup's process at nine tenths and tells how much the next one copies. Arguments: files, megabytes. */
public final class ResumeBench {
    private ResumeBench() {}

    public static void main(String[] args) throws Exception {
        int files = Side.number(args, 0, 20_000);
        long bytes = Side.number(args, 1, 1_000) * 1_000_000L;
        Side.inFolder(folder -> {
            var tree = Side.tree(folder.resolve("tree"), files, bytes);
            var home = new Home(folder.resolve("home"));
            try (var custodex = Custodex.open(home, Clock.systemUTC())) {
                custodex.bays().add(tree.toString(), "");
            }
            killed(home, bytes * 9 / 10);
            try (var custodex = Custodex.open(home, Clock.systemUTC())) {
                var bay = custodex.bays().all().getFirst();
                bay.ask();
                var request =
                        BackupRequest.everything(Duration.ZERO, Custodex.TOOL).checking(true);
                var job = custodex.backUp(bay, Mandate.ofShop(), request, false);
                long copied = 0;
                while (!job.outcome().isDone()) {
                    var progress = job.progress();
                    switch (progress.phase()) {
                        case COPYING, PUBLISHING -> copied = Math.max(copied, progress.allBytes());
                        default -> {}
                    }
                    Thread.sleep(2);
                }
                System.out.printf(
                        Locale.ROOT,
                        "killed at 90 %% of %d MB; the next one copied %.1f %% and ended %s%n",
                        bytes / 1_000_000,
                        100.0 * copied / bytes,
                        job.outcome().get() instanceof Outcome.Done ? "with a layer" : "in trouble");
            }
        });
    }

    private static void killed(Home home, long at) throws Exception {
        var process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "--enable-native-access=ALL-UNNAMED",
                        "-cp",
                        System.getProperty("java.class.path"),
                        Copier.class.getName(),
                        home.root().toString())
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        while (process.isAlive() && size(home.strongroom()) < at) {
            Thread.sleep(5);
        }
        process.destroyForcibly().waitFor();
    }

    private static long size(Path folder) throws IOException {
        if (!Files.exists(folder)) {
            return 0;
        }
        try (var files = Files.walk(folder)) {
            return files.filter(Files::isRegularFile)
                    .mapToLong(f -> f.toFile().length())
                    .sum();
        }
    }

    /** The process that is killed. */
    static final class Copier {
        private Copier() {}

        public static void main(String[] args) throws Exception {
            try (var custodex = Custodex.open(new Home(Path.of(args[0])), Clock.systemUTC())) {
                Side.backUp(custodex, custodex.bays().all().getFirst(), false);
            }
        }
    }
}
