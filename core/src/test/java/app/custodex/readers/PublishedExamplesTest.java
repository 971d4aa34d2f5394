package app.custodex.readers;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.catalogue.WrittenReader;
import app.custodex.extract.Written;
import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.media.MediaSamples;
import app.custodex.model.Event;
import app.custodex.model.KindGroup;
import app.custodex.model.Mail;
import app.custodex.model.Thing;
import biweekly.Biweekly;
import ezvcard.Ezvcard;
import ezvcard.VCard;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Examples that standards print, read and written again, and compared with what another library reads of both. */
class PublishedExamplesTest extends ReaderTest {
    @TempDir
    private Path out;

    private Everything read(String name, Kind kind, String... lines) throws IOException {
        var bytes = (String.join("\r\n", lines) + "\r\n").getBytes(StandardCharsets.UTF_8);
        var all = Everything.of(
                new MemoryFiles(Map.of(new PhonePath(name), kind)).with(name, bytes), Family.FOLDER, place);
        assertEquals(List.of(), all.problems());
        return all;
    }

    private Path written(KindGroup group, String how, String store, List<? extends Thing> things) throws IOException {
        var phone = new WrittenReader(Files.createTempDirectory(out, "phone"));
        phone.write(store, things.toArray(Thing[]::new));
        try (var catalogue = phone.catalogue(Optional.empty(), 1)) {
            return Written.all(group, how, catalogue, out.resolve("out"))
                    .files()
                    .getFirst();
        }
    }

    /** RFC 5545, section 4: the second example, a meeting in the zone of New York. */
    @Test
    void aMeetingOfRfc5545() throws IOException {
        String[] published = {
            "BEGIN:VCALENDAR",
            "PRODID:-//RDU Software//NONSGML HandCal//EN",
            "VERSION:2.0",
            "BEGIN:VTIMEZONE",
            "TZID:America/New_York",
            "BEGIN:STANDARD",
            "DTSTART:19981025T020000",
            "TZOFFSETFROM:-0400",
            "TZOFFSETTO:-0500",
            "TZNAME:EST",
            "END:STANDARD",
            "BEGIN:DAYLIGHT",
            "DTSTART:19990404T020000",
            "TZOFFSETFROM:-0500",
            "TZOFFSETTO:-0400",
            "TZNAME:EDT",
            "END:DAYLIGHT",
            "END:VTIMEZONE",
            "BEGIN:VEVENT",
            "DTSTAMP:19980309T231000Z",
            "UID:guid-1.example.com",
            "ORGANIZER:mailto:mrbig@example.com",
            "ATTENDEE;RSVP=TRUE;ROLE=REQ-PARTICIPANT;CUTYPE=GROUP:",
            " mailto:employee-A@example.com",
            "DESCRIPTION:Project XYZ Review Meeting",
            "CATEGORIES:MEETING",
            "CLASS:PUBLIC",
            "CREATED:19980309T130000Z",
            "SUMMARY:XYZ Project Review",
            "DTSTART;TZID=America/New_York:19980312T083000",
            "DTEND;TZID=America/New_York:19980312T093000",
            "LOCATION:1CP Conference Room 4350",
            "END:VEVENT",
            "END:VCALENDAR"
        };
        var events = read("c.ics", Kind.CALENDARS, published).all(Event.class);
        var ours = Biweekly.parse(Files.readString(written(KindGroup.EVENTS, "icalendar", "c.ics", events)))
                .first()
                .getEvents()
                .getFirst();
        assertEquals("guid-1.example.com", ours.getUid().getValue());
        assertEquals("XYZ Project Review", ours.getSummary().getValue());
        assertEquals("Project XYZ Review Meeting", ours.getDescription().getValue());
        assertEquals("1CP Conference Room 4350", ours.getLocation().getValue());
        assertEquals(
                Instant.parse("1998-03-12T13:30:00Z"),
                ours.getDateStart().getValue().toInstant(),
                "half past eight in New York, before summer time");
        assertEquals(
                Instant.parse("1998-03-12T14:30:00Z"),
                ours.getDateEnd().getValue().toInstant());
        assertTrue(ours.getAttendees().stream().anyMatch(who -> "employee-A@example.com".equals(who.getEmail())));
    }

