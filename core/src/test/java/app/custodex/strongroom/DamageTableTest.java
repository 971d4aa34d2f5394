package app.custodex.strongroom;

import static app.custodex.backup.Backups.backUp;
import static app.custodex.backup.Backups.run;
import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.app.Checks;
import app.custodex.backup.FakePhone;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.RealDisk;
import app.custodex.link.PhonePath;
import app.custodex.seal.Passphrase;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Hits every file of a strongroom in every way: a flipped bit, a cut, a removal, an empty file, a stranger beside it. Whatever is hit
 * is found or mended, no phone and no layer goes away without a word, and other phones are none the worse for it.
 */
class DamageTableTest {
    private static final String WORDS = "four unrelated words, honest";
    private static final List<String> PHONES = List.of("PB-PLAIN", "PB-SEALED", "PB-OTHER");

    @TempDir
    Path folder;

    private final RealDisk disk = new RealDisk();
    private final Map<String, FakePhone> phones = new LinkedHashMap<>();
    private Path seed;
    private Map<String, Boolean> stacks = Map.of();
    private String id = "";

    private enum Damage {
        FLIP,
        CUT,
        EMPTY,
        REMOVE,
        STRANGER;

        void to(Path file, Random random) throws IOException {
            var bytes = Files.readAllBytes(file);
            switch (this) {
                case FLIP -> {
                    bytes[random.nextInt(bytes.length)] ^= (byte) (1 << random.nextInt(8));
                    Files.write(file, bytes);
                }
                case CUT -> Files.write(file, Arrays.copyOf(bytes, random.nextInt(bytes.length)));
                case EMPTY -> Files.write(file, new byte[0]);
                case REMOVE -> Files.delete(file);
                case STRANGER -> Files.write(file.resolveSibling("stranger"), bytes);
            }
        }
    }

    @BeforeEach
    void fill() throws IOException {
        seed = folder.resolve("seed");
        for (var identifier : PHONES) {
            var phone = new FakePhone(identifier);
            var random = new Random(identifier.hashCode());
            for (int i = 0; i < 5; i++) {
                var bytes = new byte[400 + random.nextInt(600)];
                random.nextBytes(bytes);
                phone.put("files/" + i, bytes);
            }
            phones.put(identifier, phone);
        }
        var strongroom = Strongroom.make(seed, disk);
        strongroom.seal(phone("PB-SEALED").identity(), words());
        for (var phone : phones.values()) {
            run(phone, strongroom).run();
            phone.put("files/1", FakePhone.bytes("changed"));
            run(phone, strongroom).run();
        }
        stacks = strongroom.stacks();
        id = strongroom.identity().id();
    }

    private FakePhone phone(String identifier) {
        return Objects.requireNonNull(phones.get(identifier));
    }

    private static Passphrase words() {
        return new Passphrase(WORDS.toCharArray());
    }

    private List<Path> files() throws IOException {
        try (var all = Files.walk(seed)) {
            return all.filter(Files::isRegularFile)
                    .map(seed::relativize)
                    .filter(file -> !file.toString().endsWith(".lock")) // holds nothing
                    .sorted()
                    .toList();
        }
    }

    private Path copy(int trial) throws IOException {
        var root = folder.resolve("trial-" + trial);
        try (var all = Files.walk(seed)) {
            for (var file : all.toList()) {
                var target = root.resolve(seed.relativize(file).toString());
                if (Files.isDirectory(file)) {
                    Files.createDirectories(target);
                } else {
                    Files.copy(file, target);
                }
            }
        }
        return root;
    }

    /** What a check of everything says. */
    private record Said(List<Problem> problems, Map<String, List<CheckReport>> reports, Set<String> named) {
        boolean sound(String phone) {
            var own = reports.getOrDefault(phone, List.of());
            return own.size() == 2 && own.stream().allMatch(CheckReport::sound);
        }

        boolean allSound() {
            return problems.isEmpty() && PHONES.stream().allMatch(this::sound);
        }
    }

    private Strongroom open(Path root) throws IOException {
        return Strongroom.open(root, disk, new Strongroom.Remembered(Optional.of(id), stacks));
    }

