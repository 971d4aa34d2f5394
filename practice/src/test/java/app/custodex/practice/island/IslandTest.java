package app.custodex.practice.island;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.practice.island.Life.Outcome;
import app.custodex.practice.island.Talk.Said;
import java.time.DayOfWeek;
import java.time.LocalDateTime;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** The island's life is one, whoever's phone it is looked at on. */
class IslandTest {
    private static final Island ISLAND = new Island(1);

    private static Life life(Islander owner) {
        return ISLAND.life(owner, Life.NOW, Island.Size.ORDINARY);
    }

    /** Who said what when, in a conversation of two, kept or erased. */
    private static Set<String> between(Life life, Islander other) {
        var talk = life.talks().stream()
                .filter(t -> !t.group() && t.members().getFirst().address().equals(other.number()))
                .findFirst()
                .orElseThrow();
        int place = life.talks().indexOf(talk);
        return Stream.concat(life.said().stream(), life.erased().stream())
                .filter(said -> said.talk() == place)
                .map(said -> (said.sent() ? life.owner() : other) + " " + said.at() + " " + said.text())
                .collect(Collectors.toSet());
    }

    @Test
    void theSameWordsStandOnBothPhones() {
        for (var pair : List.of(
                List.of(Islander.FENNA, Islander.JORUN),
                List.of(Islander.IVO, Islander.JORUN),
                List.of(Islander.NOOR, Islander.SUNNIVA))) {
            var one = between(life(pair.getFirst()), pair.getLast());
            assertFalse(one.isEmpty());
            assertEquals(one, between(life(pair.getLast()), pair.getFirst()));
        }
    }

    @Test
    void callsAreMadeOnOnePhoneAndComeInOnTheOther() {
        var fenna = life(Islander.FENNA);
        var jorun = life(Islander.JORUN);
        var made = calls(fenna, Islander.JORUN, call -> call.outcome() == Outcome.MADE);
        var came = calls(jorun, Islander.FENNA, call -> call.outcome() != Outcome.MADE);
        assertFalse(made.isEmpty());
        assertEquals(made, came);
    }

    private static List<LocalDateTime> calls(Life life, Islander other, Predicate<Life.Call> which) {
        return life.calls().stream()
                .filter(call -> call.address().equals(other.number()))
                .filter(which)
                .map(Life.Call::at)
                .toList();
    }

    @Test
    void theSameSeedGivesTheSameLifeAndAnotherOneAnother() {
        assertEquals(life(Islander.FENNA), new Island(1).life(Islander.FENNA, Life.NOW, Island.Size.ORDINARY));
        assertNotEquals(
                life(Islander.FENNA).said(),
                new Island(2)
                        .life(Islander.FENNA, Life.NOW, Island.Size.ORDINARY)
                        .said());
    }

    @ParameterizedTest
    @EnumSource(Islander.class)
    void everybodyHasAWholeLife(Islander owner) {
        var life = life(owner);
        assertTrue(life.said().size() > 500, life.said().size() + " messages");
        assertTrue(life.calls().size() > 20, life.calls().size() + " calls");
        assertTrue(life.shots().size() > 80, life.shots().size() + " pictures");
        assertFalse(life.erased().isEmpty());
        assertEquals(
                life.said().stream().sorted(Comparator.comparing(Said::at)).toList(), life.said(), "in order of time");
        for (var said : life.said()) {
            assertFalse(said.at().isAfter(Life.NOW));
            // A reply answers something that was said before it, in the same conversation.
            said.replyTo().map(life.said()::get).ifPresent(answered -> {
                assertEquals(said.talk(), answered.talk());
                assertTrue(answered.at().isBefore(said.at()));
            });
            assertFalse(said.text().contains("{"), said.text());
            assertTrue(said.by().isEmpty() || said.by().startsWith("+447700900"), said.by());
        }
        // Seasons and days have their say: it snows in winter only, and the nights are quiet.
        assertTrue(life.said().stream()
                .filter(said -> said.text().contains("First snow"))
                .allMatch(said -> Weather.season(said.at().toLocalDate()).equals("winter")));
        long night =
                life.said().stream().filter(said -> said.at().getHour() < 5).count();
        assertTrue(
                night * 20 < life.said().size(),
                night + " at night of " + life.said().size());
    }

    @Test
    void nobodyIsHeardBeforeTheyJoinAfterTheyLeaveOrFromBeyond() {
        for (var owner : List.of(Islander.FENNA, Islander.NOOR, Islander.SUNNIVA)) {
            var life = life(owner);
            for (var said : life.said()) {
                var talk = life.talks().get(said.talk());
                talk.members().stream()
                        .filter(member -> member.address().equals(said.by()))
                        .forEach(member -> {
                            assertFalse(said.at()
                                    .isBefore(member.joined().toLocalDate().atStartOfDay()));
                            assertTrue(member.left().map(said.at()::isBefore).orElse(true));
                        });
                assertFalse(
                        said.by().equals(Islander.HALVARD.number()) && said.at().isAfter(Islander.LAST_VOICEMAIL));
            }
        }
        assertTrue(life(Islander.FENNA).talks().stream()
                .anyMatch(talk ->
                        talk.members().stream().anyMatch(member -> member.left().isPresent())));
    }

    @Test
    void anEarlierDayIsTheSameLifeUpToThen() {
        var then = LocalDateTime.of(2025, 6, 30, 11, 0);
        var earlier = ISLAND.life(Islander.SUNNIVA, then, Island.Size.ORDINARY);
        var later = life(Islander.SUNNIVA);
        var known = new HashSet<String>();
        Stream.concat(later.said().stream(), later.erased().stream())
                .forEach(said -> known.add(said.at() + said.text()));
        assertTrue(earlier.said().stream().allMatch(said -> known.contains(said.at() + said.text())));
        assertTrue(earlier.said().stream().noneMatch(said -> said.at().isAfter(then)));
        assertEquals(
                earlier.calls(),
                later.calls().stream().filter(call -> !call.at().isAfter(then)).toList());
        // Something that was there then was erased since.
        assertTrue(earlier.said().stream()
                .anyMatch(said -> later.erased().stream()
                        .anyMatch(gone ->
                                gone.at().equals(said.at()) && gone.text().equals(said.text()))));
    }

    @Test
    void theStoriesAreTold() {
        var jorun = life(Islander.JORUN);
        assertTrue(jorun.said().stream()
                .anyMatch(said -> said.text().equals("Sold. Bring a bucket")
                        && said.former().equals(Optional.of("Sold. Bring a boat"))));
        var fenna = life(Islander.FENNA);
        assertTrue(fenna.voicemails().stream().anyMatch(mail -> mail.address().equals(Islander.HALVARD.number())));
        assertTrue(fenna.said().stream().anyMatch(said -> said.text().contains("He says to mind the third step")));
        long storm = fenna.said().stream()
                .filter(said -> said.at().toLocalDate().equals(Weather.STORM_NIGHT))
                .count();
        assertTrue(storm > 15, storm + " in the storm night");
        var practice = fenna.events().stream()
                .filter(event -> event.title().equals("Choir practice"))
                .findFirst()
                .orElseThrow();
        assertEquals(DayOfWeek.TUESDAY, practice.from().getDayOfWeek());
    }

    @Test
    void aLoadHasAboutAsMuchAsIsAsked() {
        var life = ISLAND.life(Islander.FENNA, Life.NOW, new Island.Size(40_000, 3_000, 1_000));
        assertEquals(40_000, life.said().size(), 4_000);
        assertEquals(3_000, life.calls().size(), 300);
        assertEquals(1_000, life.shots().size(), 50);
    }
}
