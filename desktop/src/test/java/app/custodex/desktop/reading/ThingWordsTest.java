package app.custodex.desktop.reading;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.desktop.ui.Words;
import app.custodex.model.Attachment;
import app.custodex.model.Call;
import app.custodex.model.Conversation;
import app.custodex.model.KindGroup;
import app.custodex.model.MediaFile.Place;
import app.custodex.model.Message;
import app.custodex.model.Moment;
import app.custodex.model.Party;
import app.custodex.model.ThingId;
import app.custodex.model.ThingKind;
import app.custodex.model.Voicemail;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What stands on one line of a list. */
class ThingWordsTest {
    private static final ThingId ID = new ThingId("item", "key");
    private static final Optional<Moment> THEN = Optional.of(Moment.at(Instant.EPOCH));

    private final ThingWords words = new ThingWords((party, in) -> party.title());

    private static Party named(String name) {
        return new Party("", "", name);
    }

    private static Message message(boolean sent, String text, boolean deleted) {
        return new Message(
                ID,
                "",
                new ThingId("item", "talk"),
                THEN,
                sent,
                sent ? Optional.empty() : Optional.of(named("Ivo Kelp")),
                text,
                "SMS",
                Message.State.READ,
                List.of(new Attachment("roll/seal.jpg", "seal.jpg", "image/jpeg")),
                Optional.empty(),
                List.of(),
                Optional.empty(),
                deleted);
    }

    @Test
    void messagesSayWhoAndWhat() {
        assertEquals("Ivo Kelp", words.who(message(false, "The oars stay", false)));
        assertEquals("Sent", words.who(message(true, "The oars stay", false)));
        assertEquals("The oars stay", words.what(message(true, "The oars stay", false)));
        assertEquals("seal.jpg", words.what(message(true, "", false)), "what hangs on it, where nothing is said");
        assertEquals("Taken back: The oars stay", words.what(message(true, "The oars stay", true)));
    }

    @ParameterizedTest
    @CsvSource({
        "0,MISSED,VOICE,'Call, missed'",
        "134,TAKEN,VOICE,'Call, taken, 2:14'",
        "38,MADE,VIDEO,'Video call, made, 0:38'",
        "3734,DECLINED,APP,'App call, declined, 1:02:14'"
    })
    void callsSayWhatBecameOfThem(long seconds, Call.Outcome outcome, Call.Medium medium, String expected) {
        var call = new Call(ID, "", THEN, List.of(), outcome, medium, Duration.ofSeconds(seconds));
        assertEquals(expected, words.what(call));
        assertEquals("", words.who(call));
    }

    @Test
    void ofManyPeopleOneIsNamed() {
        var two = List.of(named("Ivo Kelp"), named("Maren Quill"));
        var four = List.of(named("Ivo Kelp"), named("Maren Quill"), named("Dagny Voe"), named("Ivo Kelp"));
        assertEquals("Ivo Kelp and Maren Quill", words.who(new Conversation(ID, "", "", "", true, two)));
        assertEquals("Ivo Kelp and 2 more", words.who(new Conversation(ID, "", "", "", true, four)));
        assertEquals("Choir tour", words.what(new Conversation(ID, "", "", "Choir tour", true, four)));
    }

    @Test
    void voicemailSaysItsLengthWhereItIsKnown() {
        var sound = new Attachment("", "", "audio/amr");
        assertEquals(
                "Voicemail, 0:09",
                words.what(new Voicemail(ID, "", THEN, Optional.empty(), Duration.ofSeconds(9), true, sound)));
        assertEquals(
                "Voicemail", words.what(new Voicemail(ID, "", THEN, Optional.empty(), Duration.ZERO, true, sound)));
    }

    @ParameterizedTest
    @CsvSource({"0, 0:00", "38, 0:38", "60, 1:00", "754, 12:34", "3600, 1:00:00", "3734, 1:02:14", "360000, 100:00:00"})
    void lengthsAreWrittenAsOnAClock(long seconds, String expected) {
        assertEquals(expected, ThingWords.length(Duration.ofSeconds(seconds)));
    }

    @Test
    void placesNameTheHalvesOfTheGlobe() {
        assertEquals("57.10000° N, 7.40000° W", ThingWords.place(new Place(57.1, -7.4)));
        assertEquals("0.50000° S, 12.00000° E", ThingWords.place(new Place(-0.5, 12)));
    }

    @Test
    void everyKindStandsInOneGroup() {
        var seen = EnumSet.noneOf(ThingKind.class);
        for (var group : KindGroup.values()) {
            group.kinds().forEach(kind -> assertTrue(seen.add(kind), kind + " stands in two"));
        }
        assertEquals(EnumSet.allOf(ThingKind.class), seen);
        Arrays.stream(ThingKind.values())
                .forEach(kind -> assertTrue(KindGroup.of(kind).kinds().contains(kind)));
    }

    @ParameterizedTest
    @CsvSource({
        "Etc/GMT-1,UTC+1",
        "UTC,UTC",
        "Europe/Oslo,'Europe/Oslo, UTC+1'",
        "America/St_Johns,'America/St Johns, UTC−3:30'",
        "Asia/Kathmandu,'Asia/Kathmandu, UTC+5:45'"
    })
    void zonesAreSaidAsPeopleSayThem(String zone, String expected) {
        var at = Instant.parse("2026-01-15T12:00:00Z");
        assertEquals(expected, new Words(Locale.UK, ZoneId.of("UTC")).zone(ZoneId.of(zone), at));
    }
}
