package app.custodex.files;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;

final class RawContentTest {
    private static final String NORDIC =
            "Båten ligger på nordsiden, der sjøen er roligere om høsten; kjølen er skrapt og årene ligger i naustet.";

    @Test
    void utf8IsReadAsItIsEvenWhenItWasCut() {
        var bytes = "Ærlig 灯塔 🙂".getBytes(StandardCharsets.UTF_8);
        assertEquals("Ærlig 灯塔 🙂", RawContent.text(bytes).orElseThrow().text());
        for (int cut = 1; cut < 4; cut++) {
            var found =
                    RawContent.text(Arrays.copyOf(bytes, bytes.length - cut)).orElseThrow();
            assertEquals("Ærlig 灯塔 ", found.text());
            assertEquals("UTF-8", found.encoding());
            assertFalse(found.guessed());
        }
    }

    @Test
    void otherEncodingsAreGuessedAndNamed() {
        var latin =
                RawContent.text(NORDIC.getBytes(StandardCharsets.ISO_8859_1)).orElseThrow();
        assertEquals(NORDIC, latin.text());
        assertTrue(latin.guessed());
        var cyrillic = "Лодка стоит у северного причала, вёсла лежат в сарае, а ключ висит у двери.";
        assertEquals(
                cyrillic,
                RawContent.text(cyrillic.getBytes(Charset.forName("windows-1251")))
                        .orElseThrow()
                        .text());
        var wide = RawContent.text(NORDIC.getBytes(StandardCharsets.UTF_16)).orElseThrow();
        assertEquals(NORDIC, wide.text().replace("\ufeff", ""));
        assertFalse(wide.guessed());
    }

    @Test
    void whatIsNoTextIsNotShownAsText() {
        var random = new byte[4_000];
        new Random(1).nextBytes(random);
        assertEquals(Optional.empty(), RawContent.text(random));
        assertEquals(Optional.empty(), RawContent.text(new byte[] {'a', 0, 'b', 0, 7}));
    }

    @Test
    void longLinesAreBrokenAndNothingIsLost() {
        assertEquals(List.of("a", "", "b"), RawContent.lines("a\r\n\nb\n"));
        var without = "🙂".repeat(5_000);
        var lines = RawContent.lines(without);
        assertEquals(without, String.join("", lines));
        for (var line : lines) {
            assertTrue(line.length() <= 100 && !Character.isLowSurrogate(line.charAt(0)), line);
        }
        assertEquals(List.of(), RawContent.lines(""));
    }

    /** As the program xxd writes it, but for the place's width and its colon. */
    @Test
    void bytesStandSixteenInALine() throws IOException {
        var bytes = new byte[70];
        new Random(2).nextBytes(bytes);
        var lines = RawContent.hex(bytes);
        assertEquals(5, lines.size());
        assertEquals("00000000", lines.getFirst().substring(0, 8));
        assertEquals("00000040", lines.getLast().substring(0, 8));
        for (int line = 0; line < 5; line++) {
            var part = Arrays.copyOfRange(bytes, 16 * line, Math.min(70, 16 * line + 16));
            var values = lines.get(line).substring(10, 10 + 47).strip().split(" ");
            assertEquals(part.length, values.length);
            for (int i = 0; i < part.length; i++) {
                assertEquals(part[i], (byte) Integer.parseInt(values[i], 16));
            }
            assertEquals(10 + 48 + 1 + part.length, lines.get(line).length());
        }
        assertEquals(
                List.of("00000000  41 0a 7e                                         A.~"),
                RawContent.hex(new byte[] {'A', '\n', '~'}));
    }

    @Test
    void aDatabaseIsKnownByItsBeginning() {
        assertTrue(RawContent.isDatabase("SQLite format 3\0 and more".getBytes(StandardCharsets.US_ASCII)));
        assertFalse(RawContent.isDatabase("SQLite format 3".getBytes(StandardCharsets.US_ASCII)));
        assertFalse(RawContent.isDatabase(new byte[0]));
    }
}
