package app.custodex.extract;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.CancelToken;
import app.custodex.base.Json;
import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.WrittenReader;
import app.custodex.exchange.ThingLines;
import app.custodex.extract.formats.Formats;
import app.custodex.model.Album;
import app.custodex.model.Attachment;
import app.custodex.model.Bookmark;
import app.custodex.model.Call;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.KindGroup;
import app.custodex.model.MediaFile;
import app.custodex.model.MediaFile.Fact;
import app.custodex.model.MediaFile.Place;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.PageVisit;
import app.custodex.model.Party;
import app.custodex.model.Samples;
import app.custodex.model.Task;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.model.Voicemail;
import app.custodex.readers.files.RouteFiles;
import biweekly.Biweekly;
import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringReader;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TimeZone;
import java.util.TreeMap;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.apache.poi.ss.usermodel.DateUtil;
import org.apache.poi.xssf.usermodel.XSSFWorkbook;
import org.jsoup.Jsoup;
import org.jsoup.parser.Parser;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Every group of things in every format, with content that means harm; what was written is read by others than those who wrote it. */
class EveryGroupExtractionTest {
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");
    /** Ofcom keeps 07700 900000 to 900999 for drama; see ofcom.org.uk, "Numbers for use in drama". */
    private static final Party HALVARD = new Party("07700 900112", "+447700900112", "Halvard Rook");

    private static final String SCRIPT = "</p><script>alert(1)</script><img src=x onerror=alert(2)>";
    private static final Instant STORM = Instant.parse("2025-11-14T20:04:11Z");

    @TempDir
    Path folder;

    private Catalogue catalogue;

    private static ThingId id(String store, String key) {
        return new ThingId(store, key);
    }

    private static MediaFile file(
            String path, ThingKind kind, String title, Optional<Place> place, List<Fact> facts, long bytes) {
        return new MediaFile(
                id(path, ""),
                kind,
                "",
                title,
                Optional.of(Moment.at(STORM)),
                bytes,
                place,
                Optional.of(Duration.ofSeconds(61)),
                facts,
                "");
    }

    private static Message message(
            String key, ThingId in, long second, boolean sent, String text, Attachment... files) {
        return Samples.message(
                id("talk", key),
                in,
                Moment.at(STORM.plusSeconds(second)),
                sent ? Optional.empty() : Optional.of(HALVARD),
                text,
                Message.State.READ,
                List.of(files));
    }

