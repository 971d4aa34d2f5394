package app.custodex.base;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertSame;

import java.io.IOException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

@Timeout(value = 1, unit = TimeUnit.MINUTES)
final class WarmPoolTest {
    private static final class Kettle implements WarmPool.Worker {
        private final LinkedBlockingQueue<Kettle> askedBack;

        Kettle(LinkedBlockingQueue<Kettle> askedBack) {
            this.askedBack = askedBack;
        }

        @Override
        public boolean goesOn() {
            askedBack.add(this); // whoever gives it back asks first
            return true;
        }

        @Override
        public void close() {
            // It holds nothing.
        }
    }

    @Test
    void whatIsPreparedIsStartedOnceAndTakenByTheFirst() throws Exception {
        var started = new AtomicInteger();
        var heat = new SynchronousQueue<String>();
        var back = new LinkedBlockingQueue<Kettle>();
        try (var pool = new WarmPool<Kettle>("kettle", () -> {
            started.incrementAndGet();
            try {
                heat.take();
            } catch (InterruptedException e) {
                throw new IOException(e);
            }
            return new Kettle(back);
        })) {
            pool.prepare();
            pool.prepare(); // the first one is not there yet
            heat.put("on");
            var prepared = back.take();
            assertSame(prepared, pool.take());
            pool.prepare(); // there is one, though somebody has it
            assertEquals(1, started.get());
        }
    }
}
