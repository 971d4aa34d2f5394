package app.custodex.practice;

import app.custodex.base.Json;
import app.custodex.base.RealDisk;
import app.custodex.drawer.PastVisit;
import app.custodex.link.Family;
import app.custodex.link.PhoneIdentity;
import app.custodex.practice.content.ChatCopies;
import app.custodex.practice.content.CrateWriter;
import app.custodex.practice.content.OstrelStore;
import app.custodex.practice.content.PellowStore;
import app.custodex.practice.content.People;
import app.custodex.practice.content.Photographer.Quality;
import app.custodex.practice.content.StoreCounts;
import app.custodex.practice.island.Island;
import app.custodex.practice.island.Islander;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** The phones of four islanders as they were when they were in the shop before. */
final class PastPhones {
    private PastPhones() {}

    /** @param passphrase with which its layers are sealed */
    private record Phone(Islander owner, PhoneIdentity identity, boolean older, Optional<String> passphrase) {}

    private static final Phone IVO = new Phone(
            Islander.IVO,
            Facts.phone(
                    "OS-3B90-1177-5A2D",
                    "Ivo's phone",
                    Family.OSTREL,
                    "Ostrel P2",
                    "OSP2-3B90-1177",
                    "004401000022018",
                    "Ostrel System 9.4",
                    32_000_000_000L),
            true,
            Optional.empty());
    private static final Phone NOOR = new Phone(
            Islander.NOOR,
            Facts.phone(
                    "PB-90C4-2218-6B11",
                    "Noor's Ridge",
                    Family.PELLOW,
                    "Pellow Ridge Mini",
                    "PR8-90C4-2218",
                    "004401000033023",
                    "Pellow Base 8",
                    64_000_000_000L),
            true,
            Optional.of("bread for thirty on Fridays"));
    private static final Phone MAREN = new Phone(
            Islander.MAREN,
            Facts.phone(
                    "OS-8E01-6640-0F3A",
                    "Maren's phone",
                    Family.OSTREL,
                    "Ostrel Q5",
                    "OSQ5-8E01-6640",
                    "004401000044038",
                    "Ostrel System 11.1",
                    64_000_000_000L),
            false,
            Optional.of("second verse from bar twelve"));
    private static final Phone SUNNIVA = new Phone(
            Islander.SUNNIVA,
            Facts.phone(
                    "PB-17AA-5093-44E0",
                    "Sunniva's Fell",
                    Family.PELLOW,
                    "Pellow Fell",
                    "PF9-17AA-5093",
                    "004401000055042",
                    "Pellow Base 9",
                    128_000_000_000L),
            false,
            Optional.empty());

    /** @param folder where they are drawn while they are in use */
    static List<PastVisit> visits(Path folder) {
        var visits = new ArrayList<PastVisit>(List.of(
                new Visit(
                        folder,
                        SUNNIVA,
                        LocalDateTime.of(2024, 12, 19, 15, 20),
                        "Screen is cracked; copy before the repair"),
                new Visit(
                        folder,
                        IVO,
                        LocalDateTime.of(2025, 3, 12, 10, 5),
                        "Fell into the harbour, works again; copy to be safe"),
                new Visit(
                        folder,
                        NOOR,
                        LocalDateTime.of(2025, 6, 5, 16, 40),
                        "Phone is full; keep everything, then make room"),
                new Visit(folder, SUNNIVA, LocalDateTime.of(2025, 6, 30, 11, 0), "Half-yearly copy"),
                new Visit(folder, MAREN, LocalDateTime.of(2025, 7, 14, 9, 30), "Choir recordings must not get lost"),
                new Visit(folder, IVO, LocalDateTime.of(2025, 9, 22, 17, 15), "New battery; copy first"),
                new Visit(folder, NOOR, LocalDateTime.of(2025, 11, 20, 14, 10), "After the storm: copy again"),
                new Visit(folder, IVO, LocalDateTime.of(2025, 12, 3, 10, 30), "Wants the storm pictures on paper"),
                new Visit(folder, SUNNIVA, LocalDateTime.of(2026, 1, 6, 12, 45), "Half-yearly copy"),
                new Visit(folder, MAREN, LocalDateTime.of(2026, 1, 12, 18, 0), "Back from the tour; copy all")));
        visits.sort(Comparator.comparing(PastVisit::at));
        return visits;
    }

    private static StoreCounts draw(Phone phone, LocalDateTime then, Path files) throws IOException {
        var owner = phone.owner();
        var life = new Island(1).life(owner, then, Island.Size.ORDINARY);
        var people = new People(1, owner).take(60 + owner.ordinal() * 7);
        return phone.identity().family() == Family.OSTREL
                ? OstrelStore.write(
                        files,
                        life,
                        people,
                        phone.older() ? OstrelStore.System.NINE : OstrelStore.System.ELEVEN,
                        Quality.SKETCH)
                : PellowStore.write(
                        files,
                        life,
                        people,
                        phone.older() ? PellowStore.Base.EIGHT : PellowStore.Base.NINE,
                        Quality.SKETCH);
    }

    /**
     * The backups that the makers' programs left on the computer, one of them under a passphrase. Those that are there stay.
     *
     * @param home of the computer's user
     * @param drawing where they are drawn until they are whole
     */
    static void leaveOnComputer(Path home, Path drawing) throws IOException {
        leave(IVO, LocalDateTime.of(2024, 8, 30, 20, 5), home.resolve("Ostrel copies"), drawing);
        leave(NOOR, LocalDateTime.of(2025, 2, 16, 21, 40), home.resolve("Pellow copies"), drawing);
    }

    private static void leave(Phone phone, LocalDateTime then, Path place, Path drawing) throws IOException {
        var crate = place.resolve(phone.identity().serial() + " " + then.toLocalDate());
        if (Files.exists(crate)) {
            return;
        }
        var disk = new RealDisk();
        disk.delete(drawing);
        try {
            var files = Files.createDirectories(drawing.resolve("files"));
            var counts = draw(phone, then, files);
            var drawn = drawing.resolve("crate");
            CrateWriter.write(
                    files,
                    phone.identity(),
                    Census.of(phone.identity().family(), files, counts.asKinds()),
                    then.toInstant(ZoneOffset.ofHours(1)),
                    phone.passphrase(),
                    drawn);
            Files.createDirectories(place);
            Files.move(drawn, crate);
        } finally {
            disk.delete(drawing);
        }
    }

    private record Visit(Path folder, Phone phone, LocalDateTime then, String reason) implements PastVisit {
        @Override
        public Instant at() {
            return then.toInstant(ZoneOffset.ofHours(1));
        }

        @Override
        public String customer() {
            return phone.owner().fullName();
        }

        @Override
        public Optional<String> passphrase() {
            return phone.passphrase();
        }

        @Override
        public void bring(Use use) throws IOException {
            var disk = new RealDisk();
            disk.delete(folder);
            try {
                draw();
                var there = new TablePhone(folder);
                there.makeReady();
                there.plugIn();
                try {
                    use.of(there.address());
                } finally {
                    there.unplug();
                }
            } finally {
                disk.delete(folder);
            }
        }

        private void draw() throws IOException {
            var files = Files.createDirectories(folder.resolve("files"));
            var counts = PastPhones.draw(phone, then, files);
            var facts = new Facts(phone.identity(), "0000", 0, ChatCopies.newKey(), List.of());
            Json.PAGE.writeValue(
                    folder.resolve(TableDrawer.FACTS).toFile(),
                    facts.withContents(Census.of(phone.identity().family(), files, counts.asKinds())));
        }
    }
}
