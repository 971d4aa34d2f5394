package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Lists.Section;
import app.custodex.catalogue.Lists.Sorting;
import app.custodex.model.Call;
import app.custodex.model.MediaFile;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.file.Path;
import java.text.Collator;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Lists of one kind in their orders, against sorting the things themselves. */
class ListsTest {
    private static final List<String> TITLES = List.of("apple", "Zebra", "Åse", "zoo", "Ære", "äpple", "boat", "Boat");

    @TempDir
    Path folder;

    private final Random random = new Random(21);

    private Optional<Moment> moment() {
        return Optional.of(Moment.at(Instant.ofEpochSecond(1_700_000_000L + random.nextInt(9_000_000))));
    }

    private Catalogue catalogue() throws IOException {
        var phone = new WrittenReader(folder);
        var things = new ArrayList<Thing>();
        for (int i = 0; i < 400; i++) {
            var number = "+4477009000" + (10 + random.nextInt(5));
            things.add(new Call(
                    new ThingId("all", "c" + i),
                    "",
                    moment(),
                    List.of(new Party(number, number, "")),
                    Call.Outcome.TAKEN,
                    Call.Medium.VOICE,
                    Duration.ofSeconds(random.nextInt(4_000))));
            things.add(new Note(
                    new ThingId("all", "n" + i),
                    "",
                    "Folder " + random.nextInt(3),
                    TITLES.get(random.nextInt(TITLES.size())),
                    "",
                    moment(),
                    List.of(),
                    i % 5 == 0 ? Optional.empty() : moment()));
            things.add(new MediaFile(
                    new ThingId("all", "p" + i),
                    ThingKind.PICTURE,
                    "",
                    "p" + i,
                    moment(),
                    random.nextInt(1 << 20),
                    Optional.empty(),
                    Optional.empty(),
                    List.of(),
                    ""));
        }
        phone.write("all", things.toArray(Thing[]::new));
        return phone.catalogue(Optional.empty(), 1);
    }

    private static int[] of(Catalogue catalogue, ThingKind kind) throws IOException {
        return Arrays.stream(catalogue.find(Filter.EVERYTHING.of(kind), Order.AS_KEPT))
                .mapToInt(number -> (int) number)
                .toArray();
    }

    private static List<Thing> things(Catalogue catalogue, int[] numbers) throws IOException {
        return catalogue.read(Arrays.stream(numbers).asLongStream().toArray()).stream()
                .map(entry -> entry.thing())
                .toList();
    }

    @Test
    void callsByPersonCountAndAddUp() throws IOException {
        try (var catalogue = catalogue()) {
            var calls = of(catalogue, ThingKind.CALL);
            var arranged = catalogue.arranged(calls, Sorting.PERSON, Locale.UK);
            var listed = things(catalogue, arranged.numbers());
            var byPerson = things(catalogue, calls).stream()
                    .collect(Collectors.groupingBy(
                            call -> call.people().getFirst().e164()));
            assertEquals(byPerson.size(), arranged.sections().size());
            for (var section : arranged.sections()) {
                var theirs = byPerson.getOrDefault(section.name(), List.of());
                assertEquals(theirs.size(), section.count());
                assertEquals(
                        theirs.stream().map(call -> ((Call) call).length()).reduce(Duration.ZERO, Duration::plus),
                        section.length());
                for (int row = section.first(); row < section.first() + section.count(); row++) {
                    assertEquals(
                            section.name(), listed.get(row).people().getFirst().e164());
                }
            }
            var counts = arranged.sections().stream().map(Section::count).toList();
            assertEquals(counts.stream().sorted(Comparator.reverseOrder()).toList(), counts, "most often first");
        }
    }

    @Test
    void notesByWhenTheyWereMadeEndWithThoseOfWhichNobodyKnows() throws IOException {
        try (var catalogue = catalogue()) {
            var notes = of(catalogue, ThingKind.NOTE);
            var listed = things(
                    catalogue,
                    catalogue.arranged(notes, Sorting.MADE, Locale.UK).numbers());
            var made = listed.stream().map(thing -> ((Note) thing).made()).toList();
            var known =
                    made.stream().flatMap(Optional::stream).map(Moment::text).toList();
            assertEquals(notes.length, listed.size());
            assertEquals(known.stream().sorted(Comparator.reverseOrder()).toList(), known);
            assertEquals(320, known.size());
            assertTrue(made.subList(320, 400).stream().allMatch(Optional::isEmpty));
        }
    }

    @Test
    void eachSortingIsThatOfTheThingsThemselves() throws IOException {
        try (var catalogue = catalogue()) {
            var longest = things(
                    catalogue,
                    catalogue
                            .arranged(of(catalogue, ThingKind.CALL), Sorting.LONGEST, Locale.UK)
                            .numbers());
            for (int i = 1; i < longest.size(); i++) {
                assertTrue(((Call) longest.get(i - 1)).length().compareTo(((Call) longest.get(i)).length()) >= 0);
            }
            var largest = things(
                    catalogue,
                    catalogue
                            .arranged(of(catalogue, ThingKind.PICTURE), Sorting.LARGEST, Locale.UK)
                            .numbers());
            for (int i = 1; i < largest.size(); i++) {
                assertTrue(largest.get(i - 1).bytes() >= largest.get(i).bytes());
            }
            // Å comes at the end in Danish (CLDR), and with the A in English; the Java library's collation is the
            // witness.
            for (var locale : List.of(Locale.UK, Locale.of("da"))) {
                var titles = things(
                                catalogue,
                                catalogue
                                        .arranged(of(catalogue, ThingKind.NOTE), Sorting.NAME, locale)
                                        .numbers())
                        .stream()
                        .map(Thing::title)
                        .distinct()
                        .toList();
                var expected =
                        TITLES.stream().sorted(Collator.getInstance(locale)).toList();
                assertEquals(expected, titles, locale.toString());
            }
            var folders = catalogue.arranged(of(catalogue, ThingKind.NOTE), Sorting.SHELF, Locale.UK);
            assertEquals(
                    List.of("Folder 0", "Folder 1", "Folder 2"),
                    folders.sections().stream().map(Section::name).toList());
        }
    }
}
