package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Json;
import app.custodex.extract.formats.Formats;
import app.custodex.model.KindGroup;
import app.custodex.readers.files.RouteFiles;
import biweekly.Biweekly;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TimeZone;
import java.util.concurrent.TimeUnit;
import org.apache.poi.ss.usermodel.DateUtil;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.jsoup.Jsoup;
import org.jsoup.parser.Parser;
import org.junit.jupiter.api.Test;

/** Every group of things in every format, with content that means harm; what was written is read by others than those who wrote it. */
class EveryGroupExtractionTest extends ExtractionCase {
    /** Each format of each group at once: nothing leaves the folder, nothing is half, and nothing ends it. */
    @Test
    void everyFormatWritesEverythingOfItsGroup() throws IOException {
        for (var group : KindGroup.values()) {
            for (var format : Formats.of(group)) {
                var into = folder.resolve("every").resolve(group.code() + " " + format.code());
                var result = Written.all(group, format.code(), catalogue, into);
                var numbers = Extraction.groups(catalogue, all()).getOrDefault(group, new long[0]);
                assertEquals(numbers.length, result.things(), group + " " + format.code());
                try (var files = Files.walk(into)) {
                    assertEquals(
                            result.files().size(),
                            files.filter(Files::isRegularFile)
                                            .filter(file -> !file.getFileName()
                                                    .toString()
                                                    .startsWith("Left out"))
                                            .count()
                                    + (result.leftOut().isEmpty() ? 0 : 1),
                            group + " " + format.code());
                }
                for (var problem : result.problems()) {
                    var told = numbers.length == 0 ? "There is nothing of it to write" : "unreadable";
                    assertTrue(problem.sentence().contains(told), problem.sentence());
                }
            }
        }
        try (var outside = Files.list(folder)) {
            assertEquals(
                    List.of("every", "reading"),
                    outside.map(path -> path.getFileName().toString()).sorted().toList());
        }
    }

    @Test
    void tablesHoldWhatThereIsAndRunNothing() throws IOException {
        var rows = csv(write(KindGroup.MESSAGES, "csv").files().getFirst());
        assertEquals(7, rows.size());
        assertEquals("2025-11-14 21:04:11", rows.getFirst().get("Time (Europe/Oslo)"));
        assertEquals("UTC+01:00", rows.getFirst().get("Time (offset)"));
        assertEquals("+447700900112", rows.getFirst().get("From address"));
        var formula = rows.stream()
                .filter(row -> row.get("Text").contains("calc"))
                .findFirst()
                .orElseThrow();
        assertTrue(formula.get("Text").startsWith("'=cmd"));
        var call = csv(write(KindGroup.CALLS, "csv").files().getFirst()).getFirst();
        assertEquals("1:02:05", call.get("Length"));
        assertEquals("missed", call.get("Call"));
        assertEquals("calls#1", call.get("Source"));
    }

    @Test
    void aWorkbookCountsWithTimesAndLengths() throws Exception {
        try (var book = new XSSFWorkbook(
                write(KindGroup.CALLS, "xlsx").files().getFirst().toFile())) {
            var row = book.getSheet("Calls").getRow(1);
            assertTrue(DateUtil.isCellDateFormatted(row.getCell(0)));
            assertEquals(
                    "2025-11-14T21:04:11",
                    row.getCell(0).getLocalDateTimeCellValue().toString());
            assertEquals(3_725, row.getCell(6).getNumericCellValue() * 86_400, 0.01);
            assertEquals("+447700900112", row.getCell(3).getStringCellValue());
        }
    }

