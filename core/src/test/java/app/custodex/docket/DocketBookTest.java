package app.custodex.docket;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertSame;
import static org.junit.jupiter.api.Assertions.assertThrows;

import app.custodex.base.ProblemException;
import app.custodex.base.RealDisk;
import app.custodex.docket.Docket.Consent;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DocketBookTest {
    private static final Instant NOW = Instant.parse("2026-01-18T09:20:00Z");
    private static final URI BAY = URI.create("http://127.0.0.1:4000/");

    @TempDir
    Path folder;

    private DocketBook open() throws IOException {
        return DocketBook.open(folder, new RealDisk(), Clock.fixed(NOW, ZoneOffset.UTC));
    }

    private static Docket.Form form(String customer) {
        return new Docket.Form(
                customer,
                "+44 7700 900123",
                "wants the voicemail",
                Optional.of(new Consent(NOW, "read for the voicemail")),
                Optional.of(LocalDateTime.of(2026, 1, 18, 16, 0)));
    }

    @Test
    void keepsWhatWasWrittenOverARestart() throws IOException {
        var docket = open().open(form("Fenna Rook / نور"), BAY);
        open().change(1, d -> d.withLayer(3).withDone(RouteStep.BACK_UP, NOW));

        var again = open().find(1).orElseThrow();

        assertEquals("0001", docket.label());
        assertEquals("Fenna Rook / نور", again.customer());
        assertEquals(form("").promised(), again.promised());
        assertEquals(List.of(3), again.layers());
        assertEquals(NOW, again.done().get(RouteStep.BACK_UP));
        assertEquals(NOW, again.opened());
    }

    @Test
    void theNewestDocketOfABayIsTheOneAtWork() throws IOException {
        var book = open();
        book.open(form("first"), BAY);
        book.open(form("second"), BAY);
        book.open(form("elsewhere"), URI.create("http://127.0.0.1:5000/"));
        assertEquals("second", open().at(BAY).orElseThrow().customer());
        assertEquals(3, open().all().size());
    }

    @Test
    void aStepKeepsTheTimeWhenItWasLastDoneAndTheCheckInItsFirst() throws IOException {
        var docket = open().open(form("x"), BAY).withDone(RouteStep.READ, NOW).withDone(RouteStep.CHECK_IN, NOW);
        var later = NOW.plusSeconds(60);
        assertEquals(later, docket.withDone(RouteStep.READ, later).done().get(RouteStep.READ));
        assertSame(docket, docket.withDone(RouteStep.CHECK_IN, later));
    }

    @Test
    void aDocketThatNamesNoCountryIsReadAndCountriesAreTwoLetters() throws IOException {
        open().open(form("old"), BAY);
        var file = folder.resolve("0001.json");
        var older = Files.readString(file).replaceFirst(",\\s*\"country\" : \"\"", "");
        assertFalse(older.contains("country"), older);
        Files.writeString(file, older);
        assertEquals("", open().find(1).orElseThrow().country());
        assertEquals("JP", Country.of(" jp "));
        assertThrows(ProblemException.class, () -> Country.of("Skerrow"));
    }

    @Test
    void aTornDocketIsToldAndTheOthersAreThere() throws IOException {
        open().open(form("whole"), BAY);
        Files.writeString(folder.resolve("0002.json"), "{\"number\": 2, \"cust");

        var book = open();

        assertEquals(1, book.all().size());
        assertEquals("0002.json", book.problems().getFirst().subject());
        assertEquals(3, book.open(form("next"), BAY).number(), "the torn one keeps its number");
    }
}
