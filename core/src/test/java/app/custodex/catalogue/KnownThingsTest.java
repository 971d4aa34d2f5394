package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.model.Note;
import app.custodex.model.ThingId;
import java.io.IOException;
import java.sql.SQLException;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class KnownThingsTest {
    private static Filed note(String key, String text) {
        try {
            return Filed.of(
                    new Note(new ThingId("notes", key), "", "", "", text, Optional.empty(), List.of()),
                    ZoneOffset.UTC,
                    false);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private static List<Filed> notes(int n) {
        return IntStream.range(0, n).mapToObj(i -> note("key " + i, "text")).toList();
    }

    /** Numbered from 1, in this order. */
    private static KnownThings known(List<Filed> things) throws SQLException {
        return KnownThings.read(written(things));
    }

    private static byte[] written(List<Filed> things) {
        var writer = new KnownThings.Writer();
        for (int i = 0; i < things.size(); i++) {
            writer.add(things.get(i), i + 1);
        }
        return writer.written();
    }

    private static int number(KnownThings known, Filed thing) {
        return known.number(known.take(thing).orElseThrow());
    }

    @Test
    void eachIsFoundInWhateverOrderTheyCome() throws SQLException {
        var things = notes(1_000);
        var order = new ArrayList<>(things);
        for (int i = 0; i < 20; i++) {
            var known = known(things);
            for (var thing : order) {
                assertEquals(things.indexOf(thing) + 1, number(known, thing));
                assertEquals(OptionalInt.empty(), known.take(thing), "it is there once");
            }
            assertEquals(0, known.left().length);
            Collections.shuffle(order, new Random(i));
        }
    }

    @Test
    void whatIsGoneNewOrChangedIsToldFromTheRest() throws SQLException {
        var things = notes(200);
        var known = known(things);
        for (int i = 0; i < 200; i++) {
            if (i >= 50 && i < 90) {
                continue; // further apart than is looked ahead
            }
            var thing = i == 120 ? note("key 120", "another text") : things.get(i);
            int place = known.take(thing).orElseThrow();
            assertEquals(i + 1, known.number(place));
            assertEquals(i != 120, known.isAsItWas(place, thing));
        }
        assertTrue(known.take(note("key 200", "text")).isEmpty());
        assertEquals(
                IntStream.rangeClosed(51, 90).boxed().toList(),
                Arrays.stream(known.left()).boxed().toList());
    }

    @Test
    void oneKeyThatIsUsedVeryOftenTakesNoLonger() throws SQLException {
        int n = 200_000; // each looked for among all others would take hours
        var things = Collections.nCopies(n, note("same", "text"));
        var known = known(things);
        var changed = note("same", "another text");
        var other = note("other", "text");
        var seen = new BitSet();
        for (int i = 0; i < n; i++) {
            assertTrue(known.take(other).isEmpty());
            seen.set(number(known, i % 2 == 0 ? changed : things.getFirst()));
        }
        assertEquals(n, seen.cardinality());
        assertEquals(0, known.left().length);
        assertTrue(known.take(things.getFirst()).isEmpty());
    }

    @Test
    void aTornListIsNotRead() {
        var written = written(notes(3));
        assertThrows(SQLException.class, () -> KnownThings.read(Arrays.copyOf(written, written.length - 1)));
    }
}
