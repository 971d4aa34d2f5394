package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.catalogue.Catalogue.InTouch;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.model.Call;
import app.custodex.model.Contact;
import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.model.Event;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.Samples;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Who is in which things on which days, against going through the things one by one. */
class TouchDaysTest {
    /** As the reader of these tests has it. */
    private static final ZoneId ZONE = ZoneId.of("Etc/GMT-1");

    private static final int PEOPLE = 12;

    @TempDir
    Path folder;

    private final Random random = new Random(17);

    private static String number(int person) {
        return "+4477009001" + (10 + person);
    }

    private static String mail(int person) {
        return "p" + person + "@example.org";
    }

    /** Everybody has a number and a mail address. */
    private static Contact contact(int person) {
        return Samples.contact(
                new ThingId("people", "k" + person),
                "Person " + person,
                List.of(new PhoneNumber("mobile", number(person), number(person))),
                List.of(new Labelled("home", mail(person))),
                List.of());
    }

    /** Some have no date, and one says a year that no calendar has. */
    private Optional<Moment> moment(int i) {
        return i % 11 == 0
                ? Optional.empty()
                : Optional.of(Moment.at(
                        i % 97 == 0
                                ? Instant.ofEpochSecond(900_000_000_000L)
                                : Instant.ofEpochSecond(1_700_000_000L + random.nextInt(3_000_000))));
    }

    private Thing thing(int i) {
        var parties = new ArrayList<Party>();
        var count = random.nextInt(4);
        for (int n = 0; n < count; n++) {
            int person = random.nextInt(PEOPLE + 3); // some are in no contacts
            parties.add(
                    random.nextBoolean()
                            ? new Party(number(person), number(person), "")
                            : new Party(mail(person), "", ""));
        }
        return i % 2 == 0
                ? new Call(
                        new ThingId("all", "c" + i),
                        "",
                        moment(i),
                        parties,
                        Call.Outcome.TAKEN,
                        Call.Medium.VOICE,
                        Duration.ZERO)
                : new Event(
                        new ThingId("all", "e" + i),
                        "",
                        "Work",
                        "",
                        "event",
                        "",
                        "",
                        moment(i),
                        Optional.empty(),
                        "",
                        List.of(),
                        List.of(),
                        Optional.empty(),
                        List.of(),
                        parties);
    }

    private static boolean isIn(Set<String> addresses, Thing thing) {
        return thing.people().stream().anyMatch(party -> addresses.contains(party.address()));
    }

    private static boolean inTime(Thing thing) {
        return thing.moment()
                .filter(at -> at.instant(ZONE).getEpochSecond() < 900_000_000_000L)
                .isPresent();
    }

    @Test
    void everybodysDaysAndThingsAreTheirs() throws Exception {
        var phone = new WrittenReader(folder);
        var contacts = new ArrayList<Thing>();
        for (int i = 0; i < PEOPLE; i++) {
            contacts.add(contact(i));
        }
        var things = new ArrayList<Thing>();
        for (int i = 0; i < 600; i++) {
            things.add(thing(i));
        }
        phone.write("people", contacts.toArray(Thing[]::new));
        phone.write("all", things.toArray(Thing[]::new));
        try (var draft = phone.draft(Optional.empty(), 1);
                var catalogue = draft.handOver()) {
            Map<Long, InTouch> touched = new HashMap<>();
            catalogue.inTouch().forEach(who -> touched.put(who.person().id(), who));
            assertTrue(catalogue.people().size() >= PEOPLE + 3);
            for (var person : catalogue.people()) {
                var addresses = Set.copyOf(person.addresses());
                var days = new TreeMap<Integer, Integer>();
                var keys = new TreeSet<String>();
                for (var thing : things) {
                    if (isIn(addresses, thing)) {
                        keys.add(thing.id().key());
                        if (inTime(thing)) {
                            int day =
                                    (int) thing.moment().orElseThrow().day(ZONE).toEpochDay();
                            days.merge(day, 1, Integer::sum);
                        }
                    }
                }
                var who = touched.get(person.id());
                assertEquals(!days.isEmpty(), who != null, person.name());
                if (who != null) {
                    var told = new TreeMap<Integer, Integer>();
                    for (int i = 0; i < who.days().length; i++) {
                        told.put(who.days()[i], who.things()[i]);
                    }
                    assertEquals(days, told, person.name());
                }
                var filter = new Filter(
                        Set.of(),
                        OptionalLong.of(person.id()),
                        Optional.empty(),
                        Optional.empty(),
                        Optional.empty(),
                        false,
                        Optional.empty());
                var found = catalogue.states(catalogue.find(filter, Order.OLDEST_FIRST)).stream()
                        .filter(state -> state.item().equals("all"))
                        .map(Catalogue.State::key)
                        .collect(Collectors.toCollection(TreeSet::new));
                assertEquals(keys, found, person.name());
            }
        }
    }
}
