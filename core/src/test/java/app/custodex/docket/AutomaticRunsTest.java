package app.custodex.docket;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.RealDisk;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class AutomaticRunsTest {
    private static final ZoneId SHOP = ZoneOffset.ofHours(1);

    @TempDir
    Path folder;

    private Instant now = Instant.parse("2026-03-02T09:00:00Z");

    private final AutomaticRuns runs = new AutomaticRuns(
            new Clock() {
                @Override
                public ZoneId getZone() {
                    return ZoneOffset.UTC;
                }

                @Override
                public Clock withZone(ZoneId zone) {
                    return this;
                }

                @Override
                public Instant instant() {
                    return now;
                }
            },
            SHOP);

    private Docket docket(Optional<LocalTime> daily, boolean consent) {
        return new Docket(
                1,
                now,
                "Fenna Rook",
                "",
                "a copy each day",
                consent ? Optional.of(new Docket.Consent(now, "copy")) : Optional.empty(),
                Optional.empty(),
                URI.create("http://127.0.0.1:1/"),
                Optional.empty(),
                Map.of(),
                List.of(),
                Optional.of(new Docket.Automatic(daily, now)),
                false,
                "");
    }

    private boolean due(Docket docket, boolean ready, Optional<Instant> lastRun) {
        runs.seen(docket.address(), ready);
        return runs.due(docket, lastRun);
    }

    private void later(String time) {
        now = Instant.parse(time);
    }

    @Test
    void onceEachTimeThePhoneIsPluggedIn() {
        var docket = docket(Optional.empty(), true);
        assertFalse(due(docket, false, Optional.empty()));
        later("2026-03-02T09:05:00Z");
        assertTrue(due(docket, true, Optional.empty()));
        var ran = Optional.of(now);
        later("2026-03-02T12:00:00Z");
        assertFalse(due(docket, true, ran), "it stayed in");
        assertFalse(due(docket, false, ran));
        later("2026-03-02T12:01:00Z");
        assertTrue(due(docket, true, ran), "it came again");
        later("2026-03-02T12:03:00Z");
        assertFalse(due(docket, false, ran), "its cable is loose while it is copied");
        later("2026-03-02T12:04:00Z");
        due(docket, true, ran);
        later("2026-03-02T12:10:00Z");
        assertFalse(due(docket, true, Optional.of(now)), "it was copied after that");
    }

    @Test
    void notForAPhoneThatWasInBeforeItWasAskedFor() {
        var without = docket(Optional.empty(), true).withAutomatic(Optional.empty());
        assertFalse(due(without, true, Optional.empty()));
        later("2026-03-02T09:30:00Z");
        var docket = docket(Optional.empty(), true);
        later("2026-03-02T09:31:00Z");
        assertFalse(due(docket, true, Optional.empty()), "whoever opened the docket may want to seal it first");
        assertFalse(due(docket, false, Optional.empty()));
        later("2026-03-02T09:32:00Z");
        assertTrue(due(docket, true, Optional.empty()));
    }

    @Test
    void eachDayFromATimeOnByTheShopsClock() {
        var docket = docket(Optional.of(LocalTime.of(19, 0)), true);
        assertFalse(due(docket, true, Optional.empty()), "yesterday's time was before it was wanted");
        later("2026-03-02T17:59:00Z");
        assertFalse(due(docket, true, Optional.empty()));
        later("2026-03-02T18:00:00Z");
        assertTrue(due(docket, true, Optional.empty()));
        var ran = Optional.of(now);
        later("2026-03-03T08:00:00Z");
        assertFalse(due(docket, true, ran));
        later("2026-03-03T21:00:00Z");
        assertFalse(due(docket, false, ran));
        later("2026-03-04T07:00:00Z");
        assertTrue(due(docket, true, ran), "made good as soon as the phone is there");
    }

    @Test
    void neverWithoutConsentOrWithoutBeingAsked() {
        assertFalse(due(docket(Optional.empty(), false), true, Optional.empty()));
        assertFalse(due(docket(Optional.empty(), true).withAutomatic(Optional.empty()), true, Optional.empty()));
    }

    @Test
    void theResultListIsKeptAndATornLineIsPassedOver() throws IOException {
        var file = folder.resolve("runs.jsonl");
        var book = RunBook.open(file, new RealDisk());
        var run = new Run(
                now,
                now.plusSeconds(60),
                Optional.of(1),
                "PB",
                "Fenna's phone",
                true,
                Optional.of(3),
                5,
                900,
                0,
                Optional.of(true),
                Optional.empty());
        book.add(run);
        Files.writeString(file, "{\"begun\":\"2026", StandardOpenOption.APPEND);

        var again = RunBook.open(file, new RealDisk());

        assertEquals(List.of(run), again.all());
        assertEquals(Optional.of(now.plusSeconds(60)), again.last(1));
        assertEquals(Optional.empty(), again.last(2));
    }
}