    @BeforeEach
    void fill() throws IOException {
        var phone = new WrittenReader(folder);
        var talk = id("talk", "t1");
        var other = id("talk", "t2");
        phone.write(
                "talk",
                new Conversation(talk, "", "SMS", "../../" + SCRIPT, false, List.of(HALVARD)),
                new Conversation(other, "", "SMS", "", false, List.of(new Party("", "", "نور سعيد"))),
                message("m1", talk, 0, false, "Wind is over the wall. " + SCRIPT),
                message("m2", talk, 60, true, "=cmd|' /C calc'!A0\nline two 海 👨‍👩‍👧 \u202Ereversed\u0000"),
                message("m3", talk, 90, false, "", new Attachment("parts/wall & \"gate\" #1?.jpg", "", "image/jpeg")),
                message("m4", talk, 95, false, "", new Attachment("", "gone.jpg", "image/jpeg")),
                message("m5", talk, 99, false, "x".repeat(1_000_000)),
                message("m6", other, 5, false, "مرحبا"),
                message("m7", id("talk", "nowhere"), 7, false, "From here on it is quiet"));
        phone.write("parts/wall & \"gate\" #1?.jpg");
        phone.write(
                "calls",
                new Call(
                        id("calls", "1"),
                        "",
                        Optional.of(Moment.at(STORM)),
                        List.of(HALVARD),
                        Call.Outcome.MISSED,
                        Call.Medium.VOICE,
                        Duration.ofSeconds(3_725)));
        phone.write(
                "voicemail",
                new Voicemail(
                        id("voicemail", "1"),
                        "",
                        Optional.of(Moment.at(STORM)),
                        Optional.of(HALVARD),
                        Duration.ofSeconds(9),
                        false,
                        new Attachment("voicemail/a.amr", "a.amr", "audio/amr")));
        phone.write("events", event(), task());
        phone.write(
                "notes",
                new Note(
                        id("notes", "1"),
                        "",
                        "Boat/../..",
                        "Leak",
                        "Two planks up",
                        Optional.of(Moment.at(STORM)),
                        List.of(new Attachment("notes/leak.jpg", "leak.jpg", ""))));
        phone.write(
                "web",
                new Bookmark(
                        id("web", "1"),
                        "",
                        "Ferry <b>",
                        "https://example.net/?a=1&b=\"2\"",
                        "Sea/Ferry",
                        false,
                        Optional.of(Moment.at(STORM))),
                new PageVisit(id("web", "2"), "", "Tides", "https://example.net/tides", Optional.of(Moment.at(STORM))));
        phone.write(
                "roll/a.jpg",
                file(
                        "roll/a.jpg",
                        ThingKind.PICTURE,
                        "a.jpg",
                        Optional.of(new Place(60.1234567, -1.25)),
                        List.of(),
                        5));
        phone.write(
                "roll/unreadable.jpg",
                file("roll/unreadable.jpg", ThingKind.PICTURE, "b.jpg", Optional.empty(), List.of(), 5));
        phone.write(
                "roll/cloud.jpg", file("roll/cloud.jpg", ThingKind.PICTURE, "c.jpg", Optional.empty(), List.of(), 0));
        phone.write(
                "albums",
                new Album(
                        id("albums", "1"),
                        "",
                        "Storm night",
                        Album.Use.ALBUM,
                        List.of(new Attachment("roll/a.jpg", "", ""))),
                new Album(
                        id("albums", "2"), "", "Best", Album.Use.ALBUM, List.of(new Attachment("roll/a.jpg", "", ""))));
        phone.write(
                "sound/1.mp3",
                file(
                        "sound/1.mp3",
                        ThingKind.TRACK,
                        "Løft",
                        Optional.empty(),
                        List.of(new Fact("Artist", "Ærø Choir"), new Fact("Album", "CON"), new Fact("Track", "3/9")),
                        9));
        catalogue = phone.catalogue(Optional.empty(), 1);
    }

    private static Event event() {
        return new Event(
                id("events", "1"),
                "",
                "Island",
                "ferry@example.org",
                "Ferry, inspection; storm",
                "Pier",
                "line one\nline two " + "日本語".repeat(30),
                Optional.of(new Moment.At(Instant.parse("2025-03-28T08:00:00Z"), Optional.of(OSLO))),
                Optional.of(new Moment.At(Instant.parse("2025-03-28T09:00:00Z"), Optional.of(OSLO))),
                "FREQ=WEEKLY;COUNT=3",
                List.of(new Moment.At(Instant.parse("2025-04-04T07:00:00Z"), Optional.of(OSLO))),
                List.of(),
                Optional.empty(),
                List.of(Duration.ofMinutes(90)),
                List.of(new Party("maren@example.org", "", "Maren \"M\" Quill"), HALVARD));
    }

    private static Task task() {
        return new Task(
                id("events", "2"),
                "",
                "Island",
                "",
                "Mend the gate",
                "",
                Optional.of(new Moment.Day(LocalDate.of(2025, 11, 20))),
                Optional.of(Moment.at(STORM)));
    }

    @AfterEach
    void close() throws IOException {
        catalogue.close();
    }

    private ExtractResult write(KindGroup group, String how) throws IOException {
        return Written.all(group, how, catalogue, folder.resolve("out"));
    }

    private Map<String, Path> byName(ExtractResult result) {
        return result.files().stream()
                .collect(Collectors.toMap(
                        file -> folder.resolve("out").relativize(file).toString(),
                        file -> file,
                        (a, b) -> a,
                        TreeMap::new));
    }

