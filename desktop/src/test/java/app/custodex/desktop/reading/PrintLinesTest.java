package app.custodex.desktop.reading;

import static org.junit.jupiter.api.Assertions.assertEquals;

import app.custodex.app.Custodex;
import app.custodex.app.Home;
import app.custodex.app.Mandate;
import app.custodex.backup.BackupRequest;
import app.custodex.catalogue.Catalogue.Order;
import app.custodex.catalogue.Filter;
import app.custodex.desktop.Card;
import app.custodex.desktop.ui.Words;
import app.custodex.model.Attachment;
import app.custodex.model.Call;
import app.custodex.model.Conversation;
import app.custodex.model.Event;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Note;
import app.custodex.model.Party;
import app.custodex.model.ThingId;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class PrintLinesTest {
    @TempDir
    Path folder;

    private static ThingId id(String key) {
        return new ThingId("all", key);
    }

    @Test
    void eachThingIsALineThatSaysWhenWhoAndWhat() throws Exception {
        var ivo = new Party("+447700900123", "+447700900123", "");
        var at = Optional.of(Moment.at(Instant.parse("2025-11-14T20:04:00Z")));
        new Card(folder.resolve("card"))
                .write(
                        1,
                        List.of(
                                new Conversation(id("t"), "", "SMS", "", false, List.of(ivo)),
                                new Message(
                                        id("m"),
                                        "",
                                        id("t"),
                                        at,
                                        false,
                                        Optional.of(ivo),
                                        "The key is under the stone",
                                        "SMS",
                                        Message.State.READ,
                                        List.of(new Attachment("", "stone.jpg", "image/jpeg")),
                                        Optional.empty(),
                                        List.of(),
                                        Optional.empty(),
                                        false),
                                new Call(
                                        id("c"),
                                        "",
                                        at,
                                        List.of(ivo),
                                        Call.Outcome.MISSED,
                                        Call.Medium.VOICE,
                                        Duration.ZERO),
                                new Note(id("n"), "", "", "Storm list", "Lamp\nRope", at, List.of()),
                                new Event(
                                        id("e"),
                                        "",
                                        "Island",
                                        "",
                                        "Regatta",
                                        "Lampholm",
                                        "",
                                        Optional.of(new Moment.Day(LocalDate.of(2025, 11, 15))),
                                        Optional.empty(),
                                        "",
                                        List.of(),
                                        List.of(),
                                        Optional.empty(),
                                        List.of(),
                                        List.of())));
        try (var custodex = Custodex.open(new Home(folder.resolve("home")), Clock.systemUTC())) {
            var bay = custodex.bays().add(folder.resolve("card").toString(), "Card");
            bay.ask();
            var request = BackupRequest.everything(Duration.ZERO, Custodex.TOOL);
            custodex.backUp(bay, Mandate.ofShop(), request, false).outcome().get(30, TimeUnit.SECONDS);
            var phone = custodex.strongroom().holdings().phones().getFirst().identity();
            try (var open = custodex.reading().open(Mandate.ofShop(), phone.identifier(), 1, Locale.UK)) {
                var numbers = open.catalogue().find(Filter.EVERYTHING, Order.OLDEST_FIRST);
                var words = new Words(Locale.UK, ZoneId.of("Europe/Oslo"));
                var lines = new PrintLines(open, words)
                        .of(Arrays.stream(numbers)
                                .mapToInt(number -> (int) number)
                                .toArray());
                var zone = open.phone().timeZone();
                var evening = words.when(at.get(), zone);
                var expected = Set.of(
                        evening + " | +447700900123 | The key is under the stone · stone.jpg",
                        evening + " | +447700900123 | Call, missed",
                        evening + " |  | Storm list\nLamp\nRope",
                        "15 Nov 2025 |  | Regatta, Lampholm",
                        " | +447700900123 | +447700900123");
                var told = lines.stream()
                        .filter(line -> !line.what().contains("things.jsonl"))
                        .map(line -> line.when() + " | " + line.who() + " | " + line.what())
                        .collect(Collectors.toCollection(TreeSet::new));
                assertEquals(new TreeSet<>(expected), told);
            }
        }
    }
}
