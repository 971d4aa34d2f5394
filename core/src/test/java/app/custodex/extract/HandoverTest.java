package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.CancelToken;
import app.custodex.base.Json;
import app.custodex.base.ProblemException;
import app.custodex.extract.Delivery.Form;
import app.custodex.extract.formats.Formats;
import app.custodex.model.KindGroup;
import app.custodex.seal.AgeProgram;
import app.custodex.seal.Passphrase;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.Test;

/** Packages by BagIt (RFC 8493), taken apart by ordinary programs. */
class HandoverTest extends ExtractionCase {
    private static final String PASSPHRASE = "lantern orbit meadow cinder";

    private Written.FromCatalogue material() {
        return new Written.FromCatalogue(catalogue, contact -> Optional.empty(), OSLO);
    }

    private List<Extraction.Order> everything() throws IOException {
        var orders = new ArrayList<Extraction.Order>();
        for (var group : Extraction.groups(catalogue, all()).entrySet()) {
            var usual = Formats.of(group.getKey()).getFirst().code();
            orders.add(Written.order(group.getKey(), group.getValue(), usual));
        }
        return orders;
    }

    private static Delivery as(Form form) {
        return new Delivery(form, Optional.empty());
    }

    private static String run(Path in, String... command) throws IOException, InterruptedException {
        var process = new ProcessBuilder(command)
                .directory(in.toFile())
                .redirectErrorStream(true)
                .start();
        process.getOutputStream().close();
        var said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertEquals(0, process.waitFor(), said);
        return said;
    }

    /** All that RFC 8493 asks for; every digest is found by the program of coreutils. */
    private void checkBag(Path bag) throws IOException, InterruptedException {
        assertEquals(
                List.of("BagIt-Version: 1.0", "Tag-File-Character-Encoding: UTF-8"),
                Files.readAllLines(bag.resolve("bagit.txt")));
        run(bag, "sha512sum", "-c", "--strict", "--quiet", "manifest-sha512.txt");
        run(bag, "sha512sum", "-c", "--strict", "--quiet", "tagmanifest-sha512.txt");
        var manifest = Files.readAllLines(bag.resolve("manifest-sha512.txt"));
        long bytes = 0;
        int files = 0;
        try (var data = Files.walk(bag.resolve("data"))) {
            for (var file : data.filter(Files::isRegularFile).toList()) {
                var name = bag.relativize(file).toString();
                assertTrue(manifest.stream().anyMatch(line -> line.endsWith("  " + name)), name + " is in no list");
                bytes += Files.size(file);
                files++;
            }
        }
        assertEquals(files, manifest.size(), "nothing is listed that is not there");
        var info = Files.readString(bag.resolve("bag-info.txt"));
        assertTrue(info.contains("Payload-Oxum: " + bytes + "." + files + "\n"), info);
        assertTrue(info.contains("Bagging-Date: 2025-11-20\n"), info);
        assertTrue(info.contains("External-Identifier: docket 0012\n"), info);
        assertEquals(
                3, Files.readAllLines(bag.resolve("tagmanifest-sha512.txt")).size());
    }

