package app.custodex.practice.content;

import app.custodex.link.Family;
import app.custodex.practice.island.Life;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;

/** Writes what a Pellow holds: vCard and iCalendar files, Markdown notes, one database of talk, and media folders. */
public final class PellowStore {
    private static final List<String> ACCOUNTS = List.of("This phone", "Card");

    private PellowStore() {}

    /** Which tables and files a Pellow has. */
    public enum Base {
        EIGHT,
        NINE
    }

    /**
     * Writes it. Pictures in full quality are not drawn, since that takes its time: {@link Roll} draws them one by one.
     *
     * @param people in its address book
     */
    public static StoreCounts write(Path files, Life life, List<Person> people, Base base, Photographer.Quality quality)
            throws IOException {
        for (int i = 0; i < people.size(); i++) {
            var account = ACCOUNTS.get(i % 9 == 8 ? 1 : 0);
            person(files.resolve("Shared/People").resolve(account), people.get(i), i);
        }
        new PellowTalk(life).write(files.resolve("Shared/Talk"), base);
        for (var event : life.events()) {
            event(files.resolve("Shared/Calendars").resolve(event.calendar()), event, life.until());
        }
        for (var note : life.notes()) {
            var folder = files.resolve("Shared/Notes").resolve(note.folder()).resolve(note.title());
            Clips.text("# " + note.title() + "\n\n" + note.text() + "\n", folder.resolve("note.md"), note.at());
            if (note.drawing().isPresent()) {
                Clips.put("harbour.webp", folder.resolve("harbour.webp"), note.at());
            }
        }
        bookmarks(files.resolve("Shared/Web/bookmarks.html"), life);
        for (int i = 0; i < life.voicemails().size(); i++) {
            var mail = life.voicemails().get(i);
            Clips.put(
                    mail.sound(),
                    files.resolve("Shared/Mailbox calls/%04d %s.amr".formatted(i + 1, mail.address())),
                    mail.at());
        }
        new PellowMedia(files, life).write();
        if (quality != Photographer.Quality.FULL) {
            Roll.draw(Roll.of(Family.PELLOW, files, life), new Photographer(quality));
        }
        return StoreCounts.of(people.size(), life);
    }

    /** In the form that browsers exchange. */
    private static void bookmarks(Path file, Life life) throws IOException {
        var html = new StringBuilder("<!DOCTYPE NETSCAPE-Bookmark-file-1>\n<TITLE>Bookmarks</TITLE>\n<DL><p>\n");
        var folders = new ArrayList<String>();
        for (var mark : life.marks()) {
            var wanted = mark.folder().isEmpty()
                    ? List.<String>of()
                    : List.of(mark.folder().split("/"));
            while (folders.size() > wanted.size()
                    || !folders.equals(wanted.subList(0, Math.min(folders.size(), wanted.size())))) {
                html.append("</DL><p>\n");
                folders.removeLast();
            }
            while (folders.size() < wanted.size()) {
                folders.add(wanted.get(folders.size()));
                html.append("<DT><H3>").append(folders.getLast()).append("</H3>\n<DL><p>\n");
            }
            html.append("<DT><A HREF=\"%s\" ADD_DATE=\"%d\"%s>%s</A>\n"
                    .formatted(
                            mark.address().replace("&", "&amp;"),
                            mark.added().atTime(12, 0).toEpochSecond(ZoneOffset.ofHours(1)),
                            mark.later() ? " LATER=\"true\"" : "",
                            mark.title()));
        }
        html.append("</DL><p>\n".repeat(folders.size() + 1));
        Clips.text(html.toString(), file, life.until());
    }

    /** vCard 3.0 (RFC 2426) as phones of this family write it, with their own folding and quoted separators. */
    private static void person(Path account, Person p, int number) throws IOException {
        var folder = account.resolve("%03d".formatted(number / 500));
        Files.createDirectories(folder);
        var file = folder.resolve("%06d.vcf".formatted(number));
        try (var out = Files.newBufferedWriter(file, StandardCharsets.UTF_8)) {
            line(out, "BEGIN:VCARD");
            line(out, "VERSION:3.0");
            line(out, "UID:" + p.uid());
            line(
                    out,
                    "N:"
                            + String.join(
                                    ";",
                                    text(p.family()),
                                    text(p.given()),
                                    text(p.middle()),
                                    text(p.prefix()),
                                    text(p.suffix())));
            line(
                    out,
                    "FN:"
                            + text((p.prefix() + " " + p.given() + " " + p.family() + " " + p.suffix())
                                    .replaceAll("\\s+", " ")
                                    .strip()));
            optional(out, "NICKNAME:", p.nickname());
            optional(out, "X-PHONETIC-FIRST-NAME:", p.phoneticGiven());
            optional(out, "X-PHONETIC-LAST-NAME:", p.phoneticFamily());
            if (!p.organisation().isEmpty()) {
                line(
                        out,
                        "ORG:" + text(p.organisation()) + (p.department().isEmpty() ? "" : ";" + text(p.department())));
            }
            optional(out, "TITLE:", p.title());
            optional(out, "BDAY:", p.birthday());
            int group = 1;
            for (var r : p.reach()) {
                group = reach(out, r, group);
            }
            for (var a : p.posts()) {
                line(
                        out,
                        "ADR;TYPE=" + a.label().toUpperCase(Locale.ROOT) + ":;;"
                                + String.join(
                                        ";",
                                        text(a.street()),
                                        text(a.town()),
                                        text(a.region()),
                                        text(a.code()),
                                        text(a.country())));
            }
            if (!p.circles().isEmpty()) {
                line(
                        out,
                        "CATEGORIES:"
                                + String.join(
                                        ",",
                                        p.circles().stream()
                                                .map(PellowStore::text)
                                                .toList()));
            }
            optional(out, "NOTE:", p.note());
            if (p.portrait().length > 0) {
                line(out, "PHOTO;ENCODING=b;TYPE=JPEG:" + Base64.getEncoder().encodeToString(p.portrait()));
            }
            line(out, "REV:" + Instant.ofEpochMilli(p.changedMillis()));
            line(out, "END:VCARD");
        }
        Clips.stamp(file, LocalDateTime.ofInstant(Instant.ofEpochMilli(p.changedMillis()), ZoneOffset.ofHours(1)));
    }

