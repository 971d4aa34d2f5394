package app.custodex.practice;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertInstanceOf;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Digests;
import app.custodex.drawer.PracticeDrawer.Contents;
import app.custodex.drawer.PracticePhone;
import app.custodex.link.Family;
import app.custodex.link.HttpPhoneLink;
import app.custodex.link.Kind;
import app.custodex.link.KindCount;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhonePath;
import app.custodex.link.ReadinessStep;
import app.custodex.link.Withheld;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** The link, end to end: the core's client against the practice phones' server, over loopback. */
class PracticePhonesTest {
    private static final Contents SMALL = Contents.sketched(1, 30);

    @TempDir
    static Path made;

    @TempDir
    Path folder;

    private TableDrawer drawer;

    /** Drawing the pictures takes seconds, so it is done once and copied. */
    @BeforeAll
    static void make() throws IOException {
        new TableDrawer.Maker().open(made, SMALL).close();
    }

    @BeforeEach
    void open() throws IOException {
        try (var files = Files.walk(made)) {
            for (var file : files.skip(1).toList()) {
                Files.copy(file, folder.resolve(made.relativize(file)), StandardCopyOption.COPY_ATTRIBUTES);
            }
        }
        drawer = (TableDrawer) new TableDrawer.Maker().open(folder, SMALL);
    }

    @AfterEach
    void close() {
        drawer.close();
    }

    private PracticePhone phone(Family family) {
        return drawer.phones().stream()
                .filter(p -> p.family() == family)
                .findFirst()
                .orElseThrow();
    }

    private HttpPhoneLink ready(Family family) throws IOException {
        var phone = phone(family);
        phone.makeReady();
        phone.plugIn();
        var link = new HttpPhoneLink(phone.address());
        assertTrue(link.status().readiness().ready());
        link.promise(true);
        openAll(phone);
        return link;
    }

    /** Brings everything within reach that an owner can bring there. */
    private static void openAll(PracticePhone phone) {
        for (var id : List.of("open-phone", "kitewire-here", "kitewire-write", "burrow-here", "burrow-write")) {
            phone.taps().stream().filter(t -> t.id().equals(id)).findFirst().ifPresent(phone::tap);
        }
    }

    private static void tap(PracticePhone phone, String id) {
        phone.tap(
                phone.taps().stream().filter(t -> t.id().equals(id)).findFirst().orElseThrow());
    }

    private static Map<PhonePath, Listed.File> files(HttpPhoneLink link) throws LinkException {
        var files = new TreeMap<PhonePath, Listed.File>();
        var folders = new ArrayDeque<>(List.of(PhonePath.ROOT));
        while (!folders.isEmpty()) {
            for (var listed : link.list(folders.removeFirst())) {
                switch (listed) {
                    case Listed.File file -> files.put(file.path(), file);
                    case Listed.Folder sub -> folders.add(sub.path());
                    case Listed.Link other -> {}
                    case Listed.Closed closed ->
                        throw new AssertionError(closed.problem().sentence());
                    case Listed.Refused refused ->
                        throw new AssertionError(refused.problem().sentence());
                }
            }
        }
        return files;
    }

    @ParameterizedTest
    @EnumSource(names = {"OSTREL", "PELLOW"})
    void everyFileIsListedAndReadAsItIs(Family family) throws IOException {
        try (var link = ready(family)) {
            var root = folder.resolve(family.code()).resolve("files");
            var files = files(link);
            try (var onDisk = Files.walk(root)) {
                assertEquals(onDisk.filter(Files::isRegularFile).count(), files.size());
            }
            for (var file : files.values()) {
                var real = root.resolve(file.path().text());
                assertEquals(Files.getLastModifiedTime(real).toInstant(), file.modified());
                try (var content = link.open(file.path(), 0)) {
                    assertEquals(file.etag(), content.etag());
                    assertEquals(file.size(), content.size());
                    assertArrayEquals(
                            Files.readAllBytes(real),
                            content.stream().readAllBytes(),
                            file.path().text());
                }
            }
        }
    }

    @ParameterizedTest
    @EnumSource(names = {"OSTREL", "PELLOW"})
    void readsOnFromAnOffset(Family family) throws IOException {
        try (var link = ready(family)) {
            var file = files(link).values().stream()
                    .filter(f -> f.size() > 10_000)
                    .findFirst()
                    .orElseThrow();
            byte[] whole;
            try (var content = link.open(file.path(), 0)) {
                whole = content.stream().readAllBytes();
            }
            try (var rest = link.open(file.path(), 9_999)) {
                assertArrayEquals(
                        Arrays.copyOfRange(whole, 9_999, whole.length),
                        rest.stream().readAllBytes());
            }
            var gone = assertThrows(LinkException.Item.class, () -> link.open(new PhonePath("no/such file"), 0));
            assertEquals("no/such file", gone.problem().subject());
        }
    }