    @Test
    void aBagIsWholeAndItsStartPageLeadsThroughEverything() throws Exception {
        Written.write(material(), everything(), as(Form.BAG), folder.resolve("out"));
        var bag = folder.resolve("out/a phone");
        checkBag(bag);
        var file = bag.resolve("data/Start here.html");
        var page = Jsoup.parse(Files.readString(file), "", org.jsoup.parser.Parser.htmlParser());
        // Nothing of the data runs: there are two scripts, one of which is data, and the other one has the digest that
        // is allowed.
        assertEquals(2, page.select("script").size());
        var own = page.select("script").get(1).data();
        var digest = Base64.getEncoder()
                .encodeToString(MessageDigest.getInstance("SHA-256").digest(own.getBytes(StandardCharsets.UTF_8)));
        assertEquals(
                "default-src 'none'; style-src 'unsafe-inline'; script-src 'sha256-" + digest + "'",
                page.select("meta[http-equiv=Content-Security-Policy]").attr("content"));
        assertEquals(0, page.select("[onerror], [onload], img, iframe, link").size());
        var index = Json.LINE.readTree(page.select("#index").get(0).data());
        var found = 0;
        for (var thing : index.get("things")) {
            var address = index.get("files").get(thing.get(0).asInt()).asText();
            if (thing.get(3).asText().contains("Wind is over the wall")) {
                assertEquals("Messages", thing.get(1).asText());
                assertEquals("2025-11-14 21:04", thing.get(2).asText());
                assertTrue(thing.get(3).asText().contains("Halvard Rook"), "who wrote it");
                var target =
                        bag.resolve("data").resolve(java.net.URI.create(address).getPath());
                assertTrue(
                        Files.readString(target).contains("Wind is over the wall"), "it is in the file that is named");
                found++;
            }
        }
        assertEquals(1, found);
        for (var link : page.select("a[href]")) {
            assertTrue(
                    Files.exists(bag.resolve("data")
                            .resolve(java.net.URI.create(link.attr("href")).getPath())),
                    link.toString());
        }
        assertTrue(page.text().contains("attachments that the phone no longer has: 1"));
    }

    /** What is blacked out in a transcript must not stand in the index of the package. */
    @Test
    void theIndexSaysNothingThatWasBlackedOut() throws Exception {
        var numbers = Extraction.groups(catalogue, all()).getOrDefault(KindGroup.MESSAGES, new long[0]);
        var order = Written.order(KindGroup.MESSAGES, numbers, "pdf:black-out=Halvard Rook, reversed");
        Written.write(material(), List.of(order), as(Form.BAG), folder.resolve("out"));
        var page = Files.readString(folder.resolve("out/a phone/data/Start here.html"));
        for (var gone : List.of("Halvard", "Wind is over", "reversed", "مرحبا")) {
            assertFalse(page.contains(gone), gone);
        }
        var index = Json.LINE.readTree(Jsoup.parse(page).select("#index").get(0).data());
        assertEquals(numbers.length, index.get("things").size());
        assertTrue(page.contains("line two " + "海"), "the rest is found");
    }

    @Test
    void aPackageInOneFileIsTheSameBag() throws Exception {
        Written.write(material(), everything(), as(Form.ZIP), folder.resolve("out"));
        var zip = folder.resolve("out/a phone.zip");
        run(
                folder,
                "python3",
                "-c",
                "import sys, zipfile; z = zipfile.ZipFile(sys.argv[1]); assert z.testzip() is None; z.extractall('apart')",
                zip.toString());
        checkBag(folder.resolve("apart/a phone"));
        try (var there = Files.list(folder.resolve("out"))) {
            assertEquals(List.of(zip), there.toList(), "nothing lies beside it");
        }
    }

    @Test
    void aSealedPackageIsOpenedByTheProgramAge() throws Exception {
        try (var passphrase = new Passphrase(PASSPHRASE.toCharArray());
                var again = new Passphrase(PASSPHRASE.toCharArray())) {
            Written.write(material(), everything(), Delivery.sealed(passphrase, again), folder.resolve("out"));
        }
        var sealed = folder.resolve("out/a phone.zip.age");
        assertFalse(Files.readString(sealed, StandardCharsets.ISO_8859_1).contains("Wind is over"));
        var zip = folder.resolve("opened.zip");
        AgeProgram.decryptWithPassphrase(PASSPHRASE, sealed, zip);
        run(
                folder,
                "python3",
                "-c",
                "import sys, zipfile; zipfile.ZipFile(sys.argv[1]).extractall('apart')",
                zip.toString());
        checkBag(folder.resolve("apart/a phone"));
    }

