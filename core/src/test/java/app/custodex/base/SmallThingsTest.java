package app.custodex.base;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.backup.Pace;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class SmallThingsTest {
    @TempDir
    Path folder;

    /** FIPS 180-4, the worked example "abc" of NIST's "Examples with Intermediate Values", SHA-512. */
    @Test
    void digestsThePublishedExample() {
        assertEquals(
                "ddaf35a193617abacc417349ae20413112e6fa4e89a97ea20a9eeee64b55d39a"
                        + "2192992a274fc1a836ba3c23a3feebbd454d4423643ce80e2a9ac94fa54ca49f",
                Digests.of("abc".getBytes(StandardCharsets.US_ASCII)));
    }

    /** RFC 3339 §5.8 gives the first four; the others are forms that are near the usual one. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "1985-04-12T23:20:50.52Z",
                "1996-12-19T16:39:57-08:00",
                "1990-12-31T23:59:60Z",
                "1937-01-01T12:00:27.87+00:20",
                "2026-03-01T00:00:00Z",
                "2026-02-29T00:00:00Z",
                "2024-02-29T23:59:59.999999999Z",
                "2026-01-01T24:00:00Z",
                "2026-01-01T10:00:00.Z",
                "2026-01-01T10:00:00.1234567890Z",
                "2026-13-01T10:00:00Z",
                "-0044-03-15T12:00:00Z",
                "+12026-03-01T00:00:00Z",
                "2026-03-01 00:00:00Z",
                "2026-03-01",
                "Z",
                ""
            })
    void timesAreReadAsTheStandardLibraryReadsThem(String text) {
        assertEquals(parsed(Instant::parse, text), parsed(Timestamps::parse, text));
    }

    private static Optional<Instant> parsed(Function<String, Instant> parser, String text) {
        try {
            return Optional.of(parser.apply(text));
        } catch (DateTimeParseException e) {
            return Optional.empty();
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Fenna Rook|Fenna Rook",
                "a/b\\c:d|a b c d",
                "../../etc/passwd|etc passwd",
                "...|Contacts",
                "CON|_CON",
                "lpt1.txt|_lpt1.txt",
                "<script>|script",
                "trailing. |trailing",
                "نور سعيد|نور سعيد",
                "海斗 🌊|海斗 🌊"
            })
    void makesFileNamesThatEverySystemTakes(String wish, String name) {
        assertEquals(name, SafeNames.of(wish, "Contacts"));
    }

    @Test
    void fileNamesHoldNoControlsAndStayShort() {
        var name = SafeNames.of("line\nbreak\u0000\u202E" + "海".repeat(300), "x");
        assertTrue(name.startsWith("line break 海"), name);
        assertTrue(name.getBytes(StandardCharsets.UTF_8).length <= 180);
        assertEquals("x", SafeNames.of("\n\t ", "x"));
    }

    @Test
    void aNameThatIsTakenGetsANumber() throws IOException {
        Files.createFile(folder.resolve("a.vcf"));
        Files.createFile(folder.resolve("a (2).vcf"));
        assertEquals(folder.resolve("a (3).vcf"), SafeNames.free(folder, "a", ".vcf"));
    }

    @ParameterizedTest
    @CsvSource({"0,0 B", "999,999 B", "1000,1.0 kB", "999949,999.9 kB", "999950,1.0 MB", "41800000000,41.8 GB"})
    void sizesAreDecimal(long bytes, String words) {
        assertEquals(words, Sizes.bytes(bytes, Locale.UK).replace('\u00a0', ' '));
    }

    @ParameterizedTest
    @CsvSource({"3,under 10 s", "41,about 40 s", "89,about 90 s", "360,about 6 min", "7500,about 2 h 5 min"})
    void timeLeftIsNoMoreExactThanItsEstimate(long seconds, String words) {
        assertEquals(words, Sizes.about(Duration.ofSeconds(seconds)));
    }

    /** A recorded run: 30 s of small files at 500 a second, then large ones at 80 MB a second. */
    @Test
    void timeLeftFollowsWhicheverSpeedIsTheTighter() {
        var pace = new Pace();
        var start = Instant.parse("2026-01-18T10:00:00Z");
        assertEquals(Optional.empty(), pace.left(1, 1));
        for (int s = 0; s <= 30; s++) {
            pace.at(start.plusSeconds(s), s * 1_000_000L, s * 500L);
        }
        assertEquals(1_000_000, pace.bytesPerSecond());
        assertEquals(Duration.ofSeconds(100), pace.left(10_000_000, 50_000).orElseThrow());
        for (int s = 31; s <= 70; s++) {
            pace.at(start.plusSeconds(s), 30_000_000L + (s - 30) * 80_000_000L, 15_000L + s);
        }
        assertEquals(80_000_000, pace.bytesPerSecond());
        assertEquals(Duration.ofSeconds(50), pace.left(4_000_000_000L, 20).orElseThrow());
    }

    @Test
    void aClockThatIsSetBackStartsTheEstimateAnew() {
        var pace = new Pace();
        var start = Instant.parse("2026-01-18T10:00:00Z");
        pace.at(start, 0, 0);
        pace.at(start.plusSeconds(10), 1000, 10);
        pace.at(start.minusSeconds(3600), 2000, 20);
        assertEquals(0, pace.bytesPerSecond());
        assertTrue(pace.left(1, 1).isEmpty());
    }

    @Test
    void aPrivatePlaceIsGoneAfterwardsAndCleansUpAfterAKilledProgram() throws IOException {
        var parent = folder.resolve("reading");
        // What a killed program leaves: its folder and a lock that nobody holds.
        var abandoned = Files.createDirectories(parent.resolve("reading-123"));
        Files.writeString(abandoned.resolve("phone.db"), "private");
        Files.createFile(parent.resolve("reading-123.lock"));
        Path used;
        try (var place = PrivatePlace.open(parent)) {
            used = place.folder();
            Files.writeString(used.resolve("phone.db"), "private");
            assertFalse(Files.exists(abandoned));
            try (var second = PrivatePlace.open(parent)) {
                assertTrue(Files.exists(used), "another program's place is left alone");
                assertTrue(Files.exists(second.folder()));
            }
        }
        try (var left = Files.list(parent)) {
            assertEquals(0, left.count());
        }
    }

    @Test
    void deletingAFolderDoesNotFollowLinksOutOfIt() throws IOException {
        var outside = Files.writeString(folder.resolve("outside"), "keep");
        var inside = Files.createDirectories(folder.resolve("inside/deep"));
        Files.createSymbolicLink(inside.resolve("link"), folder);
        new RealDisk().delete(folder.resolve("inside"));
        assertTrue(Files.exists(outside));
        assertFalse(Files.exists(folder.resolve("inside")));
    }
}
