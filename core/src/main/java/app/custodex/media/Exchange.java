package app.custodex.media;

import app.custodex.media.Wire.Kind;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.Optional;

/** The worker's end while it works for somebody: asks for pieces of the file, hands out frames, hears that it is to stop. */
final class Exchange {
    static final int PIECE = 1 << 20;

    private final Wire wire;
    private long deadline;
    private int credits;
    private boolean stopped;
    private long wanted;
    private Optional<IOException> broken = Optional.empty();

    Exchange(Wire wire) {
        this.wire = wire;
    }

    /**
     * Begins anew.
     *
     * @param millis after which to give up
     * @param firstCredits how many frames may be sent before the first is asked for
     */
    void begin(int millis, int firstCredits) {
        deadline = System.nanoTime() + millis * 1_000_000L;
        credits = firstCredits;
        stopped = false;
        wanted = Long.MIN_VALUE;
    }

    /**
     * Reads a piece of the file. The library calls it from native code, so nothing is thrown.
     *
     * @return how many bytes; 0 at the end, -1 to give up
     */
    int read(long position, ByteBuffer into) {
        if (!goesOn()) {
            return -1;
        }
        long asked = System.nanoTime();
        try {
            int most = Math.min(PIECE, into.remaining());
            wire.send(
                    Kind.NEED,
                    ByteBuffer.allocate(12).putLong(position).putInt(most).flip());
            while (true) {
                var kind = wire.receive(PIECE);
                var body = wire.body();
                if (kind == Kind.DATA) {
                    if (body.remaining() > most) {
                        throw new Wire.Broken("more than was asked for");
                    }
                    int n = body.remaining();
                    into.put(body);
                    deadline += System.nanoTime() - asked; // the file may be slow to come, which is not its fault
                    return n;
                }
                heed(kind, body);
                if (stopped) {
                    return -1;
                }
            }
        } catch (IOException e) {
            broken = Optional.of(e);
            return -1;
        }
    }

    boolean goesOn() {
        return !stopped && broken.isEmpty() && System.nanoTime() < deadline;
    }

    /** @throws IOException when the work is to end here */
    void checkGoesOn() throws IOException {
        if (broken.isPresent()) {
            throw broken.get();
        }
        if (stopped) {
            throw new Undecodable("stopped");
        }
        if (System.nanoTime() >= deadline) {
            throw new Undecodable("too slow");
        }
    }

    /**
     * Sends a frame when there is room for it at the other end.
     *
     * @return false when no more are wanted
     */
    boolean frame(int millisForTheNext, ByteBuffer... parts) throws IOException {
        while (credits == 0 && !stopped) {
            var kind = wire.receive(PIECE);
            heed(kind, wire.body());
        }
        if (stopped) {
            return false;
        }
        credits--;
        wire.send(Kind.FRAME, parts);
        deadline = System.nanoTime() + millisForTheNext * 1_000_000L;
        return true;
    }

    /** The time in microseconds before which frames are not wanted any more; it comes with each credit. */
    long wanted() {
        return wanted;
    }

    private void heed(Kind kind, ByteBuffer body) throws IOException {
        switch (kind) {
            case CREDIT -> {
                credits++;
                wanted = body.getLong();
            }
            case STOP -> stopped = true;
            default -> throw new Wire.Broken(kind + " while it works");
        }
    }
}