    @Test
    void whatIsStoppedLeavesNoHalfOfAPackage() throws IOException {
        var cancel = new CancelToken();
        assertThrows(
                CancellationException.class,
                () -> Written.write(
                        material(),
                        everything(),
                        as(Form.ZIP),
                        folder.resolve("out"),
                        done -> cancel.cancel(),
                        cancel));
        try (var there = Files.list(folder.resolve("out"))) {
            assertEquals(0, there.count());
        }
    }

    @Test
    void aPassphraseThatIsSoonGuessedSealsNothing() {
        try (var weak = new Passphrase("summer1".toCharArray());
                var same = new Passphrase("summer1".toCharArray());
                var other = new Passphrase("lantern orbit meadow".toCharArray())) {
            assertTrue(assertThrows(ProblemException.class, () -> Delivery.sealed(weak, same))
                    .problem()
                    .what()
                    .startsWith("This passphrase would fall in"));
            assertThrows(ProblemException.class, () -> Delivery.sealed(weak, other));
        }
    }

    /** What is too large for memory lies on the disk so that nobody can read it, and comes back as it was. */
    @Test
    void aLargeFileWaitsEncrypted() throws IOException {
        var piece = "The wall still stands. ".repeat(1_000).getBytes(StandardCharsets.UTF_8);
        try (var spool = new Spool()) {
            for (int i = 0; i < 500; i++) {
                spool.write(piece);
            }
            var content = spool.content();
            int waiting = 0;
            try (var open = Files.list(Path.of("/proc/self/fd"))) {
                for (var each : open.toList()) {
                    if (target(each).endsWith(".spool (deleted)")) {
                        waiting++;
                        assertFalse(Files.readString(each, StandardCharsets.ISO_8859_1)
                                .contains("wall still"));
                    }
                }
            }
            assertEquals(1, waiting, "it has no name any more, and nobody can read it");
            for (int i = 0; i < 500; i++) {
                assertEquals(
                        new String(piece, StandardCharsets.UTF_8),
                        new String(content.readNBytes(piece.length), StandardCharsets.UTF_8));
            }
            assertEquals(-1, content.read());
            assertEquals(500L * piece.length, spool.size());
            content.close();
        }
    }

    @Test
    void roomIsMeasuredBeforeAnythingIsWritten() throws IOException {
        var originals = everything().stream()
                .filter(order -> order.format().writesFilesAsTheyAre())
                .toList();
        var room = Room.of(catalogue, originals, Form.FILES, folder.resolve("not/there/yet"));
        assertEquals(5 + 5 + 9, room.needed(), "two pictures and a song");
        assertEquals(9, room.largest());
        assertEquals(Files.getFileStore(folder).getUsableSpace(), room.free(), 1L << 30);
        assertEquals(Optional.empty(), room.trouble());
        assertTrue(room.about().toMillis() < 100, "a few bytes");
        var converted =
                List.of(Written.order(KindGroup.PICTURES, originals.getFirst().numbers(), "originals:pictures=jpeg"));
        assertEquals(
                originals.getFirst().count(),
                Room.of(catalogue, converted, Form.FILES, folder).about().toSeconds(),
                "a second a picture");
        var zip = Room.of(catalogue, originals, Form.ZIP, folder);
        assertEquals(zip.needed(), zip.largest(), "all of it is one file");
        assertTrue(new Room("/x", 10, 10, 9, Optional.empty(), Duration.ZERO)
                .trouble()
                .orElseThrow()
                .sentence()
                .startsWith("/x: 10 B are needed at least, and 9 B are free there."));
        long limit = (1L << 32) - 1;
        assertEquals(
                Optional.empty(), new Room("/x", limit, limit, 1L << 40, Optional.of(limit), Duration.ZERO).trouble());
        assertTrue(new Room("/x", limit + 1, limit + 1, 1L << 40, Optional.of(limit), Duration.ZERO)
                .trouble()
                .isPresent());
    }

    /** Of an open file; others of this program may close theirs meanwhile. */
    private static String target(Path open) throws IOException {
        try {
            return Files.readSymbolicLink(open).toString();
        } catch (NoSuchFileException closed) {
            return "";
        }
    }
}
