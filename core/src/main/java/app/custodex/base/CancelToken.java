package app.custodex.base;

import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.atomic.AtomicBoolean;

/** A one-way switch that a long task looks at between steps. No thread is ever killed. */
public final class CancelToken {
    private final AtomicBoolean cancelled = new AtomicBoolean();
    private final Set<Runnable> told = ConcurrentHashMap.newKeySet();

    public void cancel() {
        if (cancelled.compareAndSet(false, true)) {
            told.forEach(Runnable::run);
        }
    }

    /**
     * Asks something that may never answer, and stops waiting for it on request; its thread is interrupted then, and left alone.
     *
     * @throws CancellationException when it was cancelled before there was an answer
     * @throws ExecutionException when asking failed
     */
    public <T> T await(String name, Callable<T> question) throws ExecutionException {
        check();
        var answer = new CompletableFuture<T>();
        var asker = Thread.ofVirtual().name(name).start(() -> {
            try {
                answer.complete(question.call());
            } catch (Throwable e) { // whatever it is, it is brought to whoever waits
                answer.completeExceptionally(e);
            }
        });
        Runnable stop = () -> {
            answer.completeExceptionally(new CancellationException("stopped on request"));
            asker.interrupt();
        };
        told.add(stop);
        try {
            check();
            return answer.get();
        } catch (InterruptedException e) {
            asker.interrupt();
            Thread.currentThread().interrupt();
            throw new CancellationException("interrupted");
        } finally {
            told.remove(stop);
        }
    }

    public boolean isCancelled() {
        return cancelled.get();
    }

    /** @throws CancellationException once {@link #cancel} was called */
    public void check() {
        if (isCancelled()) {
            throw new CancellationException("stopped on request");
        }
    }
}
