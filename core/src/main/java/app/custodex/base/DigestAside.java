package app.custodex.base;

import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.security.MessageDigest;
import java.util.Arrays;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;

/**
 * Writes on, while other threads make the SHA-512 digest of what is written. A digest takes longer than the writing, so digests of several
 * files are under way at once. Nothing is flushed or closed here but what it writes to.
 */
public final class DigestAside extends FilterOutputStream {
    private static final ExecutorService THREADS = Executors.newFixedThreadPool(
            Runtime.getRuntime().availableProcessors(),
            Thread.ofPlatform().daemon().name("digest-", 1).factory());

    /** Pieces that wait for their digest, of all files together; they are what this takes of the memory. */
    private static final Semaphore WAITING = new Semaphore(256);

    /** In bytes. */
    private static final int PIECE = 1 << 16;

    private CompletableFuture<MessageDigest> digest = CompletableFuture.completedFuture(Digests.sha512());

    public DigestAside(OutputStream out) {
        super(out);
    }

    @Override
    public void write(int b) throws IOException {
        write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int offset, int length) throws IOException {
        out.write(bytes, offset, length);
        for (int from = offset; from < offset + length; from += PIECE) {
            add(Arrays.copyOfRange(bytes, from, Math.min(from + PIECE, offset + length)));
        }
    }

    private void add(byte[] piece) {
        WAITING.acquireUninterruptibly();
        digest = digest.thenApplyAsync(
                soFar -> {
                    soFar.update(piece);
                    WAITING.release();
                    return soFar;
                },
                THREADS);
    }

    /** Of all that was written, as lower-case hexadecimal, once it is known; nothing more may be written. */
    public CompletableFuture<String> digest() {
        return digest.thenApply(Digests::hex);
    }
}
