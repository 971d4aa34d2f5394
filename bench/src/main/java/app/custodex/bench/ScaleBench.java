package app.custodex.bench;

import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.app.Mandate;
import app.custodex.backup.BackupProgress.Phase;
import app.custodex.backup.BackupRequest;
import app.custodex.link.PhoneStatus;
import java.nio.file.Files;
import java.time.Clock;
import java.time.Duration;
import java.util.Locale;

/**
 * A strongroom with many files and many layers: opening it, listing the layers, starting a backup. Of each further layer one file
 * in a thousand is new. Arguments: files, layers.
 */
public final class ScaleBench {
    private ScaleBench() {}

    public static void main(String[] args) throws Exception {
        int files = Side.number(args, 0, 200_000);
        int layers = Side.number(args, 1, 40);
        Side.inFolder(folder -> {
            var tree = Side.tree(folder.resolve("tree"), files, files * 200L);
            var home = new Home(folder.resolve("home"));
            try (var custodex = Custodex.open(home, Clock.systemUTC())) {
                var bay = custodex.bays().add(tree.toString(), "");
                for (int layer = 1; layer <= layers; layer++) {
                    Side.backUp(custodex, bay, false);
                    for (int i = 0; i < files; i += 1_000) {
                        Files.writeString(
                                tree.resolve("folder-%04d/file-%06d.dat".formatted(i / 100, i)),
                                "layer " + layer + " file " + i);
                    }
                }
            }
            System.gc();
            measure(home);
        });
    }

    private static void measure(Home home) throws Exception {
        long start = System.nanoTime();
        try (var custodex = Custodex.open(home, Clock.systemUTC())) {
            double opened = since(start);
            start = System.nanoTime();
            var holdings = custodex.strongroom().holdings();
            int found = holdings.phones().getFirst().layers().size();
            double listed = since(start);
            var bay = custodex.bays().all().getFirst();
            bay.ask();
            start = System.nanoTime();
            var request = BackupRequest.everything(Duration.ZERO, Custodex.TOOL).checking(false);
            var job = custodex.backUp(bay, Mandate.ofShop(), request, false);
            while (job.progress().phase() == Phase.LISTING && job.progress().allItems() == 0) {
                Thread.sleep(1);
            }
            double started = since(start);
            while (job.progress().phase() == Phase.LISTING) {
                Thread.sleep(1);
            }
            double copying = since(start);
            job.outcome().get();
            double whole = since(start);
            start = System.nanoTime();
            var identity = bay.status().flatMap(PhoneStatus::identity).orElseThrow();
            int changes =
                    custodex.strongroom().changes(identity.identifier(), found).size();
            System.out.printf(
                    Locale.ROOT,
                    "%d layers: opened in %.2f s, listed in %.2f s; a backup listed its first items after %.2f s, copied"
                            + " after %.2f s, was done after %.2f s; %d changes of a layer in %.2f s; heap %d MB%n",
                    found,
                    opened,
                    listed,
                    started,
                    copying,
                    whole,
                    changes,
                    since(start),
                    Runtime.getRuntime().totalMemory() >> 20);
        }
    }

    private static double since(long start) {
        return (System.nanoTime() - start) / 1e9;
    }
}
