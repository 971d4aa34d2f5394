package app.custodex.readers;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.exchange.ThingLines;
import app.custodex.link.Family;
import app.custodex.link.Kind;
import app.custodex.link.PhonePath;
import app.custodex.model.Attachment;
import app.custodex.model.Call;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.MediaFile;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.Thing;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** What was written as JSON lines is read again whole; what came to harm says so. */
class ThingLinesTest extends ReaderTest {
    private static final String FILE = "taken/things.jsonl";
    private static final Party HALVARD = new Party("07700 900166", "+447700900166", "Halvard \u202e Rook");
    private static final Moment THEN =
            new Moment.At(Instant.parse("2025-11-14T20:04:00.123456Z"), Optional.of(ZoneId.of("Europe/Oslo")));

    private static final ThingId CONVERSATION = new ThingId("store/messages/m.db", "c1");

    private static final List<Thing> THINGS = List.of(
            new Conversation(CONVERSATION, "", "SMS", "", false, List.of(HALVARD)),
            new Message(
                    new ThingId("store/messages/m.db", "m#7"),
                    "Kitewire Work",
                    CONVERSATION,
                    Optional.of(THEN),
                    false,
                    Optional.of(HALVARD),
                    "line one\nline \"two\" 灯塔 \ud83d\udc4d\u0000",
                    "SMS",
                    Message.State.READ,
                    List.of(
                            new Attachment("roll/lamp.jpg", "lamp.jpg", "image/jpeg"),
                            new Attachment("roll/gone.jpg", "", "image/jpeg")),
                    Optional.of(new ThingId("store/messages/m.db", "m#6")),
                    List.of(new Message.Reaction(Optional.empty(), "\u2764")),
                    Optional.of(Moment.at(Instant.parse("2025-11-14T20:05:00Z"))),
                    true),
            new Call(
                    new ThingId("store/calls/c.db", "3"),
                    "",
                    Optional.of(Moment.at(Instant.EPOCH)),
                    List.of(HALVARD),
                    Call.Outcome.MISSED,
                    Call.Medium.values()[0],
                    Duration.ZERO),
            new Event(
                    new ThingId("store/calendar/e.db", "9"),
                    "",
                    "Island",
                    "uid-9",
                    "Choir",
                    "",
                    "",
                    Optional.of(new Moment.Floating(LocalDateTime.of(2026, 1, 5, 19, 0))),
                    Optional.empty(),
                    "FREQ=WEEKLY",
                    List.of(new Moment.Day(LocalDate.of(2026, 1, 12))),
                    List.of(),
                    Optional.empty(),
                    List.of(Duration.ofMinutes(-30)),
                    List.of(HALVARD)),
            new MediaFile(
                    new ThingId("roll/lamp.jpg", ""),
                    ThingKind.VIDEO,
                    "",
                    "lamp",
                    Optional.of(THEN),
                    1L << 40,
                    Optional.of(new MediaFile.Place(-61.5, 179.25)),
                    Optional.of(Duration.ofMillis(1_500)),
                    List.of(new MediaFile.Fact("Camera", "Ostrel 5")),
                    ""));

    private static List<String> written() throws IOException {
        var lines = new ArrayList<String>();
        lines.add(ThingLines.head("Fenna's phone", "Europe/Oslo"));
        for (var thing : THINGS) {
            lines.add(ThingLines.line(thing));
        }
        lines.add(ThingLines.end(THINGS.size()));
        return lines;
    }

    private Everything read(List<String> lines) throws IOException {
        var files = new MemoryFiles(Map.of(new PhonePath(FILE), Kind.OTHER, new PhonePath("roll/lamp.jpg"), Kind.OTHER))
                .with(FILE, (String.join("\n", lines) + "\n").getBytes(StandardCharsets.UTF_8))
                .with("roll/lamp.jpg", new byte[0]);
        return Everything.of(files, Family.FOLDER, place);
    }

    private List<String> problems(List<String> lines) throws IOException {
        return read(lines).problems().stream().map(problem -> problem.what()).toList();
    }

    /** Written again, it is the same, but that it is known by the file and that a file which is elsewhere is no longer there. */
    @Test
    void everythingComesBack() throws IOException {
        var all = read(written());
        assertEquals(List.of(), all.problems());
        var things = all.all(Thing.class).stream()
                .filter(thing -> !thing.id().key().isEmpty())
                .toList();
        assertEquals(THINGS.size(), things.size());
        for (int i = 0; i < things.size(); i++) {
            var expected =
                    ThingLines.line(THINGS.get(i)).replace("{\"item\":\"roll/gone.jpg\",", "{\"name\":\"gone.jpg\",");
            assertEquals(expected, ThingLines.line(things.get(i)).replace(FILE + "#", ""));
        }
        var message = (Message) things.get(1);
        assertEquals(things.getFirst().id(), message.conversation());
        assertTrue(message.attachments().getFirst().there());
    }

    @Test
    void aCutFileSaysWhereItBreaksOff() throws IOException {
        var lines = written();
        lines.removeLast();
        assertEquals(List.of("It breaks off behind 5 things"), problems(lines));
        lines.removeLast();
        lines.add(ThingLines.end(5));
        assertEquals(List.of("It promises 5 things and holds 4"), problems(lines));
    }

    @Test
    void aSpoiledLineCostsNoOther() throws IOException {
        var lines = written();
        lines.set(2, lines.get(2).replace("2025-11-14T20:04", "2025-13-54T20:04"));
        lines.set(3, "{\"kind\":\"call\",\"thing\":{\"id\":null}}");
        var all = read(lines);
        assertEquals(
                "Lines in it that can't be understood: 2",
                all.problems().getFirst().what());
        assertEquals(1, all.problems().size());
        assertEquals(1, all.all(Event.class).size());
    }

    @Test
    void linesOfOthersAreLeftAloneAndNewerOnesToANewerCustodex() throws IOException {
        assertEquals(List.of(), problems(List.of("{\"id\": 1}", "{\"id\": 2}")));
        var lines = written();
        lines.set(0, lines.getFirst().replace("\"form\":1", "\"form\":2"));
        assertEquals(
                List.of("A newer Custodex wrote this file, in a form that this one does not know"), problems(lines));
    }

    /** Whatever stands in a line, it is a thing that is whole, or it is told. */
    @Test
    void hostileLinesHarmNobody() throws IOException {
        var random = new Random(9);
        var signs = "{}[]\":,0null\\ \u0000\ud800x";
        for (int round = 0; round < 2_000; round++) {
            var lines = written();
            var line = new StringBuilder(lines.get(1 + random.nextInt(THINGS.size())));
            for (int n = random.nextInt(4); n >= 0 && !line.isEmpty(); n--) {
                int at = random.nextInt(line.length());
                switch (random.nextInt(3)) {
                    case 0 -> line.setCharAt(at, signs.charAt(random.nextInt(signs.length())));
                    case 1 -> line.deleteCharAt(at);
                    default -> line.setLength(Math.max(1, at));
                }
            }
            ThingLines.read(line.toString(), FILE, item -> true)
                    .filter(ThingLines.Line.Item.class::isInstance)
                    .map(item -> ((ThingLines.Line.Item) item).thing())
                    .ifPresent(thing -> {
                        assertEquals(FILE, thing.id().item());
                        thing.texts(Objects::requireNonNull);
                        thing.people().forEach(party -> assertTrue(party.title().length() > 0));
                    });
        }
    }
}
