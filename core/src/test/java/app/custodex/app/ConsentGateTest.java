package app.custodex.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.backup.BackupRequest;
import app.custodex.backup.FakePhone;
import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.ProblemException;
import app.custodex.base.RealDisk;
import app.custodex.docket.Docket;
import app.custodex.docket.DocketBook;
import app.custodex.extract.Delivery;
import app.custodex.extract.Written;
import app.custodex.link.Family;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhonePath;
import app.custodex.media.SoundCut;
import app.custodex.model.KindGroup;
import app.custodex.seal.Passphrase;
import app.custodex.tones.Tone;
import app.custodex.tones.ToneUse;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What may be done to whose data, and two programs on one home. */
class ConsentGateTest {
    private static final URI ADDRESS = URI.create("http://127.0.0.1:1/");

    @TempDir
    Path folder;

    private final FakePhone phone = new FakePhone("PB-GATE");

    private Custodex open() throws IOException {
        return Custodex.open(new Home(folder), Clock.systemUTC());
    }

    private DocketBook book() throws IOException {
        return DocketBook.open(folder.resolve("dockets"), new RealDisk(), Clock.systemUTC());
    }

    private Bay bay() {
        phone.put("Shared/People/a.vcf", FakePhone.bytes("BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Ivo\r\nEND:VCARD\r\n"));
        var source = new Source(1, "gate", "gate", "Gate", Source.Type.PHONE, ADDRESS, Optional.empty());
        var bay = new Bay(source, phone);
        bay.ask();
        return bay;
    }

    private static Docket.Form form(boolean consent) {
        var given = new Docket.Consent(Instant.parse("2026-01-01T00:00:00Z"), "a copy");
        return new Docket.Form(
                "Fenna Rook", "", "wants a copy", consent ? Optional.of(given) : Optional.empty(), Optional.empty());
    }

    private static BackupRequest request() {
        return BackupRequest.everything(Duration.ZERO, "test");
    }

    private static Tone tone() {
        var cut = new SoundCut(Duration.ZERO, Duration.ofSeconds(5), Duration.ZERO, Duration.ZERO, false);
        return new Tone("Tide", cut, ToneUse.RING, Family.OSTREL);
    }

    private static void isRefused(String why, org.junit.jupiter.api.function.Executable act) {
        var refused = assertThrows(ProblemException.class, act);
        assertTrue(refused.problem().what().contains(why), refused.getMessage());
    }

    @Test
    void withoutConsentNothingIsCopiedReadOrExtractedWhoeverAsks() throws Exception {
        try (var custodex = open()) {
            var bay = bay();
            var docket = custodex.dockets().open(form(false), ADDRESS);
            var mandate = Mandate.ofDocket(docket.number());
            isRefused("may be copied", () -> custodex.backUp(bay, mandate, request(), false));
            isRefused(
                    "may be read",
                    () -> custodex.preview(
                            bay, mandate, phone.state().keySet().iterator().next(), 10));
            isRefused("no such docket", () -> custodex.backUp(bay, Mandate.ofDocket(77), request(), false));
            assertEquals(0, custodex.strongroom().holdings().phones().size());

            book().change(docket.number(), d -> d.withForm(form(true))); // in another program
            custodex.backUp(bay, mandate, request(), false).outcome().get(30, TimeUnit.SECONDS);
            var heard = new ArrayList<Operation>();
            custodex.gate().listen(permit -> heard.add(permit.operation()));
            try (var contacts = custodex.reading().open(mandate, "PB-GATE", 1, Locale.UK)) {
                var all = contacts.contacts().ascending();
                var page = List.of(
                        Written.order(KindGroup.CONTACTS, new long[0], "page").with(all));
                contacts.outgoing()
                        .extract(
                                page,
                                ZoneId.of("UTC"),
                                Delivery.FILES,
                                folder.resolve("out"),
                                n -> {},
                                new CancelToken());
                var noted = custodex.handOuts().of(docket.number()).getFirst();
                assertTrue(noted.complete());
                var lies = noted.files().getFirst();
                assertEquals(Digests.of(Files.readAllBytes(Path.of(lies.path()))), lies.sha512());
                assertEquals(Files.size(Path.of(lies.path())), lies.bytes());
                contacts.askToPrint();
                assertEquals(List.of(Operation.READ, Operation.EXTRACT, Operation.PRINT), heard);

                book().change(docket.number(), d -> d.withConsent(Optional.empty())); // withdrawn meanwhile
                isRefused(
                        "may be extracted",
                        () -> contacts.outgoing()
                                .extract(
                                        page,
                                        ZoneId.of("UTC"),
                                        Delivery.FILES,
                                        folder.resolve("out"),
                                        n -> {},
                                        new CancelToken()));
                var taken = folder.resolve("taken");
                isRefused(
                        "may be extracted",
                        () -> contacts.outgoing().takeOut(all.getFirst().id(), taken));
                var out = contacts.outgoing();
                var database = new PhonePath("store/calls/calls.db");
                isRefused("may be extracted", () -> out.takeOutDatabase(database, taken));
                isRefused("may be extracted", () -> out.takeOutMerged(database, taken));
                isRefused("may be extracted", () -> out.takeOutRows(database, "SELECT 1", taken));
                isRefused("may be extracted", () -> out.mailDraft("Calls", List.of(taken), folder));
                isRefused("may be extracted", () -> out.tone("song.mp3", tone(), folder));
                assertFalse(Files.exists(taken));
                assertEquals(1, custodex.handOuts().of(docket.number()).size(), "what is refused is no hand-out");
                isRefused("may be printed", contacts::askToPrint);
            }
            isRefused("may be read", () -> custodex.reading().open(mandate, "PB-GATE", 1, Locale.UK));
            assertEquals(mandate, custodex.gate().mandateFor(phone.identity()));
        }
    }

