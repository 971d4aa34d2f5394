package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Spine.Span;
import app.custodex.catalogue.Spine.View;
import app.custodex.model.Call;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Time, kinds and people of a layer, against a plain look at everything that is in it. */
class SpineTest {
    private static final Instant BEGIN = Instant.parse("2024-02-28T22:00:00Z");

    /** Of the phone that the reader makes. */
    private static final ZoneId ZONE = ZoneId.of("Etc/GMT-1");

    @TempDir
    Path folder;

    private final Random random = new Random(5);
    private final List<Thing> things = new ArrayList<>();

    private Catalogue catalogue() throws IOException {
        addThings();
        var phone = new WrittenReader(folder);
        phone.write("all", things.toArray(Thing[]::new));
        return phone.catalogue(Optional.empty(), 1);
    }

    private void addThings() {
        for (int i = 0; i < 3_000; i++) {
            var id = new ThingId("all", Integer.toString(i));
            var moment = random.nextInt(10) == 0
                    ? Optional.<Moment>empty()
                    : Optional.of(Moment.at(BEGIN.plusSeconds(random.nextInt(80_000_000))));
            var number = "+4477009000" + (10 + random.nextInt(5));
            things.add(
                    random.nextBoolean()
                            ? new Note(id, "", "", "t", "", moment, List.of())
                            : new Call(
                                    id,
                                    "",
                                    moment,
                                    random.nextBoolean()
                                            ? List.of(new Party(number, number, ""))
                                            : List.of(
                                                    new Party(number, number, ""),
                                                    new Party("+447700900099", "+447700900099", "")),
                                    Call.Outcome.MADE,
                                    Call.Medium.VOICE,
                                    Duration.ZERO));
        }
    }

    private static Optional<Instant> at(Thing thing) {
        return thing.moment().map(moment -> moment.instant(ZONE));
    }

    @Test
    void whatIsSeenIsWhatAPlainLookFinds() throws IOException {
        try (var catalogue = catalogue()) {
            var spine = catalogue.spine();
            assertEquals(things.size(), spine.size());
            assertEquals(things.stream().filter(t -> at(t).isEmpty()).count(), spine.undated());
            var entries =
                    catalogue.read(LongStream.rangeClosed(1, things.size()).toArray());
            for (int round = 0; round < 200; round++) {
                long from = BEGIN.toEpochMilli() + random.nextInt(40_000_000) * 1_000L;
                var span = new Span(from, from + 1 + random.nextInt(40_000_000) * 1_000L);
                var kinds = new BitSet();
                if (random.nextBoolean()) {
                    kinds.set(ThingKind.CALL.ordinal());
                }
                var numbers = new BitSet();
                for (int i = 0; i < 1_000; i++) {
                    numbers.set(1 + random.nextInt(things.size()));
                }
                var seen = spine.see(new View(Optional.of(span), kinds, Optional.of(numbers)));
                long calls = 0;
                long notes = 0;
                for (var entry : entries) {
                    boolean in = numbers.get((int) entry.number())
                            && at(entry.thing())
                                    .filter(t -> t.toEpochMilli() >= span.from() && t.toEpochMilli() < span.until())
                                    .isPresent();
                    calls += in && entry.thing() instanceof Call ? 1 : 0;
                    notes += in && entry.thing() instanceof Note ? 1 : 0;
                }
                assertEquals(calls, seen.of(ThingKind.CALL));
                assertEquals(notes, seen.of(ThingKind.NOTE), "a kind that is left out is counted all the same");
                assertEquals(
                        kinds.isEmpty() ? seen.of(ThingKind.CALL) + seen.of(ThingKind.NOTE) : seen.of(ThingKind.CALL),
                        seen.places().length);
                assertArrayEquals(Arrays.stream(seen.places()).sorted().toArray(), seen.places());
            }
        }
    }

    /** A phone may say anything; a timeline of a hundred million years would show nothing and take for ever. */
    @Test
    void whatSaysAnImpossibleYearHasNoPlaceInTime() throws IOException {
        var phone = new WrittenReader(folder);
        var party = List.of(new Party("+447700900010", "+447700900010", ""));
        var years = List.of("-0300-01-01", "1970-01-01", "9998-01-01", "+10001-01-01", "+200000000-01-01");
        for (int i = 0; i < years.size(); i++) {
            var moment =
                    Moment.at(LocalDate.parse(years.get(i)).atStartOfDay(ZONE).toInstant());
            things.add(new Call(
                    new ThingId("all", Integer.toString(i)),
                    "",
                    Optional.of(moment),
                    party,
                    Call.Outcome.MADE,
                    Call.Medium.VOICE,
                    Duration.ZERO));
        }
        phone.write("all", things.toArray(Thing[]::new));
        try (var catalogue = phone.catalogue(Optional.empty(), 1)) {
            assertEquals(5, catalogue.spine().size());
            assertEquals(3, catalogue.spine().undated());
            assertEquals(2, catalogue.inTouch().getFirst().all());
            var span = catalogue.spine().span().orElseThrow();
            assertTrue(CalendarStep.of(span, 150).edges(span, ZONE).length < 1_000);
        }
    }

