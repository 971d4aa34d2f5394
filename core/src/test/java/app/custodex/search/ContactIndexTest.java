package app.custodex.search;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.model.Contact;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.model.Samples;
import app.custodex.model.ThingId;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

class ContactIndexTest {
    private static Contact contact(String name, String note, PhoneNumber... phones) {
        return Samples.contact(
                new ThingId("test", name),
                name,
                List.of(phones),
                List.of(),
                note.isEmpty() ? List.of() : List.of(note));
    }

    private static List<String> sorted(Locale locale, String... names) {
        return new ContactIndex(Stream.of(names).map(n -> contact(n, "")).toList(), locale)
                .ascending().stream().map(Contact::title).toList();
    }

    /** Unicode CLDR, collation charts: Swedish puts å, ä, ö behind z; German sorts ä with a; Spanish ñ behind n. */
    @Test
    void sortsByTheCollationOfTheLocale() {
        assertEquals(
                List.of("Adam", "Zeta", "Åke", "Ärla", "Öst"),
                sorted(Locale.of("sv"), "Öst", "Zeta", "Ärla", "Adam", "Åke"));
        assertEquals(
                List.of("Adam", "Ärla", "Bert", "Öst", "Zeta"),
                sorted(Locale.GERMAN, "Öst", "Zeta", "Ärla", "Adam", "Bert"));
        assertEquals(List.of("Nuez", "Ñandú", "Oca"), sorted(Locale.of("es"), "Oca", "Ñandú", "Nuez"));
        assertEquals(List.of("anna", "Anna", "Bo"), sorted(Locale.ENGLISH, "Bo", "Anna", "anna"));
    }

    @Test
    void standsUnderTheLettersOfTheLocale() {
        var swedish = new ContactIndex(List.of(), Locale.of("sv"));
        assertEquals("Å", swedish.letter(contact("Åke", "")));
        var english = new ContactIndex(List.of(), Locale.ENGLISH);
        assertEquals("A", english.letter(contact("Åke", "")));
        assertEquals("ن", english.letter(contact("نور", "")));
        assertEquals("…", english.letter(contact("+44", "")));
    }

    @Test
    void findsWhateverTheAccentsCapitalsAndOrder() {
        var index = new ContactIndex(
                List.of(
                        contact("Éilis Ó Dálach", "sings alto"),
                        contact(
                                "Halvard Rook",
                                "owes me a creel",
                                new PhoneNumber("", "07700 900123", "+447700900123")),
                        contact("نور سعيد", "")),
                Locale.ENGLISH);

        assertEquals(1, index.find("dalach EILIS").size());
        assertEquals("Halvard Rook", index.find("creel rook").getFirst().title());
        assertEquals(1, index.find("+44 7700 900").size());
        assertEquals(1, index.find("900123").size());
        assertEquals(1, index.find("سعيد").size());
        assertEquals(0, index.find("rook alto").size());
        assertEquals(3, index.find("  ").size());
        assertEquals(index.ascending().reversed(), index.descending());
    }

    @Test
    void fiftyThousandAreFoundWithoutAskingTwice() {
        var many = Stream.iterate(0, i -> i + 1)
                .limit(50_000)
                .map(i -> contact("Person " + i, ""))
                .toList();
        var index = new ContactIndex(many, Locale.ENGLISH);
        assertEquals(50_000, index.ascending().size());
        assertTrue(index.find("person 4999").size() >= 11);
    }
}