    private static List<CSVRecord> csv(Path file) throws IOException {
        var format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get();
        try (var csv = format.parse(new StringReader(Files.readString(file)))) {
            return csv.getRecords();
        }
    }

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
                    assertTrue(problem.subject().contains("unreadable"), problem.sentence());
                }
            }
        }
        try (var outside = Files.list(folder)) {
            assertEquals(
                    List.of("every", "reading"),
                    outside.map(path -> path.getFileName().toString()).sorted().toList());
        }
    }

    private static BitSet all() {
        var all = new BitSet();
        all.set(1, 1_000);
        return all;
    }

    @Test
    void aTranscriptIsHarmlessAndComplete() throws IOException {
        var result = write(KindGroup.MESSAGES, "page");
        var pages = byName(result);
        assertEquals(
                3,
                pages.keySet().stream().filter(name -> name.endsWith(".html")).count(),
                pages.keySet().toString());
        var file = pages.entrySet().stream()
                .filter(each ->
                        each.getKey().contains("script") && each.getKey().endsWith(".html"))
                .findFirst()
                .orElseThrow();
        var page = Jsoup.parse(Files.readString(file.getValue()));
        assertEquals(
                0, page.select("script, iframe, object, [onerror], [onload]").size());
        assertEquals(5, page.select("article").size());
        assertTrue(page.select("article p").get(0).text().endsWith(SCRIPT), "as it was written");
        assertEquals("21:04:11", page.select("time").get(0).text(), "in the chosen zone");
        assertEquals("2025-11-14", page.select("h2").get(0).text());
        assertTrue(page.text().contains("海 👨‍👩‍👧"));
        assertEquals(
                1_000_000,
                page.select("article").get(4).select("p").get(0).text().length());
        // The picture lies where the page says.
        var picture = page.select("img").get(0);
        var there = file.getValue()
                .resolveSibling(
                        URI.create("file:/" + picture.attr("src")).getPath().substring(1));
        assertEquals("parts/wall & \"gate\" #1?.jpg", Files.readString(there));
        assertEquals(
                Instant.parse("2025-11-14T20:04:00Z"),
                Files.getLastModifiedTime(there).toInstant());
        assertTrue(page.text().contains("[gone.jpg]"));
        assertEquals(List.of("attachments that the phone no longer has: 1"), result.leftOut());
        assertTrue(page.select("meta[http-equiv=Content-Security-Policy]")
                .attr("content")
                .startsWith("default-src 'none'"));
    }

    @Test
    void noMessageOfATextCanPassForAnother() throws IOException {
        var result = write(KindGroup.MESSAGES, "text:file-each=no");
        var text = Files.readString(result.files().getFirst());
        assertTrue(
                text.contains("21:05:11  Owner of the phone: =cmd|' /C calc'!A0\n          line two 海"),
                text.substring(0, 900));
        assertFalse(text.contains("\u0000"));
        assertTrue(
                result.leftOut().contains("attachments, which are named only: 2"),
                result.leftOut().toString());
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

    @Test
    void linesAreReadAgainAsTheThingsTheyAre() throws IOException {
        var file = write(KindGroup.MESSAGES, "json-lines").files().getFirst();
        var lines = Files.readAllLines(file);
        assertEquals(9, lines.size(), "a head, seven messages, an end");
        for (var line : lines) {
            assertTrue(
                    ThingLines.read(line, "file", item -> true).isPresent(),
                    line.substring(0, Math.min(200, line.length())));
        }
    }

    @Test
    void aWholeConversationIsItsMessagesAndAPreviewTouchesNoDisk() throws IOException {
        var conversation = new BitSet();
        conversation.set((int) catalogue.find(id("talk", "t1")).orElseThrow().number());
        var groups = Extraction.groups(catalogue, conversation);
        assertEquals(1, groups.size());
        var messages = groups.getOrDefault(KindGroup.MESSAGES, new long[0]);
        assertEquals(5, messages.length);
        var material = new Written.FromCatalogue(catalogue, contact -> Optional.empty(), OSLO);
        var preview = new Extraction(material)
                .preview(Written.order(KindGroup.MESSAGES, messages, "text"), 2, new CancelToken());
        assertEquals(1, preview.size());
        assertTrue(new String(preview.getFirst().beginning(), StandardCharsets.UTF_8).contains("Wind is over"));
        try (var left = Files.list(folder)) {
            assertEquals(1, left.count(), "what the catalogue is read with");
        }
    }

    @Test
    void whatIsStoppedLeavesWholeFilesOnly() throws IOException {
        for (var how : List.of("page", "text", "csv", "xlsx", "json-lines", "originals")) {
            var cancel = new CancelToken();
            var into = folder.resolve(how);
            var material = new Written.FromCatalogue(catalogue, contact -> Optional.empty(), OSLO);
            var numbers = Extraction.groups(catalogue, all()).getOrDefault(KindGroup.MESSAGES, new long[0]);
            assertThrows(
                    CancellationException.class,
                    () -> new Extraction(material)
                            .write(
                                    List.of(Written.order(KindGroup.MESSAGES, numbers, how)),
                                    true,
                                    into,
                                    n -> cancel.cancel(),
                                    cancel));
            try (var left = Files.walk(into)) {
                assertTrue(left.noneMatch(file -> file.toString().endsWith(".part")), how);
            }
        }
    }

    /** RFC 4155 and RFC 5322 as Python's own mailbox reads them, which shares nothing with what writes. */
    @Test
    void aMailboxHoldsEveryMessageWithWhatHangsOnIt() throws Exception {
        var file = write(KindGroup.MESSAGES, "mbox:file-each=no").files().getFirst();
        var script = """
                import mailbox, sys, email.policy, email.parser, json
                parser = email.parser.BytesParser(policy=email.policy.default)
                for mail in mailbox.mbox(sys.argv[1], factory=parser.parse):
                    body = mail.get_body(('plain',)).get_content()
                    files = [part.get_filename() + '=' + part.get_content().decode() for part in mail.iter_attachments()]
                    print(json.dumps([str(mail['From']), str(mail['Date']), str(mail['Subject']), body[:100], len(body), files]))
                """;
        var process = new ProcessBuilder("/usr/bin/python3", "-c", script, file.toString())
                .redirectErrorStream(true)
                .start();
        process.getOutputStream().close();
        var output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertTrue(process.waitFor(60, TimeUnit.SECONDS) && process.exitValue() == 0, output);
        var mails = new ArrayList<JsonNode>();
        for (var line : output.lines().toList()) {
            mails.add(Json.LINE.readTree(line));
        }
        assertEquals(7, mails.size(), output.substring(0, Math.min(2_000, output.length())));
        var first = mails.getFirst();
        assertEquals("Halvard Rook <+447700900112@invalid>", first.get(0).asText());
        assertEquals("Fri, 14 Nov 2025 21:04:11 +0100", first.get(1).asText());
        assertTrue(first.get(2).asText().contains("<script>"), "the whole name of the conversation");
        assertTrue(first.get(3).asText().startsWith("Wind is over the wall. </p><script>"));
        assertTrue(mails.get(1).get(0).asText().endsWith("<owner@invalid>"));
        assertTrue(mails.stream().anyMatch(mail -> mail.get(4).asInt() >= 1_000_000), "the long one is whole");
        assertTrue(
                mails.stream().anyMatch(mail -> mail.get(5).toString().contains("=parts/wall & \\\"gate\\\" #1?.jpg")),
                "its file came along");
        assertTrue(mails.stream().anyMatch(mail -> mail.get(3).asText().strip().equals("From here on it is quiet")));
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
        var result = new Extraction(material).write(orders, true, into, done -> {}, new CancelToken());
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
}
