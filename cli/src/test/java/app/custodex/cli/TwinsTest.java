package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Json;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is there twice, and what is nowhere else. */
class TwinsTest extends CommandTest {
    private static final String PHONE = "Fenna's phone";

    @TempDir
    Path elsewhere;

    private Path picture() throws IOException {
        try (var files = Files.walk(home().practice().resolve("ostrel"))) {
            return files.filter(file -> file.toString().matches(".*/roll/.*[.]jpg"))
                    .sorted()
                    .findFirst()
                    .orElseThrow();
        }
    }

    @Test
    void twinsAreToldWithTheirReasons() throws IOException {
        var picture = picture();
        Files.copy(picture, picture.resolveSibling("again.jpg"));
        Files.writeString(picture.resolveSibling("torn.jpg"), "no picture");
        doneOwn("backup", "ostrel", "--quiet");
        var ended = runOwn("twins", PHONE);
        assertCode(3, "torn.jpg: It can't be shown", ended);
        var told = ended.out();
        assertTrue(told.contains("one person: the same number +44"), told);
        var same = told.substring(told.indexOf("the same file: the same content, byte for byte"));
        assertTrue(same.lines().skip(1).takeWhile(line -> line.startsWith("\t")).count() >= 2, told);
        for (var line : runOwn("twins", PHONE, "--json").out().lines().toList()) {
            var set = Json.LINE.readTree(line);
            assertTrue(set.get("things").size() > 1, line);
            assertTrue(!set.get("reason").asText().isBlank(), line);
        }
    }

    @Test
    void whatIsNowhereElseIsTold() throws IOException {
        doneOwn("backup", "ostrel", "--quiet");
        var here =
                doneOwn("only-here", PHONE, elsewhere.toString()).out().lines().toList();
        assertEquals(here.size() - 1 + " only here, 0 elsewhere too; 0 items there", here.getLast());
        Files.copy(picture(), elsewhere.resolve("mine.jpg"));
        var kept = doneOwn("only-here", PHONE, elsewhere.toString(), "--kept")
                .out()
                .lines()
                .toList();
        assertTrue(kept.size() > 1 && kept.getFirst().contains("the same content is in "), kept.toString());
        int there = kept.size() - 1;
        assertEquals(here.size() - 1 - there + " only here, " + there + " elsewhere too; 1 item there", kept.getLast());
        var line = Json.LINE.readTree(doneOwn("only-here", PHONE, elsewhere.toString(), "--json")
                .out()
                .lines()
                .findFirst()
                .orElseThrow());
        assertTrue(!line.get("elsewhere").asBoolean());
        assertCode(
                1,
                "It is not there",
                runOwn("only-here", PHONE, elsewhere.resolve("nowhere").toString()));
    }
}
