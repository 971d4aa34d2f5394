package app.custodex.app;

import app.custodex.link.PhoneStatus;
import app.custodex.link.WebDavLink;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Supplier;

/** The bench's bays: one for each source that is known, each asked again and again how it is. */
public final class Bays implements AutoCloseable {
    private final Sources sources;
    private final Supplier<Path> strongroom;
    private final List<Bay> bays = new CopyOnWriteArrayList<>();
    private final Map<Bay, Thread> askers = new ConcurrentHashMap<>();
    private Optional<Runnable> onChange = Optional.empty();

    /** @param strongroom where it is at the moment */
    Bays(Sources sources, Supplier<Path> strongroom) throws IOException {
        this.sources = sources;
        this.strongroom = strongroom;
        for (var source : sources.all()) {
            bays.add(bay(source));
        }
    }

    private Bay bay(Source source) {
        return new Bay(source, source.link(strongroom));
    }

    public List<Bay> all() {
        return List.copyOf(bays);
    }

    /** Takes in what another program has put on the bench meanwhile. */
    public synchronized void refresh() throws IOException {
        for (var source : sources.all()) {
            var there = bays.stream()
                    .filter(bay -> bay.source().key().equals(source.key()))
                    .findFirst();
            if (there.filter(bay -> bay.source().equals(source)).isPresent()) {
                continue;
            }
            there.ifPresent(this::leave);
            var bay = bay(source);
            bays.add(bay);
            ask(bay);
        }
    }

    /** Begins to ask; each change is told, on threads of its own. */
    public synchronized void watch(Runnable newOnChange) {
        onChange = Optional.of(newOnChange);
        bays.forEach(this::ask);
    }

    private void ask(Bay bay) {
        onChange.ifPresent(told -> askers.computeIfAbsent(
                bay, b -> Thread.ofVirtual().name("bay-" + b.number()).start(() -> askAlways(b, told))));
    }

    private static void askAlways(Bay bay, Runnable told) {
        try {
            Optional<PhoneStatus> known = Optional.empty();
            while (!Thread.currentThread().isInterrupted()) {
                bay.ask();
                // Against what was told, not against the last answer: others ask, too.
                var now = bay.status();
                if (!now.equals(known)) {
                    known = now;
                    told.run();
                }
                Thread.sleep(bay.link().askEvery());
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /**
     * Puts a source on the bench, from the path of a folder or an archive, a web address, or "loft:" and an address.
     *
     * @param name what to call it; empty for a name of its own
     * @return its bay; the one where it is already, if it is
     */
    public synchronized Bay add(String written, String name) throws IOException {
        var source = sources.understood(written, name, strongroom.get());
        var there = bays.stream()
                .filter(bay -> bay.source().key().equals(source.key()))
                .findFirst();
        if (there.isPresent()) {
            return there.get();
        }
        sources.keep(source);
        var bay = bay(source);
        bays.add(bay);
        ask(bay);
        onChange.ifPresent(Runnable::run);
        return bay;
    }

    /** Takes a source off the bench; its layers stay. */
    public synchronized void remove(Bay bay) throws IOException {
        sources.remove(bay.source());
        leave(bay);
        onChange.ifPresent(Runnable::run);
    }

    private void leave(Bay bay) {
        bays.remove(bay);
        var asker = askers.remove(bay);
        if (asker != null) {
            asker.interrupt();
        }
        bay.link().close();
    }

    /** Accepts the certificate of a web address, now and from now on. */
    public void trust(Bay bay, String fingerprint) throws IOException {
        if (bay.link() instanceof WebDavLink dav) {
            dav.trust(fingerprint);
            sources.keep(bay.source().trusting(fingerprint));
            bay.ask();
        }
    }

    @Override
    public void close() {
        askers.values().forEach(Thread::interrupt);
        bays.forEach(bay -> bay.link().close());
    }
}
