package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Comparison.Change;
import app.custodex.model.Alarm;
import app.custodex.model.MediaFile;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Samples;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.file.Path;
import java.text.Normalizer;
import java.time.Instant;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Layers that follow one another, with things that come, change and go. */
class HistoryTest {
    private static final List<String> WORDS =
            List.of("anchor", "and", "boat", "bö", "b", "storm", "st", "島", "лодка", "Ærø", "oar's", "x9");

    @TempDir
    Path folder;

    private final Random random = new Random(11);

    private Note note(String key) {
        var text = random.ints(3, 0, WORDS.size()).mapToObj(WORDS::get).collect(Collectors.joining(" "));
        return new Note(new ThingId("notes", key), "", "", "", text, Optional.of(Moment.at(Instant.EPOCH)), List.of());
    }

    /** Changes some, drops some, adds some. */
    private void live(Map<String, Thing> things) {
        for (var key : List.copyOf(things.keySet())) {
            switch (random.nextInt(6)) {
                case 0 -> things.put(key, note(key));
                case 1 -> things.remove(key);
                default -> {}
            }
        }
        for (int i = random.nextInt(8); i > 0; i--) {
            // Signs outside the basic plane come behind others in UTF-8, and before some in UTF-16.
            var key = Stream.of("k", "\ue000", "𐐀")
                            .skip(random.nextInt(3))
                            .findFirst()
                            .orElseThrow()
                    + random.nextInt(500);
            things.put(key, note(key));
        }
    }

    private static TreeSet<String> keys(Catalogue catalogue, long... numbers) throws IOException {
        return catalogue.read(numbers).stream()
                .map(entry -> entry.thing().id().key())
                .collect(Collectors.toCollection(TreeSet::new));
    }

    @Test
    void comparingAndFindingAgreeWithAPlainLookThroughEveryLayer() throws IOException {
        var phone = new WrittenReader(folder);
        var things = new TreeMap<String, Thing>();
        for (int i = 0; i < 40; i++) {
            things.put("k" + i, note("k" + i));
        }
        var before = new TreeMap<String, Thing>();
        var below = Optional.<byte[]>empty();
        var older = Optional.<Catalogue>empty();
        for (int layer = 1; layer <= 12; layer++) {
            phone.write("notes", things.values().toArray(Thing[]::new));
            var draft = phone.draft(below, layer);
            below = Optional.of(draft.bytes());
            var newer = draft.handOver();
            assertFound(newer, things);
            if (older.isPresent()) {
                assertCompared(older.get(), newer, before, things);
                older.get().close();
            }
            older = Optional.of(newer);
            before = new TreeMap<>(things);
            live(things);
        }
        older.orElseThrow().close();
    }

    private static void assertFound(Catalogue catalogue, Map<String, Thing> things) throws IOException {
        for (var asked : List.of("a", "an", "b", "bo", "s", "st", "sto", "л", "ло", "島", "o", "x9", "a st", "æ", "9")) {
            var expected = things.entrySet().stream()
                    .filter(e -> Stream.of(asked.split(" "))
                            .allMatch(word -> Stream.of(
                                            ((Note) e.getValue()).text().split("[ ']"))
                                    .anyMatch(of -> bare(of).startsWith(bare(word)))))
                    .map(Map.Entry::getKey)
                    .collect(Collectors.toCollection(TreeSet::new));
            assertEquals(
                    expected,
                    keys(catalogue, catalogue.find(asked, Filter.EVERYTHING, Order.AS_KEPT)),
                    "asked: " + asked);
        }
    }

    private static String bare(String word) {
        return Normalizer.normalize(word, Normalizer.Form.NFD)
                .replaceAll("\\p{M}", "")
                .toLowerCase(Locale.ROOT);
    }

    private static void assertCompared(
            Catalogue older, Catalogue newer, Map<String, Thing> before, Map<String, Thing> after) throws IOException {
        var told = new TreeMap<Change, TreeSet<String>>();
        for (var difference : Comparison.of(older, newer, Set.of()).differences()) {
            var key = difference.after().isPresent()
                    ? keys(newer, difference.after().getAsLong()).first()
                    : keys(older, difference.before().getAsLong()).first();
            told.computeIfAbsent(difference.change(), change -> new TreeSet<>()).add(key);
        }
        var expected = new TreeMap<Change, TreeSet<String>>();
        var all = new TreeSet<>(before.keySet());
        all.addAll(after.keySet());
        for (var key : all) {
            var was = Optional.ofNullable(before.get(key));
            var is = Optional.ofNullable(after.get(key));
            if (!was.equals(is)) {
                expected.computeIfAbsent(
                                was.isEmpty() ? Change.NEW : is.isEmpty() ? Change.GONE : Change.CHANGED,
                                change -> new TreeSet<>())
                        .add(key);
            }
        }
        assertEquals(expected, told);
    }