    /** RFC 5545 as another library reads it, the zone included: a series stays at nine when clocks change. */
    @Test
    void aSeriesStaysAtItsHour() throws IOException {
        var file = write(KindGroup.EVENTS, "icalendar").files().getFirst();
        var text = Files.readString(file);
        for (var line : text.split("\r\n")) {
            assertTrue(line.getBytes(StandardCharsets.UTF_8).length <= 75, line);
        }
        var calendar = Biweekly.parse(text).first();
        var event = calendar.getEvents().getFirst();
        assertEquals("Ferry, inspection; storm", event.getSummary().getValue());
        assertEquals(
                "line one\nline two " + "日本語".repeat(30), event.getDescription().getValue());
        assertEquals(
                Instant.parse("2025-03-28T08:00:00Z"),
                event.getDateStart().getValue().toInstant());
        var times = event.getDateIterator(TimeZone.getTimeZone(OSLO));
        assertEquals(Instant.parse("2025-03-28T08:00:00Z"), times.next().toInstant());
        assertEquals(
                Instant.parse("2025-04-11T07:00:00Z"), times.next().toInstant(), "the one between does not take place");
        assertEquals("maren@example.org", event.getAttendees().getFirst().getEmail());
        assertEquals(1, event.getAlarms().size());
        assertEquals(
                Duration.ofMinutes(90).toMillis(),
                -event.getAlarms().getFirst().getTrigger().getDuration().toMillis());
        var zone = calendar.getTimezoneInfo().getTimezoneById("Europe/Oslo").getTimeZone();
        for (var at : List.of("2025-01-15T12:00:00Z", "2025-07-15T12:00:00Z", "2031-10-26T00:30:00Z")) {
            long millis = Instant.parse(at).toEpochMilli();
            assertEquals(TimeZone.getTimeZone(OSLO).getOffset(millis), zone.getOffset(millis), at);
        }
        var task = calendar.getTodos().getFirst();
        assertEquals(STORM, task.getCompleted().getValue().toInstant());
        assertTrue(text.contains("DUE;VALUE=DATE:20251120"), text);
    }

    @Test
    void notesGoIntoTheirFoldersWithTheirPictures() throws IOException {
        var files = byName(write(KindGroup.NOTES, "markdown"));
        assertEquals(2, files.size(), files.toString());
        var note = Files.readString(files.entrySet().stream()
                .filter(file -> file.getKey().endsWith("Leak.md"))
                .findFirst()
                .orElseThrow()
                .getValue());
        assertTrue(note.startsWith("# Leak\n\nTwo planks up\n"), note);
        assertTrue(note.contains("![leak.jpg](<leak.jpg>)"), note);
        var text = write(KindGroup.NOTES, "text");
        assertTrue(Files.readString(text.files().getFirst()).contains("left out here: leak.jpg"));
        assertEquals(List.of("pictures of notes: 1"), text.leftOut());
    }

    @Test
    void bookmarksKeepTheirFoldersAndTellWhatTheyLeaveOut() throws IOException {
        var result = write(KindGroup.WEB, "bookmarks");
        var page = Jsoup.parse(Files.readString(result.files().getFirst()));
        var link = page.select("a").get(0);
        assertEquals("https://example.net/?a=1&b=\"2\"", link.attr("href"));
        assertEquals("Ferry <b>", link.text());
        assertEquals(List.of("Sea", "Ferry"), page.select("h3").eachText());
        assertEquals(Long.toString(STORM.getEpochSecond()), link.attr("add_date"));
        assertEquals(List.of("pages that were only visited: 1"), result.leftOut());
    }

    @Test
    void originalsAreAsTheyAreInTheFoldersThatWereChosen() throws IOException {
        var byMonth = write(KindGroup.PICTURES, "originals");
        assertEquals("roll/unreadable.jpg", byMonth.problems().getFirst().subject());
        assertEquals(List.of("files that the phone does not have: 1"), byMonth.leftOut());
        var file = byName(byMonth).get("Pictures of a phone/2025/2025-11/a.jpg");
        assertEquals("roll/a.jpg", Files.readString(file));
        assertEquals(
                Instant.parse("2025-11-14T20:04:00Z"),
                Files.getLastModifiedTime(file).toInstant());
        var byAlbum = byName(write(KindGroup.PICTURES, "originals:folders=album"));
        assertTrue(byAlbum.containsKey("Pictures of a phone (2)/Storm night/a.jpg"), byAlbum.toString());
        assertTrue(byAlbum.containsKey("Pictures of a phone (2)/Best/a.jpg"), "in both albums");
        var sound = byName(write(KindGroup.MUSIC, "originals:playlist=m3u8"));
        assertTrue(sound.containsKey("Sound of a phone/Ærø Choir/_CON/03 Løft.mp3"), sound.toString());
        assertEquals(
                "#EXTM3U\n#EXTINF:61,Ærø Choir - Løft\nÆrø Choir/_CON/03 Løft.mp3\n",
                Files.readString(sound.get("Sound of a phone/Sound of a phone.m3u8")));
        var list = byName(write(KindGroup.MUSIC, "originals:playlist=xspf:folders=flat"));
        var track = Jsoup.parse(
                        Files.readString(list.get("Sound of a phone (2)/Sound of a phone.xspf")),
                        "",
                        Parser.xmlParser())
                .select("trackList > track");
        assertEquals("03%20L%C3%B8ft.mp3", track.select("location").text());
        assertEquals("61000", track.select("duration").text(), "in milliseconds");
        assertEquals("Ærø Choir", track.select("creator").text());
        var voicemail = byName(write(KindGroup.VOICEMAIL, "originals"));
        assertTrue(
                voicemail.containsKey("Voicemail of a phone/2025-11-14 21.04.11 Halvard Rook.amr"),
                voicemail.toString());
    }

