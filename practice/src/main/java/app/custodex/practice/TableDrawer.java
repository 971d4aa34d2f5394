package app.custodex.practice;

import app.custodex.base.Json;
import app.custodex.base.RealDisk;
import app.custodex.drawer.PracticeDrawer;
import app.custodex.drawer.PracticeLoft;
import app.custodex.drawer.PracticePhone;
import app.custodex.link.Family;
import app.custodex.link.PhoneIdentity;
import app.custodex.practice.content.ChatCopies;
import app.custodex.practice.content.Filler;
import app.custodex.practice.content.OstrelStore;
import app.custodex.practice.content.PellowStore;
import app.custodex.practice.content.People;
import app.custodex.practice.content.StoreCounts;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** The practice things of one demo folder: an Ostrel, a Pellow, and a remote account. */
public final class TableDrawer implements PracticeDrawer {
    static final String FACTS = "phone.json";

    private final List<PracticePhone> phones;
    private final LoftServer loft;

    private TableDrawer(List<PracticePhone> phones, LoftServer loft) {
        this.phones = List.copyOf(phones);
        this.loft = loft;
    }

    @Override
    public List<PracticePhone> phones() {
        return phones;
    }

    @Override
    public PracticeLoft loft() {
        return loft;
    }

    @Override
    public void close() {
        phones.forEach(PracticePhone::unplug);
        loft.close();
    }

    /** Opens drawers; found by the service loader. */
    public static final class Maker implements Provider {
        @Override
        public PracticeDrawer open(Path folder, Contents contents) throws IOException {
            var phones = new ArrayList<PracticePhone>();
            phones.add(phone(folder.resolve("ostrel"), Family.OSTREL, contents));
            phones.add(phone(folder.resolve("pellow"), Family.PELLOW, contents));
            return new TableDrawer(phones, LoftShelf.open(folder.resolve("loft")));
        }

        private static PracticePhone phone(Path folder, Family family, Contents contents) throws IOException {
            if (!Files.exists(folder.resolve(FACTS))) {
                // The facts are written last, so a phone that was cut while it was made is made anew.
                new RealDisk().delete(folder);
                make(folder, family, contents);
            }
            return new TablePhone(folder);
        }

        private static void make(Path folder, Family family, Contents contents) throws IOException {
            var files = Files.createDirectories(folder.resolve("files"));
            var people = new People(contents.seed() + family.ordinal());
            Optional<Integer> asked = contents.contacts() > 0 ? Optional.of(contents.contacts()) : Optional.empty();
            StoreCounts counts = switch (family) {
                case OSTREL -> OstrelStore.write(files, people.take(asked.orElse(412)), contents.seed());
                case PELLOW -> PellowStore.write(files, people.take(asked.orElse(168)), contents.seed());
                default -> throw new IllegalArgumentException(family + " is no phone");
            };
            if (contents.files() > 0) {
                Filler.write(files, family, contents.files(), contents.bytes(), contents.seed());
            }
            var facts = facts(family);
            Json.PAGE.writeValue(
                    folder.resolve(FACTS).toFile(), facts.withContents(Census.of(family, files, counts.asKinds())));
        }

        private static Facts facts(Family family) throws IOException {
            int port;
            try (var socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
                port = socket.getLocalPort();
            }
            // IMEI: TAC 00440100 is of the range that the GSMA keeps for tests (from memory); the last digit is Luhn's.
            var phone = family == Family.OSTREL
                    ? identity(
                            "OS-7F21-0048-9C3E",
                            "Fenna's phone",
                            family,
                            "Ostrel Q5",
                            "OSQ5-7F21-0048",
                            "004401000004123",
                            "Ostrel System 11.2",
                            64_000_000_000L)
                    : identity(
                            "PB-41D0-7719-02AA",
                            "Jorun's Ridge",
                            family,
                            "Pellow Ridge",
                            "PR9-41D0-7719",
                            "004401000007712",
                            "Pellow Base 9",
                            128_000_000_000L);
            return new Facts(phone, family == Family.OSTREL ? "2468" : "1379", port, ChatCopies.newKey(), List.of());
        }

        private static PhoneIdentity identity(
                String identifier,
                String name,
                Family family,
                String model,
                String serial,
                String imei,
                String system,
                long capacity) {
            return new PhoneIdentity(
                    identifier, name, family, model, serial, imei, system, "GB", ZoneId.of("Etc/GMT-1"), capacity, 0);
        }
    }
}
