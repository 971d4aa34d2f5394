package app.custodex.desktop.reading;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Sums of heights and the row at a place, against plain addition. */
class HeightsTest {
    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 7, 8, 9, 100, 1_023, 1_024, 1_025})
    void sumsAndPlacesAreThoseOfPlainAddition(int rows) {
        var random = new Random(rows);
        var heights = new Heights(rows, 32);
        var plain = new int[rows];
        java.util.Arrays.fill(plain, 32);
        for (int round = 0; round < 300; round++) {
            int row = random.nextInt(rows);
            plain[row] = random.nextInt(400) + 1;
            heights.measured(row, plain[row]);
            assertTrue(heights.isMeasured(row));
            int before = 0;
            int asked = random.nextInt(rows);
            for (int i = 0; i < asked; i++) {
                before += plain[i];
            }
            assertEquals(before, heights.before(asked));
            assertEquals(plain[asked], heights.of(asked));
            // Every pixel of a row belongs to it, the first and the last too.
            assertEquals(asked, heights.at(before));
            assertEquals(asked, heights.at(before + plain[asked] - 1));
        }
        assertEquals(java.util.Arrays.stream(plain).sum(), heights.all());
        assertEquals(rows - 1, heights.at(heights.all() + 1_000), "below all is the last one");
    }

    @Test
    void afterAnotherWidthEverythingIsAGuessAgain() {
        var heights = new Heights(10, 30);
        heights.measured(3, 300);
        heights.guess(40);
        assertEquals(400, heights.all());
        assertFalse(heights.isMeasured(3));
        assertEquals(7, heights.at(7 * 40 + 39));
    }

    @Test
    void nothingHasNoHeight() {
        var heights = new Heights(0, 30);
        assertEquals(0, heights.all());
        assertEquals(0, heights.rows());
    }
}
