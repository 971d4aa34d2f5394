package app.custodex.extract.originals;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.Iterator;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Files made ahead of whoever writes them. */
class ConversionsTest {
    private static final List<String> ITEMS =
            IntStream.range(0, 200).mapToObj(i -> "item " + i).toList();

    private final List<String> unused = Collections.synchronizedList(new ArrayList<>());
    private final Set<String> begun = Collections.synchronizedSet(new HashSet<>());

    private String made(String item) {
        begun.add(item);
        return item + " made";
    }

    @Test
    void eachComesInItsTurnAndFewAreBegunAhead() throws Exception {
        try (var conversions = new Conversions<>(ITEMS.iterator(), this::made, unused::add)) {
            for (int i = 0; i < 50; i++) {
                assertEquals("item " + i + " made", conversions.take("item " + i));
                assertTrue(begun.size() <= i + 1 + 8, begun.toString());
            }
            assertEquals("item 49 made", conversions.take("item 49"), "once more, for another album");
            assertEquals("item 50 made", conversions.take("item 50"));
        }
        assertTrue(begun.size() < 70, "what nobody wanted was not begun");
    }

    @Test
    void whatIsPassedOverIsGivenBack() throws Exception {
        try (var conversions = new Conversions<>(ITEMS.iterator(), this::made, unused::add)) {
            assertEquals("item 150 made", conversions.take("item 150"));
            assertEquals("item 3 made", conversions.take("item 3"), "made for itself");
            assertEquals("not among them made", conversions.take("not among them"));
        }
        assertTrue(unused.contains("item 0 made") && !unused.contains("item 150 made"), unused.toString());
    }

    @Test
    void severalAreMadeAtOnce() throws Exception {
        var both = new CountDownLatch(2);
        try (var conversions = new Conversions<>(
                ITEMS.iterator(),
                item -> {
                    both.countDown();
                    try {
                        return both.await(30, TimeUnit.SECONDS) ? item : "alone";
                    } catch (InterruptedException e) {
                        throw new IOException(e);
                    }
                },
                unused::add)) {
            assertEquals("item 0", conversions.take("item 0"));
        }
    }

    @Test
    void troubleBelongsToItsOwnFile() throws Exception {
        Iterator<String> items = List.of("good", "torn", "odd", "last").iterator();
        var dropped = new AtomicInteger();
        try (var conversions = new Conversions<>(
                items,
                item -> switch (item) {
                    case "torn" -> throw new IOException("torn");
                    case "odd" -> throw new IllegalStateException("odd");
                    default -> item;
                },
                item -> dropped.incrementAndGet())) {
            assertEquals("good", conversions.take("good"));
            assertEquals(
                    "torn",
                    assertThrows(IOException.class, () -> conversions.take("torn"))
                            .getMessage());
            assertThrows(IllegalStateException.class, () -> conversions.take("odd"));
            assertEquals("last", conversions.take("last"));
        }
        assertEquals(0, dropped.get());
    }
}