    /** RFC 7946, section 3.1.1; GPX 1.1 and KML 2.2 by other readers. */
    @Test
    void placesAreWhereTheyWere() throws IOException {
        var json = Json.PAGE.readTree(
                write(KindGroup.PICTURES, "geojson").files().getFirst().toFile());
        assertEquals("FeatureCollection", json.get("type").asText());
        var at = json.get("features").get(0).get("geometry").get("coordinates");
        assertEquals(-1.25, at.get(0).asDouble());
        assertEquals(60.1234567, at.get(1).asDouble());
        var gpx = Files.readAllBytes(write(KindGroup.PICTURES, "gpx").files().getFirst());
        var point = Jsoup.parse(new String(gpx, StandardCharsets.UTF_8), "", Parser.xmlParser())
                .select("wpt")
                .get(0);
        assertEquals("60.1234567", point.attr("lat"));
        assertEquals("2025-11-14T20:04:11Z", point.select("time").text());
        assertEquals(0, RouteFiles.way(new ByteArrayInputStream(gpx), 10).size(), "points are no way");
        var kml = Files.readString(write(KindGroup.PICTURES, "kml").files().getFirst());
        assertTrue(kml.contains("<coordinates>-1.2500000,60.1234567</coordinates>"), kml);
    }

    /** The program of coreutils finds every digest as it is written. */
    @Test
    void checksumsAreThoseThatSha512sumFinds() throws Exception {
        var into = folder.resolve("out");
        var material = new Written.FromCatalogue(catalogue, contact -> Optional.empty(), OSLO);
        var orders = new ArrayList<Extraction.Order>();
        for (var group : Extraction.groups(catalogue, all()).entrySet()) {
            var usual = Formats.of(group.getKey()).getFirst().code();
            orders.add(Written.order(group.getKey(), group.getValue(), usual));
        }
        var result = Written.write(material, orders, new Delivery(Delivery.Form.CHECKSUMS, Optional.empty()), into);
        var list = into.resolve("Checksums of a phone.sha512");
        assertEquals(result.files().size() - 1, Files.readAllLines(list).size(), "all but itself");
        var process = new ProcessBuilder("sha512sum", "-c", "--strict", list.toString())
                .directory(into.toFile())
                .redirectErrorStream(true)
                .start();
        process.getOutputStream().close();
        var output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertTrue(process.waitFor(60, TimeUnit.SECONDS) && process.exitValue() == 0, output);
    }

    @Test
    void aGroupOfWhichThereIsNothingLeavesNoEmptyFile() throws IOException {
        var material = new Written.FromCatalogue(catalogue, contact -> Optional.empty(), OSLO);
        var into = folder.resolve("nothing");
        var order = Written.order(KindGroup.BOOKS, new long[0], "csv");
        var result = Written.write(material, List.of(order), Delivery.FILES, into);
        assertEquals(List.of(), result.files());
        assertEquals(
                "Books: There is nothing of it to write.",
                result.problems().getFirst().sentence());
    }

    @Test
    void soundThatCantBeConvertedIsWrittenAsItIs() throws IOException {
        var songs = byName(write(KindGroup.MUSIC, "originals:sound=opus:rate=128:folders=flat"));
        var song = songs.entrySet().iterator().next();
        assertTrue(song.getKey().endsWith("/03 Løft.opus"), song.getKey());
        assertEquals("OPUS at 128", Files.readString(song.getValue()));
        var result = write(KindGroup.VOICEMAIL, "originals:sound=mp3");
        assertEquals("voicemail/a.amr", Files.readString(result.files().getFirst()), "byte for byte");
        assertTrue(result.files().getFirst().toString().endsWith(".amr"));
        assertEquals(
                "It can't be given another form, and is written as it is",
                result.problems().getFirst().what());
    }
}
