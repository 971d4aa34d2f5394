package app.custodex.search;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.search.Marks.Mark;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

class WordChangesTest {
    private static String marked(String text, List<Mark> marks) {
        return marks.stream()
                .map(mark -> text.substring(mark.from(), mark.until()))
                .collect(Collectors.joining("|"));
    }

    private static String without(String text, List<Mark> marks) {
        var rest = new StringBuilder(text);
        for (var mark : marks.reversed()) {
            rest.delete(mark.from(), mark.until());
        }
        return rest.toString();
    }

    @Test
    void whatWentAndWhatCameAreWholeWords() {
        var before = "Lamp\nRope, doubled\nLighthouse key\nDog";
        var after = "Lamp\nRope, tripled\nDog\nSecond kettle";
        var changes = WordChanges.between(before, after);
        assertEquals("doubled|Lighthouse key\n", marked(before, changes.before()));
        assertEquals("tripled|\nSecond kettle", marked(after, changes.after()));
        var same = WordChanges.between(before, before);
        assertTrue(same.before().isEmpty() && same.after().isEmpty());
        assertEquals("灯台", marked("海の灯台", WordChanges.between("海の灯台", "海の").before()));
        var all = WordChanges.between("", "new 😀");
        assertEquals("new 😀", marked("new 😀", all.after()));
        assertTrue(all.before().isEmpty());
    }

    @Test
    void whatIsNotMarkedIsTheSameOnBothSides() {
        var random = new Random(3);
        var words = List.of("boat", "rope", "Ærø", "灯台", "نور", "😀", ", ", "\n", " ");
        for (int round = 0; round < 400; round++) {
            var before = random.ints(random.nextInt(30), 0, words.size())
                    .mapToObj(words::get)
                    .collect(Collectors.joining(" "));
            var after = random.ints(random.nextInt(30), 0, words.size())
                    .mapToObj(words::get)
                    .collect(Collectors.joining(" "));
            var changes = WordChanges.between(before, after);
            assertEquals(without(before, changes.before()), without(after, changes.after()));
        }
    }

    @Test
    void textsOfAnyLengthAreCompared() {
        var book = "word ".repeat(60_000);
        assertEquals(List.of(), WordChanges.between(book, book).before());
        assertEquals(
                List.of(new Mark(0, book.length())),
                WordChanges.between(book, "word").before());
    }
}
