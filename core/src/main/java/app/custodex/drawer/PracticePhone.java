package app.custodex.drawer;

import app.custodex.link.Family;
import java.io.IOException;
import java.net.URI;
import java.util.List;

/** A simulated phone on the table: it can be plugged in, looked at, tapped, slowed down and pulled off the cable. */
public interface PracticePhone {
    /** Speed without a brake. */
    long FULL_SPEED = 0;

    /** The connection stays, but nothing comes any more. */
    long STALLED = -1;

    String name();

    Family family();

    String model();

    /** Where it answers while it is plugged in; the same each time. */
    URI address();

    boolean pluggedIn();

    void plugIn() throws IOException;

    /** Breaks every connection at once, in the middle of an answer too. */
    void unplug();

    /** What its screen shows, from top to bottom. */
    List<String> screen();

    /** What can be done on its screen at the moment, in the order in which it is offered. */
    List<Tap> taps();

    void tap(Tap tap);

    /** @param bytesPerSecond how fast it reads; {@link #FULL_SPEED} for no brake, {@link #STALLED} for none at all */
    void slowDown(long bytesPerSecond);

    /** Adds new pictures of its own, as an owner would between two visits. */
    void takePhotos(int count) throws IOException;

    /** The key with which the owner's Burrow writes its copies: the customer keeps it on a slip of paper. */
    String burrowKey();

    /** Does every step of readiness by itself for any bench that asks, for use without a screen. */
    void makeReady();

    /**
     * Something to touch on the screen.
     *
     * @param id stays the same
     * @param label the words on the screen
     */
    record Tap(String id, String label) {}
}
