package app.custodex.backup;

import static app.custodex.backup.Backups.assertHolds;
import static app.custodex.backup.Backups.run;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.app.Checks;
import app.custodex.base.CancelToken;
import app.custodex.base.ProblemException;
import app.custodex.base.RealDisk;
import app.custodex.link.LinkException;
import app.custodex.link.PhonePath;
import app.custodex.seal.AgeProgram;
import app.custodex.seal.Passphrase;
import app.custodex.strongroom.LayerDraft;
import app.custodex.strongroom.LayerRecord.Change;
import app.custodex.strongroom.OcflReferee;
import app.custodex.strongroom.StoredPhone.Seal;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Sealed stacks: what they give back, and what they do not give away. */
class SealedBackupTest {
    private static final String WORDS = "four unrelated words, honest";
    /** In every file, and in every name, of the phone. */
    private static final String MARK = "Halvard-was-here";

    @TempDir
    Path root;

    private final RealDisk disk = new RealDisk();
    private final FakePhone phone = new FakePhone("PB-SEALED");

    private static Passphrase words() {
        return new Passphrase(WORDS.toCharArray());
    }

    private byte[] marked(int size, long seed) {
        var bytes = new byte[size];
        new Random(seed).nextBytes(bytes);
        var mark = MARK.getBytes(StandardCharsets.UTF_8);
        System.arraycopy(mark, 0, bytes, 0, Math.min(size, mark.length));
        return bytes;
    }

    private Strongroom sealed() throws IOException {
        var strongroom = Strongroom.make(root, disk);
        strongroom.seal(phone.identity(), words());
        return strongroom;
    }

    private void fill() {
        for (int i = 0; i < 30; i++) {
            phone.put("folder/%s-%d".formatted(MARK, i), marked(500 + 997 * i, i));
        }
        phone.put("large-" + MARK, marked(LayerDraft.PACKED_UP_TO + 100_000, 99));
    }

    /** Nothing of names or contents anywhere below the strongroom. */
    private void assertNoPlaintext() throws IOException {
        try (var files = Files.walk(root)) {
            for (var file : files.filter(Files::isRegularFile).toList()) {
                assertFalse(file.toString().contains(MARK), file.toString());
                var text = new String(Files.readAllBytes(file), StandardCharsets.ISO_8859_1);
                assertFalse(text.contains(MARK), file.toString());
                assertFalse(text.contains("AGE-SECRET-KEY-"), file.toString());
                assertFalse(text.contains(WORDS), file.toString());
            }
        }
    }

    @Test
    void everyContentFileOpensWithTheAgeProgramAndTheObjectIsValid() throws Exception {
        fill();
        run(phone, sealed()).run();
        OcflReferee.assertValid(root);
        assertNoPlaintext();
        Path keyFile;
        try (var files = Files.walk(root.resolve("seals"))) {
            keyFile = files.filter(f -> f.endsWith("key.age")).findFirst().orElseThrow();
        }
        var identity = Files.createTempFile("identity", "");
        AgeProgram.decryptWithPassphrase(WORDS, keyFile, identity);
        int opened = 0;
        try (var files = Files.walk(root.resolve("objects"))) {
            for (var file : files.filter(f -> f.toString().contains("/content/"))
                    .filter(Files::isRegularFile)
                    .toList()) {
                assertTrue(AgeProgram.decrypt(identity, file).length > 0, file.toString());
                opened++;
            }
        }
        assertTrue(opened >= 3, "manifest, pack and a large file at least: " + opened);
        Files.delete(identity);
    }

    @Test
    void everySealedLayerRestoresExactlyTheStateThatItSaw() throws IOException {
        var strongroom = sealed();
        var random = new Random(7);
        Map<Integer, Map<PhonePath, byte[]>> states = new HashMap<>();
        for (int layer = 1; layer <= 6; layer++) {
            for (int change = 0; change < 12; change++) {
                var path = "f" + random.nextInt(5) + "/" + random.nextInt(7);
                if (random.nextInt(3) == 0) {
                    phone.remove(new PhonePath(path));
                } else {
                    phone.put(path, marked(random.nextInt(4_000), random.nextInt(30)));
                }
            }
            run(phone, strongroom).run();
            states.put(layer, phone.state());
        }
        var again = Strongroom.make(root, disk);
        again.open(phone.identity(), words());
        for (var state : states.entrySet()) {
            assertHolds(again, phone, state.getKey(), state.getValue());
        }
        assertNoPlaintext();
    }

    @Test
    void onlyWhatIsNewIsReadAgain() throws IOException {
        fill();
        var strongroom = sealed();
        run(phone, strongroom).run();
        long before = phone.bytesRead();
        phone.put("new", marked(7_000, 500));

        var result = run(phone, strongroom).run();

        assertEquals(7_000, phone.bytesRead() - before);
        assertEquals(1, result.layer().change().added());
        assertTrue(result.layer().sealed());
    }

