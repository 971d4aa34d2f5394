package app.custodex.practice;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.CancelToken;
import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.CatalogueDraft;
import app.custodex.catalogue.CatalogueHead;
import app.custodex.catalogue.Filter;
import app.custodex.link.Family;
import app.custodex.link.PhoneIdentity;
import app.custodex.model.ThingKind;
import app.custodex.practice.content.OstrelStore;
import app.custodex.practice.content.PellowStore;
import app.custodex.readers.PhoneFiles;
import app.custodex.readers.families.FamilyReaders;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Five hundred stores and files that were damaged in every way: nothing ends the reading, and what is missing is told. */
@Tag("long")
class DamagedStoresTest {
    private static final int TRIALS = 250;

    @TempDir
    Path folder;

    private final Random random = new Random(4);
    private byte[] whole = new byte[0];

    private record Outcome(Map<ThingKind, Long> counts, List<Problem> problems) {
        long all() {
            return counts.values().stream().mapToLong(n -> n).sum();
        }
    }

    /** @param below the catalogue of the whole phone, so that only what is damaged is read again */
    private Outcome read(Path files, Family family, Optional<byte[]> below) throws IOException {
        var phone = new PhoneIdentity("id", "n", family, "m", "s", "i", "sys", "GB", ZoneId.of("UTC"), 1, 1);
        try (var place = PrivatePlace.open(folder.resolve("reading"));
                var open = new PhoneFiles(new TreeFiles(files, family), phone, place);
                var draft = CatalogueDraft.inMemory(below)) {
            draft.build(CatalogueHead.of("id", 1, "GB"), open, FamilyReaders.of(family), n -> {}, new CancelToken());
            whole = draft.bytes();
            try (var catalogue = draft.handOver()) {
                catalogue.forEach(
                        catalogue.find(Filter.EVERYTHING, Order.OLDEST_FIRST),
                        entry -> entry.thing().title());
                return new Outcome(catalogue.counts(), catalogue.problems());
            }
        }
    }

    private List<Path> stores(Path files) throws IOException {
        try (var all = Files.walk(files)) {
            return all.filter(file -> file.toString().matches(".*\\.(db|db-wal|ics|vcf|html|md)"))
                    .sorted()
                    .toList();
        }
    }

    private byte[] damaged(byte[] whole) {
        var bytes = whole.clone();
        int at = random.nextInt(bytes.length);
        switch (random.nextInt(5)) {
            case 0 -> bytes[at] ^= (byte) (1 << random.nextInt(8));
            case 1 -> Arrays.fill(bytes, at, Math.min(bytes.length, at + 1 + random.nextInt(5_000)), (byte) 0x5a);
            case 2 -> {
                return Arrays.copyOf(bytes, at);
            }
            case 3 -> Arrays.fill(bytes, at, Math.min(bytes.length, at + 4_096), (byte) 0);
            default -> {
                for (int i = 0; i < 20; i++) {
                    bytes[random.nextInt(bytes.length)] = (byte) random.nextInt(256);
                }
            }
        }
        return bytes;
    }

    private void damageAll(Path files, Family family) throws IOException {
        var undamaged = read(files, family, Optional.empty());
        var below = Optional.of(whole);
        assertEquals(List.of(), undamaged.problems());
        var stores = stores(files);
        int fewer = 0;
        for (int trial = 0; trial < TRIALS; trial++) {
            var store = stores.get(random.nextInt(stores.size()));
            var before = Files.readAllBytes(store);
            if (before.length == 0) {
                continue;
            }
            Files.write(store, damaged(before));
            var what = "trial " + trial + ", " + store.getFileName();
            var damaged = read(files, family, below);
            damaged.problems().forEach(problem -> {
                assertTrue(!problem.sentence().contains("Exception"), problem.sentence());
                assertTrue(!problem.advice().isEmpty(), problem.sentence());
            });
            // A page or a note may end anywhere: that leaves no trace.
            if (damaged.all() < undamaged.all() && !store.toString().matches(".*(\\.html|\\.md)")) {
                fewer++;
                assertTrue(!damaged.problems().isEmpty(), what + ": " + damaged.counts() + " of " + undamaged.counts());
            }
            Files.write(store, before);
        }
        assertTrue(fewer > 5, fewer + " lost something");
    }

    @Test
    void ofAnOstrel() throws IOException {
        Phones.ostrel(folder.resolve("ostrel"), 1, 40, OstrelStore.System.ELEVEN);
        thinOut(folder.resolve("ostrel"));
        damageAll(folder.resolve("ostrel"), Family.OSTREL);
    }

    @Test
    void ofAPellow() throws IOException {
        Phones.pellow(folder.resolve("pellow"), 1, 40, PellowStore.Base.NINE);
        thinOut(folder.resolve("pellow"));
        damageAll(folder.resolve("pellow"), Family.PELLOW);
    }

    /** Pictures are read in every trial and damaged in none, so a few are enough. */
    private static void thinOut(Path files) throws IOException {
        try (var all = Files.walk(files)) {
            for (var file : all.filter(f -> f.toString().matches(".*\\.(jpg|heic|webp|opus)"))
                    .toList()) {
                Files.delete(file);
            }
        }
    }
}