    private static int reach(Writer out, Person.Reach r, int group) throws IOException {
        var property = switch (r.way()) {
            case "phone" -> "TEL";
            case "mail" -> "EMAIL";
            case "web" -> "URL";
            default -> "IMPP";
        };
        var type = switch (r.label()) {
            case "mobile" -> ";TYPE=CELL";
            case "home", "work", "fax" -> ";TYPE=" + r.label().toUpperCase(Locale.ROOT);
            default -> "";
        };
        var value = property.equals("IMPP") ? r.label().toLowerCase(Locale.ROOT) + ":" + r.value() : r.value();
        if (!type.isEmpty()) {
            line(out, property + type + ":" + value);
            return group;
        }
        // A label of the owner's own is a property of its own in the same group (RFC 6350 §3.3 has the groups).
        line(out, "item" + group + "." + property + ":" + value);
        line(out, "item" + group + ".X-LABEL:" + text(r.label()));
        return group + 1;
    }

    private static void optional(Writer out, String start, String value) throws IOException {
        if (!value.isEmpty()) {
            line(out, start + text(value));
        }
    }

    private static String text(String value) {
        return value.replace("\\", "\\\\")
                .replace("\n", "\\n")
                .replace(",", "\\,")
                .replace(";", "\\;");
    }

    /** Folds at 75 octets without splitting a character (RFC 2426 §2.6). */
    private static void line(Writer out, String line) throws IOException {
        int octets = 0;
        for (int i = 0; i < line.length(); ) {
            int c = line.codePointAt(i);
            int size = c < 0x80 ? 1 : c < 0x800 ? 2 : c < 0x10000 ? 3 : 4;
            if (octets + size > 75) {
                out.write("\r\n ");
                octets = 1;
            }
            out.write(Character.toChars(c));
            octets += size;
            i += Character.charCount(c);
        }
        out.write("\r\n");
    }

    private static void event(Path folder, Life.Event event, LocalDateTime now) throws IOException {
        var local = DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss");
        var day = DateTimeFormatter.ofPattern("yyyyMMdd");
        var lines = new ArrayList<String>(List.of(
                "BEGIN:VCALENDAR",
                "VERSION:2.0",
                "PRODID:-//Pellow//Base 9//EN",
                "BEGIN:VEVENT",
                "UID:" + local.format(event.from()) + "@example.org",
                "DTSTAMP:20260118T190000Z"));
        if (event.allDay()) {
            lines.add("DTSTART;VALUE=DATE:" + day.format(event.from()));
        } else {
            lines.add("DTSTART;TZID=CET:" + local.format(event.from()));
            lines.add("DURATION:PT" + event.minutes() + "M");
        }
        if (!event.rule().isEmpty()) {
            lines.add("RRULE:" + event.rule());
        }
        for (var except : event.except()) {
            lines.add("EXDATE;TZID=CET:" + local.format(except));
        }
        lines.add("SUMMARY:" + text(event.title()));
        if (!event.place().isEmpty()) {
            lines.add("LOCATION:" + text(event.place()));
        }
        for (var attendee : event.attendees()) {
            lines.add("ATTENDEE;CN=\"" + attendee.fullName() + "\":mailto:" + attendee.mail());
        }
        if (event.alarm() > 0) {
            lines.addAll(List.of(
                    "BEGIN:VALARM",
                    "ACTION:DISPLAY",
                    "DESCRIPTION:Soon",
                    "TRIGGER:-PT" + event.alarm() + "M",
                    "END:VALARM"));
        }
        lines.addAll(List.of("END:VEVENT", "END:VCALENDAR", ""));
        Clips.text(String.join("\r\n", lines), folder.resolve(local.format(event.from()) + ".ics"), now);
    }
}