    private static Thing message(String key, int minute, String text, Message.State state) {
        return Samples.message(
                new ThingId("talk", key),
                new ThingId("talk", "c1"),
                Moment.at(Instant.ofEpochSecond(1_700_000_000L + 60L * minute)),
                Optional.empty(),
                text,
                state);
    }

    /** As a phone does that builds its database anew, or was restored. */
    @Test
    void whatStandsUnderAnotherNumberIsTheSame() throws IOException {
        var phone = new WrittenReader(folder);
        var first = new ArrayList<Thing>();
        for (int n = 0; n < 40; n++) {
            // Two of them say the same at the same time.
            first.add(message("m" + n, n == 8 ? 7 : n, n == 8 ? "text 7" : "text " + n, Message.State.SENT));
        }
        phone.write("talk", first.toArray(Thing[]::new));
        try (var older = phone.catalogue(Optional.empty(), 1)) {
            var second = new ArrayList<Thing>();
            for (int n = 0; n < 42; n++) {
                if (n == 5 || n == 8) {
                    continue; // gone
                }
                // One from before stands in front, so all others move on by one; the last two came.
                second.add(message(
                        "m" + (n + 1),
                        n,
                        n == 20 ? "edited" : "text " + n,
                        n == 30 ? Message.State.READ : Message.State.SENT));
            }
            second.add(message("m0", -1, "an old one", Message.State.SENT));
            phone.write("talk", second.toArray(Thing[]::new));
            try (var newer = phone.catalogue(Optional.empty(), 2)) {
                var told = new TreeMap<Change, TreeSet<String>>();
                for (var difference : Comparison.of(older, newer, Set.of()).differences()) {
                    var in = difference.after().isPresent() ? newer : older;
                    var number = difference.after().isPresent() ? difference.after() : difference.before();
                    var thing = (Message) in.read(number.getAsLong()).getFirst().thing();
                    told.computeIfAbsent(difference.change(), change -> new TreeSet<>())
                            .add(thing.text());
                }
                // What was edited stands under another number too, so it can't be known again.
                assertEquals(new TreeSet<>(Set.of("text 20", "text 5", "text 7")), told.get(Change.GONE));
                assertEquals(new TreeSet<>(Set.of("an old one", "edited", "text 40", "text 41")), told.get(Change.NEW));
                assertEquals(null, told.get(Change.CHANGED));
            }
        }
    }

    private static Thing alarm(String key, int hour) {
        return new Alarm(new ThingId("alarms", key), "", "Wake up", LocalTime.of(hour, 0), List.of(), true, "");
    }

    /** They say the same and have no date: all else that is told of them counts. */
    @Test
    void whatHasNoDateIsKnownByEverythingThatIsToldOfIt() throws IOException {
        var phone = new WrittenReader(folder);
        phone.write("alarms", alarm("1", 6), alarm("2", 7), alarm("3", 8));
        try (var older = phone.catalogue(Optional.empty(), 1)) {
            phone.write("alarms", alarm("4", 6), alarm("5", 8), alarm("6", 9));
            try (var newer = phone.catalogue(Optional.empty(), 2)) {
                var told = new TreeSet<String>();
                for (var difference : Comparison.of(older, newer, Set.of()).differences()) {
                    boolean gone = difference.change() == Change.GONE;
                    long number = gone
                            ? difference.before().getAsLong()
                            : difference.after().getAsLong();
                    told.add(difference.change() + " " + keys(gone ? older : newer, number));
                }
                assertEquals(new TreeSet<>(Set.of("GONE [2]", "NEW [6]")), told);
            }
        }
    }

    @Test
    void aFileWithOtherContentIsChangedThoughItSaysTheSameOfItself() throws IOException {
        var phone = new WrittenReader(folder);
        var picture = new MediaFile(
                new ThingId("roll/1.jpg", ""),
                ThingKind.PICTURE,
                "",
                "1.jpg",
                Optional.empty(),
                5,
                Optional.empty(),
                Optional.empty(),
                List.of(),
                "");
        phone.write("roll/1.jpg", picture);
        try (var older = phone.catalogue(Optional.empty(), 1)) {
            try (var same = phone.catalogue(Optional.empty(), 2)) {
                assertTrue(Comparison.of(older, same, Set.of()).differences().isEmpty());
            }
            phone.write("roll/1.jpg", picture);
            try (var newer = phone.catalogue(Optional.empty(), 3)) {
                var difference =
                        Comparison.of(older, newer, Set.of()).differences().getFirst();
                assertEquals(Change.CHANGED, difference.change());
                assertFalse(difference.before().equals(OptionalLong.empty()));
                assertTrue(Comparison.of(older, newer, Set.of(ThingKind.NOTE))
                        .differences()
                        .isEmpty());
            }
        }
    }
}
