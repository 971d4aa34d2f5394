package app.custodex.backup;

import static app.custodex.backup.Backups.assertHolds;
import static app.custodex.backup.Backups.run;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.Fault;
import app.custodex.Fault.Of;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.RealDisk;
import app.custodex.link.FolderLink;
import app.custodex.link.Kind;
import app.custodex.link.Limits;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhoneContent;
import app.custodex.link.PhonePath;
import app.custodex.link.PhoneStatus;
import app.custodex.strongroom.ManifestItem;
import app.custodex.strongroom.Strongroom;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Phones that stop answering in the midst of something, never stop answering, or answer with something else. */
class StopAndStallTest {
    @TempDir
    Path root;

    private final CancelToken cancel = new CancelToken();

    /** What one of a phone's answers is replaced by. */
    private static class OddPhone extends FakePhone {
        final CountDownLatch asked = new CountDownLatch(1);

        OddPhone() {
            super("PB-ODD");
            put("a", bytes("a"));
            put("folder/b", bytes("b"));
        }

        final void standStill() {
            asked.countDown();
            try {
                new CountDownLatch(1).await(); // nothing comes, ever
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }

    private BackupRun backup(FakePhone phone, BackupRequest request) throws IOException {
        return new BackupRun(phone, Strongroom.make(root, new RealDisk()), request, Clock.systemUTC(), cancel);
    }

    private static BackupRequest request() {
        return BackupRequest.everything(Duration.ofHours(2), "test");
    }

    private void stopsAtOnce(OddPhone phone) throws Exception {
        var run = backup(phone, request());
        try (var threads = Executors.newSingleThreadExecutor()) {
            var ended = threads.submit(run::run);
            phone.asked.await();
            cancel.cancel();
            assertTimeoutPreemptively(
                    Duration.ofSeconds(10),
                    () -> assertTrue(
                            assertThrows(java.util.concurrent.ExecutionException.class, ended::get)
                                            .getCause()
                                    instanceof CancellationException));
        }
    }

    @Test
    @Fault(Of.STALL)
    void itStopsWhileTheListingStalls() throws Exception {
        stopsAtOnce(new OddPhone() {
            @Override
            public synchronized List<Listed> list(PhonePath folder) throws LinkException {
                if (!folder.equals(PhonePath.ROOT)) {
                    standStill();
                }
                return super.list(folder);
            }
        });
    }

    @Test
    @Fault(Of.STALL)
    void itStopsWhileThePhoneDoesNotSayHowItIs() throws Exception {
        stopsAtOnce(new OddPhone() {
            @Override
            public PhoneStatus status() throws LinkException {
                standStill();
                return super.status();
            }
        });
    }

    @Test
    @Fault(Of.STALL)
    void itStopsWhileAnItemIsNotOpenedAndWhileItsBytesDoNotCome() throws Exception {
        stopsAtOnce(new OddPhone() {
            @Override
            public synchronized PhoneContent open(PhonePath file, long offset) throws LinkException {
                standStill();
                return super.open(file, offset);
            }
        });
    }

    @Test
    void aListThatDoesNotEndIsToldAndTheRestIsTakenAndAPersonMayGoBeyond() throws IOException {
        var phone = new OddPhone() {
            @Override
            public synchronized List<Listed> list(PhonePath folder) throws LinkException {
                var listed = new ArrayList<>(super.list(folder));
                if (folder.text().startsWith("folder")) {
                    listed.add(new Listed.Folder(folder.child("again")));
                }
                return listed.size() > 0 && folder.text().length() < 2_000 ? listed : List.of();
            }
        };
        var result = backup(phone, request()).run();
        assertTrue(
                result.problems().stream()
                        .anyMatch(p ->
                                p.what().contains("folders deep") && p.advice().contains(Limits.ADVICE)),
                result.problems().toString());
        assertEquals(1, result.layer().missed());
        var beyond = new BackupRun(
                        phone,
                        Strongroom.open(root, new RealDisk()),
                        request().within(Limits.NONE),
                        Clock.systemUTC(),
                        new CancelToken())
                .run();
        assertEquals(0, beyond.layer().missed(), beyond.problems().toString());
    }

    @Test
    void moreItemsThanAnyPhoneHoldsAreTakenForAFault() throws IOException {
        var phone = new OddPhone();
        for (int i = 0; i < 50; i++) {
            phone.put("many/" + i, new byte[] {1});
        }
        var few = new Limits(40, 1_000, 200, 4_096, 200);
        var result = backup(phone, request().within(few)).run();
        assertTrue(result.problems().stream().anyMatch(p -> p.what().contains("more than 40 items")));
    }

    @Test
    void whatIsListedTwiceIsOneItemAndThatIsTold() throws IOException {
        var phone = new OddPhone() {
            @Override
            public synchronized List<Listed> list(PhonePath folder) throws LinkException {
                var listed = new ArrayList<>(super.list(folder));
                listed.addAll(super.list(folder));
                return listed;
            }
        };
        var result = backup(phone, request()).run();
        assertTrue(result.problems().stream().anyMatch(p -> p.what().contains("more than once")));
        assertEquals(2, result.layer().items());
    }

    /** Four readers wait for the same phone; their patience is one. */
    @Test
    @Fault(Of.CABLE)
    void thePatienceOfSeveralReadersDoesNotAddUp() throws Exception {
        var now = new Instant[] {Instant.parse("2026-01-01T00:00:00Z")};
        var clock = new Clock() {
            @Override
            public java.time.ZoneId getZone() {
                return ZoneOffset.UTC;
            }

            @Override
            public Clock withZone(java.time.ZoneId zone) {
                return this;
            }

            @Override
            public synchronized Instant instant() {
                now[0] = now[0].plusSeconds(600); // each look at the clock is ten minutes later
                return now[0];
            }
        };
        var phone = new FakePhone("PB-GONE") {
            @Override
            public PhoneStatus status() throws LinkException {
                throw new LinkException.Lost("the phone", null);
            }

            @Override
            public Duration askEvery() {
                return Duration.ofMillis(1);
            }
        };
        var asked = new AtomicInteger();
        var gate = new Gate(phone, "PB-GONE", Duration.ofHours(2), clock, cancel, w -> asked.incrementAndGet());
        for (int reader = 0; reader < 4; reader++) {
            var trouble = new LinkException.Lost("the phone", null);
            assertThrows(LinkException.Lost.class, () -> gate.awaitPhone(trouble));
        }
        assertTrue(
                Duration.between(Instant.parse("2026-01-01T00:00:00Z"), now[0]).compareTo(Duration.ofHours(3)) < 0);
    }

    /** A sign-in page, an error message, or a copy that was cut on the way, in place of the file that is listed. */
    @Test
    void whatIsSentInPlaceOfAFileIsNotStored() throws IOException {
        var pages = Map.of("longer", "<html>Please sign in</html>", "shorter", "x", "other", "AAAA");
        var phone = new FakePhone("PB-PAGE") {
            @Override
            public synchronized PhoneContent open(PhonePath file, long offset) throws LinkException {
                var page = pages.get(file.text());
                return page == null
                        ? super.open(file, offset)
                        : new PhoneContent(page.length(), "\"page\"", new ByteArrayInputStream(bytes(page)));
            }
        };
        pages.keySet().forEach(path -> phone.put(path, FakePhone.bytes("real")));
        phone.put("good", FakePhone.bytes("good"));
        var result = backup(phone, request()).run();
        assertEquals(3, result.layer().missed(), result.problems().toString());
        assertTrue(result.problems().stream().allMatch(p -> p.what().contains("not the file that is listed")));
        assertHolds(
                Strongroom.open(root, new RealDisk()),
                phone,
                1,
                Map.of(new PhonePath("good"), FakePhone.bytes("good")));
    }

    @Test
    void aFailureThatNobodyForesawIsTheTroubleOfItsItem() throws IOException {
        var phone = new FakePhone("PB-BUG") {
            @Override
            public synchronized PhoneContent open(PhonePath file, long offset) throws LinkException {
                if (file.text().equals("bad")) {
                    throw new IllegalStateException("index 7 out of bounds");
                }
                return super.open(file, offset);
            }

            @Override
            public Kind kindOf(PhonePath file, Kind byPlace, byte[] content) {
                if (file.text().equals("odd")) {
                    throw new ArithmeticException();
                }
                return byPlace;
            }
        };
        phone.put("bad", FakePhone.bytes("bad"));
        phone.put("odd", FakePhone.bytes("odd"));
        phone.put("good", FakePhone.bytes("good"));
        var result = backup(phone, request()).run();
        assertEquals(2, result.layer().missed());
        assertFalse(
                result.problems().toString().contains("Exception"),
                result.problems().toString());
        assertFalse(result.problems().toString().contains("out of bounds"));
    }

    @Test
    void aLayerThatCannotBeReadBackIsThereAllTheSame() throws IOException {
        var phone = new OddPhone();
        var strongroom = Strongroom.make(root, new RealDisk());
        var run = new BackupRun(phone, strongroom, request(), Clock.systemUTC(), cancel);
        Files.createDirectories(root.resolve("checks"));
        Files.createDirectory(root.resolve("checks/" + sha256("PB-ODD") + ".jsonl")); // a log that can't be written
        var result = run.run();
        assertEquals(1, result.layer().number());
        assertTrue(result.check().isEmpty());
        assertTrue(result.problems().stream().anyMatch(p -> p.what().contains("could not be read back")));
    }

    private static String sha256(String text) {
        try {
            return java.util.HexFormat.of()
                    .formatHex(
                            java.security.MessageDigest.getInstance("SHA-256").digest(FakePhone.bytes(text)));
        } catch (java.security.NoSuchAlgorithmException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void emptyFoldersLinksAndWhatHasNoContentAreKeptWithTheirTimes() throws Exception {
        var tree = Files.createDirectories(root.resolve("tree/empty/inner"));
        Files.createSymbolicLink(root.resolve("tree/link"), Path.of("elsewhere"));
        new ProcessBuilder(
                        "touch",
                        "-h",
                        "-d",
                        "2020-02-02T02:02:02Z",
                        root.resolve("tree/link").toString())
                .start()
                .waitFor();
        new ProcessBuilder("mkfifo", root.resolve("tree/pipe").toString())
                .start()
                .waitFor();
        var time = Instant.parse("2021-01-01T00:00:00Z");
        Files.setLastModifiedTime(tree, FileTime.from(time));
        var strongroom = Strongroom.make(root.resolve("strongroom"), new RealDisk());
        try (var link = new FolderLink("FOLDER-1", "Card", root.resolve("tree"), () -> root.resolve("none"))) {
            var result = new BackupRun(link, strongroom, request(), Clock.systemUTC(), cancel).run();
            assertEquals(1, result.layer().items(), "folders and pipes are no items");
            assertEquals(0, result.layer().missed(), "a pipe has no content that could be missing");
        }
        var items = new TreeMap<String, ManifestItem>();
        try (var layer = strongroom.layer("FOLDER-1", 1).orElseThrow()) {
            layer.forEach(item -> items.put(item.path().text(), item));
        }
        assertEquals(
                ManifestItem.Type.FOLDER,
                Objects.requireNonNull(items.get("empty/inner")).type());
        assertEquals(time, Objects.requireNonNull(items.get("empty/inner")).modified());
        assertEquals(
                ManifestItem.Type.LINK,
                Objects.requireNonNull(items.get("link")).type());
        assertEquals(
                Instant.parse("2020-02-02T02:02:02Z"),
                Objects.requireNonNull(items.get("link")).modified());
        assertEquals(
                ManifestItem.Type.LEFT_OUT,
                Objects.requireNonNull(items.get("pipe")).type());
        assertTrue(Objects.requireNonNull(items.get("pipe"))
                .problem()
                .orElseThrow()
                .what()
                .contains("named pipe"));
    }

    @Test
    void aLargeFileIsKnownByItsContentToo() throws IOException {
        Files.createDirectories(root.resolve("tree"));
        var picture = new byte[5_000_000];
        picture[0] = (byte) 0xff;
        picture[1] = (byte) 0xd8;
        picture[2] = (byte) 0xff;
        Files.write(root.resolve("tree/no-ending"), picture);
        var strongroom = Strongroom.make(root.resolve("strongroom"), new RealDisk());
        try (var link = new FolderLink("FOLDER-1", "Card", root.resolve("tree"), () -> root.resolve("none"))) {
            var result = new BackupRun(link, strongroom, request(), Clock.systemUTC(), cancel).run();
            assertEquals(Kind.PHOTOS, result.layer().kinds().getFirst().kind());
        }
    }

    @Test
    void aLayerOfManyStoredFilesKeepsFewOfThemOpen() throws Exception {
        var phone = new FakePhone("PB-MANY");
        for (int i = 0; i < 30; i++) {
            phone.put("file-" + i, new byte[3_500_000 + i]); // each closes its sealed pack
        }
        var strongroom = Strongroom.make(root, new RealDisk());
        try (var words = new app.custodex.seal.Passphrase("four unrelated words, honest".toCharArray())) {
            strongroom.seal(phone.identity(), words);
        }
        run(phone, strongroom).run();
        try (var layer = strongroom.layer("PB-MANY", 1).orElseThrow()) {
            for (var path : layer.in(PhonePath.ROOT)) {
                try (InputStream in = layer.open(path)) {
                    in.readAllBytes();
                }
            }
            try (var open = Files.list(Path.of("/proc/self/fd"))) {
                long packs = open.map(fd -> {
                            try {
                                return Optional.of(Files.readSymbolicLink(fd).toString());
                            } catch (IOException closedMeanwhile) {
                                return Optional.<String>empty();
                            }
                        })
                        .filter(target -> target.filter(t -> t.contains(root.toString()) && t.contains("pack-"))
                                .isPresent())
                        .count();
                assertTrue(packs > 0 && packs <= 8, packs + " packs are open");
            }
        }
        assertTrue(strongroom.holdings().phones().getFirst().newest().freshItems() == 30);
        assertEquals(List.<Problem>of(), strongroom.holdings().problems());
    }
}
