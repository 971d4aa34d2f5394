package app.custodex.bench;

import app.custodex.app.Bay;
import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.app.Sources;
import app.custodex.base.RealDisk;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.drawer.PracticeDrawer.Contents;
import app.custodex.link.PhoneStatus;
import app.custodex.seal.Passphrase;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.ServiceLoader;
import java.util.concurrent.TimeUnit;

/**
 * Full backups against {@code rsync -a} of the same tree followed by {@code sha512sum} of the copy, in turn: of a folder, of a
 * folder into a sealed stack, and of a practice phone over loopback, which runs in a process of its own. Arguments: files,
 * megabytes, rounds.
 */
public final class BackupBench {
    private enum Way {
        FOLDER,
        SEALED,
        PHONE
    }

    private BackupBench() {}

    public static void main(String[] args) throws Exception {
        int files = Side.number(args, 0, 20_000);
        long bytes = Side.number(args, 1, 2_000) * 1_000_000L;
        int rounds = Side.number(args, 2, 3);
        Side.inFolder(folder -> {
            var home = new Home(folder.resolve("home"));
            var phone = new ProcessBuilder(
                            Path.of(System.getProperty("java.home"), "bin", "java")
                                    .toString(),
                            "-Dsun.net.httpserver.nodelay=true",
                            // A phone has a processor of its own; here its optimising compiler would take it from the
                            // copy.
                            "-XX:TieredStopAtLevel=1",
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
        });
    }

    private static void measure(Home home, Path folder, int rounds) throws Exception {
        var tree = home.practice().resolve("ostrel/files");
        try (var custodex = Custodex.open(home, Clock.systemUTC())) {
            custodex.bays().add(tree.toString(), "");
        }
        Map<Way, List<Double>> ratios = new EnumMap<>(Way.class);
        for (int round = 1; round <= rounds; round++) {
            double baseline = baseline(tree, folder.resolve("copy"));
            var line = new StringBuilder("round %d: rsync and sha512sum %.1f s".formatted(round, baseline));
            for (var way : Way.values()) {
                double copied = backUp(home, way, false);
                double checked = way == Way.PHONE ? 0 : backUp(home, way, true);
                ratios.computeIfAbsent(way, w -> new ArrayList<>()).add(baseline / copied);
                line.append("; %s %.1f s (%.2f)".formatted(name(way), copied, baseline / copied));
                if (checked > 0) {
                    line.append(", with reading back %.1f s (%.2f)".formatted(checked, baseline / checked));
                }
            }
            System.out.println(line);
        }
        ratios.forEach((way, all) -> System.out.printf(
                Locale.ROOT,
                "%s: median ratio of speeds %.2f%n",
                name(way),
                all.stream().sorted().skip((all.size() - 1) / 2).findFirst().orElseThrow()));
        System.out.printf("heap at most %d MB%n", Runtime.getRuntime().totalMemory() >> 20);
    }

    private static String name(Way way) {
        return way.name().toLowerCase(Locale.ROOT);
    }

    private static double baseline(Path tree, Path copy) throws Exception {
        double seconds = Side.seconds(() -> {
            Side.run(List.of("rsync", "-a", tree + "/", copy + "/"));
            Side.run(List.of(
                    "sh", "-c", "find \"$1\" -type f -print0 | xargs -0 sha512sum >/dev/null", "sh", copy.toString()));
        });
        new RealDisk().delete(copy);
        return seconds;
    }

    private static double backUp(Home home, Way way, boolean check) throws Exception {
        new RealDisk().delete(home.strongroom());
        Custodex.choose(home, home.strongroom());
        try (var custodex = Custodex.open(home, Clock.systemUTC())) {
            var bay = custodex.bays().all().stream()
                    .filter(b -> b.source().type().name().equals(way == Way.PHONE ? "PHONE" : "FOLDER"))
                    .findFirst()
                    .orElseThrow();
            if (way == Way.SEALED) {
                seal(custodex, bay);
            }
            return Side.seconds(() -> Side.backUp(custodex, bay, check));
        }
    }

    private static void seal(Custodex custodex, Bay bay) throws Exception {
        bay.ask();
        var phone = bay.status().flatMap(PhoneStatus::identity).orElseThrow();
        try (var passphrase = new Passphrase("only for this bench, thrown away".toCharArray())) {
            custodex.strongroom().seal(phone, passphrase);
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
                    .open(
                            home.practice(),
                            Contents.sketched(1, 0).filled(Integer.parseInt(args[1]), Long.parseLong(args[2])));
            var phone = drawer.phones().getFirst();
            phone.makeReady();
            phone.plugIn();
            Sources.of(home).rememberPhone(phone.family().code(), phone.address());
            System.out.println("plugged in");
            Thread.sleep(Duration.ofHours(1));
        }
    }
}
