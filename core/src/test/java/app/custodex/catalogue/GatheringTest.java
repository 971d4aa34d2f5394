package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.catalogue.Lists.Section;
import app.custodex.catalogue.Lists.Sorting;
import app.custodex.model.Album;
import app.custodex.model.Attachment;
import app.custodex.model.Conversation;
import app.custodex.model.MediaFile;
import app.custodex.model.MediaFile.Place;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.Playlist;
import app.custodex.model.Samples;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class GatheringTest {
    @TempDir
    Path folder;

    private static Optional<Moment> at(int second) {
        return Optional.of(Moment.at(Instant.ofEpochSecond(1_700_000_000L + second)));
    }

    private static MediaFile file(String item, ThingKind kind, int second, MediaFile.Fact... facts) {
        return new MediaFile(
                new ThingId(item, ""),
                kind,
                "",
                item,
                at(second),
                10,
                Optional.empty(),
                Optional.empty(),
                List.of(facts),
                "");
    }

    private static List<Attachment> files(String... items) {
        return Arrays.stream(items)
                .map(item -> new Attachment(item, "", "image/jpeg"))
                .toList();
    }

    private static Thing album(String key, String title, Album.Use use, String... items) {
        return new Album(new ThingId("albums", key), "", title, use, files(items));
    }

    /** Sections with the files in them. */
    private static List<String> sections(Catalogue catalogue, ThingKind kind, Sorting by) throws IOException {
        var spine = catalogue.spine();
        var numbers = Arrays.stream(spine.see(Spine.View.EVERYTHING).places())
                .filter(place -> spine.kind(place) == kind)
                .map(spine::number)
                .toArray();
        var arranged = catalogue.arranged(numbers, by, Locale.UK);
        return arranged.sections().stream()
                .map(section -> section.name() + " " + items(catalogue, arranged.numbers(), section))
                .toList();
    }

    private static String items(Catalogue catalogue, int[] numbers, Section section) {
        try {
            var of = Arrays.stream(numbers, section.first(), section.first() + section.count())
                    .asLongStream()
                    .toArray();
            return catalogue.states(of).stream().map(Catalogue.State::item).collect(Collectors.joining(","));
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void filesStandInEverythingThatTheyAreIn() throws Exception {
        var phone = new WrittenReader(folder);
        for (int i = 1; i <= 4; i++) {
            phone.write("p" + i, file("p" + i, ThingKind.PICTURE, i));
        }
        phone.write("s1", file("s1", ThingKind.TRACK, 1, new MediaFile.Fact("Genre", "Shanty")));
        phone.write("s2", file("s2", ThingKind.TRACK, 2));
        phone.write(
                "albums",
                album("1", "Zander", Album.Use.ALBUM, "p1", "p3", "gone"),
                album("2", "", Album.Use.FAVOURITES, "p3"),
                album("3", "b", Album.Use.BURST, "p2", "p3"));
        phone.write("lists", new Playlist(new ThingId("lists", "1"), "", "Tide", files("s2", "s1")));
        var talk = new ThingId("talks", "t");
        var number = "+447700900123";
        phone.write(
                "talks",
                new Conversation(talk, "", "", "", false, List.of(new Party(number, number, "Ivo"))),
                Samples.message(
                        new ThingId("talks", "m"),
                        talk,
                        Moment.at(Instant.ofEpochSecond(1_700_000_009L)),
                        Optional.empty(),
                        "",
                        Message.State.SENT,
                        files("p2", "")));
        try (var draft = phone.draft(Optional.empty(), 1);
                var catalogue = draft.handOver()) {
            // The newest first; what is in none comes last; bursts are no albums.
            assertEquals(
                    List.of("Favourites p3", "Zander p3,p1", " p4,p2"),
                    sections(catalogue, ThingKind.PICTURE, Sorting.ALBUM));
            assertEquals(List.of("Ivo p2", " p4,p3,p1"), sections(catalogue, ThingKind.PICTURE, Sorting.CONVERSATION));
            var sent = catalogue.sentIn().of("p2");
            assertEquals(1, sent.size());
            assertEquals("Ivo", sent.getFirst().title());
            assertEquals(talk, sent.getFirst().conversation().id());
            assertEquals(
                    new ThingId("talks", "m"),
                    catalogue.read(sent.getFirst().message()).getFirst().thing().id());
            assertEquals(List.of(), catalogue.sentIn().of("p1"));
            assertEquals(List.of("Tide s2,s1"), sections(catalogue, ThingKind.TRACK, Sorting.PLAYLIST));
            assertEquals(List.of("Shanty s1", " s2"), sections(catalogue, ThingKind.TRACK, Sorting.GENRE));
        }
    }

    private static MediaFile taken(String item, int second, double latitude, double longitude) {
        return new MediaFile(
                new ThingId(item, ""),
                ThingKind.PICTURE,
                "",
                item,
                at(second),
                10,
                Optional.of(new Place(latitude, longitude)),
                Optional.empty(),
                List.of(),
                "");
    }

    @Test
    void picturesStandTogetherByTheirPlace() throws Exception {
        var phone = new WrittenReader(folder);
        phone.write("south", taken("south", 1, -33.25, 18.5));
        phone.write("nowhere", file("nowhere", ThingKind.PICTURE, 2));
        phone.write("south2", taken("south2", 3, -33.2500001, 18.5000001));
        phone.write("edge", taken("edge", 4, 12.3456789, -180));
        phone.write("lie", taken("lie", 5, 91, 0));
        try (var catalogue = phone.catalogue(Optional.empty(), 1)) {
            var places = catalogue.places();
            assertEquals(3, places.size(), "what is no place on earth has none");
            assertTrue(IntStream.range(0, 3).mapToObj(places::place).anyMatch(new Place(12.3456789, -180)::equals));
            var spine = catalogue.spine();
            var numbers = Arrays.stream(spine.see(Spine.View.EVERYTHING).places())
                    .map(spine::number)
                    .toArray();
            var by = catalogue.byPlace(numbers, place -> place.latitude() < 0 ? "South" : "North", Locale.UK);
            assertEquals(
                    List.of("North edge", "South south2,south", " lie,nowhere"),
                    by.sections().stream()
                            .map(section -> section.name() + " " + items(catalogue, by.numbers(), section))
                            .toList());
        }
    }
}
