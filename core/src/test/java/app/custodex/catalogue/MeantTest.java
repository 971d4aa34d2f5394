package app.custodex.catalogue;

import static org.junit.jupiter.api.Assertions.assertEquals;

import app.custodex.catalogue.Catalogue.Person;
import java.util.List;
import java.util.function.Predicate;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MeantTest {
    /** Ofcom keeps 07700 900000 to 900999 for drama; see ofcom.org.uk, "Numbers for use in drama". */
    private static final List<Person> PEOPLE = List.of(
            new Person(1, "Åse Rook", true, List.of("+447700900112", "ase@example.org")),
            new Person(2, "Halvard Rook", true, List.of("+447700900113")),
            new Person(3, "日本 花子", true, List.of()),
            new Person(4, "+447700900114", false, List.of("+447700900114")));

    private static String ids(Predicate<Person> meant) {
        return String.join(
                " ",
                PEOPLE.stream()
                        .filter(meant)
                        .map(person -> Long.toString(person.id()))
                        .toList());
    }

    @ParameterizedTest
    @CsvSource({
        "åse rook,1,1",
        "ASE ROOK,1,1",
        "ase@example.org,1,1",
        "07700 900113,2,2",
        "(07700) 900-114,4,4",
        "rook,'','1 2'",
        "hal ro,'',2",
        "日本,'',3",
        "113,'',''",
        "'  ','',''",
        "nobody,'',''"
    })
    void namesAndNumbersMeanWhomTheyShould(String typed, String exactly, String perhaps) {
        assertEquals(exactly, ids(Meant.exactly(typed)));
        assertEquals(perhaps, ids(Meant.perhaps(typed)));
    }
}