    /** The examples of single properties in RFC 6350; the section stands beside each. */
    @Test
    void aCardOfRfc6350() throws IOException {
        String[] published = {
            "BEGIN:VCARD",
            "VERSION:4.0",
            "FN:Mr. John Q. Public\\, Esq.", // §6.2.1
            "N:Stevenson;John;Philip,Paul;Dr.;Jr.,M.D.,A.C.P.", // §6.2.2
            "NICKNAME:Jim,Jimmie", // §6.2.3
            "BDAY:19960415", // §6.2.5
            "TEL;VALUE=uri;TYPE=home:tel:+33-01-23-45-67", // §6.4.1
            "EMAIL;TYPE=work:jqpublic@xyz.example.com", // §6.4.2
            "ORG:ABC\\, Inc.;North American Division;Marketing", // §6.6.4
            "TITLE:Research Scientist", // §6.6.1
            "END:VCARD"
        };
        var contacts = read("c.vcf", Kind.CONTACTS, published).contacts();
        var theirs = Ezvcard.parse(String.join("\r\n", published)).first();
        for (var how : List.of("vcard4", "vcard3", "vcard21", "jcard")) {
            var text = Files.readString(
                    Written.contacts(how, contacts, out.resolve(how)).files().getFirst());
            VCard ours = how.equals("jcard")
                    ? Ezvcard.parseJson(text).first()
                    : Ezvcard.parse(text).first();
            assertEquals(
                    theirs.getFormattedName().getValue(),
                    ours.getFormattedName().getValue(),
                    how);
            var name = theirs.getStructuredName();
            assertEquals(name.getFamily(), ours.getStructuredName().getFamily(), how);
            assertEquals(name.getGiven(), ours.getStructuredName().getGiven(), how);
            assertEquals(
                    theirs.getEmails().getFirst().getValue(),
                    ours.getEmails().getFirst().getValue(),
                    how);
            assertEquals(
                    theirs.getOrganization().getValues().getFirst(),
                    ours.getOrganization().getValues().getFirst(),
                    how);
            assertEquals(
                    theirs.getTitles().getFirst().getValue(),
                    ours.getTitles().getFirst().getValue(),
                    how);
            assertEquals(theirs.getBirthday().getDate(), ours.getBirthday().getDate(), how);
        }
    }

    /** RFC 5322, appendix A.1.1, in the separator of RFC 4155, appendix A. */
    @Test
    void aMailOfRfc5322() throws IOException {
        var mails = read(
                        "m.mbox",
                        Kind.CONVERSATIONS,
                        "From jdoe@machine.example Fri Nov 21 15:55:06 1997",
                        "From: John Doe <jdoe@machine.example>",
                        "To: Mary Smith <mary@example.net>",
                        "Subject: Saying Hello",
                        "Date: Fri, 21 Nov 1997 09:55:06 -0600",
                        "Message-ID: <1234@local.machine.example>",
                        "",
                        "This is a message just to say hello.",
                        "So, \"Hello\".")
                .all(Mail.class);
        var box = written(KindGroup.MESSAGES, "mbox:file-each=no", "m.mbox", mails);
        var read = new String(
                MediaSamples.run(
                        "python3",
                        "-c",
                        "import mailbox, sys, email.utils\n"
                                + "m = mailbox.mbox(sys.argv[1])[0]\n"
                                + "print(m['From'], m['To'], m['Subject'],"
                                + " email.utils.parsedate_to_datetime(m['Date']).timestamp(), sep='|')\n"
                                + "print(m.get_payload(decode=True).decode())",
                        box.toString()),
                StandardCharsets.UTF_8);
        assertTrue(
                read.startsWith(
                        "John Doe <jdoe@machine.example>|Mary Smith <mary@example.net>|Saying Hello|880127706.0"),
                read);
        assertTrue(read.contains("This is a message just to say hello."), read);
        assertTrue(read.contains("So, \"Hello\"."), read);
    }
}
