package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.ProblemException;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.WrittenReader;
import app.custodex.extract.formats.Formats;
import app.custodex.model.Call;
import app.custodex.model.Contact;
import app.custodex.model.KindGroup;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.Samples;
import app.custodex.model.ThingId;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One file an account or a person, totals, and columns of one's own. */
class TablesInPartsTest {
    private static final Instant NOON = Instant.parse("2025-11-14T12:00:00Z");
    // Ofcom keeps these numbers for drama; see ofcom.org.uk, "Numbers for use in drama".
    private static final Party ROOK = new Party("07700 900112", "+447700900112", "Halvard Rook");
    private static final Party NAMESAKE = new Party("07700 900113", "+447700900113", "Halvard Rook");

    @TempDir
    private Path folder;

    private Catalogue catalogue;

    private static Call call(int number, String account, Call.Outcome outcome, int seconds, Party... people) {
        return new Call(
                new ThingId("calls", Integer.toString(number)),
                account,
                Optional.of(Moment.at(NOON.plusSeconds(number))),
                List.of(people),
                outcome,
                Call.Medium.VOICE,
                Duration.ofSeconds(seconds));
    }

    @BeforeEach
    void fill() throws IOException {
        var phone = new WrittenReader(folder);
        phone.write(
                "calls",
                call(1, "home", Call.Outcome.MADE, 60, ROOK),
                call(2, "work", Call.Outcome.MISSED, 0, NAMESAKE),
                call(3, "home", Call.Outcome.TAKEN, 3_600, ROOK),
                call(4, "", Call.Outcome.DECLINED, 0),
                call(5, "work", Call.Outcome.TAKEN, 30, ROOK, NAMESAKE));
        catalogue = phone.catalogue(Optional.empty(), 1);
    }

    @AfterEach
    void close() throws IOException {
        catalogue.close();
    }

    private ExtractResult calls(String how) throws IOException {
        return Written.all(KindGroup.CALLS, how, catalogue, folder.resolve("out"));
    }

    private static List<String> names(ExtractResult result) {
        return result.files().stream()
                .map(file -> String.valueOf(file.getFileName()))
                .sorted()
                .toList();
    }

    @Test
    void eachAccountHasAFile() throws IOException {
        var result = calls("csv:files=account");
        assertEquals(List.of("No account.csv", "home.csv", "work.csv"), names(result));
        assertEquals(5, result.things());
        for (var file : result.files()) {
            int rows = ExtractionCase.csv(file).size();
            assertEquals(file.endsWith("No account.csv") ? 1 : 2, rows, file.toString());
        }
    }

    @Test
    void peopleOfOneNameKeepApart() throws IOException {
        var result = calls("csv:files=person");
        assertEquals(List.of("(unknown).csv", "Halvard Rook (2).csv", "Halvard Rook.csv"), names(result));
        var second = result.files().stream()
                .filter(file -> file.endsWith("Halvard Rook (2).csv"))
                .findFirst()
                .orElseThrow();
        assertEquals("+447700900113", ExtractionCase.csv(second).getFirst().get("Number"));
    }

    @Test
    void totalsCountEveryCallOfAPerson() throws Exception {
        var result = calls("csv:totals");
        var totals = ExtractionCase.csv(result.files().getLast());
        assertTrue(result.files().getLast().endsWith("Calls of a phone, totals.csv"));
        var rook = totals.getFirst();
        assertEquals(
                List.of("Halvard Rook", "+447700900112", "3", "1", "2", "0", "0", "1:01:30"),
                rook.toList(),
                "a call with two people counts for both");
        assertEquals(
                List.of("All", "", "5", "1", "2", "1", "1", "1:01:30"),
                totals.getLast().toList());
        try (var book = new XSSFWorkbook(calls("xlsx:totals").files().getFirst().toFile())) {
            var row = book.getSheet("Totals").getRow(1);
            assertEquals(3, row.getCell(2).getNumericCellValue());
            assertEquals(3_690, row.getCell(7).getNumericCellValue() * 86_400, 0.01);
        }
        var page = Jsoup.parse(Files.readString(calls("list:totals").files().getFirst()));
        assertEquals(2, page.select("table").size());
        assertEquals(
                "All",
                page.select("table:last-of-type tr:last-child td:first-child").text());
        var paper = calls("pdf:totals:evidence").files().getFirst();
        assertEquals(List.of(), PdfReferees.brokenArchiveRules(paper));
        assertTrue(PdfReferees.text(paper).contains("Length in all"));
        assertEquals(1, calls("csv").files().size(), "none without being asked");
    }

    private static Contact contact(int number, String account, String name) {
        return Samples.contact(
                new ThingId("people", Integer.toString(number)),
                account,
                name,
                List.of(new Contact.PhoneNumber("mobile", "07700 90011" + number, "+44770090011" + number)),
                List.of(new Contact.Labelled("home", name.toLowerCase(Locale.ROOT) + "@example.org")),
                List.of("note"));
    }

    private ExtractResult contacts(String how) throws IOException {
        return Written.contacts(
                how, List.of(contact(1, "home", "Maren"), contact(2, "work", "Noor")), folder.resolve("out"));
    }

    @Test
    void contactsOfAnAccountComeInAFile() throws IOException {
        for (var how : List.of("vcard4", "jcard", "ldif", "page", "csv", "xlsx")) {
            var result = contacts(how + ":files=account");
            assertEquals(2, result.files().size(), how);
            assertTrue(names(result).getFirst().startsWith("home."), how);
        }
        var each = contacts("vcard3:files=account:file-each");
        assertEquals(List.of("Maren.vcf", "Noor.vcf"), names(each));
        var first = each.files().getFirst();
        assertEquals("home", first.getName(first.getNameCount() - 2).toString());
    }

    @Test
    void columnsComeInTheOrderThatIsWished() throws IOException {
        var file = contacts("csv:columns=e-mails+name").files().getFirst();
        assertEquals(
                "E-mail 1 label,E-mail 1,Name",
                Files.readString(file).lines().findFirst().orElseThrow());
        var csv = Formats.of(KindGroup.CONTACTS, "csv").orElseThrow();
        assertEquals(
                ":columns=e-mails+name",
                Chosen.of(csv, KindGroup.CONTACTS, List.of("columns=e-mails+name"))
                        .typed(csv, KindGroup.CONTACTS));
        for (var wrong : List.of("columns=e-mails+shoe-size", "columns=name+", "columns")) {
            assertThrows(ProblemException.class, () -> Chosen.of(csv, KindGroup.CONTACTS, List.of(wrong)), wrong);
        }
        assertFalse(
                Files.readString(contacts("csv:columns=").files().getFirst()).startsWith("E-mail"));
    }
}