    private Said check(Strongroom strongroom) throws IOException {
        var checks = new Checks(() -> strongroom, Clock.systemUTC());
        var holdings = strongroom.holdings();
        var problems = new ArrayList<>(checks.examine(List.of()));
        var named = new TreeSet<String>();
        var reports = new LinkedHashMap<String, List<CheckReport>>();
        for (var phone : holdings.phones()) {
            var identifier = phone.identity().identifier();
            named.add(identifier);
            reports.put(identifier, checks.run(phone, Checks.numbers(phone), n -> {}, new CancelToken()));
        }
        return new Said(problems, reports, named);
    }

    private String owner(Path file) {
        var name = file.toString();
        return PHONES.stream()
                .filter(phone -> name.contains(StorageRoot.hash(Strongroom.OBJECT_ID + phone))
                        || name.contains(StorageRoot.hash(phone)))
                .findFirst()
                .orElse("");
    }

    @Test
    @Tag("long")
    @Fault(Of.DAMAGED_CONTENT)
    void whateverIsHitIsFoundOrMendedAndNothingGoesSilently() throws IOException {
        int trials = 0;
        var mended = new TreeSet<String>();
        var random = new Random(31);
        for (var file : files()) {
            for (var damage : Damage.values()) {
                var what = damage + " of " + file;
                var root = copy(++trials);
                damage.to(root.resolve(file.toString()), random);
                // That a layer was ever checked opens nothing; without it, it is checked again.
                boolean harmless = file.startsWith("checks") && damage != Damage.FLIP;

                var strongroom = open(root); // opening mends, too: what it mended need not be found
                var before = check(strongroom);
                boolean mendedAtOpening = isAsItWas(root, file);
                assertTrue(harmless || mendedAtOpening || !before.allSound(), what + " was not found");
                nothingGoesSilently(before, what);
                othersAreUntouched(before, owner(file), what);

                var told = strongroom.mend();
                var after = check(open(root));
                nothingGoesSilently(after, what);
                othersAreUntouched(after, owner(file), what);
                if (isContentOfItems(file) || damage == Damage.STRANGER) {
                    continue;
                }
                if (after.allSound()) {
                    mended.add(file.toString());
                    assertContents(open(root), what);
                } else {
                    assertTrue(
                            isNotMendable(file),
                            what + " was not mended: " + after.problems() + after.reports() + told);
                }
                disk.delete(root);
            }
        }
        assertTrue(trials >= 300, "only " + trials + " trials");
        assertTrue(mended.stream().anyMatch(name -> name.endsWith("key.age")), mended.toString());
        assertTrue(mended.stream().anyMatch(name -> name.contains("manifest")), mended.toString());
    }

    private boolean isAsItWas(Path root, Path file) throws IOException {
        var now = root.resolve(file.toString());
        return Files.exists(now)
                && !Files.exists(now.resolveSibling("stranger"))
                && Arrays.equals(Files.readAllBytes(now), Files.readAllBytes(seed.resolve(file.toString())));
    }

    private static boolean isContentOfItems(Path file) {
        return file.toString().contains("/layer-000");
    }

    /** Of these there is nothing to make them from: what checks found is told as damaged, and stays so. */
    private static boolean isNotMendable(Path file) {
        return file.startsWith("checks");
    }

    private static void nothingGoesSilently(Said said, String what) {
        for (var phone : PHONES) {
            boolean there = said.reports().getOrDefault(phone, List.of()).size() == 2;
            boolean told = said.problems().stream().anyMatch(problem -> problem.grade() == Problem.Grade.FAILURE);
            assertTrue(there || told, what + ": " + phone + " went away without a word; " + said.named());
        }
    }

    private void othersAreUntouched(Said said, String hit, String what) {
        for (var phone : PHONES) {
            if (!phone.equals(hit)) {
                assertTrue(said.sound(phone), what + ": " + phone + " is the worse for it: " + said.reports());
            }
        }
    }

