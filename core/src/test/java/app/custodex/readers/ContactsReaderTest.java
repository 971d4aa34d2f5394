package app.custodex.readers;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.PrivatePlace;
import app.custodex.base.Problem;
import app.custodex.link.Family;
import app.custodex.model.Contact;
import app.custodex.model.Contact.Day;
import app.custodex.model.Contact.Labelled;
import app.custodex.model.Contact.PhoneNumber;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class ContactsReaderTest extends ReaderTest {
    private Everything pellow(String... cards) throws IOException {
        var files = new MemoryFiles(Family.PELLOW);
        for (int i = 0; i < cards.length; i++) {
            files.with("Shared/People/This phone/%03d.vcf".formatted(i), cards[i].getBytes(StandardCharsets.UTF_8));
        }
        return Everything.of(files, Family.PELLOW, place);
    }

    private Contact card(String... lines) throws IOException {
        var all = "BEGIN:VCARD\r\nVERSION:4.0\r\n" + String.join("\r\n", lines) + "\r\nEND:VCARD\r\n";
        var book = pellow(all);
        assertEquals(List.of(), book.problems());
        return book.contacts().getFirst();
    }

    /** The examples that RFC 6350 gives for single properties; the section stands beside each. */
    @Test
    void readsTheExamplesOfRfc6350() throws IOException {
        var contact = card(
                "FN:Mr. John Q. Public\\, Esq.", // §6.2.1
                "N:Stevenson;John;Philip,Paul;Dr.;Jr.,M.D.,A.C.P.", // §6.2.2
                "NICKNAME:Jim,Jimmie", // §6.2.3
                "BDAY:19960415", // §6.2.5
                "ANNIVERSARY:--0415", // the form of §6.2.5 without a year
                "ADR;LABEL=\"Mr. John Q. Public, Esq.\\nMail Drop: TNE QB\\n123 Main Street\\nAny Town, CA  91921-1234\\n"
                        + "U.S.A.\":;;123 Main Street;Any Town;CA;91921-1234;U.S.A.", // §6.3.1
                "TEL;VALUE=uri;PREF=1;TYPE=\"voice,home\":tel:+1-555-555-5555;ext=5555", // §6.4.1
                "TEL;VALUE=uri;TYPE=home:tel:+33-01-23-45-67", // §6.4.1
                "EMAIL;TYPE=work:jqpublic@xyz.example.com", // §6.4.2
                "IMPP;PREF=1:xmpp:alice@example.com", // §6.4.3
                "ORG:ABC\\, Inc.;North American Division;Marketing", // §6.6.4
                "TITLE:Research Scientist", // §6.6.1
                "ROLE:Project Leader", // §6.6.2
                "CATEGORIES:INTERNET,IETF,INDUSTRY,INFORMATION TECHNOLOGY", // §6.7.1
                "NOTE:This fax number is operational 0800 to 1715 EST\\, Mon-Fri.", // §6.7.2
                "REV:19951031T222710Z", // §6.7.4
                "UID:urn:uuid:f81d4fae-7dec-11d0-a765-00a0c91e6bf6"); // §6.7.6

        assertEquals("Mr. John Q. Public, Esq.", contact.title());
        assertEquals("Stevenson", contact.name().family());
        assertEquals("Philip Paul", contact.name().middle());
        assertEquals("Jr. M.D. A.C.P.", contact.name().suffix());
        assertEquals(List.of("Jim", "Jimmie"), contact.nicknames());
        assertEquals(Optional.of(new Day(Optional.of(1996), 4, 15)), contact.birthday());
        assertEquals(Optional.of(new Day(Optional.empty(), 4, 15)), contact.anniversary());
        assertEquals(
                List.of("123 Main Street", "91921-1234 Any Town", "CA", "U.S.A."),
                contact.addresses().getFirst().lines());
        assertEquals("home", contact.phones().getFirst().label());
        assertTrue(contact.phones().getFirst().written().contains("555-555-5555"));
        assertEquals(List.of(new Labelled("work", "jqpublic@xyz.example.com")), contact.mails());
        assertEquals("xmpp:alice@example.com", contact.chats().getFirst().value());
        assertEquals("ABC, Inc.", contact.organisation().name());
        assertEquals(
                "North American Division, Marketing", contact.organisation().department());
        assertEquals("Project Leader", contact.organisation().role());
        assertEquals(List.of("INTERNET", "IETF", "INDUSTRY", "INFORMATION TECHNOLOGY"), contact.groups());
        assertEquals(List.of("This fax number is operational 0800 to 1715 EST, Mon-Fri."), contact.notes());
        assertEquals(Optional.of(Instant.parse("1995-10-31T22:27:10Z")), contact.changed());
        assertEquals("urn:uuid:f81d4fae-7dec-11d0-a765-00a0c91e6bf6", contact.uid());
    }

    /** RFC 6350 §3.2: a folded line goes on behind a line break and one space. */
    @Test
    void unfoldsTheExampleOfRfc6350() throws IOException {
        var contact = card("FN:x", "NOTE:This is a long descrip\r\n tion that exists o\r\n n a long line.");
        assertEquals(List.of("This is a long description that exists on a long line."), contact.notes());
    }

    @Test
    void keepsTheOwnersOwnLabelsAndWhatItDoesNotKnow() throws IOException {
        var contact = card(
                "FN:Ivo Kelp",
                "item1.TEL:07700 900123",
                "item1.X-LABEL:Boat\\; harbour\\, north",
                "X-SHOE-SIZE:44\\, wide");
        assertEquals(
                List.of(new PhoneNumber("Boat; harbour, north", "07700 900123", "+447700900123")), contact.phones());
        assertEquals(List.of(new Contact.Extra("X-SHOE-SIZE", "44, wide")), contact.extras());
    }

    @Test
    void aCardWithoutANameIsCalledByWhatItHas() throws IOException {
        assertEquals("Slipway & Sons", card("FN:", "ORG:Slipway & Sons").title());
        assertEquals("01632 960001", card("FN:", "TEL:01632 960001").title());
        assertEquals("(no name)", card("FN:").title());
    }

    @Test
    void brokenEncodingIsToldAndReadAllTheSame() throws IOException {
        var bytes =
                "BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Søren Ås\r\nEND:VCARD\r\n".getBytes(Charset.forName("windows-1252"));
        var book = Everything.of(
                new MemoryFiles(Family.PELLOW).with("Shared/People/Card/x.vcf", bytes), Family.PELLOW, place);

        assertEquals("Søren Ås", book.contacts().getFirst().title());
        assertEquals(Problem.Grade.LOSS, book.problems().getFirst().grade());
        assertEquals("Shared/People/Card/x.vcf", book.problems().getFirst().subject());
    }

    @Test
    void tornAndEmptyAndForeignFilesDoNotKeepTheOthersOut() throws IOException {
        var good = "BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Good\r\nEND:VCARD\r\n";
        var book = pellow(
                good,
                "BEGIN:VCARD\r\nVERSION:3.0\r\nFN:Torn\r\nNOTE:half a li",
                "",
                "\u0000\u0001\u0002 this is no card",
                good + good.replace("Good", "Second in the file"));

        assertTrue(book.contacts().stream()
                .map(Contact::title)
                .toList()
                .containsAll(List.of("Good", "Second in the file")));
        assertEquals(3, book.problems().size(), book.problems().toString());
        assertTrue(book.problems().stream().allMatch(p -> !p.advice().isEmpty()));
    }

    private interface Sql {
        void run(Statement statement) throws SQLException;
    }

    private byte[] ostrel(Sql more) throws Exception {
        var file = Files.createTempDirectory(folder, "make").resolve("people.db");
        try (var db = DriverManager.getConnection("jdbc:sqlite:" + file);
                var sql = db.createStatement()) {
            db.setAutoCommit(false);
            sql.executeUpdate(
                    "CREATE TABLE person (id INTEGER PRIMARY KEY, uid TEXT, prefix TEXT, given TEXT, middle TEXT,"
                            + " family TEXT, suffix TEXT, sound_given TEXT, sound_family TEXT, nickname TEXT, organisation TEXT,"
                            + " department TEXT, title TEXT, birthday TEXT, note TEXT, changed INTEGER)");
            sql.executeUpdate("CREATE TABLE reach (person INTEGER, place INTEGER, way TEXT, label TEXT, value TEXT)");
            sql.executeUpdate("CREATE TABLE post (person INTEGER, place INTEGER, label TEXT, street TEXT, town TEXT,"
                    + " region TEXT, code TEXT, country TEXT)");
            sql.executeUpdate("CREATE TABLE portrait (person INTEGER PRIMARY KEY, image BLOB)");
            sql.executeUpdate("CREATE TABLE circle (id INTEGER PRIMARY KEY, name TEXT)");
            sql.executeUpdate("CREATE TABLE circle_member (circle INTEGER, person INTEGER)");
            more.run(sql);
            db.commit();
        }
        return Files.readAllBytes(file);
    }

    private Everything read(byte[] database) throws IOException {
        return Everything.of(
                new MemoryFiles(Family.OSTREL).with("store/people/people.db", database), Family.OSTREL, place);
    }

    @Test
    void readsAnOstrelsTablesIntoTheSameModel() throws Exception {
        var book = read(ostrel(sql -> {
            sql.executeUpdate(
                    "INSERT INTO person VALUES (7,'u-7','Dr','Noor','','Said',NULL,'Nur',NULL,'N',NULL,NULL,'guide',"
                            + "'--11-14','a note',820000000000000)");
            sql.executeUpdate(
                    "INSERT INTO reach VALUES (7,1,'mail','work','noor@example.org'),(7,0,'phone','mobile','07700900123'),"
                            + "(7,2,'chat','Kitewire','noor'),(7,3,'pigeon','loft','grey one')");
            sql.executeUpdate(
                    "INSERT INTO post VALUES (7,0,'home','3 Lamp Stair','Lampholm','Skerrow','SK1','Skerrow')");
            sql.executeUpdate("INSERT INTO portrait VALUES (7, x'FFD8FF00')");
            sql.executeUpdate("INSERT INTO circle VALUES (1,'Choir')");
            sql.executeUpdate("INSERT INTO circle_member VALUES (1,7)");
            sql.executeUpdate("INSERT INTO person(id,given,birthday) VALUES (8,'Bare','sometime in spring')");
        }));

        assertEquals(List.of(), book.problems());
        var noor = book.contacts().getFirst();
        assertEquals("Dr Noor Said", noor.title());
        assertEquals(List.of(new PhoneNumber("mobile", "07700900123", "+447700900123")), noor.phones());
        assertEquals(List.of(new Labelled("Kitewire", "kitewire:noor")), noor.chats());
        assertEquals(List.of(new Contact.Extra("X-PIGEON", "grey one")), noor.extras());
        assertEquals(Optional.of(new Day(Optional.empty(), 11, 14)), noor.birthday());
        assertEquals(List.of("Choir"), noor.groups());
        // 820,000,000 s after 2000-01-01T00:00Z
        assertEquals(Optional.of(Instant.parse("2025-12-25T17:46:40Z")), noor.changed());
        assertArrayEquals(
                new byte[] {(byte) 0xff, (byte) 0xd8, (byte) 0xff, 0},
                book.photo(noor).orElseThrow());
        var bare = book.contacts().get(1);
        assertFalse(bare.hasPhoto());
        assertEquals(List.of(new Contact.Extra("BDAY", "sometime in spring")), bare.extras());
        book.close();
    }

    @Test
    void aTornDatabaseGivesWhatCanBeReadAndSaysSo() throws Exception {
        var whole = ostrel(sql -> {
            for (int i = 1; i <= 3_000; i++) {
                sql.executeUpdate("INSERT INTO person(id,given,note) VALUES (" + i + ",'Person " + i + "','"
                        + "x".repeat(200) + "')");
                sql.executeUpdate("INSERT INTO reach VALUES (" + i + ",0,'phone','home','01632 960001')");
            }
        });
        var torn = whole.clone();
        Arrays.fill(torn, whole.length / 3, whole.length / 3 + 20_000, (byte) 0x5a);

        var book = read(torn);

        assertTrue(book.contacts().size() > 1_500, "only " + book.contacts().size());
        assertTrue(book.contacts().size() < 3_000);
        assertTrue(
                book.problems().stream().anyMatch(p -> p.what().contains("could not be read")),
                book.problems().toString());
        book.close();
    }

    @Test
    void whatIsNoDatabaseAtAllIsToldInOneSentence() throws IOException {
        var book = read("this is no database".repeat(100).getBytes(StandardCharsets.UTF_8));

        assertEquals(List.of(), book.contacts());
        assertFalse(book.problems().isEmpty());
        assertTrue(book.problems().stream().allMatch(p -> p.subject().equals("store/people/people.db")));
        book.close();
    }

    @Test
    void aPhoneWithoutPeopleIsAnEmptyBook() throws IOException {
        assertEquals(
                List.of(),
                Everything.of(new MemoryFiles(Family.OSTREL), Family.OSTREL, place)
                        .contacts());
        assertEquals(List.of(), pellow().contacts());
    }

    @Test
    void nothingIsLeftOnTheDiskAfterReading() throws Exception {
        var book = read(ostrel(sql -> {}));
        book.close();
        place.close();
        try (var left = Files.list(folder.resolve("reading"))) {
            assertEquals(0, left.count());
        }
        place = PrivatePlace.open(folder.resolve("reading"));
    }
}
