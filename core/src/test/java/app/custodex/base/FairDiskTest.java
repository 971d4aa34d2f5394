package app.custodex.base;

import static org.junit.jupiter.api.Assertions.assertArrayEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FairDiskTest {
    @TempDir
    Path folder;

    private final FairDisk disk = new FairDisk(new RealDisk());

    @Test
    void writesAllOfALargeBuffer() throws IOException {
        var bytes = new byte[3 * FairDisk.SLICE + 17];
        new Random(1).nextBytes(bytes);
        try (var out = disk.create(folder.resolve("file"))) {
            out.write(ByteBuffer.wrap(bytes));
            out.sync();
        }
        assertArrayEquals(bytes, Files.readAllBytes(folder.resolve("file")));
    }

    /** Two that write as fast as they can get about the same, whatever the size of their pieces. */
    @Test
    void twoWritersGetTheSameShare() throws Exception {
        try (var threads = Executors.newFixedThreadPool(2)) {
            var start = new CountDownLatch(1);
            var end = new AtomicBoolean();
            var large = threads.submit(writer("large", 16 * FairDisk.SLICE, start, end));
            var small = threads.submit(writer("small", FairDisk.SLICE, start, end));
            start.countDown();
            Thread.sleep(700);
            end.set(true);
            double one = large.get();
            double other = small.get();
            assertTrue(one / other < 3 && other / one < 3, one + " against " + other);
        }
    }

    private Callable<Long> writer(String name, int piece, CountDownLatch start, AtomicBoolean end) {
        return () -> {
            long written = 0;
            var bytes = ByteBuffer.allocate(piece);
            try (var out = disk.create(folder.resolve(name))) {
                start.await();
                while (!end.get() && written < 2_000_000_000L) {
                    out.write(bytes.clear());
                    written += piece;
                }
            }
            return written;
        };
    }
}
