package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.ProblemException;
import app.custodex.extract.ContactFormat.Version;
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
import java.io.IOException;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import org.apache.commons.csv.CSVFormat;
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
                Optional.of(new Day(Optional.empty(), 11, 14)),
                Optional.of(new Day(Optional.of(2001), 2, 3)),
                List.of(new Labelled("spouse", "Halvard")),
                List.of("line one\nline two; with, signs \\ and 海 🌊 " + "日本語".repeat(60), "control \u0000\u0007 gone"),
                List.of("Family", "Boat, sale"),
                true,
                Optional.of(Instant.parse("2025-11-14T21:04:00Z")),
                List.of(new Extra("X-SHOE-SIZE", "44, wide")));
    }

    private ExtractResult write(ContactFormat format, Contact... contacts) throws IOException {
        return new ContactExtraction(format, contact -> Optional.of(JPEG))
                .write(List.of(contacts), "Contacts of a phone", folder, done -> {}, new CancelToken());
    }

    private String text(ExtractResult result) throws IOException {
        assertEquals(1, result.files().size());
        return Files.readString(result.files().getFirst());
    }

    @Test
    void anIndependentReaderFindsEverythingInVcard4() throws IOException {
        var result = write(new ContactFormat.Vcard(Version.V4, false), full(), named("Ivo Kelp", ""));

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
        var result = write(new ContactFormat.Vcard(Version.V3, false), full());

        var card = StrictVcard.read(text(result), "3.0").getFirst();
        assertEquals("--11-14", card.one("X-BIRTHDAY").text());
        assertEquals("2001-02-03", card.one("X-ANNIVERSARY").text());
        assertEquals("spouse: Halvard", card.one("X-RELATED").text());
        assertEquals(1, result.problems().size());
        assertTrue(result.problems().getFirst().what().contains("without a year"));
    }

    /** python3-vobject of Debian reads vCard 3.0; it shares nothing with the library that writes. */
    @Test
    void debiansReaderFindsEverythingInVcard3() throws Exception {
        assertTrue(Files.exists(Path.of("/usr/lib/python3/dist-packages/vobject")), "install python3-vobject");
        var result = write(new ContactFormat.Vcard(Version.V3, false), full(), named("عمر 海", "ملاحظة"));
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
                new ContactFormat.Vcard(Version.V4, true),
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
        assertTrue(result.files().stream().allMatch(f -> folder.equals(f.getParent()) && Files.exists(f)));
        try (var files = Files.list(folder)) {
            assertEquals(8, files.count(), "no partial file is left");
        }
        for (var file : result.files()) {
            assertEquals(1, StrictVcard.read(Files.readString(file), "4.0").size());
        }
    }

    @Test
    void nothingThatIsThereIsOverwritten() throws IOException {
        var there = Files.writeString(folder.resolve("Contacts of a phone.vcf"), "mine");

        var result = write(new ContactFormat.Vcard(Version.V4, false), named("A", ""));

        assertEquals("mine", Files.readString(there));
        assertEquals(
                folder.resolve("Contacts of a phone (2).vcf"), result.files().getFirst());
    }

    /** RFC 4180 §2: rules 1 (CRLF), 5 to 7 (quotes around breaks, commas and quotes; quotes doubled). */
    @Test
    void csvFollowsRfc4180InTheEyesOfAnotherLibrary() throws IOException {
        var text = text(write(new ContactFormat.Csv(false, false), full(), named("plain", "aaa b\nbb, c\"cc")));

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
        var faithful = text(write(new ContactFormat.Csv(false, false), evil));
        var safe = text(write(new ContactFormat.Csv(true, true), evil, full()));

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

        var page = Jsoup.parse(text(write(new ContactFormat.Html(), evil, full())));

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
        var result = new ContactExtraction(
                        new ContactFormat.Html(),
                        contact -> Optional.of("<svg onload=x>".getBytes(StandardCharsets.UTF_8)))
                .write(List.of(full()), "t", folder, done -> {}, new CancelToken());

        assertEquals(1, result.problems().size());
        assertFalse(text(result).contains("onload"));
    }

    @Test
    void aPhotoThatCantBeReadDoesNotStopTheRest() throws IOException {
        var result = new ContactExtraction(new ContactFormat.Vcard(Version.V4, false), contact -> {
                    throw new IOException("torn");
                })
                .write(List.of(full(), named("B", "")), "t", folder, done -> {}, new CancelToken());

        assertEquals(2, StrictVcard.read(text(result), "4.0").size());
        assertEquals(full().title(), result.problems().getFirst().subject());
    }

    @Test
    void aFolderThatCantBeWrittenIsToldWithWhatToDo() throws IOException {
        var file = Files.createFile(folder.resolve("a file, not a folder"));

        var refused = assertThrows(
                ProblemException.class,
                () -> new ContactExtraction(new ContactFormat.Html(), contact -> Optional.empty())
                        .write(List.of(named("A", "")), "t", file, done -> {}, new CancelToken()));

        assertTrue(refused.problem().advice().startsWith("Choose another folder"), refused.toString());
    }

    @Test
    void aStoppedExtractionLeavesOnlyCompleteFiles() throws IOException {
        for (var format : List.of(
                new ContactFormat.Vcard(Version.V4, true),
                new ContactFormat.Vcard(Version.V4, false),
                new ContactFormat.Csv(false, false),
                new ContactFormat.Html())) {
            var into = folder.resolve(format.getClass().getSimpleName() + format.hashCode());
            var cancel = new CancelToken();
            assertThrows(
                    CancellationException.class,
                    () -> new ContactExtraction(format, contact -> Optional.empty())
                            .write(
                                    List.of(named("A", ""), named("B", ""), named("C", "")),
                                    "t",
                                    into,
                                    done -> cancel.cancel(),
                                    cancel));
            try (var left = Files.list(into)) {
                assertTrue(left.noneMatch(f -> f.toString().endsWith(".part")), format.toString());
            }
        }
    }
}
