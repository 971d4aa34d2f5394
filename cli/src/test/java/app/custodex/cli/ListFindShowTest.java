package app.custodex.cli;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.Json;
import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Everything in a layer, listed, found and shown from the command line. */
class ListFindShowTest extends CommandTest {
    private static final String PHONE = "Fenna's phone";

    @BeforeEach
    void copy() {
        doneOwn("backup", "ostrel", "--quiet");
        drawer.phones().getFirst().unplug();
    }

    private String list(String... more) {
        var words = new java.util.ArrayList<>(java.util.List.of("list", PHONE));
        words.addAll(java.util.List.of(more));
        return doneOwn(words.toArray(String[]::new)).out();
    }

    @Test
    void eachKindIsCountedAndListed() throws IOException {
        var counts = list();
        assertTrue(counts.contains("25\tContacts") && counts.contains("6\tApps"), counts);
        var json = Json.LINE.readTree(list("--json"));
        var calls = list("--kind", "call,voicemail").lines().toList();
        assertEquals(json.get("CALL").asInt() + json.get("VOICEMAIL").asInt(), calls.size());
        assertTrue(calls.size() > 100, calls.size() + " calls in three years");
        assertTrue(
                calls.stream().anyMatch(line -> line.startsWith("call\t2025-11-03 18:11:00\tHalvard Rook\tmissed")),
                calls.toString());
        var newest = list("--kind", "message", "--newest-first").lines().toList();
        assertEquals(json.get("MESSAGE").asInt(), newest.size());
        assertTrue(newest.getFirst().compareTo(newest.getLast()) > 0);
        var events = list("--kind", "event", "--json").lines().toList();
        assertEquals(
                json.get("EVENT").asInt(),
                Json.LINE.readTree(events.getLast()).get("end").asInt());
        assertEquals(json.get("EVENT").asInt(), events.size() - 2);
        var first = Json.LINE.readTree(events.get(1)).get("thing");
        assertEquals("Midsummer singing", first.get("title").asText());
        assertEquals(1, first.get("people").size());
        var kept = list("--kind", "album,alarm,app,track");
        for (var line : List.of(
                "Storm night, 6 in it",
                "First ferry, 05:10 monday tuesday wednesday thursday friday",
                "Choir bus ⏰, 05:40 once, off",
                "Tide clock 2.4, 6200000 bytes, keeps no data of its own",
                "Third step, in the cloud only")) {
            assertTrue(kept.contains(line), kept);
        }
    }

    @Test
    void thingsAreFilteredByPersonDayAndDirection() {
        var all = list("--kind", "message", "--person", "Ivo Kelp").lines().count();
        var sent = list("--kind", "message", "--person", "Ivo Kelp", "--sent")
                .lines()
                .count();
        var received = list("--kind", "message", "--person", "Ivo Kelp", "--received")
                .lines()
                .count();
        assertTrue(sent > 5 && received > 5, sent + " and " + received);
        assertEquals(all, sent + received);
        var day = list("--kind", "message", "--from", "2026-01-12", "--until", "2026-01-12");
        assertTrue(day.contains("Thinking of selling the small boat") && !day.contains("2026-01-11"), day);
        assertTrue(list("--kind", "message", "--attached").lines().count() > 20);
        assertCode(1, "Nobody of this name", runOwn("list", PHONE, "--kind", "call", "--person", "Nobody Atall"));
        assertCode(2, "There is no kind", runOwn("list", PHONE, "--kind", "weather"));
    }

    @Test
    void whatStandsInThingsIsFound() {
        var found = doneOwn("find", PHONE, "kettle");
        assertTrue(found.out().contains("Bring the kettle") && found.out().contains("Storm list"), found.out());
        assertTrue(found.err().contains("found"), found.err());
        assertTrue(doneOwn("find", PHONE, "BLUE", "folder").out().contains("The OTHER blue folder"));
        assertTrue(doneOwn("find", PHONE, "--kind", "note", "kettle")
                .out()
                .lines()
                .allMatch(line -> line.startsWith("note")));
        assertEquals("", doneOwn("find", PHONE, "nothing", "like", "this").out());
        assertCode(1, "No docket says whose it is", run("find", PHONE, "kettle"));
    }

    @Test
    void oneThingIsShownAndTakenOutAsItIs() throws IOException {
        var talk = doneOwn("show", PHONE, "store/messages/messages.db#chat-7").out();
        assertTrue(talk.contains("4,200 and the oars stay") && talk.contains("\"group\" : false"), talk);
        var picture = list("--kind", "picture").lines().findFirst().orElseThrow();
        var id = picture.substring(picture.lastIndexOf('\t') + 1);
        var file = folder.resolve("taken.bin");
        doneOwn("show", PHONE, id, "--file-to", file.toString());
        try (var files = Files.walk(home().practice())) {
            var original = files.filter(f -> f.endsWith(id)).findFirst().orElseThrow();
            assertArrayEquals(Files.readAllBytes(original), Files.readAllBytes(file));
        }
        assertCode(1, "It is there already", runOwn("show", PHONE, id, "--file-to", file.toString()));
        assertCode(1, "no such thing", runOwn("show", PHONE, "roll/none.jpg"));
        var halvard = list("--kind", "contact")
                .lines()
                .filter(line -> line.contains("Halvard Rook"))
                .findFirst()
                .orElseThrow();
        var photo = folder.resolve("halvard.jpg");
        doneOwn("show", PHONE, halvard.substring(halvard.lastIndexOf('\t') + 1), "--file-to", photo.toString());
        assertTrue(Files.size(photo) > 500);
        assertEquals(
                "ffd8",
                String.format(Locale.ROOT, "%02x%02x", Files.readAllBytes(photo)[0], Files.readAllBytes(photo)[1]));
    }
}
