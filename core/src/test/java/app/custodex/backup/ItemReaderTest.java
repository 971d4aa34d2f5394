package app.custodex.backup;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import app.custodex.base.CancelToken;
import app.custodex.base.Digests;
import app.custodex.base.Problem;
import app.custodex.link.LinkException;
import app.custodex.link.Listed;
import app.custodex.link.PhoneContent;
import app.custodex.link.PhoneLink;
import app.custodex.link.PhonePath;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.SequenceInputStream;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;

/** One item at a time, off phones that misbehave. */
class ItemReaderTest {
    private static final PhonePath PATH = new PhonePath("roll/large");

    private final byte[] bytes = new byte[700_000];
    private final PhoneLink link = mock(PhoneLink.class);
    private final FakePhone identity = new FakePhone("id");
    private final CancelToken cancel = new CancelToken();
    private final List<Optional<Problem>> waits = new CopyOnWriteArrayList<>();

    ItemReaderTest() throws LinkException {
        when(link.askEvery()).thenReturn(Duration.ofMillis(20));
        new Random(1).nextBytes(bytes);
        when(link.status()).thenReturn(identity.status());
    }

    private ItemReader reader(Duration patience) {
        return new ItemReader(
                link,
                new Gate(link, "id", patience, Clock.systemUTC(), cancel, waits::add),
                new StallWatch(link, waits::add, cancel, StallWatch.TELL_AFTER, StallWatch.HANG_UP_AFTER),
                cancel);
    }

    private Listed.File file() {
        return new Listed.File(PATH, bytes.length, Instant.EPOCH, "\"1\"");
    }

    private Listed.File listed(String etag) {
        return new Listed.File(PATH, bytes.length, Instant.EPOCH, etag);
    }

    private static PhoneContent content(String etag, long size, InputStream in) {
        return new PhoneContent(size, etag, in);
    }

    /** The first so many bytes, and then the cable is out. */
    private InputStream breakingAfter(int size) {
        return new SequenceInputStream(new ByteArrayInputStream(bytes, 0, size), new InputStream() {
            @Override
            public int read() throws IOException {
                throw new LinkException.Lost("the phone", null);
            }
        });
    }

    private InputStream from(int offset) {
        return new ByteArrayInputStream(bytes, offset, bytes.length - offset);
    }

    @Test
    void aLargeItemGoesOnFromTheByteWhereItBroke() throws IOException {
        when(link.open(PATH, 0)).thenReturn(content("\"1\"", bytes.length, breakingAfter(300_000)));
        when(link.open(PATH, 300_000)).thenReturn(content("\"1\"", bytes.length - 300_000L, from(300_000)));
        var out = new ByteArrayOutputStream();
        long[] told = {0};

        var is = reader(Duration.ofSeconds(5)).stream(file(), 0, (b, n) -> out.write(b, 0, n), n -> told[0] += n);

        assertEquals(file(), is);
        assertArrayEquals(bytes, out.toByteArray());
        assertEquals(bytes.length, told[0]);
        verify(link).open(PATH, 300_000);
    }

    @Test
    void halfOfOneVersionAndHalfOfAnotherIsNoItem() throws IOException {
        when(link.open(PATH, 0)).thenReturn(content("\"1\"", bytes.length, breakingAfter(300_000)));
        when(link.open(PATH, 300_000)).thenReturn(content("\"2\"", bytes.length - 300_000L, from(300_000)));
        when(link.list(PATH.parent())).thenReturn(List.of(listed("\"2\"")));

        var changed = assertThrows(
                LinkException.Item.class, () -> reader(Duration.ofSeconds(5)).stream(file(), 0, (b, n) -> {}, n -> {}));

        assertTrue(changed.problem().what().contains("changed"), changed.toString());
    }

    @Test
    void aSmallItemIsReadAgainFromItsStart() throws IOException {
        when(link.open(PATH, 0))
                .thenReturn(content("\"1\"", bytes.length, breakingAfter(200_000)))
                .thenReturn(content("\"2\"", bytes.length, from(0)));
        when(link.list(PATH.parent())).thenReturn(List.of(listed("\"2\"")));

        var whole = reader(Duration.ofSeconds(5)).whole(file(), 1_000_000, n -> {});

        assertArrayEquals(bytes, whole.bytes());
        assertEquals(Digests.of(bytes), whole.digest());
        assertEquals("\"2\"", whole.file().etag(), "the version that was read, not the one that was listed");
    }

    @Test
    void aShortAnswerIsABrokenConnectionAndNoShortFile() throws IOException {
        when(link.open(PATH, 0)).thenReturn(content("\"1\"", bytes.length, new ByteArrayInputStream(bytes, 0, 10)));
        when(link.open(PATH, 10)).thenReturn(content("\"1\"", bytes.length - 10L, from(10)));
        var out = new ByteArrayOutputStream();

        reader(Duration.ofSeconds(5)).stream(file(), 0, (b, n) -> out.write(b, 0, n), n -> {});

        assertArrayEquals(bytes, out.toByteArray());
    }

    @Test
    void anItemThatGrewPastMemoryIsRefused() throws IOException {
        when(link.open(any(), anyLong())).thenReturn(content("\"1\"", 5_000_000_000L, from(0)));
        when(link.list(PATH.parent()))
                .thenReturn(List.of(new Listed.File(PATH, 5_000_000_000L, Instant.EPOCH, "\"1\"")));

        var grew = assertThrows(
                LinkException.Item.class, () -> reader(Duration.ZERO).whole(file(), 1_000_000, n -> {}));

        assertTrue(grew.problem().what().contains("grew"), grew.toString());
    }

    @Test
    void theSinksOwnTroubleIsNotTakenForThePhones() throws IOException {
        when(link.open(any(), anyLong())).thenReturn(content("\"1\"", bytes.length, from(0)));

        var full = assertThrows(
                IOException.class,
                () -> reader(Duration.ofSeconds(5)).stream(
                        file(),
                        0,
                        (b, n) -> {
                            throw new IOException("No space left on device");
                        },
                        n -> {}));

        assertEquals("No space left on device", full.getMessage());
        assertTrue(waits.isEmpty());
    }

    @Test
    void anotherPhoneOnTheSameCableIsNotTakenForThisOne() throws IOException {
        when(link.open(eq(PATH), anyLong())).thenReturn(content("\"1\"", bytes.length, breakingAfter(10)));
        when(link.status()).thenReturn(new FakePhone("somebody else's").status());

        assertThrows(
                LinkException.Lost.class,
                () -> reader(Duration.ofMillis(700)).stream(file(), 0, (b, n) -> {}, n -> {}));

        assertTrue(waits.getFirst().orElseThrow().advice().contains("cable"));
        assertTrue(waits.getLast().isEmpty(), "nobody waits any more");
    }

    @Test
    void stoppingEndsTheWaitToo() throws IOException {
        when(link.open(any(), anyLong())).thenReturn(content("\"1\"", bytes.length, breakingAfter(10)));
        when(link.status()).thenThrow(new LinkException.Lost("the phone", null));
        Thread.ofVirtual().start(() -> {
            while (waits.isEmpty()) {
                Thread.onSpinWait();
            }
            cancel.cancel();
        });

        assertThrows(
                CancellationException.class, () -> reader(Duration.ofMinutes(5)).whole(file(), 1_000_000, n -> {}));
    }
}
