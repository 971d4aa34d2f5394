package app.custodex.practice.content;

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
    private static final LocalDateTime NOW = LocalDateTime.of(2026, 1, 18, 20, 0);
    private static final List<String> ACCOUNTS = List.of("This phone", "Card");

    private PellowStore() {}

    public static StoreCounts write(Path files, List<Person> people, long seed) throws IOException {
        for (int i = 0; i < people.size(); i++) {
            var account = ACCOUNTS.get(i % 9 == 8 ? 1 : 0);
            person(files.resolve("Shared/People").resolve(account), people.get(i), i);
        }
        var talks = Chronicle.talks(seed + 1, people.size(), 960);
        var calls = Chronicle.calls(seed + 1, people.size(), 64);
        var talk = new PellowTalk(people, talks);
        talk.write(files.resolve("Shared/Talk"), calls);
        for (var event : Chronicle.events()) {
            event(files.resolve("Shared/Calendars").resolve(event.calendar()), event, people);
        }
        for (var note : Chronicle.notes()) {
            var folder = files.resolve("Shared/Notes").resolve(note.folder()).resolve(note.title());
            Clips.text("# " + note.title() + "\n\n" + note.text() + "\n", folder.resolve("note.md"), note.at());
            if (!note.drawing().isEmpty()) {
                Clips.put(note.drawing(), folder.resolve(note.drawing()), note.at());
            }
        }
        bookmarks(files.resolve("Shared/Web/bookmarks.html"));
        var caller = people.getFirst().address();
        for (var mail : Chronicle.mails()) {
            Clips.put(mail.clip(), files.resolve("Shared/Mailbox calls").resolve("0001 " + caller + ".amr"), mail.at());
        }
        media(files, seed);
        return StoreCounts.of(
                people.size(),
                talks.said().size(),
                calls.size(),
                Chronicle.events().size(),
                Chronicle.notes().size(),
                Chronicle.marks().size());
    }

    /** In the form that browsers exchange. */
    private static void bookmarks(Path file) throws IOException {
        var html = new StringBuilder("<!DOCTYPE NETSCAPE-Bookmark-file-1>\n<TITLE>Bookmarks</TITLE>\n<DL><p>\n");
        var folders = new ArrayList<String>();
        for (var mark : Chronicle.marks()) {
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
        Clips.text(html.toString(), file, NOW);
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

    private static void event(Path folder, Chronicle.Event event, List<Person> people) throws IOException {
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
        for (int attendee : event.attendees()) {
            var person = people.get(Math.min(attendee, people.size() - 1));
            lines.add("ATTENDEE;CN=\"" + person.name() + "\":mailto:guest" + attendee + "@example.org");
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
        Clips.text(String.join("\r\n", lines), folder.resolve(local.format(event.from()) + ".ics"), NOW);
    }

    private static void media(Path files, long seed) throws IOException {
        for (int i = 0; i < 40; i++) {
            var day = Photographer.LAST_DAY.minusDays(i * 7L + 2);
            var folder = Files.createDirectories(files.resolve("Pictures/" + day.getYear()));
            Photographer.take(folder.resolve("%s-%02d.jpg".formatted(day, i)), seed * 100 + 5_000 + i, day);
        }
        Clips.put("harbour.webp", files.resolve("Pictures/2025/harbour.webp"), LocalDateTime.of(2025, 8, 2, 14, 0));
        Clips.put("storm-night.mp4", files.resolve("Pictures/2025/storm.mp4"), LocalDateTime.of(2025, 11, 14, 21, 31));
        Clips.put(
                "gannet.opus",
                files.resolve("Voice notes/2025-12-20 second verse.opus"),
                LocalDateTime.of(2025, 12, 20, 20, 40));
        Clips.put("slow-tide.m4a", files.resolve("Music/Slow tide.m4a"), LocalDateTime.of(2025, 6, 1, 10, 0));
        Clips.text(
                "Ferry rota, winter\n\nMon  Jorun\nTue  Jorun\nWed  storm\n", files.resolve("Documents/Rota.txt"), NOW);
        Clips.text("{\"queue\":[]}\n", files.resolve("App data/ferry-pass/state.json"), NOW);
    }
}
