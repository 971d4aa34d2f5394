package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.Json;
import app.custodex.base.ProblemException;
import app.custodex.model.Contact;
import app.custodex.model.Contact.Address;
import app.custodex.model.Contact.Day;
import app.custodex.model.Contact.Extra;
import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.Organisation;
import app.custodex.model.Contact.PersonName;
import app.custodex.model.Contact.PhoneNumber;
import app.custodex.model.Samples;
import app.custodex.model.ThingId;
import com.unboundid.ldif.LDIFReader;
import java.io.IOException;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import org.apache.commons.csv.CSVFormat;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ContactExtractionTest {
    private static final byte[] JPEG = {(byte) 0xff, (byte) 0xd8, (byte) 0xff, (byte) 0xe0, 1, 2, 3, 4};

    @TempDir
    Path folder;

    private static Contact named(String display, String note) {
        return Samples.contact(
                new ThingId("test", display),
                display,
                List.of(),
                List.of(),
                note.isEmpty() ? List.of() : List.of(note));
    }

    /** Everything that the model knows, with every sign that a format might trip over. */
    private static Contact full() {
        return born(new Day(Optional.empty(), 11, 14));
    }

    private static Contact born(Day birthday) {
        return new Contact(
                new ThingId("test", "full"),
                "",
                "urn:uuid:0b1b6a7a-0001-4000-8000-000000000001",
                new PersonName(
                        "Dr Nóor; \"N\" Said, Jr", "Dr", "Nóor", "Maren Ivo", "Said; Rook", "Jr", "Nur", "Sa'id"),
                List.of("N", "No, really"),
                new Organisation("Slipway, Sons; & Co", "Boats", "keeper", "lead"),
                List.of(
                        new PhoneNumber("mobile", "07700 900123", "+447700900123"),
                        new PhoneNumber("Boat; harbour, north", "+44 1632 960001", "+441632960001")),
                List.of(new Labelled("work", "noor@example.org"), new Labelled("Choir", "choir@example.org")),
                List.of(new Labelled("", "https://example.net/?a=1;b=2,3")),
                List.of(new Labelled("Kitewire", "kitewire:noor"), new Labelled("", "not a uri at all")),
                List.of(new Address(
                        "home", "PO 7", "2nd floor", "3 Lamp Stair", "Lampholm", "Skerrow", "SK1 2VO", "Skerrow")),
                Optional.of(birthday),
                Optional.of(new Day(Optional.of(2001), 2, 3)),
                List.of(new Labelled("spouse", "Halvard")),
                List.of("line one\nline two; with, signs \\ and 海 🌊 " + "日本語".repeat(60), "control \u0000\u0007 gone"),
                List.of("Family", "Boat, sale"),
                true,
                Optional.of(Instant.parse("2025-11-14T21:04:00Z")),
                List.of(new Extra("X-SHOE-SIZE", "44, wide")));
    }

    private ExtractResult write(String how, Contact... contacts) throws IOException {
        return Written.contacts(
                how, List.of(contacts), contact -> Optional.of(JPEG), folder, done -> {}, new CancelToken());
    }

    private String text(ExtractResult result) throws IOException {
        return Files.readString(result.files().getFirst());
    }

    @Test
    void anIndependentReaderFindsEverythingInVcard4() throws IOException {
        var result = write("vcard4", full(), named("Ivo Kelp", ""));

        var cards = StrictVcard.read(text(result), "4.0");
        assertEquals(2, cards.size());
        var card = cards.getFirst();
        var contact = full();
        assertEquals(contact.title(), card.one("FN").text());
        assertEquals(
                List.of("Said; Rook", "Nóor", "Maren Ivo", "Dr", "Jr"),
                card.one("N").parts(';'));
        assertEquals(contact.nicknames(), card.one("NICKNAME").parts(','));
        assertEquals(List.of("Slipway, Sons; & Co", "Boats"), card.one("ORG").parts(';'));
        var phones = card.all("TEL");
        assertEquals("07700 900123", phones.getFirst().text());
        assertTrue(phones.getFirst().parameters().contains("TYPE=cell"));
        assertEquals("Boat; harbour, north", card.label(phones.get(1)));
        assertEquals("Choir", card.label(card.all("EMAIL").get(1)));
        assertEquals("https://example.net/?a=1;b=2,3", card.one("URL").raw());
        assertEquals("kitewire:noor", card.one("IMPP").raw());
        assertEquals("not a uri at all", card.one("X-CHAT").text());
        assertEquals(
                List.of("PO 7", "2nd floor", "3 Lamp Stair", "Lampholm", "Skerrow", "SK1 2VO", "Skerrow"),
                card.one("ADR").parts(';'));
        assertEquals("--1114", card.one("BDAY").raw());
        assertEquals("20010203", card.one("ANNIVERSARY").raw());
        assertEquals("Halvard", card.one("RELATED").text());
        assertEquals(contact.notes().getFirst(), card.all("NOTE").getFirst().text());
        assertEquals("control  gone", card.all("NOTE").get(1).text());
        assertEquals(contact.groups(), card.one("CATEGORIES").parts(','));
        assertEquals("44, wide", card.one("X-SHOE-SIZE").text());
        assertEquals("Nur", card.one("X-PHONETIC-FIRST-NAME").text());
        assertEquals("20251114T210400Z", card.one("REV").raw());
        var photo = card.one("PHOTO").raw();
        assertTrue(photo.startsWith("data:image/jpeg;base64,"), photo);
        assertArrayEquals(JPEG, Base64.getDecoder().decode(photo.substring(photo.indexOf(',') + 1)));
        assertEquals(List.of(), result.problems());
    }

    @Test
    void vcard3SaysWhatItHasNoWordFor() throws IOException {
        var result = write("vcard3", full());

        var card = StrictVcard.read(text(result), "3.0").getFirst();
        assertEquals("--11-14", card.one("X-BIRTHDAY").text());
        assertEquals("2001-02-03", card.one("X-ANNIVERSARY").text());
        assertEquals("spouse: Halvard", card.one("X-RELATED").text());
        assertEquals(List.of("birthdays without a year, which are in X-BIRTHDAY: 1"), result.leftOut());
        assertEquals(result.leftOut(), Files.readAllLines(folder.resolve("Left out of a phone.txt")));
    }

    /** python3-vobject of Debian reads vCard 3.0; it shares nothing with the library that writes. */
    @Test
    void debiansReaderFindsEverythingInVcard3() throws Exception {
        assertTrue(Files.exists(Path.of("/usr/lib/python3/dist-packages/vobject")), "install python3-vobject");
        var result = write("vcard3", full(), named("عمر 海", "ملاحظة"));
        var script = """
                import sys, vobject, hashlib
                for c in vobject.readComponents(open(sys.argv[1], encoding='utf-8', newline='').read()):
                    print('FN', c.fn.value)
                    for t in getattr(c, 'tel_list', []): print('TEL', t.value)
                    for n in getattr(c, 'note_list', []): print('NOTE', hashlib.sha512(n.value.encode()).hexdigest())
                    if hasattr(c, 'org'): print('ORG', c.org.value)
                    if hasattr(c, 'adr'): print('ADR', c.adr.value.street, c.adr.value.city, c.adr.value.box)
                    if hasattr(c, 'photo'): print('PHOTO', c.photo.value.hex())
                    if hasattr(c, 'categories'): print('CATEGORIES', c.categories.value)
                """;
        var process = new ProcessBuilder(
                        "/usr/bin/python3",
                        "-c",
                        script,
                        result.files().getFirst().toString())
                .redirectErrorStream(true)
                .start();
        process.getOutputStream().close();
        var output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertTrue(process.waitFor(30, TimeUnit.SECONDS) && process.exitValue() == 0, output);
        var lines = output.lines().toList();
        assertTrue(lines.contains("FN " + full().title()), output);
        assertTrue(lines.contains("TEL +44 1632 960001"), output);
        var digest = Digests.of(full().notes().getFirst().getBytes(StandardCharsets.UTF_8));
        assertTrue(lines.contains("NOTE " + digest), output);
        assertTrue(lines.contains("ORG ['Slipway, Sons; & Co', 'Boats']"), output);
        assertTrue(lines.contains("ADR 3 Lamp Stair Lampholm PO 7"), output);
        assertTrue(lines.contains("PHOTO ffd8ffe001020304"), output);
        assertTrue(lines.contains("CATEGORIES ['Family', 'Boat, sale']"), output);
        assertTrue(lines.contains("FN عمر 海"), output);
    }

    @Test
    void hostileNamesStayInTheChosenFolderAndKeepApart() throws IOException {
        var result = write(
                "vcard4:file-each",
                named("../../escape", ""),
                named("a/b", ""),
                named("line\nbreak", ""),
                named("...", ""),
                named("x".repeat(300), ""),
                named("SAME", ""),
                named("SAME", ""),
                named("海斗 浜名", ""));

        assertEquals(8, result.files().size());
        assertEquals(8, result.files().stream().distinct().count());
        assertTrue(result.files().stream()
                .allMatch(f -> folder.resolve("Contacts of a phone").equals(f.getParent()) && Files.exists(f)));
        try (var files = Files.list(folder.resolve("Contacts of a phone"))) {
            assertEquals(8, files.count(), "no partial file is left");
        }
        for (var file : result.files()) {
            assertEquals(1, StrictVcard.read(Files.readString(file), "4.0").size());
        }
    }

    @Test
    void nothingThatIsThereIsOverwritten() throws IOException {
        var there = Files.writeString(folder.resolve("Contacts of a phone.vcf"), "mine");

        var result = write("vcard4", named("A", ""));

        assertEquals("mine", Files.readString(there));
        assertEquals(
                folder.resolve("Contacts of a phone (2).vcf"), result.files().getFirst());
    }

    /** RFC 4180 §2: rules 1 (CRLF), 5 to 7 (quotes around breaks, commas and quotes; quotes doubled). */
    @Test
    void csvFollowsRfc4180InTheEyesOfAnotherLibrary() throws IOException {
        var text = text(write("csv:faithful", full(), named("plain", "aaa b\nbb, c\"cc")));

        assertTrue(text.contains("\"aaa b\nbb, c\"\"cc\""), "quotes are doubled inside quotes");
        assertTrue(text.endsWith("\r\n"));
        try (var csv = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get()
                .parse(new StringReader(text))) {
            var records = csv.getRecords();
            assertEquals(2, records.size());
            var first = records.getFirst();
            assertTrue(first.isConsistent() && records.get(1).isConsistent());
            assertEquals(full().title(), first.get("Name"));
            assertEquals("Said; Rook", first.get("Family name"));
            assertEquals("+447700900123", first.get("Telephone 1 E.164"));
            assertEquals("Boat; harbour, north", first.get("Telephone 2 label"));
            assertEquals("--11-14", first.get("Birthday"));
            assertEquals("Family\nBoat, sale", first.get("Groups"));
            assertEquals("2025-11-14T21:04:00Z", first.get("Changed (UTC)"));
            assertEquals("44, wide", first.get("Other 1"));
            assertEquals("aaa b\nbb, c\"cc", records.get(1).get("Notes"));
        }
    }

    @Test
    void csvMarksItsEncodingAndDefusesFormulasOnlyWhenAsked() throws IOException {
        var evil = named("=HYPERLINK(\"http://example.org\")", "");
        var faithful = text(write("csv:faithful", evil));
        var safe = text(write("csv:byte-order-mark", evil, full()));

        assertFalse(faithful.startsWith("\uFEFF"));
        assertTrue(faithful.contains("\"=HYPERLINK(\"\"http"));
        assertTrue(safe.startsWith("\uFEFFName,"));
        assertTrue(safe.contains("\"'=HYPERLINK("));
        assertTrue(safe.contains(",+447700900123,"), "a telephone number is no formula");
    }

    @Test
    void thePageIsSafeAgainstHostileNamesAndNeedsNothingElse() throws IOException {
        var evil = named(
                "<script>alert(1)</script>\"><img src=x onerror=alert(2)>", "</dd><iframe src='https://example.org'>");

        var page = Jsoup.parse(text(write("page", evil, full())));

        assertEquals(
                0,
                page.select("script, iframe, object, link, a, form, [onerror]").size());
        assertEquals(evil.title(), page.select("article h2").eachText().getFirst());
        assertEquals(1, page.select("img").size());
        assertTrue(page.select("img").attr("src").startsWith("data:image/jpeg;base64,"));
        assertTrue(page.select("meta[http-equiv=Content-Security-Policy]")
                .attr("content")
                .startsWith("default-src 'none'"));
        assertTrue(page.text().contains("Boat; harbour, north"));
        assertEquals(2, page.select("article").size());
    }

    @Test
    void aPhotoThatIsNoPictureIsToldAndLeftOut() throws IOException {
        var result = Written.contacts(
                "page",
                List.of(full()),
                contact -> Optional.of("<svg onload=x>".getBytes(StandardCharsets.UTF_8)),
                folder,
                done -> {},
                new CancelToken());

        assertEquals(1, result.problems().size());
        assertFalse(text(result).contains("onload"));
    }

    @Test
    void aPhotoThatCantBeReadDoesNotStopTheRest() throws IOException {
        var result = Written.contacts(
                "vcard4",
                List.of(full(), named("B", "")),
                contact -> {
                    throw new IOException("torn");
                },
                folder,
                done -> {},
                new CancelToken());

        assertEquals(2, StrictVcard.read(text(result), "4.0").size());
        assertEquals(full().title(), result.problems().getFirst().subject());
    }

    @Test
    void aFolderThatCantBeWrittenIsToldWithWhatToDo() throws IOException {
        var file = Files.createFile(folder.resolve("a file, not a folder"));

        var refused =
                assertThrows(ProblemException.class, () -> Written.contacts("page", List.of(named("A", "")), file));

        assertTrue(refused.problem().advice().startsWith("Choose another folder"), refused.toString());
    }

    @Test
    void aStoppedExtractionLeavesOnlyCompleteFiles() throws IOException {
        for (var how : List.of("vcard4:file-each", "vcard4", "csv", "page", "xlsx", "jcard", "ldif", "json-lines")) {
            var into = folder.resolve(how.replace(':', ' '));
            var cancel = new CancelToken();
            assertThrows(
                    CancellationException.class,
                    () -> Written.contacts(
                            how,
                            List.of(named("A", ""), named("B", ""), named("C", "")),
                            contact -> Optional.empty(),
                            into,
                            done -> cancel.cancel(),
                            cancel));
            try (var left = Files.walk(into)) {
                assertTrue(left.noneMatch(f -> f.toString().endsWith(".part")), how);
            }
        }
    }

    /** Found with foreign cards: an impossible date, half a character and a control sign must cost nothing but themselves. */
    @Test
    void whatOneContactHasWrongIsThatContactsOwnTrouble() throws IOException {
        var odd = Samples.contact(
                new ThingId("test", "odd"), "half \ud83d a sign \u0007", List.of(), List.of(), List.of("\udc00"));
        var leap = born(new Day(Optional.of(1999), 2, 29));
        for (var how : List.of("vcard4", "vcard3", "vcard21", "csv", "page", "xlsx", "jcard", "ldif", "json-lines")) {
            var result = Written.contacts(how, List.of(odd, leap, named("Ivo Kelp", "")), folder.resolve(how));
            assertEquals(3, result.things(), how);
            assertEquals(List.of(), result.problems(), how);
        }
        var cards = Files.readString(folder.resolve("vcard4/Contacts of a phone.vcf"));
        assertTrue(cards.contains("X-BIRTHDAY:1999-02-29"), cards);
        assertEquals(3, StrictVcard.read(cards, "4.0").size());
    }

    /** RFC 7095, section 3: an array of "vcard" and properties, each with name, parameters, type and values; read by another library. */
    @Test
    void jcardIsTheSameAsTheCard() throws IOException {
        var cards = Json.PAGE.readTree(text(write("jcard", full(), named("Ivo Kelp", ""))));
        assertEquals(2, cards.size());
        var found = new ArrayList<String>();
        for (var card : cards) {
            assertEquals("vcard", card.get(0).asText());
            card.get(1)
                    .forEach(property -> found.add(
                            property.get(0).asText() + " " + property.get(2).asText() + " " + property.get(3)));
        }
        assertTrue(found.contains("fn text \"Ivo Kelp\""), found.toString());
        assertTrue(found.contains("n text [\"Said; Rook\",\"Nóor\",\"Maren Ivo\",\"Dr\",\"Jr\"]"), found.toString());
        assertTrue(found.contains("tel text \"+44 1632 960001\""), found.toString());
        assertTrue(found.contains("version text \"4.0\""), found.toString());
    }

    /** RFC 2849 as another library reads it; the attributes are those of RFC 2798 and RFC 4519. */
    @Test
    void ldifHoldsWhatADirectoryKnows() throws Exception {
        var result = write("ldif", full(), named("Ivo Kelp", "from the quay"));
        try (var in = new LDIFReader(result.files().getFirst().toFile())) {
            var first = in.readEntry();
            assertEquals(full().title(), first.getAttributeValue("cn"));
            assertEquals("Said; Rook", first.getAttributeValue("sn"));
            assertEquals("07700 900123", first.getAttributeValue("mobile"));
            assertEquals("+44 1632 960001", first.getAttributeValue("telephoneNumber"));
            assertEquals(2, first.getAttributeValues("mail").length);
            assertEquals(full().notes().getFirst(), first.getAttributeValues("description")[0]);
            assertArrayEquals(JPEG, first.getAttributeValueBytes("jpegPhoto"));
            assertEquals(
                    "PO 7$2nd floor$3 Lamp Stair$SK1 2VO Lampholm$Skerrow$Skerrow",
                    first.getAttributeValue("postalAddress"));
            var second = in.readEntry();
            assertEquals("from the quay", second.getAttributeValue("description"));
            assertEquals(null, in.readEntry());
        }
        for (var line : Files.readAllLines(result.files().getFirst())) {
            assertTrue(line.length() <= 76 && line.chars().allMatch(c -> c < 0x80), line);
        }
        assertTrue(result.leftOut().contains("websites: 1"), result.leftOut().toString());
    }

    @Test
    void aWorkbookHoldsWhatTheTableHolds() throws Exception {
        var evil = named("=HYPERLINK(\"http://example.org\")", "_x0041_ and " + "long ".repeat(10_000));
        var result = write("xlsx", full(), evil);
        try (var book = new XSSFWorkbook(result.files().getFirst().toFile())) {
            var sheet = book.getSheetAt(0);
            assertEquals(2, sheet.getLastRowNum());
            var names = new ArrayList<String>();
            sheet.getRow(0).forEach(cell -> names.add(cell.getStringCellValue()));
            assertEquals("Name", names.getFirst());
            assertEquals(full().title(), sheet.getRow(1).getCell(0).getStringCellValue());
            assertEquals(
                    "+447700900123",
                    sheet.getRow(1).getCell(names.indexOf("Telephone 1 E.164")).getStringCellValue());
            var formula = sheet.getRow(2).getCell(0);
            assertEquals(CellType.STRING, formula.getCellType(), "it is no formula");
            assertEquals(evil.title(), formula.getStringCellValue());
            var note = sheet.getRow(2).getCell(names.indexOf("Notes")).getStringCellValue();
            assertTrue(note.length() > 32_700 && note.length() <= 32_767, "cut at what a cell holds");
            assertTrue(note.startsWith("_x0041_ and") && note.endsWith("(cut here)"), note);
        }
        assertTrue(result.leftOut().contains("ends of texts that are too long for a cell: 1"));
    }

    @Test
    void aChoiceThatAFormatDoesNotHaveIsRefusedWithThoseItHas() {
        for (var how : List.of("vcard4:file-each=maybe", "vcard4:colour=red", "jcard:file-each")) {
            var refused = assertThrows(ProblemException.class, () -> Written.contacts(how, List.of(), folder));
            assertFalse(refused.problem().advice().isEmpty());
        }
    }
}