    @Test
    void aDocketIsForItsOwnPhoneAndWithoutACustomerThatHasToBeSaid() throws Exception {
        try (var custodex = open()) {
            var docket = custodex.dockets().open(form(true), ADDRESS);
            custodex.dockets().change(docket.number(), d -> d.withPhone(new FakePhone("PB-ANOTHER").identity()));
            isRefused(
                    "another phone", () -> custodex.backUp(bay(), Mandate.ofDocket(docket.number()), request(), false));
            isRefused("No docket says", () -> custodex.gate().mandateFor(phone.identity()));
            custodex.declareOwn(phone.identity());
            assertEquals(Mandate.ofShop(), custodex.gate().mandateFor(phone.identity()));
        }
        try (var again = open()) {
            assertEquals(Mandate.ofShop(), again.gate().mandateFor(phone.identity()), "it is remembered");
            var own = again.dockets()
                    .open(new Docket.Form("the shop", "", "a test", Optional.empty(), Optional.empty(), true), ADDRESS);
            again.backUp(bay(), Mandate.ofDocket(own.number()), request(), false)
                    .outcome()
                    .get(30, TimeUnit.SECONDS);
            assertEquals(1, again.strongroom().holdings().phones().size());
        }
    }

    @Test
    @Fault(Of.TWO_PROGRAMS)
    void whatOneProgramWritesTheOtherSeesAndNeitherUndoesIt() throws Exception {
        var here = book();
        var there = book();
        var docket = here.open(form(true), ADDRESS);
        assertEquals(1, there.all().size(), "a new docket is seen");
        there.change(docket.number(), d -> d.withConsent(Optional.empty()));
        here.change(docket.number(), d -> d.withLayer(1));
        var now = there.find(docket.number()).orElseThrow();
        assertFalse(now.mayBeWorkedOn(), "a consent that was withdrawn does not come back");
        assertEquals(List.of(1), now.layers());

        var jobs = new ArrayList<Callable<Integer>>();
        IntStream.range(0, 30)
                .forEach(n -> jobs.add(() ->
                        (n % 2 == 0 ? here : there).open(form(false), ADDRESS).number()));
        var numbers = new HashSet<Integer>();
        try (var threads = Executors.newFixedThreadPool(6)) {
            for (var number : threads.invokeAll(jobs)) {
                numbers.add(number.get());
            }
        }
        assertEquals(30, numbers.size(), "no number is given twice");
    }

    @Test
    @Fault(Of.TWO_PROGRAMS)
    void settingsAndThePlaceOfTheStrongroomAreSharedByTwoPrograms() throws Exception {
        try (var here = open();
                var there = open()) {
            here.checkSchedule(Settings.CheckSchedule.AT_NIGHT);
            assertEquals(Settings.CheckSchedule.AT_NIGHT, there.settings().checks());
            here.backUp(bay(), Mandate.ofShop(), request(), false).outcome().get(30, TimeUnit.SECONDS);
            assertEquals(1, there.runs().all().size(), "a run of the other program is in the list");
            here.moveStrongroom(folder.resolve("moved"), n -> {}, new CancelToken());
            assertEquals(folder.resolve("moved"), there.strongroom().root());
            assertEquals(1, there.strongroom().holdings().phones().size());
            assertEquals(Settings.CheckSchedule.AT_NIGHT, there.settings().checks(), "nothing else was undone");
        }
    }

