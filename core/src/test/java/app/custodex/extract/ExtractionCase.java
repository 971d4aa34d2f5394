package app.custodex.extract;

import app.custodex.catalogue.Catalogue;
import app.custodex.catalogue.WrittenReader;
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
import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/** An invented phone whose things mean harm, to be written in any format. */
abstract class ExtractionCase {
    static final ZoneId OSLO = ZoneId.of("Europe/Oslo");
    /** Ofcom keeps 07700 900000 to 900999 for drama; see ofcom.org.uk, "Numbers for use in drama". */
    static final Party HALVARD = new Party("07700 900112", "+447700900112", "Halvard Rook");

    static final String SCRIPT = "</p><script>alert(1)</script><img src=x onerror=alert(2)>";
    static final Instant STORM = Instant.parse("2025-11-14T20:04:11Z");

    @TempDir
    Path folder;

    Catalogue catalogue;

    static ThingId id(String store, String key) {
        return new ThingId(store, key);
    }

    static MediaFile file(
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

    static Message message(String key, ThingId in, long second, boolean sent, String text, Attachment... files) {
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

    static Event event() {
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

    static Task task() {
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

    ExtractResult write(KindGroup group, String how) throws IOException {
        return Written.all(group, how, catalogue, folder.resolve("out"));
    }

    Map<String, Path> byName(ExtractResult result) {
        return result.files().stream()
                .collect(Collectors.toMap(
                        file -> folder.resolve("out").relativize(file).toString(),
                        file -> file,
                        (a, b) -> a,
                        TreeMap::new));
    }

    static List<CSVRecord> csv(Path file) throws IOException {
        var format = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get();
        try (var csv = format.parse(new StringReader(Files.readString(file)))) {
            return csv.getRecords();
        }
    }

    static BitSet all() {
        var all = new BitSet();
        all.set(1, 1_000);
        return all;
    }
}