    @ParameterizedTest
    @EnumSource(names = {"OSTREL", "PELLOW"})
    void aPulledCableInTheMiddleOfAFileIsNoShortFile(Family family) throws IOException {
        try (var link = ready(family)) {
            var phone = phone(family);
            var large = folder.resolve(family.code()).resolve("files/large.bin");
            Files.write(large, new byte[8_000_000]);
            phone.slowDown(3_000_000);
            try (var content = link.open(new PhonePath("large.bin"), 0)) {
                content.stream().readNBytes(100_000);
                phone.unplug();
                assertThrows(LinkException.Lost.class, () -> content.stream().readAllBytes());
            }
            assertThrows(LinkException.Lost.class, link::status);
            assertThrows(LinkException.Lost.class, () -> link.list(PhonePath.ROOT));
            phone.slowDown(PracticePhone.FULL_SPEED);
            phone.plugIn();
            assertTrue(link.status().readiness().ready(), "the same link goes on");
        }
    }

    @Test
    void anOstrelAsksForPasscodeAndTrust() throws IOException {
        var phone = phone(Family.OSTREL);
        phone.plugIn();
        try (var link = new HttpPhoneLink(phone.address())) {
            var status = link.status();
            assertEquals(ReadinessStep.UNLOCK, status.readiness().next().orElseThrow());
            assertTrue(status.identity().isEmpty() && status.contents().isEmpty(), "tells nothing before it trusts");
            assertThrows(LinkException.NotReady.class, () -> link.list(PhonePath.ROOT));
            tap(phone, "unlock");
            assertEquals(ReadinessStep.TRUST, link.status().readiness().next().orElseThrow());
            tap(phone, "refuse");
            assertEquals(ReadinessStep.TRUST, link.status().readiness().next().orElseThrow());
            assertFalse(phone.taps().stream().anyMatch(t -> t.id().equals("accept")), "asks once a cable");
            phone.unplug();
            phone.plugIn();
            link.status();
            tap(phone, "accept");
            assertTrue(link.status().readiness().ready());
            assertEquals(
                    "OS-7F21-0048-9C3E", link.status().identity().orElseThrow().identifier());
            tap(phone, "lock");
            assertThrows(LinkException.NotReady.class, () -> link.list(PhonePath.ROOT));
        }
    }

    @Test
    void aPellowAsksForItsFiveMovements() throws IOException {
        var phone = phone(Family.PELLOW);
        phone.plugIn();
        try (var link = new HttpPhoneLink(phone.address())) {
            for (var step : List.of("unlock", "maker-menu", "cable-access", "cable-mode", "accept")) {
                assertFalse(link.status().readiness().ready());
                tap(phone, step);
            }
            assertTrue(link.status().readiness().ready());
            try (var stranger = new HttpPhoneLink(phone.address())) {
                assertEquals(
                        ReadinessStep.ALLOW_COMPUTER,
                        stranger.status().readiness().next().orElseThrow(),
                        "another computer is asked about anew");
            }
        }
    }

    @Test
    void whatAPhoneDoesNotGiveIsSaidAndNotGiven() throws IOException {
        phone(Family.OSTREL).makeReady();
        phone(Family.OSTREL).plugIn();
        try (var link = new HttpPhoneLink(phone(Family.OSTREL).address())) {
            assertEquals(Withheld.SEALED_ONLY, withheld(link, Kind.WEB));
            assertEquals(Withheld.NOT_WRITTEN, withheld(link, Kind.BURROW));
            assertThrows(LinkException.Item.class, () -> link.open(new PhonePath("store/web/web.db"), 0));
            link.promise(true);
            link.open(new PhonePath("store/web/web.db"), 0).close();
        }
        phone(Family.PELLOW).makeReady();
        phone(Family.PELLOW).plugIn();
        try (var link = new HttpPhoneLink(phone(Family.PELLOW).address())) {
            assertEquals(Withheld.OUT_OF_REACH, withheld(link, Kind.APPS));
            assertThrows(LinkException.Item.class, () -> link.list(new PhonePath("App data/net.example.ferry-pass")));
            tap(phone(Family.PELLOW), "open-phone");
            assertFalse(
                    link.list(new PhonePath("App data/net.example.ferry-pass")).isEmpty());
        }
    }

    private static Withheld withheld(HttpPhoneLink link, Kind kind) throws LinkException {
        return link.status().contents().stream()
                .filter(count -> count.kind() == kind)
                .findFirst()
                .flatMap(KindCount::withheld)
                .orElseThrow();
    }

