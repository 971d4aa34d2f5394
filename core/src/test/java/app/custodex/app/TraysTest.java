package app.custodex.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.backup.BackupRequest;
import app.custodex.backup.FakePhone;
import app.custodex.base.ProblemException;
import app.custodex.model.ThingId;
import app.custodex.seal.Passphrase;
import app.custodex.twins.Merge;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is picked in a layer is there again later. */
class TraysTest {
    @TempDir
    Path folder;

    private final FakePhone phone = new FakePhone("PB-TRAY");

    private Custodex open() throws IOException {
        return Custodex.open(new Home(folder), Clock.systemUTC());
    }

    private void copied(Custodex custodex) throws Exception {
        for (var name : List.of("Ivo", "Maren", "Brann")) {
            phone.put(
                    "Shared/People/" + name + ".vcf",
                    FakePhone.bytes("BEGIN:VCARD\r\nVERSION:3.0\r\nFN:" + name + "\r\nEND:VCARD\r\n"));
        }
        var source = new Source(
                1, "tray", "tray", "Tray", Source.Type.PHONE, URI.create("http://127.0.0.1:1/"), Optional.empty());
        var bay = new Bay(source, phone);
        bay.ask();
        custodex.backUp(bay, Mandate.ofShop(), BackupRequest.everything(Duration.ZERO, "test"), false)
                .outcome()
                .get(60, TimeUnit.SECONDS);
    }

    private static OpenPhone layer(Custodex custodex) throws IOException {
        return custodex.reading().open(Mandate.ofShop(), "PB-TRAY", 1, Locale.UK);
    }

    private static BitSet picked(OpenPhone open, int from) {
        var picked = new BitSet();
        open.contacts().ascending().stream().skip(from).forEach(contact -> picked.set(open.number(contact)));
        return picked;
    }

    private List<Path> files() throws IOException {
        try (var files = Files.list(folder.resolve("trays"))) {
            return files.sorted().toList();
        }
    }

    @Test
    void aTrayIsKeptAndPutAsideWhenItIsDamaged() throws Exception {
        try (var custodex = open()) {
            copied(custodex);
            try (var open = layer(custodex)) {
                assertEquals(new BitSet(), custodex.trays().load(open));
                custodex.trays().save(open, picked(open, 1));
            }
        }
        try (var later = open();
                var open = layer(later)) {
            assertEquals(picked(open, 1), later.trays().load(open));
            assertEquals(2, picked(open, 1).cardinality());
            later.trays().save(open, new BitSet());
            assertEquals(List.of(), files(), "an empty tray leaves nothing");

            Files.delete(folder.resolve("trays"));
            Files.writeString(folder.resolve("trays"), "no folder");
            assertThrows(ProblemException.class, () -> later.trays().save(open, picked(open, 0)));
            Files.delete(folder.resolve("trays"));

            later.trays().save(open, picked(open, 0));
            var file = files().getFirst();
            var whole = Files.readString(file);
            for (var damaged :
                    List.of("", "{", whole.substring(0, whole.length() / 2), "[]", "null", "{\"layer\":1}")) {
                Files.writeString(file, damaged);
                assertThrows(ProblemException.class, () -> later.trays().load(open), damaged);
                assertFalse(Files.exists(file));
                assertEquals(new BitSet(), later.trays().load(open));
            }
            assertEquals(6, files().size(), "each was put aside");
            var merge = new Merge(List.of(new ThingId("contacts", "1")), Set.of());
            for (var damaged : List.of("{", "{}", "{\"merges\":[{}]}")) {
                later.trays().saveMerges(open, List.of(merge));
                var merges = files().stream()
                        .filter(each -> each.toString().contains("-merges"))
                        .findFirst()
                        .orElseThrow();
                Files.writeString(merges, damaged);
                assertThrows(ProblemException.class, () -> later.trays().merges(open), damaged);
                assertEquals(List.of(), later.trays().merges(open));
            }
        }
    }

    @Test
    void ofASealedLayerItIsSealedToo() throws Exception {
        try (var custodex = open()) {
            custodex.seal(phone.identity(), new Passphrase("four unrelated words, honest".toCharArray()));
            copied(custodex);
            try (var open = layer(custodex)) {
                custodex.trays().save(open, picked(open, 0));
                var kept = new String(Files.readAllBytes(files().getFirst()), StandardCharsets.ISO_8859_1);
                assertTrue(kept.startsWith("age-encryption.org/v1"), "as the age format says"); // C2SP age
                assertFalse(kept.contains("Maren"));
                assertEquals(picked(open, 0), custodex.trays().load(open));

                var merges = List.of(new Merge(List.of(new ThingId("contacts", "1")), Set.of("NAME\nMaren")));
                custodex.trays().saveMerges(open, merges);
                assertEquals(2, files().size());
                for (var file : files()) {
                    assertTrue(
                            Files.readString(file, StandardCharsets.ISO_8859_1).startsWith("age-encryption.org/v1"));
                }
                assertEquals(merges, custodex.trays().merges(open));
                custodex.trays().saveMerges(open, List.of());
                assertEquals(1, files().size());
                assertEquals(List.of(), custodex.trays().merges(open));
            }
        }
    }
}