    @Test
    void aStrongroomIsMadeOnlyAtTheVeryFirstStartOrWhenAsked() throws Exception {
        try (var custodex = open()) {
            var words = new Passphrase("four unrelated words, honest".toCharArray());
            custodex.seal(phone.identity(), words);
            custodex.backUp(bay(), Mandate.ofShop(), request(), false).outcome().get(60, TimeUnit.SECONDS);
        }
        var drive = folder.resolve("strongroom");
        Files.move(drive, folder.resolve("unplugged"));
        isRefused("not there", this::open);
        Files.createDirectories(drive); // the empty mount point
        isRefused("not there", this::open);
        assertEquals(0, Files.list(drive).count());
        Files.delete(drive);
        Files.move(folder.resolve("unplugged"), drive);
        open().close();

        new RealDisk().delete(drive.resolve("seals"));
        new RealDisk().delete(drive.resolve("copies"));
        new RealDisk().delete(drive.resolve("objects"));
        try (var custodex = open()) {
            assertTrue(custodex.strongroom().sealed("PB-GATE"), "it is remembered in the home");
            var outcome = custodex.backUp(bay(), Mandate.ofShop(), request(), false)
                    .outcome()
                    .get(30, TimeUnit.SECONDS);
            assertTrue(outcome instanceof BackupJob.Outcome.Failed, outcome.toString());
            assertFalse(custodex.strongroom().holdings().problems().isEmpty());
        }
        Custodex.choose(new Home(folder), folder.resolve("another"));
        try (var custodex = open()) {
            assertEquals(folder.resolve("another"), custodex.strongroom().root());
        }
    }

    @Test
    void nobodyElseCanReadTheHome() throws Exception {
        try (var custodex = open()) {
            custodex.dockets().open(form(true), ADDRESS);
            custodex.backUp(bay(), Mandate.ofShop(), request(), false).outcome().get(30, TimeUnit.SECONDS);
            custodex.reading().open(Mandate.ofShop(), "PB-GATE", 1, Locale.UK).close();
            assertEquals(List.of(), custodex.problems());
            Files.setPosixFilePermissions(custodex.strongroom().root(), PosixFilePermissions.fromString("rwxr-xr-x"));
            assertTrue(custodex.problems().toString().contains("Other users"), "it is told");
            Files.setPosixFilePermissions(custodex.strongroom().root(), PosixFilePermissions.fromString("rwx------"));
        }
        try (var all = Files.walk(folder)) {
            for (var path : all.filter(p -> !p.equals(folder)).toList()) {
                var permissions = PosixFilePermissions.toString(Files.getPosixFilePermissions(path));
                assertTrue(permissions.endsWith("------"), path + " " + permissions);
            }
        }
    }

    @Test
    @Fault(Of.DAMAGED_CONTENT)
    void tornFilesOfTheHomeAreToldAndTheRestGoesOn() throws Exception {
        try (var custodex = open()) {
            custodex.bays().add(Files.createDirectory(folder.resolve("card")).toString(), "");
            custodex.dockets().open(form(true), ADDRESS);
        }
        try (var sources = Files.list(folder.resolve("sources"))) {
            Files.writeString(sources.findFirst().orElseThrow(), "{ torn");
        }
        Files.writeString(folder.resolve("dockets/0001.json"), "{\"number\": 1}");
        Files.writeString(folder.resolve("runs.jsonl"), "\u0000\u0000 torn\n");
        Files.writeString(folder.resolve("remembered.json"), "{ torn");
        try (var custodex = open()) {
            var problems = custodex.problems().toString();
            for (var part : List.of("sources/", "0001.json", "The result list")) {
                assertTrue(problems.contains(part), part + ": " + problems);
            }
            assertEquals(2, custodex.dockets().open(form(true), ADDRESS).number(), "its number is not given again");
        }
        assertTrue(Files.readString(folder.resolve("dockets/0001.json")).contains("number"), "the file is kept");
    }

    /** A stack that was sealed under one locale opens under any other. */
    @Test
    void nothingThatIsStoredDependsOnTheLocale() throws Exception {
        var before = Locale.getDefault();
        try {
            Locale.setDefault(Locale.forLanguageTag("fa-IR-u-nu-arabext"));
            PhoneIdentity identity = phone.identity();
            try (var custodex = open()) {
                custodex.seal(identity, new Passphrase("four unrelated words, honest".toCharArray()));
                custodex.dockets().open(form(true), ADDRESS);
                custodex.backUp(bay(), Mandate.ofShop(), request(), false)
                        .outcome()
                        .get(60, TimeUnit.SECONDS);
            }
            Locale.setDefault(Locale.UK);
            try (var custodex = open()) {
                custodex.strongroom().open(identity, new Passphrase("four unrelated words, honest".toCharArray()));
                custodex.reading()
                        .open(Mandate.ofShop(), "PB-GATE", 1, Locale.UK)
                        .close();
                assertEquals("0001", custodex.dockets().all().getFirst().label());
            }
            try (var all = Files.walk(folder)) {
                assertTrue(
                        all.allMatch(p -> p.toString().chars().allMatch(c -> c < 0x600)),
                        "no digits of another script");
            }
        } finally {
            Locale.setDefault(before);
        }
    }
}
