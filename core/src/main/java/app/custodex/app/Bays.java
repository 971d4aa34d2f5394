package app.custodex.app;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

/** The bench's bays: one for each phone that may be plugged in, each asked again and again how it is. */
public final class Bays implements AutoCloseable {
    private static final Duration ASK_EVERY = Duration.ofMillis(400);

    private final List<Bay> bays;
    private final List<Thread> askers = new ArrayList<>();

    Bays(Home home) throws IOException {
        var list = new ArrayList<Bay>();
        for (var address : home.addresses().values()) {
            list.add(new Bay(list.size() + 1, address));
        }
        bays = List.copyOf(list);
    }

    public List<Bay> all() {
        return bays;
    }

    /** Begins to ask; each change is told, on threads of its own. */
    public void watch(Runnable onChange) {
        for (var bay : bays) {
            askers.add(Thread.ofVirtual().name("bay-" + bay.number()).start(() -> {
                try {
                    while (!Thread.currentThread().isInterrupted()) {
                        if (bay.ask()) {
                            onChange.run();
                        }
                        Thread.sleep(ASK_EVERY);
                    }
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
            }));
        }
    }

    @Override
    public void close() {
        askers.forEach(Thread::interrupt);
        bays.forEach(bay -> bay.link().close());
    }
}
