package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.ProblemException;
import app.custodex.model.Party;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is blacked out goes in every writing of it, and nothing else goes. */
class RedactionTest {
    private static final String BLACK = Redaction.BLACK;
    /** Ofcom keeps these numbers for drama; see ofcom.org.uk, "Numbers for use in drama". */
    private static final Party MAREN = new Party("07700 900149", "+447700900149", "");

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Maren | Ask Maren first. | Ask # first.",
                "Maren | MAREN, maren and Márén | #, # and #",
                "Maren | Marenka is somebody else | Marenka is somebody else",
                "Maren | Maren's boat | #'s boat",
                "Ærø | the ferry to ærø leaves | the ferry to # leaves",
                "Maren Quill | Maren said that Quill, Maren Quill, came | Maren said that Quill, #, came",
                "浜名 | 昨日浜名に会った | 昨日#に会った",
                "нет | Нет! | #!",
                "נור | שלום נור | שלום #",
                "maren@example.org | write to Maren@Example.org now | write to # now",
                "ab | ab. ab, ab | #. #, #",
            })
    void wordsAreFoundAsASearchFindsThem(String typed, String text, String left) throws ProblemException {
        assertEquals(left.replace("#", BLACK), Redaction.of(typed).text(text));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "07700 900149 | ring +44 7700 900149 | ring +#",
                "+447700900149 | ring 07700-900149 or (07700) 900 149 | ring # or (#",
                "07700900149 | 0044 7700 900149! | #!",
                "07700900149 | ring 07700 900150 | ring 07700 900150",
                "07700900149 | in 2025 | in 2025",
                "1234 | the code is 1234 | the code is #",
            })
    void numbersAreFoundInAnyWriting(String typed, String text, String left) throws ProblemException {
        assertEquals(left.replace("#", BLACK), Redaction.of(typed).text(text));
    }

    @Test
    void ofSomebodyEverythingGoes() throws ProblemException {
        var redaction = Redaction.of("Maren Quill");
        assertFalse(redaction.hides(MAREN, "Maren"), "another one");
        assertTrue(redaction.hides(MAREN, "MAREN QUILL"), "by the name in the contacts");
        assertEquals("ring 07700 900149", redaction.text("ring 07700 900149"), "nobody has told the number yet");
        redaction.learn(MAREN, "Maren Quill");
        assertEquals("ring " + BLACK, redaction.text("ring 07700 900149"));
        assertTrue(redaction.hides(new Party("0044 7700 900149", "", ""), "(unknown)"), "by the number alone");
        assertFalse(redaction.hides(new Party("", "", ""), "(unknown)"), "who has no number is nobody's namesake");
        var byNumber = Redaction.of("07700 900149");
        byNumber.learn(MAREN, "Maren Quill");
        assertEquals(BLACK + " and Maren", byNumber.text("Maren Quill and Maren"), "the name goes with the number");
        redaction.learn(new Party("maren@example.org", "", ""), "maren quill");
        assertEquals("to " + BLACK, redaction.text("to maren@example.org"));
        redaction.learn(new Party("07700 900112", "+447700900112", ""), "Halvard Rook");
        assertEquals("ring 07700 900112", redaction.text("ring 07700 900112"), "he was not chosen");
    }

    @Test
    void placesAreCountedAndTheLengthTellsNothing() throws ProblemException {
        var redaction = Redaction.of("Ann; Bartholomew\nquay, ,");
        assertEquals(BLACK + " met " + BLACK + " at the " + BLACK, redaction.text("Ann met Bartholomew at the quay"));
        assertEquals(3, redaction.places());
        assertEquals(BLACK, redaction.all("a long message that says much"));
        assertEquals("", redaction.all(""), "there was nothing to take out");
        assertEquals(4, redaction.places());
        assertTrue(Redaction.of(" , ;").isEmpty());
        assertEquals("as it was", Redaction.of("").text("as it was"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"!!!", "Maren, …", "👍"})
    void whatCantBeFoundIsRefused(String typed) {
        assertTrue(assertThrows(ProblemException.class, () -> Redaction.of(typed))
                .problem()
                .what()
                .contains("can't be blacked out"));
    }
}
