package app.custodex.base;

import java.io.Closeable;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * What takes long to start, such as a process: kept for the next use, and ended when none was needed for a while, or with the program. Safe
 * for use by several threads; each that is taken has one user.
 */
public final class WarmPool<W extends WarmPool.Worker> implements Closeable {
    private static final Logger LOG = LoggerFactory.getLogger(WarmPool.class);
    private static final Duration KEPT = Duration.ofSeconds(20);

    /** What is kept. */
    public interface Worker extends Closeable {
        /** Whether it can be used once more. */
        boolean goesOn();
    }

    /** Starts one more. */
    public interface Starter<W> {
        W start() throws IOException;
    }

    private final Starter<W> starter;
    private final ArrayDeque<W> idle = new ArrayDeque<>();
    private final Set<W> all = new HashSet<>();
    private final ScheduledExecutorService clock;
    private long used;
    private boolean preparing;

    /** @param name of what is kept, for its threads */
    public WarmPool(String name, Starter<W> starter) {
        this.starter = starter;
        clock = Executors.newSingleThreadScheduledExecutor(task -> {
            var thread = new Thread(task, name + "-clock");
            thread.setDaemon(true);
            return thread;
        });
        Runtime.getRuntime().addShutdownHook(new Thread(this::close, name + "-close"));
        every(KEPT, this::endIdle);
    }

    /** Does something again and again while the program runs. */
    public void every(Duration time, Runnable task) {
        clock.scheduleWithFixedDelay(task, time.toMillis(), time.toMillis(), TimeUnit.MILLISECONDS);
    }

    /** Starts one that will be wanted soon, unless there is one; does not wait for it. */
    public synchronized void prepare() {
        if (preparing || !all.isEmpty()) {
            return;
        }
        preparing = true;
        Thread.ofPlatform().daemon().start(() -> {
            try {
                giveBack(take());
            } catch (IOException e) {
                LOG.info("a worker did not start; whoever needs it is told", e);
            } finally {
                prepared();
            }
        });
    }

    private synchronized void prepared() {
        preparing = false;
    }

    /** One that is kept, or one more. */
    public W take() throws IOException {
        var there = takeIdle();
        if (there.isPresent()) {
            return there.get();
        }
        var worker = starter.start(); // takes a while, in which others give theirs back
        add(worker);
        return worker;
    }

    private synchronized Optional<W> takeIdle() {
        used++;
        while (!idle.isEmpty()) {
            var worker = idle.pop();
            if (worker.goesOn()) {
                return Optional.of(worker);
            }
            end(worker);
        }
        return Optional.empty();
    }

    private synchronized void add(W worker) {
        all.add(worker);
    }

    public synchronized void giveBack(W worker) {
        if (worker.goesOn()) {
            idle.push(worker);
        } else {
            end(worker);
        }
    }

    /** Looks at each, whether it is in use or not. */
    public synchronized void each(Consumer<W> looking) {
        all.forEach(looking);
    }

    private synchronized void endIdle() {
        if (used > 0) {
            used = 0; // one was needed since the last look
            return;
        }
        while (!idle.isEmpty()) {
            end(idle.pop());
        }
    }

    private void end(W worker) {
        all.remove(worker);
        try {
            worker.close();
        } catch (IOException e) {
            LOG.info("what a worker left could not be removed", e);
        }
    }

    @Override
    public synchronized void close() {
        Set.copyOf(all).forEach(this::end);
        idle.clear();
    }
}
