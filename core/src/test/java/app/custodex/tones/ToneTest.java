package app.custodex.tones;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.link.Family;
import app.custodex.media.SoundCut;
import app.custodex.readers.families.FamilyTones;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ToneTest {
    private static Tone tone(Family family, ToneUse use, long millis, long fade) {
        var from = Duration.ofSeconds(3);
        var fading = Duration.ofMillis(fade);
        return new Tone("Tide", new SoundCut(from, from.plusMillis(millis), fading, fading, false), use, family);
    }

    @Test
    void eachFamilyTakesSoMuchAndNoMore() {
        assertEquals(List.of(Family.OSTREL, Family.PELLOW), FamilyTones.families());
        for (var family : FamilyTones.families()) {
            var rules = FamilyTones.of(family).orElseThrow();
            for (var use : ToneUse.values()) {
                long longest = rules.longest(use).toMillis();
                assertEquals(Optional.empty(), tone(family, use, longest, 0).trouble(rules));
                var told = tone(family, use, longest + 250, 0)
                        .trouble(rules)
                        .orElseThrow()
                        .sentence();
                assertTrue(told.contains("shorter by 0.25 s"), told);
            }
        }
        assertEquals(Optional.empty(), FamilyTones.of(Family.FOLDER));
    }

    @Test
    void itDoesNotFadeForLongerThanItLasts() {
        var rules = FamilyTones.of(Family.PELLOW).orElseThrow();
        assertEquals(
                Optional.empty(),
                tone(Family.PELLOW, ToneUse.RING, 4_000, 2_000).trouble(rules));
        assertTrue(
                tone(Family.PELLOW, ToneUse.RING, 4_000, 2_001).trouble(rules).isPresent());
    }

    @Test
    void aPieceThatEndsBeforeItBeginsIsNone() {
        var second = Duration.ofSeconds(1);
        assertThrows(
                IllegalArgumentException.class,
                () -> new SoundCut(second, second, Duration.ZERO, Duration.ZERO, false));
    }

    @ParameterizedTest
    @CsvSource({"0, 0", "62.5, 62500", "1:02.5, 62500", "'1:02,5', 62500", "' 12:00 ', 720000", "0:00.0004, 0"})
    void timesAreReadAsPeopleWriteThem(String typed, long millis) {
        assertEquals(Optional.of(Duration.ofMillis(millis)), Tone.time(typed));
    }

    @ParameterizedTest
    @CsvSource({"''", "x", "-1", "1:2:3", "1:", ":5", "1e3", "99999999999999999999"})
    void whatIsNoTimeIsNone(String typed) {
        assertEquals(Optional.empty(), Tone.time(typed));
    }

    @Test
    void whatIsShownIsReadAgain() {
        for (long millis : new long[] {0, 10, 59_990, 60_000, 3_599_990, 6_000_000}) {
            var time = Duration.ofMillis(millis);
            assertEquals(Optional.of(time), Tone.time(Tone.text(time)), Tone.text(time));
        }
        assertEquals("1:00.00", Tone.text(Duration.ofMillis(59_996)), "rounded as a whole");
    }
}
