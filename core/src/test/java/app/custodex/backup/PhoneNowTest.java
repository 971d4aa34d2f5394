package app.custodex.backup;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import app.custodex.base.CancelToken;
import app.custodex.base.RealDisk;
import app.custodex.link.LinkException;
import app.custodex.link.PhonePath;
import app.custodex.strongroom.Strongroom;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A phone that is read without a copy. */
class PhoneNowTest {
    @TempDir
    Path folder;

    private final FakePhone phone = new FakePhone("PB-NOW");

    private PhoneNow now() throws IOException {
        return PhoneNow.open(
                phone,
                phone.identity(),
                Strongroom.make(folder.resolve("strongroom"), new RealDisk()),
                Clock.systemUTC(),
                new CancelToken());
    }

    @Test
    void filesAreListedOnceAndReadFromThePhone() throws IOException {
        var path = phone.put("roll/a/1.jpg", FakePhone.bytes("one"));
        phone.put("roll/ab.jpg", FakePhone.bytes("two"));
        try (var now = now()) {
            assertEquals(List.of(path), now.in(new PhonePath("roll/a")));
            assertEquals(3, now.facts(path).bytes());
            try (var in = now.open(path)) {
                assertArrayEquals(FakePhone.bytes("one"), in.readAllBytes());
            }
            assertThrows(IOException.class, () -> now.open(new PhonePath("roll/none")));
            assertTrue(now.gone().isEmpty());
        }
    }

    @Test
    void aPhoneThatGoesAwayIsNotAPhoneThatHasLess() throws IOException {
        var large = phone.put("roll/1.jpg", new byte[300_000]);
        var next = phone.put("roll/2.jpg", new byte[10]);
        try (var now = now()) {
            phone.unplugAfter(100_000);
            assertThrows(LinkException.Lost.class, () -> {
                try (var in = now.open(large)) {
                    in.readAllBytes();
                }
            });
            assertTrue(now.gone().isPresent());
            phone.plugIn();
            assertThrows(LinkException.Lost.class, () -> now.open(next), "it would be read in part all the same");
        }
    }

    @Test
    void oneFileThatCantBeReadIsNoPhoneThatIsGone() throws IOException {
        var bad = phone.put("roll/1.jpg", FakePhone.bytes("bad"));
        phone.unreadable(bad);
        try (var now = now()) {
            assertThrows(LinkException.Item.class, () -> now.open(bad));
            assertTrue(now.gone().isEmpty());
        }
    }

    @Test
    void anotherPhoneInTheSameBayIsNotReadOnThisOnesDocket() {
        var strongroom = folder.resolve("strongroom");
        assertThrows(
                LinkException.NotReady.class,
                () -> PhoneNow.open(
                        phone,
                        new FakePhone("PB-OTHER").identity(),
                        Strongroom.make(strongroom, new RealDisk()),
                        Clock.systemUTC(),
                        new CancelToken()));
    }
}
