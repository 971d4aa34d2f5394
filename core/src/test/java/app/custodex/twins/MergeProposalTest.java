package app.custodex.twins;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Json;
import app.custodex.model.Contact;
import app.custodex.model.Contact.Day;
import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.Organisation;
import app.custodex.model.Contact.PersonName;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.model.ThingId;
import app.custodex.twins.MergeProposal.Part;
import app.custodex.twins.MergeProposal.Value;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

final class MergeProposalTest {
    private static Contact contact(
            String key,
            String name,
            List<PhoneNumber> phones,
            List<String> notes,
            Optional<Day> birthday,
            boolean photo) {
        return new Contact(
                new ThingId("contacts", key),
                "account " + key,
                "uid-" + key,
                new PersonName(name, "", "", "", "", "", "", ""),
                List.of(),
                Organisation.NONE,
                phones,
                List.of(new Labelled("home", "ivo@example.org")),
                List.of(),
                List.of(),
                List.of(),
                birthday,
                Optional.empty(),
                List.of(),
                notes,
                List.of("Choir"),
                photo,
                Optional.of(Instant.ofEpochSecond(key.charAt(0))),
                List.of());
    }

    private static final Contact ONE = contact(
            "1",
            "Ivo",
            List.of(new PhoneNumber("mobile", "07700 900112", "+447700900112")),
            List.of("Boat at Upper Slip"),
            Optional.of(new Day(Optional.empty(), 6, 30)),
            false);
    private static final Contact TWO = contact(
            "2",
            "Ivo Kelp",
            List.of(
                    new PhoneNumber("work", "+44 7700 900112", "+447700900112"),
                    new PhoneNumber("home", "07700 900555", "+447700900555")),
            List.of(),
            Optional.of(new Day(Optional.of(1977), 6, 30)),
            true);

    private static Value value(MergeProposal of, Part part, String text) {
        return of.values().stream()
                .filter(value -> value.part() == part && value.text().equals(text))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void whatIsSaidAlikeStandsOnceAndTheFullestIsProposed() {
        var proposal = MergeProposal.of(List.of(ONE, TWO));
        var merged = proposal.merged();
        assertEquals("Ivo Kelp", merged.title());
        assertEquals(
                List.of("07700 900112", "07700 900555"),
                merged.phones().stream().map(PhoneNumber::written).toList());
        assertEquals(1, merged.mails().size());
        assertEquals(Optional.of(new Day(Optional.of(1977), 6, 30)), merged.birthday());
        assertEquals(List.of("Choir"), merged.groups());
        assertEquals(TWO.id(), merged.id(), "known by the one whose picture it has");
        assertTrue(merged.hasPhoto());
        assertEquals(TWO.changed(), merged.changed());
        assertEquals(List.of(0, 1), value(proposal, Part.PHONE, "07700 900112").from());
        assertEquals(List.of(1), value(proposal, Part.PHONE, "07700 900555").from());
    }

    @Test
    void eachValueIsTakenOrLeftAndTheSourcesStay() {
        var proposal = MergeProposal.of(List.of(ONE, TWO));
        var other = proposal.with(value(proposal, Part.NAME, "Ivo"), true)
                .with(value(proposal, Part.NOTE, "Boat at Upper Slip"), false)
                .with(value(proposal, Part.PICTURE, "of Ivo Kelp"), false);
        assertEquals("Ivo", other.merged().title());
        assertEquals(List.of(), other.merged().notes());
        assertEquals(ONE.id(), other.merged().id());
        // The one before is as it was, which is all that undoing takes.
        assertEquals("Ivo Kelp", proposal.merged().title());
        assertEquals(
                1,
                other.values().stream()
                        .filter(value -> value.part() == Part.NAME && value.kept())
                        .count());
    }

    @Test
    void whatIsSettledIsKeptAndFoundAgain() throws Exception {
        var proposal = MergeProposal.of(List.of(ONE, TWO));
        var settled = proposal.with(value(proposal, Part.PHONE, "07700 900555"), false)
                .settled();
        var again = Json.LINE.readValue(Json.LINE.writeValueAsBytes(settled), Merge.class);
        assertEquals(settled, again);
        assertEquals(
                1, MergeProposal.of(List.of(ONE, TWO), again).merged().phones().size());
    }
}
