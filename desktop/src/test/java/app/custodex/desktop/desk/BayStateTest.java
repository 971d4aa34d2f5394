package app.custodex.desktop.desk;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import app.custodex.app.BackupJob.Outcome;
import app.custodex.app.Bay;
import app.custodex.backup.BackupProgress;
import app.custodex.backup.BackupProgress.Phase;
import app.custodex.base.Problem;
import app.custodex.desktop.desk.BayState.Look;
import app.custodex.desktop.ui.Parts.Mark;
import app.custodex.desktop.ui.Words;
import app.custodex.docket.Docket;
import app.custodex.link.Family;
import app.custodex.link.PhoneIdentity;
import app.custodex.link.PhoneStatus;
import app.custodex.link.ReadinessStep;
import app.custodex.strongroom.CheckReport;
import app.custodex.strongroom.LayerRecord;
import app.custodex.strongroom.StoredPhone.Seal;
import java.net.URI;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** What the bay strip says, for every state that a bay can be in. */
class BayStateTest {
    private static final Instant NOW = Instant.parse("2026-01-18T12:00:00Z");
    private static final Words WORDS = new Words(Locale.UK, ZoneOffset.UTC);
    private static final PhoneIdentity PHONE = new PhoneIdentity(
            "id",
            "Fenna's phone",
            Family.OSTREL,
            "Ostrel Q5",
            "s",
            "i",
            "Ostrel System 11.2",
            "GB",
            ZoneId.of("Etc/GMT-1"),
            10,
            5);

    private final BayModel bay = new BayModel(bay());

    private static Bay bay() {
        var bay = mock(Bay.class);
        when(bay.number()).thenReturn(1);
        return bay;
    }

    private BayState state() {
        return BayState.of(bay, WORDS, NOW);
    }

    private void plugIn(ReadinessStep... done) {
        boolean ready = done.length == 2;
        bay.status()
                .set(Optional.of(new PhoneStatus(
                        Family.OSTREL,
                        "Ostrel Q5",
                        Set.of(done),
                        Optional.of(80),
                        ready ? Optional.of(PHONE) : Optional.empty(),
                        List.of(),
                        List.of())));
    }

    private void openDocket() {
        bay.docket()
                .set(Optional.of(new Docket(
                        1,
                        NOW,
                        "Fenna Rook",
                        "",
                        "wants a copy",
                        Optional.empty(),
                        Optional.empty(),
                        URI.create("http://127.0.0.1:1/"),
                        Optional.empty(),
                        Map.of(),
                        List.of(),
                        Optional.empty(),
                        false,
                        "")));
    }

    private static KeptLayer layer(Optional<Boolean> sound) {
        var record = new LayerRecord(
                3, PHONE, NOW.minusSeconds(840), Duration.ofMinutes(1), List.of(), 0, List.of(), false, false, "test");
        return new KeptLayer(
                record,
                sound.map(s -> new CheckReport(
                        3,
                        NOW,
                        1,
                        1,
                        s ? List.of() : List.of(Problem.failure("x", "damaged", "mend")),
                        List.of(),
                        false)));
    }

    private static BackupProgress progress(Phase phase, long done, long all, Optional<Problem> waiting) {
        return new BackupProgress(
                phase, List.of(), done, all, 0, 0, 0, 1_000_000, Optional.of(Duration.ofMinutes(6)), 0, waiting);
    }

    @Test
    void namesTheNextMovementOfTheHand() {
        assertEquals("Not plugged in", state().headline());
        assertEquals(Look.AWAY, state().look());
        plugIn();
        assertEquals(Look.HAND, state().look());
        assertEquals(Optional.of(Mark.HAND), state().mark());
        assertEquals("Enter its passcode", state().detail());
        plugIn(ReadinessStep.UNLOCK);
        assertEquals("Tap Trust on the phone", state().detail());
        plugIn(ReadinessStep.UNLOCK, ReadinessStep.TRUST);
        assertEquals("Open a docket for it", state().detail());
        openDocket();
        assertEquals("Ready to be backed up", state().headline());
        assertTrue(bay.ready());
        assertEquals("id", bay.phone().orElseThrow().identifier());
    }

