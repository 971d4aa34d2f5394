package app.custodex.desktop.guide;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.desktop.guide.GuideText.Hit;
import app.custodex.desktop.guide.GuideText.Keys;
import app.custodex.desktop.guide.GuideText.Span;
import app.custodex.desktop.guide.GuideText.Words;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import org.junit.jupiter.api.Test;

final class GuideTextTest {
    private static final String TEXT = """
            # Guide

            Not on any page.

            <!-- page: one -->
            ## First

            It *is* **bold**, over
            two lines.

            - a kettle
            - a `rope`

            | keys | |
            |---|---|
            | Ctrl+B | back up |

            <!-- page: two -->
            ## Kettle

            Nothing more.
            """;

    private final GuideText guide = GuideText.parse(TEXT);

    @Test
    void aPageHasWordsListsAndKeys() {
        assertEquals(2, guide.pages().size());
        var page = guide.page("one");
        assertEquals("First", page.title());
        assertEquals("It is bold, over two lines.", page.blocks().getFirst().plain());
        var first = (Words) page.blocks().getFirst();
        assertTrue(first.spans().contains(new Span("bold", true)));
        assertFalse(first.bullet());
        assertEquals(
                new Words(List.of(new Span("a kettle", false)), true),
                page.blocks().get(1));
        assertEquals("a rope", page.blocks().get(2).plain());
        assertEquals(new Keys("Ctrl+B", "back up"), page.blocks().get(3));
    }

    @Test
    void aPlaceWithoutAPageGetsTheFirst() {
        assertEquals("First", guide.page("nowhere").title());
    }

    @Test
    void whatIsInTheTitleComesFirst() {
        assertEquals(
                List.of("two", "one"),
                guide.find("KETTLE").stream().map(hit -> hit.page().id()).toList());
        assertEquals(
                List.of("a kettle"),
                guide.find("kettle rope").stream().map(Hit::says).toList());
        assertEquals(List.of(), guide.find("kettle violin"));
        assertEquals(2, guide.find(" ").size());
    }

    /** What the application ships is what stands in the docs, and there is a page for every place of the window. */
    @Test
    void theGuideOfTheApplicationIsThatOfTheDocs() throws IOException {
        var shipped = GuideText.load();
        assertEquals(GuideText.parse(Files.readString(Path.of("../docs/guide.md"))), shipped);
        var ids = new HashSet<String>();
        for (var page : shipped.pages()) {
            assertTrue(ids.add(page.id()), "two pages " + page.id());
            assertFalse(page.title().isBlank());
            assertFalse(page.blocks().isEmpty(), page.id());
        }
        for (var place : List.of(
                "start",
                "check-in",
                "back-up",
                "sources",
                "reading-room",
                "pictures",
                "gone-since",
                "find",
                "strongroom")) {
            assertTrue(ids.contains(place), place);
        }
    }
}
