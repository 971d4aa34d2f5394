package app.custodex.extract.originals;

import app.custodex.extract.pictures.PictureFiles.Impossible;
import java.io.Closeable;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.Iterator;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.function.Consumer;

/**
 * Files in another form, made by several threads at once and a little ahead of whoever writes them. Used by one thread.
 *
 * @param <T> what is made of a file
 */
final class Conversions<T> implements Closeable {
    private static final int AT_ONCE = Math.clamp(Runtime.getRuntime().availableProcessors(), 2, 4);

    private record Begun<T>(String item, CompletableFuture<T> made) {}

    /** Makes one; several threads do it at once. */
    interface Making<T> {
        T make(String item) throws IOException, Impossible;
    }

    private final Iterator<String> items;
    private final Making<T> making;
    private final Consumer<T> unused;
    private final Deque<Begun<T>> ahead = new ArrayDeque<>();
    /** Those that were begun. */
    private final Set<String> known = new HashSet<>();

    private Optional<ExecutorService> threads = Optional.empty();
    private volatile boolean ended;

    /**
     * @param items those that will be wanted, mostly, in the order in which they will
     * @param unused gets what was made and is not wanted
     */
    Conversions(Iterator<String> items, Making<T> making, Consumer<T> unused) {
        this.items = items;
        this.making = making;
        this.unused = unused;
    }

    /** What was made of a file; waits for it. */
    T take(String item) throws IOException, Impossible {
        begin(item);
        if (ahead.stream().noneMatch(begun -> begun.item().equals(item))) {
            return making.make(item); // it was taken before, since it is written more than once
        }
        for (var first = ahead.poll(); first != null; first = ahead.poll()) {
            if (first.item().equals(item)) {
                return result(first.made());
            }
            drop(first.made()); // it will not be wanted any more
        }
        throw new IllegalStateException("it was there");
    }

    private void begin(String wanted) {
        while (items.hasNext() && (!known.contains(wanted) || ahead.size() < AT_ONCE)) {
            var next = items.next();
            if (ahead.size() >= AT_ONCE) { // what is there already was passed over
                drop(ahead.remove().made());
            }
            known.add(next);
            ahead.add(new Begun<>(next, begun(next)));
        }
    }

    private CompletableFuture<T> begun(String item) {
        var made = new CompletableFuture<T>();
        threads().execute(() -> {
            if (!ended) {
                try {
                    made.complete(making.make(item));
                } catch (IOException | Impossible | RuntimeException | Error e) {
                    made.completeExceptionally(e);
                }
            }
        });
        return made;
    }

    private ExecutorService threads() {
        if (threads.isEmpty()) {
            threads = Optional.of(Executors.newFixedThreadPool(AT_ONCE, task -> {
                var thread = new Thread(task, "conversion");
                thread.setDaemon(true);
                return thread;
            }));
        }
        return threads.get();
    }

    private static <T> T result(CompletableFuture<T> made) throws IOException, Impossible {
        try {
            return made.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException();
        } catch (ExecutionException e) {
            switch (e.getCause()) {
                case IOException io -> throw io;
                case Impossible impossible -> throw impossible;
                case RuntimeException unexpected -> throw unexpected;
                case null, default -> throw new IOException(e);
            }
        }
    }

    /** What comes of it later is given back then; whoever wants it after all is told its trouble. */
    private void drop(CompletableFuture<T> made) {
        made.thenAccept(unused);
    }

    /** Waits for what is being made, since that reads from a layer which may be closed next. */
    @Override
    public void close() {
        ended = true; // nobody is interrupted: that would close what the others read from
        ahead.forEach(begun -> drop(begun.made()));
        threads.ifPresent(ExecutorService::close);
        ahead.clear();
    }
}
