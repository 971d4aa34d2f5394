package app.custodex.desktop.reading;

import static org.junit.jupiter.api.Assertions.assertEquals;

import app.custodex.model.MediaFile.Place;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

final class ThingWordsTest {
    @ParameterizedTest
    @CsvSource({"0, 0:00", "38, 0:38", "60, 1:00", "754, 12:34", "3600, 1:00:00", "3734, 1:02:14", "360000, 100:00:00"})
    void lengthsAreWrittenAsOnAClock(long seconds, String words) {
        assertEquals(words, ThingWords.length(Duration.ofSeconds(seconds)));
    }

    @Test
    void placesNameTheHalvesOfTheGlobe() {
        assertEquals("57.10000° N, 7.40000° W", ThingWords.place(new Place(57.1, -7.4)));
        assertEquals("0.50000° S, 12.00000° E", ThingWords.place(new Place(-0.5, 12)));
    }
}