    @Test
    void withoutThePassphraseNothingIsReadButTheDigestsAreChecked() throws IOException {
        fill();
        run(phone, sealed()).run();
        var strongroom = Strongroom.make(root, disk);

        var stored = strongroom.holdings().phones().getFirst();
        assertEquals(Seal.CLOSED, stored.seal());
        assertEquals("Test phone", stored.identity().name(), "whose it is stands on its label");
        assertThrows(ProblemException.class, () -> run(phone, strongroom).run());
        try (var layer = strongroom.layer("PB-SEALED", 1).orElseThrow()) {
            assertFalse(layer.readable());
        }
        var wrong = assertThrows(
                ProblemException.class,
                () -> strongroom.open(phone.identity(), new Passphrase("something else".toCharArray())));
        assertEquals("This is not its passphrase", wrong.problem().what());

        var checks = new Checks(() -> strongroom, Clock.systemUTC());
        var closed = checks.run(stored, List.of(1), n -> {}, new CancelToken()).getFirst();
        assertTrue(closed.sound() && !closed.decrypted());
        strongroom.open(phone.identity(), words());
        var opened = checks.run(stored, List.of(1), n -> {}, new CancelToken()).getFirst();
        assertTrue(opened.sound() && opened.decrypted());

        damage();
        strongroom.close(phone.identity());
        var hit = checks.run(stored, List.of(1), n -> {}, new CancelToken()).getFirst();
        assertFalse(hit.sound());
        assertTrue(hit.items().isEmpty(), "which items it hits can't be told without the passphrase");
        strongroom.open(phone.identity(), words());
        var named = checks.run(stored, List.of(1), n -> {}, new CancelToken()).getFirst();
        assertEquals(List.of(new PhonePath("large-" + MARK)), named.items());
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void theNextLayerDependsOnNoDamagedFile() throws IOException {
        phone.put("first", marked(200_000, 1));
        phone.put("second", marked(200_000, 2));
        phone.put("third", marked(200_000, 3));
        var strongroom = sealed();
        run(phone, strongroom).run();
        damage();
        var stored = strongroom.holdings().phones().getFirst();
        var found = new Checks(() -> strongroom, Clock.systemUTC())
                .run(stored, List.of(1), n -> {}, new CancelToken())
                .getFirst();
        assertEquals(1, found.items().size(), "the others in the pack are sound");

        var anew = run(phone, strongroom).run();

        assertEquals(3, anew.layer().freshItems());
        assertEquals(Change.NONE, anew.layer().change(), "nothing changed on the phone");
        assertTrue(anew.check().orElseThrow().sound());
        assertHolds(strongroom, phone, 2, phone.state());
    }

    private void damage() throws IOException {
        try (var files = Files.walk(root.resolve("objects"))) {
            var largest = files.filter(Files::isRegularFile)
                    .max((a, b) -> Long.compare(a.toFile().length(), b.toFile().length()))
                    .orElseThrow();
            var bytes = Files.readAllBytes(largest);
            bytes[bytes.length / 2] ^= 1;
            Files.write(largest, bytes);
        }
    }

    @Test
    @Fault(Of.CABLE)
    void aCutCopyGoesOnAndLeavesNothingInTheClear() throws IOException {
        for (int i = 0; i < 40; i++) {
            phone.put("%s/%03d".formatted(MARK, i), marked(100_000, i));
        }
        var strongroom = sealed();
        phone.unplugAfter(2_500_000);
        assertThrows(LinkException.Lost.class, () -> run(phone, strongroom).run());
        assertNoPlaintext();
        phone.plugIn();
        long before = phone.bytesRead();

        var again = Strongroom.make(root, disk);
        again.open(phone.identity(), words());
        run(phone, again).run();

        assertTrue(phone.bytesRead() - before < 2_500_000, "read again: " + (phone.bytesRead() - before));
        assertHolds(again, phone, 1, phone.state());
        assertNoPlaintext();
    }

    @Test
    void aSealIsSettledByTheFirstLayer() throws IOException {
        phone.put("a", marked(100, 1));
        run(phone, Strongroom.make(root, disk)).run();
        var late = assertThrows(ProblemException.class, this::sealed);
        assertTrue(late.problem().what().contains("decided by its first layer"), late.getMessage());
    }

    @Test
    void aSealCanBeTakenBackBeforeTheFirstLayer() throws IOException {
        var strongroom = sealed();
        strongroom.unseal(phone.identity());
        assertFalse(strongroom.sealed("PB-SEALED"));
        phone.put("a", marked(100, 1));
        assertFalse(run(phone, strongroom).run().layer().sealed());
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void aLostOrDamagedKeyFileIsToldAsSuch() throws IOException {
        fill();
        run(phone, sealed()).run();
        try (var files = Files.walk(root.resolve("seals"))) {
            var keyFile = files.filter(f -> f.endsWith("key.age")).findFirst().orElseThrow();
            Files.writeString(keyFile, "torn");
        }
        Strongroom.make(root, disk).open(phone.identity(), words()); // by its second copy
        disk.delete(root.resolve("copies"));
        var torn = assertThrows(
                ProblemException.class, () -> Strongroom.make(root, disk).open(phone.identity(), words()));
        assertTrue(torn.problem().advice().contains("second copy"), torn.getMessage());
    }
}
