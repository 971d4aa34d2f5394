package app.custodex.link;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Json;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What makers' programs left on a computer is listed from the disk: what can't be read is told, never left out. */
class MakerBackupsTest {
    @TempDir
    Path home;

    private Path crate(String place, String name, Instant made) throws IOException {
        var crate = Files.createDirectories(home.resolve(place).resolve(name));
        var label = new CrateLabel(
                1,
                made,
                Family.PELLOW,
                "PB-1",
                name,
                "Fell",
                "S-1",
                "",
                "Base 9",
                "GB",
                ZoneId.of("UTC"),
                9,
                false,
                List.of());
        Json.PAGE.writeValue(crate.resolve(CrateLabel.FILE).toFile(), label);
        Files.write(crate.resolve(CrateLabel.BODY), new byte[100]);
        return crate;
    }

    @Test
    void theNewestComesFirstAndAHomeWithoutAnyHoldsNone() throws IOException {
        crate("Pellow copies", "old", Instant.parse("2024-01-01T00:00:00Z"));
        crate("Ostrel copies", "new", Instant.parse("2025-01-01T00:00:00Z"));
        crate("Elsewhere", "not looked for", Instant.parse("2025-02-01T00:00:00Z"));
        Files.writeString(home.resolve("Pellow copies/read me.txt"), "no backup");
        var there = MakerBackups.in(List.of(home.resolve("nobody"), home));
        assertEquals(
                List.of("new", "old"),
                there.found().stream().map(found -> found.label().name()).toList());
        assertTrue(there.found().getFirst().bytes() > 100, "label and body");
        assertEquals(List.of(), there.problems());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "null",
                "[]",
                "{}",
                "{\"crate\":2}",
                "{\"crate\":1,\"made\":\"yesterday\"}",
                "{\"crate\":1,\"family\":\"loft\"}"
            })
    void aLabelThatSaysNothingIsTold(String label) throws IOException {
        var crate = crate("Pellow copies", "torn", Instant.EPOCH);
        Files.writeString(crate.resolve(CrateLabel.FILE), label);
        var there = MakerBackups.in(List.of(home));
        assertEquals(List.of(), there.found());
        assertEquals(crate.toString(), there.problems().getFirst().subject());
        try (var link = new CrateLink("id", "torn", crate)) {
            assertTrue(link.status().readiness().next().isPresent(), "it is never ready");
        }
    }
}
