package app.custodex.media;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.io.ByteArrayInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

final class StreamSourceTest {
    private final byte[] content = new byte[3_000_000];
    private int opened;

    StreamSourceTest() {
        new Random(3).nextBytes(content);
    }

    private StreamSource source(long size) {
        return new StreamSource(size, () -> {
            opened++;
            return new ByteArrayInputStream(content);
        });
    }

    private static byte[] read(MediaSource source, long from, int length) throws IOException {
        var into = ByteBuffer.allocate(length);
        while (into.hasRemaining() && source.read(from + into.position(), into) > 0) {
            // a piece may come in parts
        }
        return Arrays.copyOf(into.array(), into.position());
    }

    @Test
    void anyPlaceIsRead() throws IOException {
        try (var source = source(content.length)) {
            var random = new Random(5);
            for (int i = 0; i < 200; i++) {
                int from = random.nextInt(content.length);
                int length = 1 + random.nextInt(400_000);
                int end = Math.min(content.length, from + length);
                assertArrayEquals(Arrays.copyOfRange(content, from, end), read(source, from, length));
            }
            assertEquals(-1, source.read(content.length, ByteBuffer.allocate(8)));
            assertEquals(-1, source.read(-1, ByteBuffer.allocate(8)));
        }
    }

    /** As containers are read: the end, where the index is, then from the beginning on. */
    @Test
    void goingBackAndForthDoesNotOpenItEachTime() throws IOException {
        try (var source = source(content.length)) {
            read(source, 0, 100);
            read(source, content.length - 1000, 1000);
            for (int at = 0; at + 1000 < content.length; at += 100_000) {
                read(source, at, 1000);
                read(source, content.length - 1000, 1000);
            }
        }
        assertEquals(2, opened);
    }

    @Test
    void aPromiseThatIsNotKeptIsTold() throws IOException {
        try (var source = source(content.length + 1000L)) {
            assertThrows(EOFException.class, () -> read(source, content.length - 10L, 100));
        }
    }

    @Test
    void whatIsClosedStaysClosed() throws IOException {
        var source = source(content.length);
        read(source, 0, 10);
        source.close();
        assertThrows(IOException.class, () -> read(source, 0, 10));
    }
}