    @Test
    void theOrderOfTheNextLayerIsThatOfOneReadFromTheBeginning() throws IOException {
        addThings();
        for (var year : List.of("-000004", "0000", "+52000")) {
            things.add(dated("year " + year, Instant.parse(year + "-05-01T00:00:00Z")));
        }
        var phone = new WrittenReader(folder);
        phone.write("all", things.toArray(Thing[]::new));
        byte[] below;
        try (var draft = phone.draft(Optional.empty(), 1)) {
            below = draft.bytes();
        }
        things.subList(400, 450).clear();
        for (int i = 0; i < things.size(); i += 7) {
            things.set(i, dated(things.get(i).id().key(), BEGIN.plusSeconds(random.nextInt(80_000_000))));
        }
        things.add(dated("new", BEGIN));
        things.add(dated("before time", Instant.parse("-000005-05-01T00:00:00Z")));
        phone.write("all", things.toArray(Thing[]::new));
        try (var next = phone.catalogue(Optional.of(below), 2);
                var whole = phone.catalogue(Optional.empty(), 2)) {
            assertEquals(places(whole), places(next));
        }
    }

    private static Note dated(String key, Instant at) {
        return new Note(new ThingId("all", key), "", "", "t", "", Optional.of(Moment.at(at)), List.of());
    }

    /** What each place of a spine says, in its order. */
    private static List<String> places(Catalogue catalogue) throws IOException {
        var spine = catalogue.spine();
        var places = new ArrayList<String>();
        var things =
                catalogue.read(Arrays.stream(spine.numbers()).asLongStream().toArray());
        for (int place = 0; place < spine.size(); place++) {
            places.add(things.get(place).thing().id().key() + " " + spine.kind(place) + " " + spine.at(place) + " "
                    + spine.day(place) + " " + spine.bytes(place));
        }
        return places;
    }

    @ParameterizedTest
    @EnumSource(CalendarStep.class)
    void stretchesOfTimeHoldEachThingOnce(CalendarStep step) throws IOException {
        try (var catalogue = catalogue()) {
            var spine = catalogue.spine();
            var edges = step.edges(spine.span().orElseThrow(), ZoneId.of("Europe/Oslo"));
            for (int i = 1; i < edges.length; i++) {
                assertTrue(edges[i] > edges[i - 1], step + " at " + Instant.ofEpochMilli(edges[i]));
            }
            int all = Arrays.stream(spine.counts(edges, Optional.empty()))
                    .mapToInt(bar -> Arrays.stream(bar).sum())
                    .sum();
            assertEquals(spine.size() - spine.undated(), all);
        }
    }

    @ParameterizedTest
    @CsvSource({
        "3600,100,HOUR",
        "86400,100,HOUR",
        "864000,100,QUARTER_DAY",
        "8640000,150,DAY",
        "86400000,150,WEEK",
        "864000000,150,QUARTER",
        "8640000000,50,TEN_YEARS"
    })
    void theFinestStepIsTakenOfWhichThereIsRoom(long seconds, int most, CalendarStep expected) {
        var span = new Span(BEGIN.toEpochMilli(), BEGIN.toEpochMilli() + 1_000 * seconds);
        assertEquals(expected, CalendarStep.of(span, most));
        assertTrue(expected == CalendarStep.TEN_YEARS || expected.edges(span, ZONE).length <= most + 2);
    }

    /** Europe/Oslo goes from UTC+1 to UTC+2 on 2026-03-29 at 01:00 UTC, and back on 2026-10-25 (IANA time zone database). */
    @ParameterizedTest
    @CsvSource({"2026-03-28T23:00:00Z,23", "2026-10-24T22:00:00Z,25", "2026-06-01T22:00:00Z,24"})
    void aDayHasAsManyHoursAsItHas(Instant midnight, int hours) {
        var zone = ZoneId.of("Europe/Oslo");
        var day = CalendarStep.DAY.edges(new Span(midnight.toEpochMilli(), midnight.toEpochMilli() + 1), zone);
        assertEquals(2, day.length);
        var inHours = CalendarStep.HOUR.edges(new Span(day[0], day[1]), zone);
        assertEquals(hours + 1, inHours.length);
    }

    @Test
    void everybodyIsInTouchOnTheDaysOfWhatTheyAreIn() throws IOException {
        try (var catalogue = catalogue()) {
            var days = new HashMap<String, Map<Integer, Integer>>();
            for (var thing : things) {
                at(thing)
                        .ifPresent(at -> thing.people()
                                .forEach(party -> days.computeIfAbsent(party.e164(), any -> new HashMap<>())
                                        .merge(
                                                (int) LocalDate.ofInstant(at, ZONE)
                                                        .toEpochDay(),
                                                1,
                                                Integer::sum)));
            }
            var touched = catalogue.inTouch();
            assertEquals(
                    days.keySet(),
                    touched.stream()
                            .flatMap(who -> who.person().addresses().stream())
                            .collect(Collectors.toSet()));
            for (var who : touched) {
                var expected = days.getOrDefault(who.person().addresses().getFirst(), Map.of());
                assertEquals(expected.values().stream().mapToLong(n -> n).sum(), who.all());
                assertEquals(
                        expected.keySet().stream().mapToInt(day -> day).max().orElseThrow(), who.last());
                var filter = new Filter(
                        Set.of(),
                        OptionalLong.of(who.person().id()),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        false,
                        Optional.empty());
                assertTrue(catalogue.find(filter, Order.AS_KEPT).length >= who.all(), "those without a date beside");
            }
        }
    }
}
