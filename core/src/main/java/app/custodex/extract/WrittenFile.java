package app.custodex.extract;

import java.nio.file.Path;
import java.util.concurrent.CompletableFuture;

/**
 * A file that is complete.
 *
 * @param file on the disk, or inside the package of which it is a part
 * @param bytes its size
 * @param digest its SHA-512, which may be known later only
 */
public record WrittenFile(Path file, long bytes, CompletableFuture<String> digest) {
    /** A file whose digest is known. */
    public static WrittenFile of(Path file, long bytes, String sha512) {
        return new WrittenFile(file, bytes, CompletableFuture.completedFuture(sha512));
    }

    /** Its digest, as soon as it is known. */
    public String sha512() {
        return digest.join();
    }
}
