package app.custodex.readers;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.PrivatePlace;
import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.Bookmark;
import app.custodex.model.Event;
import app.custodex.model.MediaFile;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Task;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files that lie anywhere, known by what they are. */
class OpenFilesTest {
    @TempDir
    Path folder;

    private PrivatePlace place;

    @BeforeEach
    void open() throws IOException {
        place = PrivatePlace.open(folder.resolve("reading"));
    }

    @AfterEach
    void close() throws IOException {
        place.close();
    }

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
        var film = read("film.webm", Kind.VIDEOS, new byte[] {0x1a, 0x45, (byte) 0xdf, (byte) 0xa3, 1, 2, 3, 4});
        assertEquals(List.of(), film.problems());
        assertEquals(8, film.all(MediaFile.class).getFirst().bytes());
        var jpeg = new byte[] {(byte) 0xff, (byte) 0xd8, (byte) 0xff, (byte) 0xe1, 0x7f, 0x00, 'E', 'x'};
        var picture = read("torn.jpg", Kind.PHOTOS, Arrays.copyOf(jpeg, 8));
        assertTrue(
                picture.problems().getFirst().what().contains("damaged"),
                picture.problems().toString());
        assertEquals("torn.jpg", picture.all(MediaFile.class).getFirst().title());
    }
}