    @Test
    void tellsHowFarACopyIs() {
        plugIn(ReadinessStep.UNLOCK, ReadinessStep.TRUST);
        bay.progress().set(Optional.of(progress(Phase.COPYING, 6_100_000_000L, 10_000_000_000L, Optional.empty())));
        assertEquals("Copying, 61 %", state().headline());
        assertEquals("3.9 GB left, about 6 min", state().detail().replace('\u00a0', ' '));
        bay.progress().set(Optional.of(progress(Phase.LISTING, 0, 0, Optional.empty())));
        assertEquals("Listing the phone", state().headline());
        bay.progress().set(Optional.of(progress(Phase.PUBLISHING, 1, 1, Optional.empty())));
        assertEquals("Leave it connected", state().detail());
        bay.progress().set(Optional.of(progress(Phase.CHECKING, 1, 2, Optional.empty())));
        assertEquals("The phone may be unplugged", state().detail());
        var cable = Problem.failure("Fenna's phone", "The connection broke", "Check the cable");
        bay.progress().set(Optional.of(progress(Phase.COPYING, 1, 2, Optional.of(cable))));
        assertEquals(Look.HAND, state().look());
        assertEquals("Check the cable", state().detail());
    }

    @Test
    void tellsTheSealOfTheNewestLayerByShapeAndWords() {
        plugIn(ReadinessStep.UNLOCK, ReadinessStep.TRUST);
        openDocket();
        bay.layers().set(List.of(layer(Optional.of(true))));
        assertEquals(Optional.of(Mark.DONE), state().mark());
        assertEquals("Layer 3, today 11:46", state().detail());
        bay.layers().set(List.of(layer(Optional.empty())));
        assertEquals(Optional.of(Mark.NEVER), state().mark());
        bay.layers().set(List.of(layer(Optional.of(false))));
        assertEquals(Look.TROUBLE, state().look());
        assertTrue(layer(Optional.of(false)).damaged());
        assertFalse(layer(Optional.empty()).damaged());
        bay.seal().set(Seal.CLOSED);
        assertEquals("Sealed", state().headline());
        bay.seal().set(Seal.OPENED);
        bay.outcome()
                .set(Optional.of(
                        new Outcome.Failed(Problem.failure("x", "The strongroom's disk is full", "Free some"))));
        assertEquals("The strongroom's disk is full", state().detail());
    }

    @Test
    void aShareMovesEvenWhenFilesAreEmpty() {
        var empty =
                new BackupProgress(Phase.COPYING, List.of(), 0, 0, 5, 10, 0, 0, Optional.empty(), 0, Optional.empty());
        assertEquals(0.5, empty.share(), 0.001);
        assertEquals(0, progress(Phase.LISTING, 0, 0, Optional.empty()).share());
        assertEquals(1, progress(Phase.ENDED, 0, 0, Optional.empty()).share());
        assertEquals(
                1, progress(Phase.COPYING, 3, 2, Optional.empty()).share(), "a file that grew is no more than all");
    }

    @Test
    void figuresAndTimesFollowTheShopsLocale() {
        var german = new Words(Locale.GERMANY, ZoneOffset.ofHours(1));
        assertEquals("4,1\u00a0GB", german.bytes(4_100_000_000L));
        assertEquals("1.208", german.count(1208));
        assertEquals("1 contact", WORDS.count(1, "contact", "contacts"));
        assertEquals("today 11:46", WORDS.moment(Instant.parse("2026-01-18T11:46:00Z"), NOW));
        assertEquals("3 Mar 2025, 09:00", WORDS.moment(Instant.parse("2025-03-03T09:00:00Z"), NOW));
        assertEquals(
                "today 00:30",
                new Words(Locale.UK, ZoneOffset.ofHours(1)).moment(Instant.parse("2026-01-17T23:30:00Z"), NOW));
        assertTrue(WORDS.local(LocalDateTime.of(2026, 1, 18, 16, 0)).contains("16:00"));
    }
}
