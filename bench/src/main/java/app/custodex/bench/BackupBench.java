package app.custodex.bench;

import app.custodex.app.BackupJob.Outcome;
import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.base.RealDisk;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.drawer.PracticeDrawer.Contents;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.concurrent.TimeUnit;

/**
 * A full backup of a practice phone over loopback against {@code cp -r} of the same tree followed by {@code sha512sum}
 * of the copy, in turn. The phone runs in a process of its own. Arguments: files, megabytes, rounds.
 */
public final class BackupBench {
    private BackupBench() {}

    public static void main(String[] args) throws Exception {
        int files = args.length > 0 ? Integer.parseInt(args[0]) : 20_000;
        long bytes = (args.length > 1 ? Long.parseLong(args[1]) : 2_000) * 1_000_000;
        int rounds = args.length > 2 ? Integer.parseInt(args[2]) : 3;
        var folder = Files.createTempDirectory("custodex-bench");
        try {
            var home = new Home(folder.resolve("home"));
            var phone = new ProcessBuilder(
                            Path.of(System.getProperty("java.home"), "bin", "java")
                                    .toString(),
                            "-Dsun.net.httpserver.nodelay=true",
                            "--enable-native-access=ALL-UNNAMED",
                            "-cp",
                            System.getProperty("java.class.path"),
                            Phone.class.getName(),
                            home.root().toString(),
                            Integer.toString(files),
                            Long.toString(bytes))
                    .redirectError(ProcessBuilder.Redirect.INHERIT)
                    .start();
            try {
                phone.inputReader().readLine();
                measure(home, folder, rounds);
            } finally {
                phone.destroy();
                phone.waitFor(10, TimeUnit.SECONDS);
            }
        } finally {
            new RealDisk().delete(folder);
        }
    }

    private static void measure(Home home, Path folder, int rounds) throws Exception {
        var disk = new RealDisk();
        var tree = home.practice().resolve("ostrel/files");
        var ratios = new ArrayList<Double>();
        for (int round = 0; round < rounds; round++) {
            double baseline = seconds(() -> {
                run(List.of("cp", "-r", tree.toString(), folder.resolve("copy").toString()));
                run(List.of(
                        "sh",
                        "-c",
                        "find \"$1\" -type f -print0 | xargs -0 sha512sum >/dev/null",
                        "sh",
                        folder.resolve("copy").toString()));
            });
            disk.delete(folder.resolve("copy"));
            disk.delete(home.strongroom());
            double copied = seconds(() -> backUp(home, false));
            disk.delete(home.strongroom());
            double checked = seconds(() -> backUp(home, true));
            ratios.add(baseline / copied);
            System.out.printf(
                    Locale.ROOT,
                    "round %d: cp and sha512sum %.1f s, backup %.1f s (ratio of speeds %.2f), with reading back %.1f s (%.2f); heap used at most %d MB%n",
                    round + 1,
                    baseline,
                    copied,
                    baseline / copied,
                    checked,
                    baseline / checked,
                    Runtime.getRuntime().totalMemory() >> 20);
        }
        System.out.printf(
                Locale.ROOT,
                "median ratio of speeds, backup against cp and sha512sum: %.2f%n",
                ratios.stream().sorted().skip(rounds / 2).findFirst().orElseThrow());
    }

    private static void backUp(Home home, boolean check) throws Exception {
        try (var custodex = Custodex.open(home, Clock.systemUTC())) {
            var bay = custodex.bays().all().getFirst();
            bay.ask();
            var outcome = custodex.backUp(bay.link(), Optional.empty(), Duration.ZERO, check)
                    .outcome()
                    .get();
            if (!(outcome instanceof Outcome.Done)) {
                throw new IOException(outcome.toString());
            }
        }
    }

    private interface Task {
        void run() throws Exception;
    }

    private static double seconds(Task task) throws Exception {
        long start = System.nanoTime();
        task.run();
        return (System.nanoTime() - start) / 1e9;
    }

    private static void run(List<String> command) throws IOException, InterruptedException {
        if (new ProcessBuilder(command).inheritIO().start().waitFor() != 0) {
            throw new IOException(command + " failed");
        }
    }

    /** The phone's process: says so when it is plugged in, and stays until it is ended. */
    static final class Phone {
        private Phone() {}

        public static void main(String[] args) throws Exception {
            var home = new Home(Path.of(args[0]));
            var drawer = ServiceLoader.load(PracticeDrawer.Provider.class)
                    .findFirst()
                    .orElseThrow()
                    .open(home.practice(), new Contents(1, Integer.parseInt(args[1]), Long.parseLong(args[2]), 0));
            var phone = drawer.phones().getFirst();
            phone.makeReady();
            phone.plugIn();
            home.rememberAddress(phone.family().code(), phone.address());
            System.out.println("plugged in");
            Thread.sleep(Duration.ofHours(1));
        }
    }
}