    private void assertContents(Strongroom strongroom, String what) throws IOException {
        boolean opened = what.contains("key.age"); // opening takes a second, so it is tried where it matters
        if (opened) {
            strongroom.open(phone("PB-SEALED").identity(), words());
        }
        for (var phone : phones.values()) {
            if (phone == phone("PB-SEALED") && !opened) {
                continue;
            }
            Map<PhonePath, byte[]> state = phone.state();
            try (var layer = strongroom.layer(phone.identity().identifier(), 2).orElseThrow()) {
                for (var item : state.entrySet()) {
                    try (var in = layer.open(item.getKey())) {
                        assertArrayEquals(item.getValue(), in.readAllBytes(), what + ": " + item.getKey());
                    }
                }
            }
        }
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void aWholeFolderThatIsGoneIsNamed() throws IOException {
        var object = new StorageRoot(seed.resolve("objects"), disk).objectFolder(Strongroom.OBJECT_ID + "PB-PLAIN");
        for (var gone : List.of(object, object.resolve("v1"), object.resolve("v2"))) {
            var root = copy(gone.hashCode());
            disk.delete(root.resolve(seed.relativize(gone).toString()));
            var strongroom = Strongroom.open(root, disk); // by somebody who remembers nothing
            var problems = strongroom.holdings().problems();
            assertTrue(problems.stream().anyMatch(p -> p.what().contains("gone")), gone + ": " + problems);
        }
    }

    /** The newest layer's content is whole; only what names it is not. */
    @Test
    @Fault(Of.DAMAGED_MANIFEST)
    void theNewestLayerStaysThoughBothItsInventoriesAreDamaged() throws IOException {
        var root = copy(1);
        var object = new StorageRoot(root.resolve("objects"), disk).objectFolder(Strongroom.OBJECT_ID + "PB-PLAIN");
        Files.writeString(object.resolve("inventory.json"), "{ torn");
        Files.writeString(object.resolve("v2/inventory.json"), "{ torn");
        var strongroom = open(root);
        assertEquals(2, strongroom.newestLayer("PB-PLAIN"));
        assertEquals(
                2,
                strongroom.holdings().phones().stream()
                        .filter(phone -> phone.identity().identifier().equals("PB-PLAIN"))
                        .findFirst()
                        .orElseThrow()
                        .layers()
                        .size());
        strongroom.mend();
        assertTrue(check(open(root)).allSound());
        OcflReferee.assertValid(root);
    }

    @Test
    @Fault(Of.DAMAGED_MANIFEST)
    void aLayerWhoseRecordIsLostIsToldAndCountedFromItsListOfItems() throws IOException {
        var root = copy(1);
        var object = new StorageRoot(root.resolve("objects"), disk).objectFolder(Strongroom.OBJECT_ID + "PB-PLAIN");
        Files.writeString(object.resolve("v1/content/layer.json"), "{ torn");
        Files.delete(root.resolve("copies/" + object.getFileName() + "/0001-layer.json"));
        var strongroom = open(root);
        Predicate<Problem> isRecord = problem -> problem.what().contains("record");
        assertTrue(strongroom.holdings().problems().stream().anyMatch(isRecord));

        strongroom.mend();

        var phone = strongroom.holdings().phones().stream()
                .filter(p -> p.identity().identifier().equals("PB-PLAIN"))
                .findFirst()
                .orElseThrow();
        assertEquals(5, phone.layers().getFirst().items());
        assertEquals("Test phone", phone.layers().getFirst().phone().name());
        assertTrue(strongroom.holdings().problems().stream().anyMatch(isRecord), "the file itself is still damaged");
    }

    @Test
    @Fault(Of.DAMAGED_MANIFEST)
    void theNextBackupMendsWhatItNeedsAndSaysSo() throws IOException {
        var hits = Map.of(
                "0=ocfl_object_1.1", "gone",
                "inventory.json", "inventory",
                "v2/content/layer.json", "record",
                "v2/content/manifest.jsonl.gz", "list of items");
        for (var hit : hits.entrySet()) {
            var root = copy(hit.getKey().hashCode());
            var object = new StorageRoot(root.resolve("objects"), disk).objectFolder(Strongroom.OBJECT_ID + "PB-OTHER");
            Files.delete(object.resolve(hit.getKey()));
            var result = backUp(phone("PB-OTHER"), root, disk);
            assertEquals(3, result.layer().number(), hit.getKey());
            boolean mendedAtOpening = hit.getKey().equals("inventory.json");
            assertTrue(
                    mendedAtOpening
                            || result.problems().stream()
                                    .anyMatch(p -> p.what().contains(hit.getValue())
                                            && p.what().contains("mended")),
                    hit.getKey() + ": " + result.problems());
            OcflReferee.assertValid(root);
        }
    }

    @Test
    void eachKindOfFileIsHit() throws IOException {
        var kinds = new HashSet<String>();
        files().forEach(file -> kinds.add(file.getName(0).toString()));
        assertEquals(Set.of("checks", "copies", "objects", "seals", "strongroom.json"), kinds);
    }
}
