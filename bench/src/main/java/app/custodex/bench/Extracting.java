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
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** A folder that is backed up, with a docket on which its layer is extracted. */
final class Extracting {
    private Extracting() {}

    interface Task {
        void run(OpenPhone open) throws Exception;
    }

    /** @param folder in which everything lies */
    static void layer(Path folder, Path source, Task task) throws Exception {
        try (var custodex = Custodex.open(new Home(folder.resolve("home")), Clock.systemUTC())) {
            var bay = custodex.bays().add(source.toString(), "Bench");
            Side.backUp(custodex, bay, false);
            var phone = custodex.strongroom().holdings().phones().getFirst().identity();
            var consent = Optional.of(new Docket.Consent(Instant.now(), "Take it out"));
            var form = new Docket.Form("Bench", "", "Bench", consent, Optional.empty());
            int number = custodex.dockets().open(form, bay.address()).number();
            custodex.dockets().change(number, docket -> docket.withPhone(phone));
            try (var open = custodex.reading().open(Mandate.ofShop(), phone.identifier(), 1, Locale.getDefault())) {
                task.run(open);
            }
        }
    }

    /** All things of a group in a format, as "pdf:evidence". */
    static Extraction.Order order(OpenPhone open, KindGroup group, String how) throws Exception {
        var all = new BitSet();
        all.set(1, 10_000_000);
        var numbers = open.groups(all).getOrDefault(group, new long[0]);
        var parts = List.of(how.split(":"));
        var format = Formats.of(group, parts.getFirst()).orElseThrow();
        return Extraction.Order.of(group, numbers, format, Chosen.of(format, group, parts.subList(1, parts.size())));
    }

    /** How many seconds it takes. */
    static double seconds(OpenPhone open, Extraction.Order order, Path to) throws Exception {
        return Side.seconds(() -> open.outgoing()
                .extract(List.of(order), ZoneId.of("UTC"), Delivery.FILES, to, done -> {}, new CancelToken()));
    }
}
