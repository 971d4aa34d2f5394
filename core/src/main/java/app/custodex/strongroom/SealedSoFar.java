package app.custodex.strongroom;

import app.custodex.base.Digests;
import app.custodex.seal.AgeWriter;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.security.MessageDigest;

/** What of an unfinished age file is what was written, up to the end of a whole part. */
final class SealedSoFar {
    private final MessageDigest running = Digests.sha512();
    private MessageDigest content = Digests.sha512();
    private byte[] head = new byte[0];
    private long read;
    private long size;

    private SealedSoFar() {}

    /** @param atMost bytes of content */
    static SealedSoFar read(FileChannel file, AgeWriter.Begun begun, long atMost) throws IOException {
        var there = new SealedSoFar();
        AgeWriter.readUnfinished(file, begun, atMost, there::take);
        return there;
    }

    private void take(ByteBuffer chunk) throws IOException {
        if (read == 0) {
            head = new byte[Math.min(LargeItem.HEAD, chunk.remaining())];
            chunk.duplicate().get(head);
        }
        read += chunk.remaining();
        running.update(chunk);
        if (read % SealedParts.PART == 0) {
            size = read;
            content = Salvage.copyOf(running);
        }
    }

    /** Bytes of content. */
    long size() {
        return size;
    }

    /** The digest of those, which goes on. */
    MessageDigest content() {
        return content;
    }

    /** The first of them. */
    byte[] head() {
        return size == 0 ? new byte[0] : head.clone();
    }
}
