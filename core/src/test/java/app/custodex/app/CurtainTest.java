package app.custodex.app;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.backup.FakePhone;
import app.custodex.base.ProblemException;
import app.custodex.docket.Docket;
import app.custodex.link.PhoneIdentity;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** When what is private may stand on the screen. The test holds the clock. */
class CurtainTest {
    @TempDir
    Path folder;

    private Instant now = Instant.parse("2026-03-01T09:00:00Z");
    private final Clock clock = ((InstantSource) () -> now).withZone(ZoneOffset.UTC);
    private final PhoneIdentity phone = new FakePhone("PB-ONE").identity();
    private final PhoneIdentity other = new FakePhone("PB-TWO").identity();

    private Custodex open() throws IOException {
        return Custodex.open(new Home(folder), clock);
    }

    private Docket docket(Custodex custodex, PhoneIdentity of, boolean consent) throws IOException {
        var given = new Docket.Consent(now, "a copy");
        var form = new Docket.Form(
                "Fenna Rook", "", "a copy", consent ? Optional.of(given) : Optional.empty(), Optional.empty());
        var docket = custodex.dockets().open(form, URI.create("http://127.0.0.1:1/"));
        return custodex.dockets().change(docket.number(), d -> d.withPhone(of));
    }

    @Test
    void itIsLiftedForOnePhoneAndEachLiftingIsWrittenDown() throws Exception {
        try (var custodex = open()) {
            var curtain = custodex.curtain();
            var docket = docket(custodex, phone, true);
            assertFalse(curtain.isLiftedFor(phone));
            curtain.lift(phone);
            assertTrue(curtain.isLiftedFor(phone));
            assertFalse(curtain.isLiftedFor(other));

            custodex.declareOwn(other);
            now = now.plusSeconds(60);
            curtain.lift(other);
            assertFalse(curtain.isLiftedFor(phone));
            assertTrue(curtain.isLiftedFor(other));
            var me = System.getProperty("user.name");
            assertEquals(
                    List.of(
                            new Curtain.Lifting(
                                    now.minusSeconds(60), Optional.of(docket.number()), phone.identifier(), me),
                            new Curtain.Lifting(now, Optional.empty(), other.identifier(), me)),
                    curtain.liftings());
        }
        try (var later = open()) {
            assertFalse(later.curtain().isLiftedFor(other), "a new program begins with the curtain down");
            assertEquals(2, later.curtain().liftings().size());
        }
    }

    @Test
    void itFallsWhenNobodyTouchesAnythingAndATouchDoesNotLiftIt() throws Exception {
        try (var custodex = open()) {
            var curtain = custodex.curtain();
            docket(custodex, phone, true);
            curtain.lift(phone);
            now = now.plus(Curtain.UNTOUCHED).minusMillis(1);
            assertTrue(curtain.isLiftedFor(phone));
            curtain.touched();
            now = now.plus(Curtain.UNTOUCHED).minusMillis(1);
            assertTrue(curtain.isLiftedFor(phone));
            now = now.plusMillis(1);
            assertFalse(curtain.isLiftedFor(phone));
            curtain.touched();
            assertFalse(curtain.isLiftedFor(phone), "fallen is fallen");
            curtain.lift(phone);
            now = now.minus(Duration.ofHours(1));
            assertFalse(curtain.isLiftedFor(phone), "a clock that was set back keeps nothing open");
        }
    }

    @Test
    void withoutConsentOrADocketOrAPlaceToWriteItDownItStaysDown() throws Exception {
        try (var custodex = open()) {
            var curtain = custodex.curtain();
            assertThrows(ProblemException.class, () -> curtain.lift(other));
            docket(custodex, phone, false);
            assertThrows(ProblemException.class, () -> curtain.lift(phone));
            custodex.declareOwn(other);
            Files.createDirectory(folder.resolve("curtain.jsonl")); // nothing can be appended to a folder
            assertThrows(ProblemException.class, () -> curtain.lift(other));
            assertFalse(curtain.isLiftedFor(phone) || curtain.isLiftedFor(other));
        }
    }
}
