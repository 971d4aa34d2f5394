package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.catalogue.Spine.View;
import app.custodex.catalogue.Trait.Aspect;
import app.custodex.model.App;
import app.custodex.model.Attachment;
import app.custodex.model.Call;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.model.MediaFile;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Party;
import app.custodex.model.Samples;
import app.custodex.model.Task;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** To what lists are narrowed, against going through the things themselves. */
class TraitsTest {
    private static final List<String> FOLDERS = List.of("", "Boat", "Salt\tand\nnet", "灯台", "x".repeat(500));

    @TempDir
    Path folder;

    private final Random random = new Random(5);

    private List<Thing> things(int layer) {
        var things = new ArrayList<Thing>();
        for (int i = 0; i < 300; i++) {
            Optional<Moment> at = Optional.of(Moment.at(Instant.ofEpochSecond(1_700_000_000L + i)));
            var calls = Call.Outcome.values();
            var number = "+44770090012" + i % 10;
            things.add(new Call(
                    new ThingId("all", "c" + i),
                    i % 7 == 0 ? "kitewire" : "",
                    at,
                    List.of(new Party(number, number, "")),
                    calls[random.nextInt(calls.length)],
                    i % 7 == 0 ? Call.Medium.APP : Call.Medium.VOICE,
                    Duration.ZERO));
            var shelf = FOLDERS.get((i + layer) % FOLDERS.size());
            things.add(new Note(new ThingId("all", "n" + i), "", shelf, "note " + i, "", at, List.of()));
            var done = i % 3 == layer ? at : Optional.<Moment>empty();
            things.add(new Task(new ThingId("all", "t" + i), "", "Work", "", "task", "", at, done));
        }
        return things;
    }

    private static Map<Trait, Integer> counted(List<Thing> things) {
        var counts = new TreeMap<Trait, Integer>();
        things.forEach(thing -> Trait.of(thing).forEach(trait -> counts.merge(trait, 1, Integer::sum)));
        return counts;
    }

    private void agree(Catalogue catalogue, List<Thing> things) throws Exception {
        var spine = catalogue.spine();
        var traits = catalogue.traits(spine);
        assertEquals(counted(things), traits.counts(spine.see(View.EVERYTHING).places()));
        var byTrait = new HashMap<Trait, Set<String>>();
        things.forEach(thing -> Trait.of(thing)
                .forEach(trait -> byTrait.computeIfAbsent(
                        trait,
                        t -> things.stream()
                                .filter(other -> Trait.of(other).contains(t))
                                .map(other -> other.id().key())
                                .collect(Collectors.toSet()))));
        for (var entry : byTrait.entrySet()) {
            assertEquals(entry.getValue(), keys(catalogue, traits, Set.of(entry.getKey())));
        }
        // Of one aspect either, of several all.
        var missed = new Trait(Aspect.STATE, "Missed");
        var declined = new Trait(Aspect.STATE, "Declined");
        var app = new Trait(Aspect.SERVICE, "In an app");
        var either = things.stream()
                .filter(thing -> thing instanceof Call call
                        && call.medium() == Call.Medium.APP
                        && (call.outcome() == Call.Outcome.MISSED || call.outcome() == Call.Outcome.DECLINED))
                .map(thing -> thing.id().key())
                .collect(Collectors.toSet());
        assertTrue(!either.isEmpty());
        assertEquals(either, keys(catalogue, traits, Set.of(missed, declined, app)));
        assertEquals(spine.size(), traits.having(Set.of()).cardinality());
        assertEquals(Set.of(), keys(catalogue, traits, Set.of(new Trait(Aspect.GENRE, "Shanty"))));
    }

    private static Set<String> keys(Catalogue catalogue, Traits traits, Set<Trait> wanted) throws Exception {
        return catalogue.states(traits.having(wanted).stream().asLongStream().toArray()).stream()
                .map(Catalogue.State::key)
                .collect(Collectors.toSet());
    }

    @Test
    void everyTraitIsCountedAndFound() throws Exception {
        var phone = new WrittenReader(folder);
        var first = things(0);
        phone.write("all", first.toArray(Thing[]::new));
        byte[] below;
        try (var draft = phone.draft(Optional.empty(), 1)) {
            below = draft.bytes();
            try (var catalogue = draft.handOver()) {
                agree(catalogue, first);
            }
        }
        // A layer above goes on with the same sets.
        var second = things(1);
        phone.write("all", second.toArray(Thing[]::new));
        try (var draft = phone.draft(Optional.of(below), 2)) {
            try (var catalogue = draft.handOver()) {
                agree(catalogue, second);
            }
        }
    }

    private static Set<String> values(Thing thing) {
        return Trait.of(thing).stream()
                .map(trait -> trait.aspect() + " " + trait.value())
                .collect(Collectors.toSet());
    }

    @Test
    void eachKindIsNarrowedByWhatItHas() {
        var talk = new ThingId("talk", "t");
        var at = Moment.at(Instant.ofEpochSecond(1_700_000_000L));
        var photo = List.of(new Attachment("roll/1.jpg", "", "IMAGE/JPEG"), new Attachment("", "v.opus", "audio/ogg"));
        assertEquals(
                Set.of(
                        "KIND Messages",
                        "SERVICE SMS",
                        "DIRECTION Sent",
                        "STATE Not sent",
                        "WITH Link",
                        "WITH Picture",
                        "WITH Sound"),
                values(Samples.message(
                        new ThingId("talk", "m"),
                        talk,
                        at,
                        Optional.empty(),
                        "see https://example.org",
                        Message.State.FAILED,
                        photo)));
        var ivo = new Party("+447700900123", "+447700900123", "Ivo");
        // What somebody else sent was not delivered by this phone, whatever state it has.
        assertEquals(
                Set.of("KIND Messages", "SERVICE SMS", "DIRECTION Received"),
                values(Samples.message(
                        new ThingId("talk", "n"), talk, at, Optional.of(ivo), "hello", Message.State.READ)));
        assertEquals(
                Set.of("KIND Contacts", "WITH Number"),
                values(Samples.contact(
                        new ThingId("people", "1"),
                        "Ivo",
                        List.of(new PhoneNumber("", "07700 900123", "+447700900123")),
                        List.of(),
                        List.of())));
        assertEquals(
                Set.of("KIND Tracks", "GENRE Shanty", "STATE In the cloud only"),
                values(new MediaFile(
                        new ThingId("songs/1.mp3", ""),
                        ThingKind.TRACK,
                        "",
                        "Song",
                        Optional.empty(),
                        1,
                        Optional.empty(),
                        Optional.empty(),
                        List.of(
                                new MediaFile.Fact("Genre", "Shanty"),
                                new MediaFile.Fact("Where", "In the cloud only"),
                                new MediaFile.Fact("Codec", "MP3")),
                        "")));
        assertEquals(
                Set.of("KIND Apps", "STATE Data did not come along"),
                values(new App(
                        new ThingId("apps", "1"),
                        "",
                        "Tide",
                        "example.tide",
                        "1",
                        5,
                        Optional.empty(),
                        App.Data.NOT_HERE,
                        "")));
    }

    @Test
    void whatTheOwnerWroteBreaksNoLine() {
        for (var shelf : FOLDERS) {
            for (var trait :
                    Trait.of(new Note(new ThingId("a", "b"), "", shelf, "", "", Optional.empty(), List.of()))) {
                assertTrue(trait.value().codePointCount(0, trait.value().length()) <= 80);
                assertTrue(trait.value().chars().noneMatch(Character::isISOControl), trait.value());
            }
        }
    }
}