    @Test
    void aLinkOutOfThePhoneIsListedAsALinkAndNotServed() throws IOException {
        Files.createSymbolicLink(folder.resolve("ostrel/files/escape"), Path.of("/etc"));
        try (var link = ready(Family.OSTREL)) {
            var escape = link.list(PhonePath.ROOT).stream()
                    .filter(Listed.Link.class::isInstance)
                    .findFirst()
                    .orElseThrow();
            assertEquals("/etc", assertInstanceOf(Listed.Link.class, escape).target());
            assertThrows(LinkException.Item.class, () -> link.open(new PhonePath("escape"), 0));
            assertThrows(LinkException.Item.class, () -> link.open(new PhonePath("escape/passwd"), 0));
        }
    }

    @Test
    void theServerDoesNotLeaveItsFolderWhateverIsAsked() throws Exception {
        var phone = phone(Family.OSTREL);
        phone.makeReady();
        phone.plugIn();
        try (var http = HttpClient.newHttpClient()) {
            var token = http.send(
                            HttpRequest.newBuilder(phone.address().resolve("pairing"))
                                    .header("Bench", "b")
                                    .POST(HttpRequest.BodyPublishers.noBody())
                                    .build(),
                            HttpResponse.BodyHandlers.ofString())
                    .body();
            for (var path : List.of(
                    "files/..%2Fphone.json", "files/%2e%2e/phone.json", "files/store/..%2F..%2F..%2Fphone.json")) {
                var answer = http.send(
                        HttpRequest.newBuilder(URI.create(phone.address() + path))
                                .header("Bench", "b")
                                .header("Authorization", "Bearer " + token)
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
                assertEquals(404, answer.statusCode(), path);
            }
        }
    }

    @Test
    void theSameSeedGivesTheSamePhones() throws IOException {
        var again = folder.resolve("again");
        new TableDrawer.Maker().open(again, SMALL).close();
        var other = folder.resolve("other");
        new TableDrawer.Maker().open(other, Contents.sketched(2, 30)).close();

        for (var family : List.of("ostrel", "pellow")) {
            assertEquals(digests(folder.resolve(family)), digests(again.resolve(family)));
            assertNotEquals(digests(folder.resolve(family)), digests(other.resolve(family)));
        }
    }

    private static Map<String, String> digests(Path phone) throws IOException {
        var digests = new TreeMap<String, String>();
        var root = phone.resolve("files");
        try (var files = Files.walk(root)) {
            for (var file : files.filter(Files::isRegularFile).toList()) {
                // A database's bytes hold a change counter and the log a random salt; its rows are compared by the
                // core.
                if (!file.toString().endsWith(".db-wal")) {
                    digests.put(root.relativize(file).toString(), Digests.of(Files.readAllBytes(file)));
                }
            }
        }
        return digests;
    }

    @ParameterizedTest
    @EnumSource(names = {"OSTREL", "PELLOW"})
    void holdsEveryKindAndCountsIt(Family family) throws IOException {
        try (var link = ready(family)) {
            var contents = link.status().contents();
            for (var kind : Kind.values()) {
                var count = contents.stream()
                        .filter(c -> c.kind() == kind)
                        .findFirst()
                        .orElseThrow();
                assertTrue(kind == Kind.OTHER || count.items() > 0, kind.code());
            }
            assertEquals(30, count(contents, Kind.CONTACTS));
            long before = count(contents, Kind.PHOTOS);
            phone(family).takePhotos(3);
            assertEquals(before + 3, count(link.status().contents(), Kind.PHOTOS));
        }
    }

    private static long count(List<KindCount> contents, Kind kind) {
        return contents.stream()
                .filter(c -> c.kind() == kind)
                .mapToLong(KindCount::items)
                .sum();
    }

    @Test
    void fillsUpToTheSizeThatIsAskedFor() throws IOException {
        var loaded = folder.resolve("loaded");
        try (var table =
                new TableDrawer.Maker().open(loaded, Contents.sketched(1, 10).filled(300, 3_000_000))) {
            assertEquals(2, table.phones().size());
            try (var files = Files.walk(loaded.resolve("pellow/files/Shared/Blobs"))) {
                var sizes = files.filter(Files::isRegularFile)
                        .mapToLong(f -> f.toFile().length())
                        .toArray();
                assertEquals(300, sizes.length);
                long sum = Arrays.stream(sizes).sum();
                assertTrue(sum > 2_900_000 && sum <= 3_000_000, "sum " + sum);
            }
        }
    }
}
