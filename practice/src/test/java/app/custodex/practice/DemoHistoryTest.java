package app.custodex.practice;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.app.Custodex;
import app.custodex.app.DemoHistory;
import app.custodex.app.Home;
import app.custodex.app.LiveSearch;
import app.custodex.app.Mandate;
import app.custodex.app.StrongroomSearch;
import app.custodex.base.CancelToken;
import app.custodex.base.Problem;
import app.custodex.base.RealDisk;
import app.custodex.catalogue.Filter;
import app.custodex.drawer.PastVisit;
import app.custodex.drawer.PracticeDrawer.Contents;
import app.custodex.model.Thing;
import app.custodex.model.ThingKind;
import app.custodex.strongroom.StoredPhone.Seal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A demo's past follows the rules of every backup, and is made once. */
class DemoHistoryTest {
    @TempDir
    Path folder;

    @Test
    void aDemoStartsWithPhonesThatWereHereBefore() throws Exception {
        var home = new Home(folder.resolve("demo"));
        home.markAsDemoIfNew();
        var told = new AtomicInteger();
        var problems = new ConcurrentLinkedQueue<Problem>();
        try (var drawer = new TableDrawer.Maker().open(home.practice(), Contents.sketched(1, 5))) {
            DemoHistory.start(home, drawer, told::incrementAndGet, problems::add)
                    .orElseThrow()
                    .await();
            var visits = drawer.history();
            assertEquals(visits.size(), told.get());
            try (var custodex = Custodex.open(home, Clock.systemUTC())) {
                var phones = custodex.strongroom().holdings().phones();
                assertEquals(4, phones.size());
                assertEquals(
                        2, phones.stream().filter(p -> p.seal() != Seal.NONE).count());
                assertEquals(visits.size(), custodex.dockets().all().size());
                assertEquals(
                        visits.stream().map(PastVisit::customer).distinct().count(),
                        custodex.dockets().all().stream()
                                .map(d -> d.customer())
                                .distinct()
                                .count());
                for (var phone : phones) {
                    assertTrue(phone.newest()
                            .begun()
                            .isBefore(Clock.systemUTC().instant().minusSeconds(86_400)));
                    if (phone.seal() != Seal.NONE) {
                        continue;
                    }
                    // Its docket lets it be read, and things are gone and new between two visits.
                    var identifier = phone.identity().identifier();
                    var docket = custodex.dockets().of(identifier).orElseThrow().number();
                    try (var older = custodex.reading().open(Mandate.ofDocket(docket), identifier, 1, Locale.UK);
                            var newer = custodex.reading().open(Mandate.ofDocket(docket), identifier, 2, Locale.UK)) {
                        var messages = Set.of(ThingKind.MESSAGE);
                        assertTrue(older.catalogue().counts().getOrDefault(ThingKind.MESSAGE, 0L)
                                < newer.catalogue().counts().getOrDefault(ThingKind.MESSAGE, 0L));
                        assertTrue(newer.since(older, messages).differences().size() > 100);
                    }
                }
            }
            whatIsFoundWhileTypingIsWhatIsFoundInEachLayer(home);
            // Another start makes nothing once more.
            DemoHistory.start(home, drawer, told::incrementAndGet, problems::add)
                    .orElseThrow()
                    .await();
            assertEquals(visits.size(), told.get());
            assertEquals(
                    Optional.empty(),
                    DemoHistory.start(new Home(folder.resolve("shop")), drawer, () -> {}, problems::add));
            assertTrue(Files.notExists(home.practice().resolve("past")), "the phones are gone again");
            assertEquals(List.of(), List.copyOf(problems));
            // What can't be made is told: here, because somebody made another folder of the strongroom.
            new RealDisk().delete(home.strongroom());
            Files.delete(home.dockets().resolve("0010.json"));
            DemoHistory.start(home, drawer, told::incrementAndGet, problems::add)
                    .orElseThrow()
                    .await();
            assertEquals(1, problems.size());
        }
    }

    private static void whatIsFoundWhileTypingIsWhatIsFoundInEachLayer(Home home) throws Exception {
        try (var custodex = Custodex.open(home, Clock.systemUTC());
                var live = custodex.liveSearch(Locale.UK)) {
            var phones = custodex.strongroom().holdings().phones();
            var counts = new TreeSet<Integer>();
            for (var typed : List.of("storm", "lighthouse", "s", "nothing-has-this")) {
                var things = new HashSet<Thing>();
                var query = new StrongroomSearch.Query(
                        typed,
                        in -> Optional.of(Filter.EVERYTHING),
                        StrongroomSearch.Reach.ALL_LAYERS,
                        custodex.gate()::mandateFor,
                        Locale.UK);
                custodex.search().find(query, phones, (thing, in) -> things.add(thing), new CancelToken());
                var answers = new ArrayList<LiveSearch.Answer>();
                var everything = new LiveSearch.Question(typed, "", Set.of(), Filter.EVERYTHING);
                live.find(everything, phones, Optional.empty(), answers::add, new CancelToken());
                var last = answers.getLast();
                assertTrue(last.finished());
                assertEquals(2, last.notSearched().size(), "two are sealed: " + last.notSearched());
                if (last.complete()) {
                    assertEquals(things.size(), last.hits().size(), typed);
                } else {
                    assertEquals(LiveSearch.MOST, last.hits().size(), typed);
                }
                counts.add(last.hits().size());
                var messages = new LiveSearch.Question(typed, "", Set.of(ThingKind.MESSAGE), Filter.EVERYTHING);
                live.find(messages, phones, Optional.empty(), answers::add, new CancelToken());
                assertEquals(last.kinds(), answers.getLast().kinds(), "the others keep their figures");
                assertTrue(answers.getLast().hits().stream()
                        .allMatch(hit -> hit.entry().thing().kind() == ThingKind.MESSAGE));
            }
            var rook = new LiveSearch.Question("", "rook", Set.of(ThingKind.MESSAGE), Filter.EVERYTHING);
            var answers = new ArrayList<LiveSearch.Answer>();
            live.find(rook, phones, Optional.empty(), answers::add, new CancelToken());
            var hits = answers.getLast().hits();
            assertTrue(hits.size() > 10, "many of them: " + hits.size());
            assertTrue(counts.size() > 2, "some, many, none: " + counts);
        }
    }
}
