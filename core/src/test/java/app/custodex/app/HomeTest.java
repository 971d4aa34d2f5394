package app.custodex.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.BackupJob.Outcome;
import app.custodex.backup.BackupRequest;
import app.custodex.backup.FakePhone;
import app.custodex.base.CancelToken;
import app.custodex.base.ProblemException;
import app.custodex.base.RealDisk;
import app.custodex.docket.Docket;
import app.custodex.docket.RouteStep;
import app.custodex.link.HttpPhoneLink;
import app.custodex.link.PhoneLink;
import app.custodex.model.Contact;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class HomeTest {
    /** Bytes; of a database. */
    private static final int PAGE = 4_096;

    @TempDir
    Path folder;

    /** XDG Base Directory Specification for Linux; the customs of the other systems are common practice. */
    @Test
    void liesWhereTheSystemKeepsProgramsData() {
        var user = Path.of("/home/fenna");
        assertEquals(Path.of("/home/fenna/.local/share"), Home.userData(Map.of(), "Linux", user));
        assertEquals(Path.of("/data"), Home.userData(Map.of("XDG_DATA_HOME", "/data"), "Linux", user));
        assertEquals(Path.of("/home/fenna/Library/Application Support"), Home.userData(Map.of(), "Mac OS X", user));
        assertEquals(Path.of("/roaming"), Home.userData(Map.of("APPDATA", "/roaming"), "Windows 11", user));
    }

    private static Bay bay(PhoneLink link) {
        return new Bay(
                new Source(
                        1,
                        "test",
                        "TEST",
                        "Test",
                        Source.Type.PHONE,
                        URI.create("http://127.0.0.1:1/"),
                        Optional.empty()),
                link);
    }

    private static BackupRequest request(Duration patience) {
        return BackupRequest.everything(patience, "test");
    }

    @Test
    void remembersWherePhonesAnswer() throws IOException {
        var sources = new Sources(folder.resolve("sources"), new RealDisk());
        assertEquals(List.of(), sources.all());
        sources.rememberPhone("pellow", URI.create("http://127.0.0.1:2/"));
        sources.rememberPhone("ostrel", URI.create("http://127.0.0.1:1/"));
        sources.rememberPhone("pellow", URI.create("http://127.0.0.1:3/"));
        assertEquals(
                List.of(URI.create("http://127.0.0.1:3/"), URI.create("http://127.0.0.1:1/")),
                sources.all().stream().map(Source::address).toList());
    }

    @Test
    void aSourceKeepsItsBayWhenTheProgramStartsAgain() throws IOException {
        var home = new Home(folder.resolve("home"));
        for (var name : List.of("zebra", "ant", "mole")) {
            Files.createDirectory(folder.resolve(name));
        }
        try (var custodex = Custodex.open(home, Clock.systemUTC())) {
            for (var name : List.of("zebra", "ant", "mole")) {
                custodex.bays().add(folder.resolve(name).toString(), "");
            }
            custodex.bays().remove(custodex.bays().all().get(1));
        }
        try (var custodex = Custodex.open(home, Clock.systemUTC())) {
            assertEquals(
                    List.of("1 zebra", "3 mole"),
                    custodex.bays().all().stream()
                            .map(bay -> bay.number() + " " + bay.source().name())
                            .toList());
            assertEquals(
                    2, custodex.bays().add(folder.resolve("ant").toString(), "").number());
        }
    }

    @Test
    void aBayWithoutAPhoneSaysSo() throws IOException {
        int port;
        try (var socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = socket.getLocalPort();
        }
        var bay = bay(new HttpPhoneLink(URI.create("http://127.0.0.1:" + port + "/")));
        bay.ask();
        assertTrue(bay.status().isEmpty());
        bay.link().close();
    }

    @Test
    void whatSomebodyElseNoticedIsToldAllTheSame() throws Exception {
        var card = Files.createDirectory(folder.resolve("card"));
        try (var custodex = Custodex.open(new Home(folder.resolve("home")), Clock.systemUTC())) {
            var bay = custodex.bays().add(card.toString(), "");
            var told = new Semaphore(0);
            custodex.bays().watch(told::release);
            assertTrue(told.tryAcquire(10, TimeUnit.SECONDS));
            Files.delete(card);
            bay.ask();
            assertFalse(bay.ready());
            assertTrue(told.tryAcquire(10, TimeUnit.SECONDS));
        }
    }

    private static Docket.Form form() {
        var consent = new Docket.Consent(Instant.parse("2026-01-01T00:00:00Z"), "a copy");
        return new Docket.Form("Fenna Rook", "", "wants a copy", Optional.of(consent), Optional.empty());
    }

    @Test
    void aBackupIsWrittenIntoItsDocket() throws Exception {
        try (var custodex = Custodex.open(new Home(folder), Clock.systemUTC())) {
            var phone = new FakePhone("PB-APP");
            phone.put("Shared/People/a.vcf", FakePhone.bytes("BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Ivo\r\nEND:VCARD\r\n"));
            var docket = custodex.dockets().open(form(), URI.create("http://127.0.0.1:1/"));

            var job = custodex.backUp(bay(phone), Mandate.ofDocket(docket.number()), request(Duration.ZERO), false);
            assertInstanceOf(Outcome.Done.class, job.outcome().get(30, TimeUnit.SECONDS));

            var after = custodex.dockets().find(docket.number()).orElseThrow();
            assertEquals(List.of(1), after.layers());
            assertTrue(after.done().containsKey(RouteStep.BACK_UP));
            assertEquals("PB-APP", after.phone().orElseThrow().identifier());
            try (var contacts = custodex.reading().open(Mandate.ofShop(), "PB-APP", 1, Locale.UK)) {
                assertEquals("Ivo", contacts.contacts().ascending().getFirst().title());
            }
            var stored = custodex.strongroom().holdings().phones().getFirst();
            assertTrue(custodex.checks()
                    .run(stored, List.of(1), n -> {}, new CancelToken())
                    .getFirst()
                    .sound());
            var run = custodex.runs().of(docket.number()).getFirst();
            assertEquals(Optional.of(1), run.layer());
            assertEquals(Optional.of(true), run.sound());
            var none = assertThrows(
                    ProblemException.class, () -> custodex.reading().open(Mandate.ofShop(), "PB-APP", 2, Locale.UK));
            assertTrue(none.problem().what().contains("no layer 2"));
        }
    }

    @Test
    void aBackupThatEndsEarlySaysWhyAndStoppingIsNoTrouble() throws Exception {
        try (var custodex = Custodex.open(new Home(folder), Clock.systemUTC())) {
            var phone = new FakePhone("PB-APP");
            phone.put("a", new byte[3_000_000]);
            phone.unplugAfter(1_000_000);
            var lost = custodex.backUp(bay(phone), Mandate.ofShop(), request(Duration.ZERO), false)
                    .outcome()
                    .get(30, TimeUnit.SECONDS);
            assertTrue(assertInstanceOf(Outcome.Failed.class, lost)
                    .problem()
                    .advice()
                    .contains("cable"));

            phone.plugIn();
            phone.stallAfter(0);
            var job = custodex.backUp(bay(phone), Mandate.ofShop(), request(Duration.ofMinutes(5)), false);
            job.stop();
            job.stop();
            assertInstanceOf(Outcome.Stopped.class, job.outcome().get(30, TimeUnit.SECONDS));
            assertTrue(custodex.strongroom().holdings().phones().isEmpty());
        }
    }

    @Test
    void readingLeavesNothingBehindEvenWhenItFails() throws Exception {
        try (var custodex = Custodex.open(new Home(folder), Clock.systemUTC())) {
            var phone = new FakePhone("PB-APP");
            phone.put("Shared/People/a.vcf", FakePhone.bytes("BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Ivo\r\nEND:VCARD\r\n"));
            custodex.backUp(bay(phone), Mandate.ofShop(), request(Duration.ZERO), false)
                    .outcome()
                    .get(30, TimeUnit.SECONDS);
            try (var files = Files.walk(custodex.strongroom().root())) {
                for (var manifest :
                        files.filter(f -> f.endsWith("manifest.jsonl.gz")).toList()) {
                    Files.write(manifest, new byte[] {1, 2, 3});
                }
            }
            assertThrows(IOException.class, () -> custodex.reading().open(Mandate.ofShop(), "PB-APP", 1, Locale.UK));
            try (var left = Files.list(new Home(folder).reading())) {
                assertEquals(0, left.count());
            }
        }
    }

    @Test
    void aDamagedCatalogueOfTheLayerBelowHoldsNobodyUp() throws Exception {
        try (var custodex = Custodex.open(new Home(folder), Clock.systemUTC())) {
            var phone = new FakePhone("PB-APP");
            phone.put("Shared/People/a.vcf", FakePhone.bytes("BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Ivo\r\nEND:VCARD\r\n"));
            for (var name : List.of("Åse", "Maren", "Jorun")) {
                custodex.backUp(bay(phone), Mandate.ofShop(), request(Duration.ZERO), false)
                        .outcome()
                        .get(30, TimeUnit.SECONDS);
                phone.put(
                        "Shared/People/" + name.charAt(0) + ".vcf",
                        FakePhone.bytes("BEGIN:VCARD\r\nVERSION:3.0\r\nFN:" + name + "\r\nEND:VCARD\r\n"));
            }
            custodex.reading().open(Mandate.ofShop(), "PB-APP", 1, Locale.UK).close();
            try (var files = Files.list(custodex.strongroom().root().resolve("catalogue"))) {
                var kept = files.findFirst().orElseThrow();
                var bytes = Files.readAllBytes(kept);
                int head = new String(bytes, StandardCharsets.ISO_8859_1).indexOf("phonePB-APP") / PAGE;
                for (int page = 1; page < bytes.length / PAGE; page++) {
                    if (page != head) { // what says whose it is stays whole, so that it is gone on with
                        Arrays.fill(bytes, page * PAGE, (page + 1) * PAGE, (byte) 0x5a);
                    }
                }
                Files.write(kept, bytes);
            }
            for (int layer : new int[] {2, 3}) {
                try (var open = custodex.reading().open(Mandate.ofShop(), "PB-APP", layer, Locale.UK)) {
                    assertEquals(layer, open.contacts().ascending().size());
                    assertEquals(List.of(), open.problems(Set.of()));
                }
            }
        }
    }

    @Test
    void aCatalogueGivesTheSameContactsAndIsMadeAnewWhenItIsTorn() throws Exception {
        try (var custodex = Custodex.open(new Home(folder), Clock.systemUTC())) {
            var phone = new FakePhone("PB-APP");
            phone.put(
                    "Shared/People/a.vcf",
                    FakePhone.bytes(
                            "BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Ivo Kelp\r\nitem1.TEL:07700 900123\r\n"
                                    + "item1.X-LABEL:Boat\r\nBDAY:--11-14\r\nPHOTO;ENCODING=b;TYPE=JPEG:/9j/4A==\r\nEND:VCARD\r\n"));
            phone.put("Shared/People/b.vcf", FakePhone.bytes("BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Åse\r\nNOTE:cut o"));
            custodex.backUp(bay(phone), Mandate.ofShop(), request(Duration.ZERO), false)
                    .outcome()
                    .get(30, TimeUnit.SECONDS);
            List<Contact> first;
            try (var contacts = custodex.reading().open(Mandate.ofShop(), "PB-APP", 1, Locale.UK)) {
                first = contacts.contacts().ascending();
                assertEquals(1, contacts.problems(Set.of()).size());
            }
            var closed = custodex.reading().open(Mandate.ofShop(), "PB-APP", 1, Locale.UK);
            closed.close();
            assertThrows(CancellationException.class, () -> closed.beginning("Shared/People/b.vcf", 10));
            assertThrows(CancellationException.class, () -> closed.photo(first.getFirst()));
            for (int round = 0; round < 2; round++) {
                try (var contacts = custodex.reading().open(Mandate.ofShop(), "PB-APP", 1, Locale.UK)) {
                    assertEquals(first, contacts.contacts().ascending());
                    assertEquals(1, contacts.problems(Set.of()).size());
                    var ivo = contacts.contacts().find("ivo").getFirst();
                    assertEquals(4, contacts.photo(ivo).orElseThrow().length);
                }
                try (var files = Files.list(new Home(folder).strongroom().resolve("catalogue"))) {
                    var file = files.findFirst().orElseThrow();
                    var bytes = Files.readAllBytes(file);
                    Files.write(file, Arrays.copyOf(bytes, bytes.length / 2));
                }
            }
            try (var swedish = custodex.reading().open(Mandate.ofShop(), "PB-APP", 1, Locale.of("sv"))) {
                assertEquals("Åse", swedish.contacts().ascending().getLast().title());
            }
        }
    }
}
