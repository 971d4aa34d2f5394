package app.custodex.bench;

import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.app.Mandate;
import app.custodex.app.Sources;
import app.custodex.backup.BackupRequest;
import app.custodex.base.RealDisk;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.drawer.PracticeDrawer.Contents;
import app.custodex.model.KindGroup;
import java.nio.file.Files;
import java.time.Clock;
import java.time.Duration;
import java.util.Locale;
import java.util.ServiceLoader;

/** Opening the contacts of a layer, first and again, and writing them as vCards, for both families. Argument: how many contacts. */
public final class ContactsBench {
    private ContactsBench() {}

    public static void main(String[] args) throws Exception {
        int count = args.length > 0 ? Integer.parseInt(args[0]) : 50_000;
        var folder = Files.createTempDirectory("custodex-bench");
        try {
            var home = new Home(folder);
            try (var drawer = ServiceLoader.load(PracticeDrawer.Provider.class)
                    .findFirst()
                    .orElseThrow()
                    .open(home.practice(), Contents.sketched(1, count))) {
                for (var phone : drawer.phones()) {
                    phone.makeReady();
                    phone.plugIn();
                    Sources.of(home).rememberPhone(phone.family().code(), phone.address());
                }
                try (var custodex = Custodex.open(home, Clock.systemUTC())) {
                    for (var bay : custodex.bays().all()) {
                        bay.ask();
                        var request = BackupRequest.everything(Duration.ZERO, Custodex.TOOL)
                                .checking(false);
                        custodex.backUp(bay, Mandate.ofShop(), request, false)
                                .outcome()
                                .get();
                    }
                    for (var phone : custodex.strongroom().holdings().phones()) {
                        custodex.declareOwn(phone.identity());
                    }
                    for (int round = 1; round <= 3; round++) {
                        for (var phone : custodex.strongroom().holdings().phones()) {
                            long start = System.nanoTime();
                            try (var contacts = custodex.reading()
                                    .open(Mandate.ofShop(), phone.identity().identifier(), 1, Locale.getDefault())) {
                                System.out.printf(
                                        Locale.ROOT,
                                        "round %d, %s: %d contacts open and sorted in %.2f s%n",
                                        round,
                                        phone.identity().family().label(),
                                        contacts.contacts().ascending().size(),
                                        (System.nanoTime() - start) / 1e9);
                                var order = Extracting.order(contacts, KindGroup.CONTACTS, "vcard4");
                                double written = Extracting.seconds(contacts, order, folder.resolve("out"));
                                System.out.printf(Locale.ROOT, "as vCard with their photos in %.2f s%n", written);
                            }
                        }
                    }
                }
            }
        } finally {
            new RealDisk().delete(folder);
        }
    }
}
