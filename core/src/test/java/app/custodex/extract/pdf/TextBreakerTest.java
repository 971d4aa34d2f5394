package app.custodex.extract.pdf;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Where lines end, in which order their words stand, and that nothing of a text is lost. */
class TextBreakerTest {
    private final Typefaces typefaces = new Typefaces();
    private final TextBreaker breaker = new TextBreaker(typefaces);

    @AfterEach
    void close() throws IOException {
        typefaces.close();
    }

    private List<String> lines(String text, double width) {
        return breaker.lines(text, width, false).stream()
                .map(TextBreakerTest::said)
                .toList();
    }

    private static String said(TextLine line) {
        return line.pieces().stream()
                .flatMap(piece -> piece.clusters().stream())
                .map(Shaped.Cluster::text)
                .collect(Collectors.joining());
    }

    @Test
    void linesEndBetweenWordsAndAtTheirOwnEnds() {
        var text = "The ferry does not run today, and nobody knows when it will.\n\nAsk again.";
        var lines = lines(text, 12_000);
        assertTrue(lines.size() > 4, lines.toString());
        assertEquals("", lines.get(lines.size() - 2), "an empty line stays one");
        assertEquals("Ask again.", lines.getLast());
        assertEquals(text.replaceAll("\\s", ""), String.join("", lines).replaceAll("\\s", ""), "nothing is lost");
        for (var line : breaker.lines(text, 12_000, false)) {
            assertTrue(line.width() <= 12_000 + 300, "a space at the end may stick out: " + line.width());
        }
    }

    /** Unicode Standard Annex 14: no line begins with a closing mark, and none ends with an opening one. */
    @ParameterizedTest
    @ValueSource(
            strings = {"one (two) three, four!", "«un» «deux» «trois»", "海の風（強い）が吹く。", "「今日」と「明日」。", "a\u00a0b\u00a0c d"
            })
    void marksStayWithTheirWords(String text) {
        for (double width = 5_000; width < 9_000; width += 250) { // no word is wider
            for (var line : lines(text, width)) {
                assertFalse(line.matches("[),!»）。」].*"), width + ": " + line);
                assertFalse(line.stripTrailing().matches(".*[(«（「]"), width + ": " + line);
            }
        }
    }

    @Test
    void whatHasNoPlaceToBreakIsBrokenBetweenItsSigns() {
        var word = "https://example.org/" + "x".repeat(500);
        var lines = lines(word, 10_000);
        assertTrue(lines.size() > 10);
        assertEquals(word, String.join("", lines));
        var family = "👨‍👩‍👧".repeat(40);
        for (var line : lines(family, 5_000)) {
            assertEquals(0, line.length() % "👨‍👩‍👧".length(), "none is broken in itself: " + line);
        }
        assertEquals(
                1, lines("narrow", 1).stream().filter(line -> line.equals("n")).count(), "one sign a line at least");
    }

    /** In Unicode Standard Annex 9 numbers keep their order among words from right to left. */
    @Test
    void wordsOfBothDirectionsStandInTheirOrder() {
        var hebrew = breaker.lines("שלום 2025 עולם", 90_000, false).getFirst();
        assertTrue(hebrew.rightToLeft());
        assertTrue(said(hebrew).contains("2025"), said(hebrew));
        assertTrue(said(hebrew).startsWith("ם"), "the last word stands at the left, its last letter first");
        var mixed = breaker.lines("Call נור now", 90_000, false).getFirst();
        assertFalse(mixed.rightToLeft());
        assertTrue(said(mixed).startsWith("Call ") && said(mixed).endsWith(" now"), said(mixed));
    }

    @ParameterizedTest
    @CsvSource({
        "Grüße, 1",
        "สวัสดี, 1",
        "海风, 1",
        "hi海, 2",
        "ok👍, 2",
        "नमस्ते, 1",
        "မြန်မာ, 1",
        "a∑, 2",
        "12 ☎, 2",
    })
    void everyStretchHasTheFontThatDrawsIt(String text, int fonts) {
        var line = breaker.lines(text, 90_000, false).getFirst();
        assertEquals(
                fonts, line.pieces().stream().map(Shaped::typeface).distinct().count(), text);
        assertEquals(text, said(line));
        assertTrue(line.pieces().stream()
                .flatMap(piece -> piece.clusters().stream())
                .flatMap(cluster -> cluster.glyphs().stream())
                .allMatch(glyph -> glyph.number() > 0));
    }

    @Test
    void aSignThatNoFontHasIsGivenByItsNumber() {
        assertEquals(List.of("runes: [U+16A0][U+16A2]"), lines("runes: ᚠᚢ", 90_000));
        var tabs = lines("a\tb", 90_000).getFirst();
        assertEquals("a    b", tabs);
        assertEquals(List.of("ab"), lines("a\u0007b", 90_000), "what is no sign is not drawn");
    }

    @Test
    void boldTextIsWider() {
        assertTrue(
                breaker.line("Łódź", true).width() > breaker.line("Łódź", false).width());
        assertEquals("one two", said(breaker.line("one\ntwo", false)));
    }
}
