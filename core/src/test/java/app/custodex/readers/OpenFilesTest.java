package app.custodex.readers;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Problem;
import app.custodex.extract.Written;
import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.Bookmark;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.Mail;
import app.custodex.model.MediaFile;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Party;
import app.custodex.model.Playlist;
import app.custodex.model.Task;
import app.custodex.model.ThingKind;
import app.custodex.readers.files.RouteFiles;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files that lie anywhere, known by what they are. */
class OpenFilesTest extends ReaderTest {
    private Everything read(String name, Kind kind, byte[] bytes) throws IOException {
        return Everything.of(
                new MemoryFiles(Map.of(new PhonePath(name), kind)).with(name, bytes), Family.FOLDER, place);
    }

    private Everything read(String name, Kind kind, String... lines) throws IOException {
        return read(name, kind, (String.join("\r\n", lines) + "\r\n").getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void whatIsAContactByItsContentIsReadWhateverItIsCalled() throws IOException {
        var all = read("card.txt", Kind.CONTACTS, "BEGIN:VCARD", "VERSION:3.0", "FN:Ivo Kelp", "END:VCARD");
        assertEquals("Ivo Kelp", all.contacts().getFirst().title());
        assertEquals(List.of(), all.problems());
    }

    /** RFC 5545: §3.6.1 (an event of days), §3.3.5 (the three forms of time), §3.8.5.1, §3.6.2, §3.6.6. */
    @Test
    void eventsAndTasksAreReadInEveryFormOfTime() throws IOException {
        var all = read(
                "c.ics",
                Kind.CALENDARS,
                "BEGIN:VCALENDAR",
                "VERSION:2.0",
                "PRODID:-//Test//EN",
                "X-WR-CALNAME:Island",
                "BEGIN:VEVENT",
                "UID:20070423T123432Z-541111@example.com",
                "DTSTAMP:20070423T123432Z",
                "DTSTART;VALUE=DATE:20070628",
                "DTEND;VALUE=DATE:20070709",
                "SUMMARY:Festival International de Jazz de Montreal",
                "TRANSP:TRANSPARENT",
                "END:VEVENT",
                "BEGIN:VEVENT",
                "UID:2",
                "DTSTART:19980118T230000",
                "SUMMARY:Floating",
                "END:VEVENT",
                "BEGIN:VEVENT",
                "UID:3",
                "DTSTART:19980119T070000Z",
                "DURATION:PT1H30M",
                "RRULE:FREQ=DAILY;COUNT=10",
                "EXDATE:19980121T070000Z",
                "RECURRENCE-ID:19980120T070000Z",
                "SUMMARY:UTC",
                "BEGIN:VALARM",
                "TRIGGER:-PT30M",
                "ACTION:DISPLAY",
                "DESCRIPTION:Breakfast",
                "END:VALARM",
                "END:VEVENT",
                "BEGIN:VTODO",
                "UID:4",
                "DUE:19980415T000000Z",
                "SUMMARY:Mend the gate",
                "END:VTODO",
                "END:VCALENDAR");
        assertEquals(List.of(), all.problems());
        var events = all.all(Event.class);
        assertEquals(
                Optional.of(new Moment.Day(LocalDate.of(2007, 6, 28))),
                events.getFirst().moment());
        assertEquals(
                Optional.of(new Moment.Day(LocalDate.of(2007, 7, 9))),
                events.getFirst().ends());
        assertEquals("Island", events.getFirst().calendar());
        assertEquals(
                Optional.of(new Moment.Floating(LocalDateTime.of(1998, 1, 18, 23, 0))),
                events.get(1).moment());
        var utc = events.get(2);
        var zone = ZoneId.of("UTC");
        assertEquals(
                Instant.parse("1998-01-19T07:00:00Z"),
                utc.moment().orElseThrow().instant(zone));
        assertEquals(
                Instant.parse("1998-01-19T08:30:00Z"), utc.ends().orElseThrow().instant(zone));
        assertEquals("FREQ=DAILY;COUNT=10", utc.rule());
        assertEquals(
                Instant.parse("1998-01-21T07:00:00Z"), utc.except().getFirst().instant(zone));
        assertEquals(
                Instant.parse("1998-01-20T07:00:00Z"),
                utc.instead().orElseThrow().instant(zone));
        assertEquals(30, utc.alarms().getFirst().toMinutes());
        assertEquals("Mend the gate", all.all(Task.class).getFirst().title());
    }

    @Test
    void aCalendarThatIsCutOffIsToldAndWhatIsThereIsRead() throws IOException {
        var all = read(
                "c.ics",
                Kind.CALENDARS,
                "BEGIN:VCALENDAR",
                "VERSION:2.0",
                "BEGIN:VEVENT",
                "UID:1",
                "SUMMARY:Practice",
                "DTSTART:20260110T120000Z",
                "END:VEVENT",
                "BEGIN:VEVENT",
                "SUMM");
        assertTrue(
                all.problems().getFirst().what().contains("cut off"),
                all.problems().toString());
    }

    @Test
    void bookmarksKeepTheirFolders() throws IOException {
        var all = read(
                "b.html",
                Kind.WEB,
                "<!DOCTYPE NETSCAPE-Bookmark-file-1>",
                "<TITLE>Bookmarks</TITLE><H1>Bookmarks</H1>",
                "<DL><p>",
                "<DT><H3>Sea</H3>",
                "<DL><p>",
                "<DT><A HREF=\"https://example.org/tides\" ADD_DATE=\"1700000000\">Tides &amp; winds</A>",
                "<DT><H3>Deep</H3>",
                "<DL><p>",
                "<DT><A HREF=\"https://example.org/deep\">Deep</A>",
                "</DL><p>",
                "</DL><p>",
                "<DT><A HREF=\"https://example.org/top\">Top</A>",
                "</DL><p>");
        var marks = all.all(Bookmark.class);
        assertEquals(
                List.of("Sea", "Sea/Deep", ""),
                marks.stream().map(Bookmark::folder).toList());
        assertEquals("Tides & winds", marks.getFirst().title());
        assertEquals(
                Optional.of(Moment.at(Instant.ofEpochSecond(1_700_000_000))),
                marks.getFirst().moment());
    }

    @Test
    void aNoteWithoutAHeadingIsCalledAsItsFile() throws IOException {
        var note = read("lists/Storm list.md", Kind.NOTES, "Lamp", "Rope")
                .all(Note.class)
                .getFirst();
        assertEquals("Storm list", note.title());
        assertEquals("lists", note.folder());
        assertEquals("Lamp\r\nRope", note.text());
    }

    /** A film in a form that says nothing here is no trouble; a picture that is damaged is. */
    @Test
    void mediaThatSaysNothingIsWholeAndMediaThatIsDamagedIsTold() throws IOException {
        var film = read("film.mkv", Kind.VIDEOS, new byte[] {0, 0, 1, (byte) 0xba, 1, 2, 3, 4});
        assertEquals(List.of(), film.problems());
        assertEquals(8, film.all(MediaFile.class).getFirst().bytes());
        var torn = read("film.webm", Kind.VIDEOS, new byte[] {0x1a, 0x45, (byte) 0xdf, (byte) 0xa3, 1, 2, 3, 4});
        assertTrue(torn.problems().getFirst().what().contains("damaged"), "it breaks off in its head");
        var jpeg = new byte[] {(byte) 0xff, (byte) 0xd8, (byte) 0xff, (byte) 0xe1, 0x7f, 0x00, 'E', 'x'};
        var picture = read("torn.jpg", Kind.PHOTOS, Arrays.copyOf(jpeg, 8));
        assertTrue(
                picture.problems().getFirst().what().contains("damaged"),
                picture.problems().toString());
        assertEquals("torn.jpg", picture.all(MediaFile.class).getFirst().title());
    }

    /** RFC 5322 Appendix A.1.1 and A.5; RFC 2047 §8; RFC 2045 and 2046 for the parts. */
    @Test
    void mailsAreReadAsTheStandardsWriteThem() throws IOException {
        var simple = read(
                        "one.eml",
                        Kind.CONVERSATIONS,
                        "From: John Doe <jdoe@machine.example>",
                        "To: Mary Smith <mary@example.net>",
                        "Subject: Saying Hello",
                        "Date: Fri, 21 Nov 1997 09:55:06 -0600",
                        "Message-ID: <1234@local.machine.example>",
                        "",
                        "This is a message just to say hello.",
                        "So, \"Hello\".")
                .all(Mail.class)
                .getFirst();
        assertEquals("Saying Hello", simple.title());
        assertEquals("jdoe@machine.example", simple.sender().orElseThrow().address());
        assertEquals("Mary Smith", simple.receivers().getFirst().name());
        assertEquals(Optional.of(Moment.parse("1997-11-21T15:55:06Z[-06:00]")), simple.moment());
        assertEquals("This is a message just to say hello.\r\nSo, \"Hello\".", simple.text());

        var odd = read(
                        "odd.eml",
                        Kind.CONVERSATIONS,
                        "From: Pete(A nice \\) chap) <pete(his account)@silly.test(his host)>",
                        "To:A Group(Some people)",
                        "     :Chris Jones <c@(Chris's host.)public.example>,",
                        "         joe@example.org,",
                        "  John <jdoe@one.test> (my dear friend); (the end of the group)",
                        "Cc:(Empty list)(start)Hidden recipients  :(nobody(that I know))  ;",
                        "Date: Thu,",
                        "      13",
                        "        Feb",
                        "          1969",
                        "      23:32",
                        "               -0330 (Newfoundland Time)",
                        "Message-ID:              <testabcd.1234@silly.test>",
                        "",
                        "Testing.")
                .all(Mail.class)
                .getFirst();
        assertEquals("pete@silly.test", odd.sender().orElseThrow().address());
        assertEquals(
                List.of("c@public.example", "joe@example.org", "jdoe@one.test"),
                odd.receivers().stream().map(Party::address).toList());
        assertEquals(Optional.of(Moment.parse("1969-02-14T03:02:00Z[-03:30]")), odd.moment());

        var parts = read(
                        "parts.eml",
                        Kind.CONVERSATIONS,
                        "From: =?ISO-8859-1?Q?Andr=E9?= Pirard <PIRARD@vm1.ulg.ac.be>",
                        "Subject: =?ISO-8859-1?B?SWYgeW91IGNhbiByZWFkIHRoaXMgeW8=?=",
                        "    =?ISO-8859-2?B?dSB1bmRlcnN0YW5kIHRoZSBleGFtcGxlLg==?=",
                        "MIME-Version: 1.0",
                        "Content-Type: multipart/mixed; boundary=x",
                        "",
                        "--x",
                        "Content-Type: text/html; charset=utf-8",
                        "Content-Transfer-Encoding: quoted-printable",
                        "",
                        "<p>L=C3=B8ft</p>",
                        "--x",
                        "Content-Type: image/png; name=anchor.png",
                        "Content-Transfer-Encoding: base64",
                        "",
                        "AAAA",
                        "--x--")
                .all(Mail.class)
                .getFirst();
        assertEquals("If you can read this you understand the example.", parts.title());
        assertEquals("André Pirard", parts.sender().orElseThrow().name());
        assertEquals("Løft", parts.text());
        assertEquals("anchor.png", parts.attachments().getFirst().name());
        assertEquals("image/png", parts.attachments().getFirst().type());
    }

    /** RFC 4155, Appendix A. */
    @Test
    void aMailboxIsCutWhereItsMailsBegin() throws IOException {
        var all = read(
                "box.mbox",
                Kind.CONVERSATIONS,
                "From a@example.org Thu Jan  1 00:00:01 2025",
                "Subject: one",
                "",
                "From the first day on, no beginning",
                ">From a quoted line",
                "",
                "From b@example.org Thu Jan  1 00:00:02 2025",
                "Subject: two",
                "",
                "last");
        assertEquals(
                List.of("one", "two"),
                all.all(Mail.class).stream().map(Mail::title).toList());
        assertTrue(all.all(Mail.class).getFirst().text().endsWith("From a quoted line"));
        assertEquals(
                1,
                read("no.mbox", Kind.CONVERSATIONS, "what is this").problems().size());
    }

    @Test
    void tablesOfContactsAreGuessedAndTheGuessIsTold() throws IOException {
        var all = read(
                "friends.csv",
                Kind.BOOKS,
                "First name;Last name;Home phone;Work phone;E-mail;Town;Birthday;Shoe size",
                "Ivo;Kelp;01632 960001;01632 960002;ivo@example.org;Lampholm;1990-05-01;44",
                ";;;;;;;",
                "\"Mar;en\";Skog;;;maren@example.org;;sometime;");
        assertEquals(2, all.contacts().size());
        var ivo = all.contacts().getFirst();
        assertEquals("Ivo Kelp", ivo.title());
        assertEquals(
                List.of("home +441632960001", "work +441632960002"),
                ivo.phones().stream().map(p -> p.label() + " " + p.e164()).toList());
        assertEquals("Lampholm", ivo.addresses().getFirst().town());
        assertEquals("44", ivo.extras().getFirst().value());
        assertEquals("Mar;en", all.contacts().get(1).name().given());
        var told = all.problems().getFirst();
        assertEquals(Problem.Grade.NOTE, told.grade());
        assertTrue(
                told.what().contains("Home phone as phone") && told.what().contains("kept as they are: Shoe size"),
                told.what());
        assertEquals(
                List.of(),
                read("prices.csv", Kind.BOOKS, "Item,Price", "Oar,12").contacts());
    }

    @Test
    void tablesOfMessagesAreGuessedAndTheGuessIsTold() throws IOException {
        var all = read(
                "sms.csv",
                Kind.BOOKS,
                "Timestamp,Direction,Phone number,Message",
                "2026-01-12 17:40:05,incoming,07700 900112,\"4,200 and the oars stay\"",
                "1768236000000,outgoing,07700 900112,\"3,900\"",
                "2026-01-12T18:00:00+01:00,incoming,Ivo,Sold",
                "3/4/2025,incoming,Ivo,Nobody knows when");
        var messages = all.all(Message.class);
        assertEquals(
                List.of("4,200 and the oars stay", "3,900", "Sold", "Nobody knows when"),
                messages.stream().map(Message::text).toList());
        assertEquals(2, all.all(Conversation.class).size());
        assertEquals("+447700900112", messages.getFirst().sender().orElseThrow().e164());
        assertTrue(messages.get(1).sent());
        assertEquals(
                List.of(
                        Optional.of(new Moment.Floating(LocalDateTime.of(2026, 1, 12, 17, 40, 5))),
                        Optional.of(Moment.at(Instant.parse("2026-01-12T16:40:00Z"))),
                        Optional.of(Moment.at(Instant.parse("2026-01-12T17:00:00Z"))),
                        Optional.empty()),
                messages.stream().map(Message::moment).toList());
        assertTrue(
                all.problems().getFirst().what().contains("Phone number as person"),
                all.problems().toString());
        assertTrue(
                all.problems().get(1).what().contains("The times of 1 of its messages"),
                all.problems().toString());
        assertEquals(List.of(), all.contacts());
        var named =
                read("more.csv", Kind.BOOKS, "Name,Phone,Sent at,Body", "Ivo,07700 900112,2026-01-12 17:40:05,Sold");
        assertEquals(1, named.all(Message.class).size());
        assertEquals(List.of(), named.contacts(), "a name and a number beside a message are no contact");
        assertEquals(
                1,
                read("friends.csv", Kind.BOOKS, "Name,Phone,Date of birth,Notes", "Ivo,07700 900112,1977-06-30,Text")
                        .contacts()
                        .size());
        assertEquals(
                List.of(),
                read("log.csv", Kind.BOOKS, "Date,Harbour", "2026-01-12,Nordvoe")
                        .all(Message.class));
    }

    /** ISO 8601 and RFC 3339 leave years of more digits to whoever agrees on them; nothing that counts milliseconds holds these. */
    @Test
    void timesTooFarAwayToBeCountedAreNone() throws IOException {
        for (var far : List.of("+999999999-01-01T00:00:00Z", "-999999999-01-01T00:00:00Z", "+999999999-01-01T00:00")) {
            var table = read("far.csv", Kind.BOOKS, "Date,From,Text", far + ",07700 900112,far away");
            assertEquals(
                    List.of(Optional.empty()),
                    table.all(Message.class).stream().map(Message::moment).toList(),
                    far);
            assertTrue(
                    table.problems().stream().anyMatch(problem -> problem.what().contains("The times of 1")),
                    table.problems().toString());
        }
        var route = read(
                        "far.gpx",
                        Kind.OTHER,
                        "<gpx><trk><trkseg><trkpt lat=\"0\" lon=\"10\"><time>+999999999-01-01T00:00:00Z</time></trkpt>",
                        "<trkpt lat=\"0\" lon=\"11\"><time>2025-06-01T08:30:00Z</time></trkpt></trkseg></trk></gpx>")
                .all(MediaFile.class)
                .stream()
                .filter(media -> media.kind() == ThingKind.ROUTE)
                .findFirst()
                .orElseThrow();
        assertEquals(
                Optional.of(Moment.at(Instant.parse("2025-06-01T08:30:00Z"))), route.moment(), "the near one is kept");
        assertThrows(DateTimeException.class, () -> Moment.parse("+999999999-12-31"));
    }

    /** GPX 1.1 schema; the distance of one degree along the equator by the mean radius (IUGG 1980): 111.195 km. */
    @Test
    void routesSayWhereWhenAndHowFar() throws IOException {
        var route = read(
                        "round.gpx",
                        Kind.OTHER,
                        "<?xml version=\"1.0\"?><!DOCTYPE gpx [<!ENTITY e SYSTEM \"file:///etc/passwd\">]>",
                        "<gpx xmlns=\"http://www.topografix.com/GPX/1/1\" version=\"1.1\"><trk><name>Round the island</name><trkseg>",
                        "<trkpt lat=\"0\" lon=\"10\"><time>2025-06-01T08:00:00Z</time><name>start</name></trkpt>",
                        "<trkpt lat=\"0\" lon=\"11\"><time>2025-06-01T10:30:00+02:00</time></trkpt></trkseg></trk></gpx>")
                .all(MediaFile.class)
                .stream()
                .filter(media -> media.kind() == ThingKind.ROUTE)
                .findFirst()
                .orElseThrow();
        assertEquals("Round the island", route.title());
        assertEquals(Optional.of(Duration.ofMinutes(30)), route.length());
        assertEquals(Optional.of(new MediaFile.Place(0, 10)), route.place());
        assertTrue(
                route.facts().contains(new MediaFile.Fact("Distance", "111.19 km"))
                        || route.facts().contains(new MediaFile.Fact("Distance", "111.20 km")),
                route.facts().toString());
        var torn = "<gpx><trk><trkseg><trkpt lat=\"1\" lon=\"1\"/></trkseg><trkseg><trkpt lat=\"2\" lon=\"3\"/>";
        var cut = read("cut.gpx", Kind.BOOKS, torn);
        assertEquals(1, cut.problems().size());
        // The way of a damaged one goes as far as it can be read, and never farther than is asked for.
        var bytes = torn.getBytes(StandardCharsets.UTF_8);
        var first = List.of(new MediaFile.Place(1, 1));
        assertEquals(
                List.of(first, List.of(new MediaFile.Place(2, 3))), RouteFiles.way(new ByteArrayInputStream(bytes), 9));
        assertEquals(List.of(first), RouteFiles.way(new ByteArrayInputStream(bytes), 1));
    }

    @Test
    void playlistsNameTheirTracksWhereverTheyLie() throws IOException {
        var files = new MemoryFiles(Map.of(new PhonePath("lists/tour.m3u8"), Kind.OTHER))
                .with("lists/tour.m3u8", """
                        #EXTM3U
                        #PLAYLIST:Choir tour
                        #EXTINF:210,Ærø choir - Løft
                        ../music/l%C3%B8ft.mp3
                        #EXTINF:1,Gone
                        C:\\music\\gone.mp3
                        ../../../etc/passwd
                        """.getBytes(StandardCharsets.UTF_8))
                .with("music/løft.mp3", new byte[1]);
        var list =
                Everything.of(files, Family.FOLDER, place).all(Playlist.class).getFirst();
        assertEquals("Choir tour", list.title());
        assertEquals("music/løft.mp3", list.tracks().getFirst().item());
        assertEquals("Ærø choir - Løft", list.tracks().getFirst().title());
        assertTrue(!list.tracks().get(1).there() && !list.tracks().get(2).there());
    }

    /** What was written as a table is read again: the titles say what is what. */
    @Test
    void ourOwnTableOfContactsIsReadAgain(@TempDir Path folder) throws IOException {
        var written = read(
                        "cards.vcf",
                        Kind.CONTACTS,
                        "BEGIN:VCARD",
                        "VERSION:4.0",
                        "UID:u-1",
                        "FN:Nóor; \"N\" Said",
                        "N:Said;Nóor;Maren;Dr;Jr",
                        "NICKNAME:N,Grandad",
                        "ORG:Slipway\\, Sons;Boats",
                        "TITLE:keeper",
                        "TEL;TYPE=cell:07700 900123",
                        "TEL;TYPE=work,fax:+44 1632 960001",
                        "EMAIL;TYPE=work:noor@example.org",
                        "ADR;TYPE=home:PO 7;2nd;3 Lamp Stair;Lampholm;Skerrow;SK1 2VO;Skerrow",
                        "BDAY:--1114",
                        "ANNIVERSARY:20010203",
                        "CATEGORIES:Family,Boat\\, sale",
                        "NOTE:line one\\nline two\\, with \"signs\" 海",
                        "URL:https://example.net/?a=1;b=2",
                        "END:VCARD",
                        "BEGIN:VCARD",
                        "VERSION:4.0",
                        "FN:Ivo Kelp",
                        "TEL:+447700900124",
                        "END:VCARD")
                .contacts();
        var csv = Written.contacts("csv:faithful", written, folder).files().getFirst();
        var again = read("table.csv", Kind.BOOKS, Files.readAllBytes(csv)).contacts();
        assertEquals(2, again.size());
        for (int i = 0; i < 2; i++) {
            var was = written.get(i);
            var is = again.get(i);
            assertEquals(was.name(), is.name());
            assertEquals(was.nicknames(), is.nicknames());
            assertEquals(was.organisation(), is.organisation());
            assertEquals(
                    was.phones().stream()
                            .map(phone -> phone.label() + phone.e164())
                            .toList(),
                    is.phones().stream()
                            .map(phone -> phone.label() + phone.e164())
                            .toList());
            assertEquals(
                    was.mails().stream()
                            .map(mail -> mail.label() + mail.value())
                            .toList(),
                    is.mails().stream().map(mail -> mail.label() + mail.value()).toList());
            assertEquals(
                    was.addresses().stream().map(address -> address.lines()).toList(),
                    is.addresses().stream().map(address -> address.lines()).toList());
            assertEquals(was.birthday(), is.birthday());
            assertEquals(was.anniversary(), is.anniversary());
            assertEquals(was.groups(), is.groups());
            assertEquals(was.notes(), is.notes());
            assertEquals(
                    was.webs().stream().map(web -> web.value()).toList(),
                    is.webs().stream().map(web -> web.value()).toList());
            assertEquals(was.uid(), is.uid());
        }
    }
}
