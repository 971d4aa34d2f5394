package app.custodex.practice;

import app.custodex.drawer.PracticePhone;
import java.io.IOException;
import java.io.InterruptedIOException;
import java.util.concurrent.TimeUnit;

/** Lets bytes pass no faster than a phone with a slow store would. */
final class Brake {
    private long bytesPerSecond = PracticePhone.FULL_SPEED;
    /** {@link System#nanoTime} at which everything let through so far has passed. */
    private long free;

    synchronized void limit(long newBytesPerSecond) {
        bytesPerSecond = newBytesPerSecond;
        free = System.nanoTime();
        notifyAll();
    }

    private synchronized void standStill() throws InterruptedIOException {
        try {
            wait();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException("unplugged");
        }
    }

    void pass(int bytes) throws IOException {
        long wait;
        synchronized (this) {
            while (bytesPerSecond == PracticePhone.STALLED) {
                standStill();
            }
            if (bytesPerSecond == PracticePhone.FULL_SPEED) {
                return;
            }
            long now = System.nanoTime();
            free = Math.max(free, now) + bytes * TimeUnit.SECONDS.toNanos(1) / bytesPerSecond;
            wait = free - now;
        }
        try {
            TimeUnit.NANOSECONDS.sleep(wait);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new InterruptedIOException("unplugged");
        }
    }
}
